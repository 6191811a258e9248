export {
  FIELD_OPS,
  GIFT_MEASURES,
  MESSAGE_DEEDS,
  STRETCHES,
  UNITS,
  isGroup,
  linesOf,
  STANDARD_FIELDS,
  TREE_LIMITS,
  type BatchLine,
  type FieldLine,
  type FieldOp,
  type FieldRef,
  type ChapterLine,
  type LapsesLine,
  type MayLine,
  type GaveLine,
  type GiftMeasure,
  type MessageDeed,
  type MessageLine,
  type RosterLine,
  type SegmentLine,
  type Stretch,
  type Unit,
  type Group,
  type Line,
  type ListLine,
  type PermissionLine,
  type Rule,
  type TagLine,
  type Window,
} from './tree';
export { columnKey, NO_DAY, type Column, type ColumnKey, type Columns, type GiftsColumn, type MessagesColumn, type Reading } from './columns';
export { evaluate, narrow, trace, type Memo, type Narrowing, type Step, type Trace } from './evaluate';
export { expand, type Expanded } from './expand';
export { shift, stretchDays, windowDays, type DayRange } from './windows';
export { describe, describeWindow, explained, type Explanation, type Names } from './describe';
export { FIELD_OPS_BY_TYPE, STANDARD_FIELD_NAMES } from './operators';
