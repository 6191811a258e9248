import { parsePoint } from '../../common';
import { readAs, WRITTEN_AS_KEPT, type FieldKind } from '../field-kind';

function readPlace(text: string): string | null {
  const point = parsePoint(text);
  return point && `${point.latitude}, ${point.longitude}`;
}

/** A point on the map. */
export const placeKind: FieldKind = {
  ...WRITTEN_AS_KEPT,
  asks: ['within-km', 'filled', 'empty'],
  read: readAs(readPlace, 'value.place'),
};
