import { isoDay } from '../../common';
import { parseDate } from '../dates';
import { DAY_ASKS, fault, type FieldKind } from '../field-kind';
import { formatDay } from '../format';
import { bornOn } from './born';

/** A day. */
export const dateKind: FieldKind = {
  kept: 'date',
  asks: DAY_ASKS,
  dated: true,
  read: (text, { order = 'day-first', born, today }) => {
    const date = parseDate(text, order);
    if (date === null) return fault('value.date', text);
    return born ? bornOn(date, text, today) : { ok: true, value: { date } };
  },
  write: ({ date }, { locale }) => (date === undefined ? '' : formatDay(date, locale)),
  iso: ({ date }) => (date === undefined ? '' : isoDay(date)),
};
