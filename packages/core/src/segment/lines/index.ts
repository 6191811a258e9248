import type { Column, ColumnKey, EvaluationContext } from '../columns';
import type { LinePlan } from '../plan';
import { batchLine } from './batch';
import { chapterLine } from './chapter';
import { fieldLine } from './field';
import { gaveLine } from './gave';
import { lapsesLine } from './lapses';
import type { LineKind } from './line-kind';
import { listLine } from './list';
import { mayLine } from './may';
import { messageLine } from './message';
import { permissionLine } from './permission';
import { rosterLine } from './roster';
import { segmentLine } from './segment';
import { tagLine } from './tag';

/** Every kind of line that a segment can have. */
export const LINE_KINDS = {
  field: fieldLine,
  tag: tagLine,
  list: listLine,
  batch: batchLine,
  roster: rosterLine,
  chapter: chapterLine,
  permission: permissionLine,
  may: mayLine,
  lapses: lapsesLine,
  gave: gaveLine,
  message: messageLine,
  segment: segmentLine,
} as const;

type LineIn<K> = K extends LineKind<infer L> ? L : never;

/** One line of a segment. */
export type Line = LineIn<(typeof LINE_KINDS)[keyof typeof LINE_KINDS]>;
/** The line of a kind. */
export type LineOf<K extends Line['kind']> = Extract<Line, { kind: K }>;

/** The kind of a line, which takes lines of that kind alone; so a line and its kind go together. */
export const lineKindOf = (line: Line): LineKind<Line> => LINE_KINDS[line.kind] as LineKind<Line>;

/** The column that a line reads. */
export function columnKey(line: Line): ColumnKey {
  return lineKindOf(line).column(line);
}

/** What is done to a column for a line, worked out once for everybody. */
export function linePlan(line: Line, column: Column, context: EvaluationContext): LinePlan {
  return lineKindOf(line).plan(line, column, context);
}
