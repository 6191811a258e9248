import type { Language } from '@goodword/core/forms';
import { escapeHtml as e } from '@goodword/core/letter';
import { isListScope } from '@goodword/core/permission';
import { supporterPage } from '../platform/pages/page';
import { channelPhrase, phrase, PHRASES } from '../platform/pages/phrases';
import { type Phrases } from '../platform/pages/phrases-en';
import type { TokenDelivery } from './unsubscribe.repository';

function act(what: string, label: string, plain: boolean): string {
  return `<button name="what" value="${what}"${plain ? ' class="plain"' : ''}>${e(label)}</button>`;
}

/** A list by its own name, a purpose in the words of the page. */
function nameOf(delivery: TokenDelivery, p: Phrases): string {
  if (isListScope(delivery.scope) || delivery.scope === 'all' || delivery.scope === 'marketing')
    return delivery.scopeName;
  return p[delivery.scope];
}

/**
 * The page behind the footer link. It asks nothing, needs no script, and does nothing until a button is
 * pressed.
 */
export function leavePage(
  delivery: TokenDelivery,
  leaveStatus: { leftThis: boolean; leftAll: boolean; canUndo: boolean },
  page: { language: Language; choices: string },
): string {
  const p = PHRASES[page.language];
  const words = {
    organization: delivery.organization,
    what: nameOf(delivery, p),
    channel: channelPhrase(p, delivery.channel),
  };
  const say = (text: string) => e(phrase(text, words));
  const form = (inner: string) =>
    `<form method="post">${inner}</form><p><a href="${e(page.choices)}?lang=${page.language}">${e(p.chooseInstead)}</a></p>`;
  const whole = (title: string, body: string) =>
    supporterPage(phrase(title, words), `<h1>${say(title)}</h1>${body}`, { language: page.language });
  // Only what this very link closed can be undone here.
  const undo = leaveStatus.canUndo ? act('back', phrase(p.keep, words), true) : '';
  const mistake = leaveStatus.canUndo ? `<p class="small">${e(p.mistake)}</p>` : '';
  if (leaveStatus.leftAll)
    return whole(p.leftAllTitle, `<p>${say(p.leftAllBody)}</p>${form(undo)}${mistake}`);
  if (leaveStatus.leftThis)
    return whole(
      p.leftTitle,
      `<p>${say(p.leftBody)}</p>${form(undo + act('all', p.leaveAll, true))}${mistake}`,
    );
  return whole(
    p.leaveTitle,
    `<p>${say(p.leaveBody)}</p>${form(act('this', phrase(p.leaveThis, words), false) + act('all', p.leaveAll, true))}<p class="small">${e(p.leaveNothing)}</p>`,
  );
}

/** For links that are not ours, or of a test message. */
export function deadLinkPage(language: Language = 'en'): string {
  const p = PHRASES[language];
  return supporterPage(p.dead, `<h1>${e(p.dead)}</h1><p>${e(p.deadBody)}</p>`, { language });
}
