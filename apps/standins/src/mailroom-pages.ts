import type { CaughtMail } from './mail';
import { htmlText, standinPage } from './page';

const SHOWN = 200;

export function mailsPage(mails: readonly CaughtMail[], box: string): string {
  const mine = mails.filter((mail) => box === '' || mail.to === box.toLowerCase());
  const rows = [...mine]
    .reverse()
    .slice(0, SHOWN)
    .map(
      (mail) =>
        `<tr><td>${mail.at.toISOString().slice(11, 19)}</td><td><a href="/?box=${encodeURIComponent(mail.to)}">${htmlText(mail.to)}</a></td><td><a href="/mail/${mail.id}">${htmlText(mail.parsed.subject ?? '(none)')}</a></td></tr>`,
    );
  const search = `<form class="row"><label>Mailbox <input name="box" value="${htmlText(box)}" placeholder="someone@example.org"></label><button>Show</button></form>`;
  const table =
    rows.length === 0
      ? '<p>Nothing has arrived yet.</p>'
      : `<table><tr><th>Arrived (UTC)</th><th>For</th><th>Subject</th></tr>${rows.join('')}</table>`;
  return standinPage(
    'Mailroom',
    'simulated mailboxes',
    `<div><a href="/names">Names</a>${search}<p><small>${mine.length} mails, the newest ${Math.min(SHOWN, mine.length)} shown. Addresses that begin with refuse, defer, bounce, opens or follows do as they say.</small></p>${table}</div>`,
  );
}

/** The records of the domain name service, to be changed. */
export function namesPage(zone: string): string {
  return standinPage(
    'Mailroom',
    'a simulated domain name service',
    `<div><a href="/">All mail</a><p>One record a line: name, kind (TXT, MX or A), words.</p>
    <form method="post" action="/names"><label>Records<br><textarea name="zone" rows="14" style="width:100%;font:13px ui-monospace,monospace">${htmlText(zone)}</textarea></label><p><button>Save</button></p></form></div>`,
  );
}

export function mailPage(mail: CaughtMail): string {
  const { parsed } = mail;
  const act = (path: string, label: string) =>
    `<form method="post" action="/mail/${mail.id}/${path}"><button>${label}</button></form>`;
  const acts = `<div style="display:flex;gap:.5rem;flex-wrap:wrap">${act('open', 'Open it')}${act('follow', 'Follow its first link')}${act('one-click', 'Leave by one click')}${act('leave', 'Leave by mail')}${act('complain', 'Call it spam')}${act('bounce', 'Bounce it')}</div>
    <form class="row" method="post" action="/mail/${mail.id}/answer"><label>Answer <input name="words" size="50" placeholder="unsubscribe"></label><button>Send the answer</button></form>`;
  const head = `<div class="sheet"><b>${htmlText(parsed.subject ?? '')}</b><br>From ${htmlText(parsed.from?.text ?? '')}<br>To ${htmlText(mail.to)}</div>`;
  const frame = `<iframe sandbox="allow-popups allow-popups-to-escape-sandbox" title="The mail" srcdoc="${htmlText(`<base target="_blank">${parsed.html || `<pre>${htmlText(parsed.text ?? '')}</pre>`}`)}"></iframe>`;
  const headers = `<details class="sheet"><summary>Headers</summary><pre>${htmlText(parsed.headerLines.map((line) => line.line).join('\n'))}</pre></details>`;
  return standinPage('Mailroom', 'one mail', `<a href="/">All mail</a>${head}${acts}${frame}${headers}`);
}
