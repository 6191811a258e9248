import type { MergeSlot } from '../merge';
import { blocksOf } from './walk';
import { hrefsIn, letterTexts, type WrittenWords } from './written';

/** The amounts that somebody is asked for, by the names that merge fields know them by. */
export const ASK_NAMES = ['first', 'second', 'third'] as const;

/** The key of a person's values under which an amount stands. */
export const askKey = (name: (typeof ASK_NAMES)[number]): string => `ask.${name}`;

/** The page on which somebody gives, with the amount in its query: a plain number with a point. */
export function giftAddress(href: string, name: (typeof ASK_NAMES)[number]): string {
  const [page = '', anchor] = href.split('#', 2);
  const joined = `${page}${page.includes('?') ? '&' : '?'}amount={Ask: ${name}, as number}`;
  return anchor === undefined ? joined : `${joined}#${anchor}`;
}

/** Whether words ask for amounts anywhere: by buttons, or by a field. */
export function asksForAmounts({ subject, preheader, text, letter }: WrittenWords): boolean {
  if (blocksOf(letter?.content).some(({ type }) => type === 'gifts')) return true;
  const lines = [subject, preheader, text, ...letterTexts(letter), ...hrefsIn(letter)];
  return lines.some((line) => /\{\s*ask\s*:/i.test(line));
}

/** A button for each amount: what stands on it, and where it leads. */
export function giftLinks(href: string): { slot: MergeSlot; url: string }[] {
  return ASK_NAMES.map((name) => ({
    slot: { key: askKey(name), name: `Ask: ${name}`, or: '' },
    url: giftAddress(href, name),
  }));
}
