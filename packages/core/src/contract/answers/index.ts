import { flag, listOf, number, part, shape, text } from '../kinds';
import { explanation } from './of-core';

export * from './automations';
export * from './bulk';
export * from './calls';
export * from './comparisons';
export * from './inbox';
export * from './campaigns';
export * from './evidence';
export * from './feeds';
export * from './forms';
export * from './groups';
export * from './intake';
export * from './letter';
export * from './letters';
export * from './messages';
export * from './of-core';
export * from './permission';
export * from './problem';
export * from './record';
export * from './segments';
export * from './sender';
export * from './supporters';
export * from './team';
export * from './templates';
export * from './today';
export * from './together';
export { intakePlan } from '../intake';
export { listOf, pageOf } from '../kinds';

/** What was made. */
export const made = part({ id: number });
/** The version that a save made. */
export const saved = part({ version: number });
/** How many people it came to. */
export const counted = part({ people: number });
/** Where something was sent. */
export const sentTo = part({ to: text });
/** Whether it is open. */
export const openOrNot = part({ open: flag });
/** How a process is. */
export const health = part({ status: text });
/** An act on many that was begun. */
export const bulkBegun = part({ id: number, people: number });
/** A field that is gone, with this many values. */
export const valuesGone = part({ values: number });
/** What keeps a form from being opened. */
export const formSaved = part({ faults: listOf(part({ field: text, message: text })) });
/** How many of those whom a batch brought in would stay. */
export const staying = part({ staying: number });
/** How many rows a decision is about. */
export const decided = part({ rows: number });
/** A segment with the version that a save made. */
export const segmentSaved = part({ id: number, version: number });
/** The list that keeps who is in a segment now, and the act that fills it. */
export const snapshotBegun = part({ listId: number, bulkId: number, people: number });
/** Why one person is in a segment or not. */
export const whyInSegment = part({ name: text, words: text, holds: flag, inner: listOf(explanation) });
/** Somebody of the team, for those who hand something on. */
export const colleague = shape('Colleague', { id: number, name: text, email: text });
/** For how many days files are kept. */
export const retention = part({ days: number });
