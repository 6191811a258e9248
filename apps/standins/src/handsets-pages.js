'use strict';
Object.defineProperty(exports, '__esModule', { value: true });
exports.phonesPage = phonesPage;
const page_1 = require('./page');
const PHONES = 60;
/** The phones that were texted last, each with its conversation and a line to answer on. */
function phonesPage(texts, wanted) {
  const numbers = [...new Set([...texts].reverse().map((text) => text.number))].filter(
    (number) => wanted === '' || number.includes(wanted.replace(/[^\d+]/g, '')),
  );
  const phone = (number) => {
    const said = texts
      .filter((text) => text.number === number)
      .slice(-12)
      .map((text) => `<div class="said ${text.from}">${(0, page_1.escapeHtml)(text.body)}</div>`)
      .join('');
    return `<section class="sheet"><b>${(0, page_1.escapeHtml)(number)}</b>${said}<form class="row" method="post" action="/phones/${encodeURIComponent(number)}/answer"><input name="text" aria-label="Answer from ${(0, page_1.escapeHtml)(number)}" placeholder="Answer, or STOP" required><button>Send</button></form></section>`;
  };
  const search = `<form class="row"><label>Number <input name="phone" value="${(0, page_1.escapeHtml)(wanted)}" placeholder="+1 206 555 0101"></label><button>Show</button></form>`;
  const body =
    numbers.length === 0 ? '<p>No phone has been texted yet.</p>' : `<div class="phones">${numbers.slice(0, PHONES).map(phone).join('')}</div>`;
  return (0, page_1.page)(
    'Handsets',
    'simulated phones',
    `<div>${search}<p><small>${numbers.length} phones, the newest ${Math.min(PHONES, numbers.length)} shown. Numbers ending in 0198 can't be reached.</small></p>${body}</div>`,
  );
}
//# sourceMappingURL=handsets-pages.js.map
