import type { PermissionState, Scope, SendingChannel } from '../permission';

/** A segment: rules that keep themselves up to date. The same tree is the JSON of the API. */
export type Rule = Group | Line;

/** Rules of which all, one or none must hold. */
export interface Group {
  kind: 'all' | 'any' | 'none';
  rules: Rule[];
}

/** One line of a segment. */
export type Line =
  | FieldLine
  | TagLine
  | ListLine
  | BatchLine
  | RosterLine
  | ChapterLine
  | PermissionLine
  | MayLine
  | LapsesLine
  | GaveLine
  | MessageLine
  | SegmentLine;

/** The fields everybody has, beside custom ones (which are numbers). */
export const STANDARD_FIELDS = [
  'firstName',
  'lastName',
  'created',
  'updated',
  'country',
  'region',
  'postcode',
  'externalId',
  'household',
] as const;
/** A field by its id, or a standard one by its name. */
export type FieldRef = number | (typeof STANDARD_FIELDS)[number];

/**
 * What a line asks of a value, by the type of its field: text and choice (is … filled), several choices (has,
 * has-not), number and money (equals … between), date (on … anniversary), birthday (within-next, within-last,
 * ahead, in-month), yes/no (yes, no), place (within-km). Dates are ISO days, money minor units; "within",
 * "ahead" and "ago" count in whole days, weeks or months. "is-not" and "has-not" hold for people without a
 * value too.
 */
export const FIELD_OPS = [
  'is',
  'is-not',
  'contains',
  'begins',
  'equals',
  'at-least',
  'at-most',
  'between',
  'on',
  'before',
  'after',
  'within-next',
  'within-last',
  'ahead',
  'ago',
  'anniversary',
  'during',
  'in-month',
  'has',
  'has-not',
  'within-km',
  'yes',
  'no',
  'empty',
  'filled',
] as const;
/** What a line can ask of a field; which of them fit is told by `FIELD_OPS_BY_TYPE`. */
export type FieldOp = (typeof FIELD_OPS)[number];

/** A line that asks for the value of a field. */
export interface FieldLine {
  kind: 'field';
  field: FieldRef;
  op: FieldOp;
  value?: string | number;
  /** The upper end of "between"; of "within-km" the point, as "latitude, longitude". */
  to?: string | number;
  /** What "within", "ahead", "ago" and "anniversary" count in; days where nothing is said. */
  unit?: Unit;
}

/** Units of stretches of time in a line. */
export const UNITS = ['days', 'weeks', 'months'] as const;
export type Unit = (typeof UNITS)[number];

/**
 * Stretches of the calendar that a date can lie in. Fiscal years begin with the month that the organization
 * set.
 */
export const STRETCHES = [
  'this-month',
  'last-month',
  'next-month',
  'this-year',
  'last-year',
  'next-year',
  'this-fiscal-year',
  'last-fiscal-year',
] as const;
export type Stretch = (typeof STRETCHES)[number];

/** Has a tag, or has it not. */
export interface TagLine {
  kind: 'tag';
  tagId: number;
  has: boolean;
}

/** Is on a list, or is not. */
export interface ListLine {
  kind: 'list';
  listId: number;
  on: boolean;
}

/** Came in or was updated by a batch, or not. */
export interface BatchLine {
  kind: 'batch';
  batchId: number;
  in: boolean;
}

/** Has a state of permission for a channel and scope. */
export interface PermissionLine {
  kind: 'permission';
  channel: SendingChannel;
  scope: Scope;
  states: PermissionState[];
}

/** Whether a message may go to the person now: permission, address and house rules together. */
export interface MayLine {
  kind: 'may';
  channel: SendingChannel;
  scope: Scope;
  may: boolean;
}

/** The implied permission that the person is reached by lapses within so many days from today. */
export interface LapsesLine {
  kind: 'lapses';
  channel: SendingChannel;
  scope: Scope;
  days: number;
}

/** On a campaign's roster, with one of these stages; with any where none is named. */
export interface RosterLine {
  kind: 'roster';
  campaignId: number;
  stages: string[];
  on: boolean;
}

/** Belongs to one of some chapters. */
export interface ChapterLine {
  kind: 'chapter';
  chapterId: number;
  in: boolean;
}

/** A window of days: the last or next so many, a month or year, between two days, ever. */
export type Window =
  | { over: 'ever' | 'earlier-years' | Stretch }
  | { over: 'last-days' | 'last-weeks' | 'last-months'; days: number }
  /** Both ends, as ISO days, included. */
  | { over: 'between'; from: string; to: string };

/**
 * What of somebody's gifts in a window is looked at: their sum, their number, the largest; or the very first
 * or last of all.
 */
export const GIFT_MEASURES = ['sum', 'count', 'largest', 'first', 'last'] as const;
export type GiftMeasure = (typeof GIFT_MEASURES)[number];

/**
 * Giving in a window. "sum" adds refunds up too, as what they are; the others look at gifts alone. "first"
 * and "last" ask that the first or last gift of all lies in the window.
 */
export interface GaveLine {
  kind: 'gave';
  did: boolean;
  /** The sum where nothing is said. */
  measure?: GiftMeasure;
  /** Minor units, or a number of gifts, at the least; null for any gift. */
  atLeast: number | null;
  /** At the most; only of those who gave in the window at all. */
  atMost?: number | null;
  window: Window;
}

/** What somebody did with a message that a line can ask for. */
export const MESSAGE_EVENTS = ['got', 'opened', 'clicked', 'replied'] as const;
export type MessageEvent = (typeof MESSAGE_EVENTS)[number];

/** Messages got, opened, clicked or answered in a window: one of them, or so many of any. */
export interface MessageLine {
  kind: 'message';
  event: MessageEvent;
  did: boolean;
  /** One message; null for any. */
  messageId: number | null;
  /** So many different messages at the least. */
  atLeast: number;
  window: Window;
}

/** Another segment, as it stands at the moment of reading. */
export interface SegmentLine {
  kind: 'segment';
  segmentId: number;
  in: boolean;
}

/** Tells groups from lines. */
export function isGroup(rule: Rule): rule is Group {
  return rule.kind === 'all' || rule.kind === 'any' || rule.kind === 'none';
}

/** Every line of the tree, in reading order. */
export function segmentLines(rule: Rule): Line[] {
  return isGroup(rule) ? rule.rules.flatMap(segmentLines) : [rule];
}

/** Depth and size that a tree may have: deeper ones can't be read as a sentence. */
export const TREE_LIMITS = { depth: 4, lines: 40 } as const;

/** The same tree with each line replaced. */
export function mapLines(rule: Rule, change: (line: Line) => Line): Rule {
  return isGroup(rule) ? { ...rule, rules: rule.rules.map((one) => mapLines(one, change)) } : change(rule);
}
