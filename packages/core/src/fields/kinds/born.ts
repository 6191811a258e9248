import { dateParts, dayOf, type Day } from '../../common';
import { fault, type Coerced } from '../field-kind';

/**
 * Nobody was born tomorrow: `3/4/62` of a birthday is 1962, and a whole year that is still to come is a slip.
 */
export function bornOn(date: Day, text: string, today: Day | undefined): Coerced {
  if (today === undefined || date <= today) return { ok: true, value: { date } };
  const { year, month, day } = dateParts(date);
  const before = text.includes(String(year)) ? null : dayOf(year - 100, month, day);
  return before === null ? fault('value.born', text) : { ok: true, value: { date: before } };
}
