import { dateParts, type Day } from '../../common';
import { parseDate, type DateOrder } from '../dates';
import { fault, type Coerced, type FieldKind } from '../field-kind';
import { formatMonthDay } from '../format';
import { bornOn } from './born';

/** A birthday is read from a whole date or from day and month alone (`29 February`, `29/02`). */
function coerceBirthday(text: string, order: DateOrder, today: Day | undefined): Coerced {
  const leapYear = '2000';
  const whole = parseDate(text, order);
  if (whole !== null) {
    const born = bornOn(whole, text, today);
    if (!born.ok) return born;
  }
  const date =
    whole ??
    parseDate(`${text} ${leapYear}`, order) ??
    parseDate(`${text}/${leapYear}`, order) ??
    parseDate(text.replace(/^--?(\d\d)-(\d\d)$/, `${leapYear}-$1-$2`), order);
  if (date === null) return fault('value.birthday', text);
  const { month, day } = dateParts(date);
  return { ok: true, value: { monthDay: month * 100 + day } };
}

const two = (n: number) => String(n).padStart(2, '0');

/** A day of any year. */
export const birthdayKind: FieldKind = {
  kept: 'monthDay',
  asks: ['within-next', 'within-last', 'ahead', 'in-month', 'filled', 'empty'],
  dated: true,
  read: (text, { order = 'day-first', today }) => coerceBirthday(text, order, today),
  write: ({ monthDay }, { locale }) => (monthDay === undefined ? '' : formatMonthDay(monthDay, locale)),
  iso: ({ monthDay }) =>
    monthDay === undefined ? '' : `--${two(Math.floor(monthDay / 100))}-${two(monthDay % 100)}`,
};
