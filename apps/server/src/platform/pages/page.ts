import { escapeHtml } from '@goodword/core/letter';
import type { Language } from '@goodword/core/forms';

/** The one style of every page that supporters see: works from 320 px, no script, no font to load. */
const STYLE = `
*{box-sizing:border-box}
body{margin:0;background:#E6EAE7;color:#17252B;font:17px/1.5 system-ui,sans-serif}
main{max-width:38rem;margin:6vh auto;padding:2rem 1.5rem;background:#fff;border:1px solid #D3DAD6;
  border-radius:4px;overflow-wrap:anywhere}
h1{font-size:1.6rem;line-height:1.2;margin:0 0 .75rem}
h2{font-size:1.15rem;margin:1.75rem 0 .5rem;border-top:1px solid #D3DAD6;padding-top:1.25rem}
p{margin:0 0 1rem}
button,.button{display:inline-block;font:600 1rem/1.2 system-ui,sans-serif;padding:.85rem 1.2rem;
  border-radius:4px;border:1px solid #17252B;background:#17252B;color:#fff;cursor:pointer;
  margin:0 .5rem .75rem 0;text-decoration:none}
button.plain{background:#fff;color:#17252B}
:focus-visible{outline:3px solid #0F766B;outline-offset:2px}
small,.small{color:#51626A;font-size:.9rem}
label.field,fieldset.field{display:block;margin:0 0 1rem;font-weight:600}
fieldset.field{border:0;padding:0;min-width:0}
fieldset.field legend{padding:0}
.field small{display:block;font-weight:400}
input[type=text],input[type=email],input[type=tel],input[type=date],input[type=number],
  input[type=url],input[type=datetime-local],textarea,select{display:block;width:100%;font:inherit;
  font-weight:400;padding:.6rem .7rem;border:1px solid #51626A;border-radius:4px;background:#fff;
  color:inherit;margin-top:.3rem}
.part{display:block;font-weight:400;font-size:.95rem;margin-top:.5rem}
.two{display:grid;grid-template-columns:1fr 1fr;gap:0 .8rem}
@media(max-width:24rem){.two{grid-template-columns:1fr}}
fieldset.field .check{margin:.5rem 0 0;font-weight:400}
.check{display:flex;gap:.7rem;align-items:flex-start;margin:0 0 1rem}
.check input{width:1.4rem;height:1.4rem;flex:none;margin:.1rem 0 0;accent-color:#0F766B}
.check span{flex:1}
.fault{color:#A62B45;font-weight:600}
[aria-invalid=true]{border-color:#A62B45;border-width:2px}
.done{border-left:4px solid #0F766B;padding-left:.8rem}
.hp{position:absolute;left:-6000px;top:auto;width:1px;height:1px;overflow:hidden}
.logo{display:block;max-width:220px;max-height:72px;margin:0 0 1.2rem}
.lang a{margin-right:.8rem}
details summary{cursor:pointer;font-weight:600;margin-bottom:.8rem}
@media(max-width:40rem){main{margin:0;border:0;min-height:100vh;border-radius:0}}
.framed{background:#fff}
.framed main{margin:0;border:0;min-height:0}`;

/** The picture at the head of a page, and whose it is. */
export interface PageLogo {
  src: string;
  of: string;
}

/** A page for supporters. `body` is HTML that the caller has escaped. */
export function supporterPage(
  title: string,
  body: string,
  options: { language?: Language; framed?: boolean; script?: string; logo?: PageLogo | null } = {},
): string {
  const logo = options.logo
    ? `<img class="logo" src="${escapeHtml(options.logo.src)}" alt="${escapeHtml(options.logo.of)}">`
    : '';
  const script = options.script ? `<script src="${options.script}" defer></script>` : '';
  return `<!doctype html><html lang="${options.language ?? 'en'}"><head><meta charset="utf-8">
<meta name="viewport" content="width=device-width,initial-scale=1">
<meta name="robots" content="noindex"><meta name="referrer" content="no-referrer">
<title>${escapeHtml(title)}</title><style>${STYLE}</style>${script}</head>
<body${options.framed ? ' class="framed"' : ''}><main>${logo}${body}</main></body></html>`;
}

/** Text made safe for HTML, with its lines kept. */
export function lines(text: string): string {
  return escapeHtml(text).replace(/\n/g, '<br>');
}

/**
 * The language of a page: asked for, else the first that the browser likes and we have, else the one given.
 */
export function languageOf(
  request: { query: unknown; headers: Record<string, unknown> },
  known: readonly Language[],
  otherwise: Language,
): Language {
  const asked = (request.query as { lang?: unknown }).lang;
  if (known.includes(asked as Language)) return asked as Language;
  const liked = ((request.headers['accept-language'] as string | undefined) ?? '')
    .split(',')
    .map((part) => part.trim().slice(0, 2).toLowerCase());
  return (liked.find((one) => known.includes(one as Language)) as Language | undefined) ?? otherwise;
}
