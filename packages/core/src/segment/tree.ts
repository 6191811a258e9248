import type { PermissionState, Scope, SendingChannel } from '../permission';

/** A segment: rules that keep themselves up to date. The same tree is the JSON of the API. */
export type Rule = Group | Line;

export interface Group {
  kind: 'all' | 'any' | 'none';
  rules: Rule[];
}

export type Line = FieldLine | TagLine | ListLine | BatchLine | PermissionLine | MayLine | LapsesLine | GaveLine;

/** The fields everybody has, beside custom ones (which are numbers). */
export const STANDARD_FIELDS = ['firstName', 'lastName', 'created'] as const;
export type FieldRef = number | (typeof STANDARD_FIELDS)[number];

/**
 * What a line asks of a value, by the type of its field: text and choice (is … filled), number and money (equals …
 * between), date (on … within-last), birthday (within-next, in-month), yes/no (yes, no). Days and months are whole
 * numbers, dates ISO days, money minor units. "is-not" holds for people without a value too.
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
  'in-month',
  'yes',
  'no',
  'empty',
  'filled',
] as const;
export type FieldOp = (typeof FIELD_OPS)[number];

export interface FieldLine {
  kind: 'field';
  field: FieldRef;
  op: FieldOp;
  value?: string | number;
  /** The upper end of "between". */
  to?: string | number;
}

export interface TagLine {
  kind: 'tag';
  tagId: number;
  has: boolean;
}

export interface ListLine {
  kind: 'list';
  listId: number;
  on: boolean;
}

export interface BatchLine {
  kind: 'batch';
  batchId: number;
  in: boolean;
}

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

export type Window = { over: 'ever' | 'this-year' | 'last-year' | 'earlier-years' } | { over: 'last-days'; days: number };

export interface GaveLine {
  kind: 'gave';
  did: boolean;
  /** Minor units that the gifts in the window add up to at the least; null for any gift. */
  atLeast: number | null;
  window: Window;
}

export function isGroup(rule: Rule): rule is Group {
  return rule.kind === 'all' || rule.kind === 'any' || rule.kind === 'none';
}

/** Every line of the tree, in reading order. */
export function linesOf(rule: Rule): Line[] {
  return isGroup(rule) ? rule.rules.flatMap(linesOf) : [rule];
}

/** Depth and size that a tree may have: deeper ones can't be read as a sentence. */
export const TREE_LIMITS = { depth: 4, lines: 40 } as const;
