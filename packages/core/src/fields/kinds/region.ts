import { CHOICE_ASKS, readAs, WRITTEN_AS_KEPT, type FieldKind } from '../field-kind';
import { readRegion, regionName } from '../regions';

/** A region of a country, by its code. */
export const regionKind: FieldKind = {
  ...WRITTEN_AS_KEPT,
  asks: CHOICE_ASKS,
  read: readAs(readRegion, 'value.region'),
  write: ({ text }, { locale }) => (text ? regionName(text, locale) : ''),
};
