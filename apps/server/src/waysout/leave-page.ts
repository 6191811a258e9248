import { escapeHtml } from '@goodword/core/letter';
import { CHANNEL_WORDS } from '@goodword/core/permission';
import type { TokenDelivery } from './waysout.repository';

const STYLE = `body{margin:0;background:#E6EAE7;color:#17252B;font:17px/1.5 system-ui,sans-serif}
main{max-width:34rem;margin:8vh auto;padding:2rem 1.5rem;background:#fff;border:1px solid #D3DAD6;border-radius:4px}
h1{font-size:1.5rem;line-height:1.2;margin:0 0 .75rem}p{margin:0 0 1rem}
button{font:600 1rem/1 system-ui,sans-serif;padding:.9rem 1.2rem;border-radius:4px;border:1px solid #17252B;background:#17252B;color:#fff;cursor:pointer;margin:0 .5rem .75rem 0}
button.plain{background:#fff;color:#17252B}button:focus-visible{outline:3px solid #0F766B;outline-offset:2px}small{color:#51626A;font-size:.9rem}
@media(max-width:36rem){main{margin:0;border:0;min-height:100vh;border-radius:0}}`;

function page(title: string, body: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex">
<title>${escapeHtml(title)}</title><style>${STYLE}</style></head><body><main>${body}</main></body></html>`;
}

function act(what: string, label: string, plain: boolean): string {
  return `<button name="what" value="${what}"${plain ? ' class="plain"' : ''}>${escapeHtml(label)}</button>`;
}

/** The page behind the footer link. It asks nothing, needs no script, and does nothing until a button is pressed. */
export function leavePage(delivery: TokenDelivery, standing: { leftThis: boolean; leftAll: boolean }): string {
  const channel = CHANNEL_WORDS[delivery.channel].toLowerCase();
  const what = escapeHtml(delivery.scopeName);
  const from = escapeHtml(delivery.organization);
  const form = (inner: string) => `<form method="post">${inner}</form>`;
  if (standing.leftAll) {
    return page(
      'You have left',
      `<h1>You have left</h1><p>${from} will send you nothing more by ${channel}.</p>${form(act('back', `Keep sending me ${delivery.scopeName}`, true))}<p><small>Pressed by mistake? The button brings you back.</small></p>`,
    );
  }
  if (standing.leftThis) {
    return page(
      'You have left',
      `<h1>You have left ${what}</h1><p>${from} will send you no more ${what} by ${channel}. What else you agreed to goes on.</p>${form(act('back', `Keep sending me ${delivery.scopeName}`, true) + act('all', 'Send me nothing at all', true))}`,
    );
  }
  return page(
    `Leave ${delivery.scopeName}`,
    `<h1>No more ${what}?</h1><p>One press, and ${from} sends you no more ${what} by ${channel}.</p>${form(act('this', `Leave ${delivery.scopeName}`, false) + act('all', 'Leave everything', true))}<p><small>Nothing happens until you press a button.</small></p>`,
  );
}

/** For links that are not ours, or of a test message. */
export function deadLinkPage(): string {
  return page(
    'This link leads nowhere',
    '<h1>This link leads nowhere</h1><p>It was cut short on the way, or it stood in a test. Use the link in the message you got, or answer that message with the word “unsubscribe”.</p>',
  );
}
