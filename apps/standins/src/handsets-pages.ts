import type { Text } from './text';
import { htmlText, standinPage } from './page';

const PHONES = 60;

/** The phones that were texted last, each with its conversation and a line to answer on. */
export function phonesPage(texts: readonly Text[], wanted: string): string {
  const numbers = [...new Set([...texts].reverse().map((text) => text.number))].filter(
    (number) => wanted === '' || number.includes(wanted.replace(/[^\d+]/g, '')),
  );
  const phone = (number: string) => {
    const said = texts
      .filter((text) => text.number === number)
      .slice(-12)
      .map((text) => `<div class="said ${text.from}">${htmlText(text.body)}</div>`)
      .join('');
    return `<section class="sheet"><b>${htmlText(number)}</b>${said}<form class="row" method="post" action="/phones/${encodeURIComponent(number)}/answer"><input name="text" aria-label="Answer from ${htmlText(number)}" placeholder="Answer, or STOP" required><button>Send</button></form></section>`;
  };
  const search = `<form class="row"><label>Number <input name="phone" value="${htmlText(wanted)}" placeholder="+1 206 555 0101"></label><button>Show</button></form>`;
  const body =
    numbers.length === 0
      ? '<p>No phone has been texted yet.</p>'
      : `<div class="phones">${numbers.slice(0, PHONES).map(phone).join('')}</div>`;
  return standinPage(
    'Handsets',
    'simulated phones',
    `<div>${search}<p><small>${numbers.length} phones, the newest ${Math.min(PHONES, numbers.length)} shown. Numbers ending in 0198 can't be reached.</small></p>${body}</div>`,
  );
}
