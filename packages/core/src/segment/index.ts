export { isGroup, segmentLines, mapLines, TREE_LIMITS, type Group, type Rule } from './tree';
export { columnKey, lineKindOf, LINE_KINDS, type Line, type LineOf } from './lines';
export {
  NAMED_KINDS,
  type LineKind,
  type NamedKind,
  type NamedThing,
  type Names,
  type PermissionSubject,
} from './lines/line-kind';
export { type BatchLine } from './lines/batch';
export { type ChapterLine } from './lines/chapter';
export { type FieldLine } from './lines/field-line';
export { type GaveLine } from './lines/gave';
export { type LapsesLine } from './lines/lapses';
export { type ListLine } from './lines/list';
export { type MayLine } from './lines/may';
export { MESSAGE_EVENTS, type MessageEvent, type MessageLine } from './lines/message';
export { type PermissionLine } from './lines/permission';
export { type RosterLine } from './lines/roster';
export { type SegmentLine } from './lines/segment';
export { type TagLine } from './lines/tag';
export { GIFT_MEASURES, type GiftMeasure } from './plan';
export { STANDARD_FIELDS, STANDARD_FIELD_TYPES, type FieldRef } from './standard-fields';
export {
  narrowAmounts,
  runningTotals,
  NO_DAY,
  type Column,
  type ColumnKey,
  type Columns,
  type GiftsColumn,
  type MessagesColumn,
  type EvaluationContext,
} from './columns';
export {
  evaluate,
  narrow,
  trace,
  type EvaluationCache,
  type Narrowing,
  type NarrowingStep,
  type Trace,
} from './evaluate';
export { expand, type Expanded } from './expand';
export {
  shift,
  STRETCHES,
  stretchDays,
  UNITS,
  windowDays,
  windowSaid,
  type DayRange,
  type Stretch,
  type Unit,
  type Window,
} from './windows';
export { PEOPLE_ORDERS } from './people-orders';
