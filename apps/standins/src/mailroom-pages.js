'use strict';
Object.defineProperty(exports, '__esModule', { value: true });
exports.mailsPage = mailsPage;
exports.mailPage = mailPage;
const page_1 = require('./page');
const SHOWN = 200;
function mailsPage(mails, box) {
  const mine = mails.filter((mail) => box === '' || mail.to === box.toLowerCase());
  const rows = [...mine]
    .reverse()
    .slice(0, SHOWN)
    .map(
      (mail) =>
        `<tr><td>${mail.at.toISOString().slice(11, 19)}</td><td><a href="/?box=${encodeURIComponent(mail.to)}">${(0, page_1.escapeHtml)(mail.to)}</a></td><td><a href="/mail/${mail.id}">${(0, page_1.escapeHtml)(mail.parsed.subject ?? '(none)')}</a></td></tr>`,
    );
  const search = `<form class="row"><label>Mailbox <input name="box" value="${(0, page_1.escapeHtml)(box)}" placeholder="someone@example.org"></label><button>Show</button></form>`;
  const table =
    rows.length === 0
      ? '<p>Nothing has arrived yet.</p>'
      : `<table><tr><th>Arrived (UTC)</th><th>For</th><th>Subject</th></tr>${rows.join('')}</table>`;
  return (0, page_1.page)(
    'Mailroom',
    'simulated mailboxes',
    `<div>${search}<p><small>${mine.length} mails, the newest ${Math.min(SHOWN, mine.length)} shown. Addresses that begin with refuse, defer, bounce, opens or follows do as they say.</small></p>${table}</div>`,
  );
}
function mailPage(mail) {
  const { parsed } = mail;
  const act = (path, label) => `<form method="post" action="/mail/${mail.id}/${path}"><button>${label}</button></form>`;
  const acts = `<div style="display:flex;gap:.5rem;flex-wrap:wrap">${act('open', 'Open it')}${act('follow', 'Follow its first link')}${act('one-click', 'Leave by one click')}${act('leave', 'Leave by mail')}${act('complain', 'Call it spam')}${act('bounce', 'Bounce it')}</div>
    <form class="row" method="post" action="/mail/${mail.id}/answer"><label>Answer <input name="words" size="50" placeholder="unsubscribe"></label><button>Send the answer</button></form>`;
  const head = `<div class="sheet"><b>${(0, page_1.escapeHtml)(parsed.subject ?? '')}</b><br>From ${(0, page_1.escapeHtml)(parsed.from?.text ?? '')}<br>To ${(0, page_1.escapeHtml)(mail.to)}</div>`;
  const frame = `<iframe sandbox="allow-popups allow-popups-to-escape-sandbox" title="The mail" srcdoc="${(0, page_1.escapeHtml)(`<base target="_blank">${parsed.html || `<pre>${(0, page_1.escapeHtml)(parsed.text ?? '')}</pre>`}`)}"></iframe>`;
  const headers = `<details class="sheet"><summary>Headers</summary><pre>${(0, page_1.escapeHtml)(parsed.headerLines.map((line) => line.line).join('\n'))}</pre></details>`;
  return (0, page_1.page)('Mailroom', 'one mail', `<a href="/">All mail</a>${head}${acts}${frame}${headers}`);
}
//# sourceMappingURL=mailroom-pages.js.map
