import type { MergeSlot } from '../merge';

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

/** A button for each amount: what stands on it, and where it leads. */
export function giftLinks(href: string): { slot: MergeSlot; url: string }[] {
  return ASK_NAMES.map((name) => ({
    slot: { key: askKey(name), name: `Ask: ${name}`, or: '' },
    url: giftAddress(href, name),
  }));
}
