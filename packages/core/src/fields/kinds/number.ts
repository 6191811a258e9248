import { fault, NUMBER_ASKS, type FieldKind } from '../field-kind';
import { parseNumber } from '../numbers';

/** A number. */
export const numberKind: FieldKind = {
  kept: 'number',
  asks: NUMBER_ASKS,
  read: (text) => {
    const number = parseNumber(text);
    return number === null ? fault('value.number', text) : { ok: true, value: { number } };
  },
  write: ({ number }, { locale }) =>
    number === undefined ? '' : new Intl.NumberFormat(locale).format(number),
  // Three digits behind the point would read as thousands.
  iso: ({ number }) => (number === undefined ? '' : String(number).replace(/(\.\d{3})$/, '$10')),
};
