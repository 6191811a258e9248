import { isoDay } from '../../common';
import { parseDate, type DateOrder } from '../dates';
import { DAY_ASKS, fault, type Coerced, type FieldKind } from '../field-kind';
import { clockText, formatMoment } from '../format';

const CLOCK =
  /[T ,]{1,5}(?:at |um |à )?(?<hour>\d{1,2})(?:[:.h](?<minute>\d{2}))?(?:[:.]\d{2}(?:[.,]\d{1,9})?)?\s{0,3}(?<half>[ap]\.?m\.?)?(?: uhr|Z)?$/i;

/**
 * A date with a time of day, on the clock of the place where it is: no zone is kept, and one that is given is
 * not looked at.
 */
function coerceMoment(text: string, order: DateOrder): Coerced {
  const clock = CLOCK.exec(text);
  const date = parseDate(clock ? text.slice(0, clock.index) : text, order);
  const { hour, minute = '0', half } = clock?.groups ?? {};
  const twelve = half ? (Number(hour) % 12) + (/^p/i.test(half) ? 12 : 0) : Number(hour);
  if (date === null || !clock || twelve > 23 || Number(minute) > 59) return fault('value.moment', text);
  return { ok: true, value: { date, number: twelve * 60 + Number(minute) } };
}

/** A day and a minute of it. */
export const dateTimeKind: FieldKind = {
  kept: 'date',
  asks: DAY_ASKS,
  dated: true,
  read: (text, { order = 'day-first' }) => coerceMoment(text, order),
  write: ({ date, number }, { locale }) =>
    date === undefined ? '' : formatMoment(date, number ?? 0, locale),
  iso: ({ date, number }) => (date === undefined ? '' : `${isoDay(date)} ${clockText(number ?? 0)}`),
};
