import type { Channel, Scope } from '../permission';

/** What sets an automatic message going for one person. */
export type Cause =
  | { kind: 'list'; listId: number }
  | { kind: 'form'; formId: number }
  | { kind: 'gift'; which: GiftWhich; atLeast: number | null }
  | { kind: 'tag'; tagId: number; by: number | null }
  | { kind: 'date'; fieldId: number; days: number; yearly: boolean }
  | { kind: 'lapses'; channel: Channel; scope: Scope; days: number }
  | { kind: 'stage'; campaignId: number; stage: string }
  | { kind: 'quiet'; months: number }
  | { kind: 'keyword'; word: string }
  | { kind: 'click'; messageId: number };
/** The kinds of causes. */
export type CauseKind = Cause['kind'];
/** The cause of a kind. */
export type CauseOf<K extends CauseKind> = Extract<Cause, { kind: K }>;

/** Which gifts: any, somebody's first, each one after it, the first of a recurring row. */
export const GIFT_WHICH = ['any', 'first', 'again', 'recurring'] as const;
export type GiftWhich = (typeof GIFT_WHICH)[number];

interface CauseTraits {
  /** They have done it themselves, so that a service message answers what they set going. */
  own: boolean;
  /** It happens on a day, not at a moment: it is looked for once on each. */
  daily: boolean;
  /** Usually each time it happens, and not once for each person. */
  again: boolean;
  /**
   * What it sends could set it going once more without anybody: programs that look through mail follow links.
   * Once for each person, then, whatever is said: two of them would send to each other for ever.
   */
  couldLoop?: true;
}

/** What is so of each kind of cause. */
export const CAUSES: Readonly<Record<CauseKind, CauseTraits>> = {
  list: { own: true, daily: false, again: false },
  form: { own: true, daily: false, again: false },
  gift: { own: true, daily: false, again: true },
  tag: { own: false, daily: false, again: false },
  date: { own: false, daily: true, again: true },
  lapses: { own: false, daily: true, again: true },
  stage: { own: false, daily: false, again: false },
  quiet: { own: false, daily: true, again: false },
  keyword: { own: true, daily: false, again: true },
  click: { own: true, daily: false, again: false, couldLoop: true },
};
/** All of them, in the order in which they are offered. */
export const CAUSE_KINDS = Object.keys(CAUSES) as CauseKind[];

/** Whether it comes each time it happens, where somebody said so. */
export const comesAgain = ({ kind }: Cause, again: boolean): boolean =>
  again && CAUSES[kind].couldLoop !== true;

/** Bounds of what a cause can say: days before or after a date, days and months ahead and back. */
export const CAUSE_LIMITS = { days: 400, months: 60, word: 30 } as const;
