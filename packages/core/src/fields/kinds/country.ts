import { countryName, readCountry } from '../countries';
import { CHOICE_ASKS, readAs, WRITTEN_AS_KEPT, type FieldKind } from '../field-kind';

/** A country, by its code. */
export const countryKind: FieldKind = {
  ...WRITTEN_AS_KEPT,
  asks: CHOICE_ASKS,
  read: readAs(readCountry, 'value.country'),
  write: ({ text }, { locale }) => (text ? countryName(text, locale) : ''),
};
