import type { FieldOp } from '../../fields';
import type { FieldRef } from '../standard-fields';
import type { Unit } from '../windows';

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
