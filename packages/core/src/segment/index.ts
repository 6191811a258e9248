export {
  FIELD_OPS,
  isGroup,
  linesOf,
  STANDARD_FIELDS,
  TREE_LIMITS,
  type BatchLine,
  type FieldLine,
  type FieldOp,
  type FieldRef,
  type GaveLine,
  type Group,
  type Line,
  type ListLine,
  type PermissionLine,
  type Rule,
  type TagLine,
  type Window,
} from './tree';
export { columnKey, NO_DAY, type Column, type ColumnKey, type Columns, type Reading } from './columns';
export { evaluate, narrow, windowDays, type Narrowing } from './evaluate';
export { describe, describeWindow, explain, type Explanation, type Names } from './describe';
export { FIELD_OPS_BY_TYPE } from './operators';
