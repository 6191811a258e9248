import {
  dateParts,
  daysSinceBirthday,
  daysToBirthday,
  distanceKm,
  keptOn,
  parseIsoDay,
  parsePoint,
  type Day,
} from '../../common';
import { CHOICE_SEPARATOR } from '../../fields';
import { NO_DAY, type EvaluationContext } from '../columns';
import { daysPlan, type LinePlan } from '../plan';
import { shift, stretchDays, type DayRange, type Stretch } from '../windows';
import type { FieldLine } from './field-line';

function misuse(line: FieldLine, kind: string): never {
  throw new Error(`expected an operator for a ${kind} field, got "${line.op}"`);
}

/** Texts: the dictionary is tested once, the people by code. */
export function textPlan(line: FieldLine, column: { codes: Uint32Array; dictionary: string[] }): LinePlan {
  const wanted = String(line.value ?? '')
    .trim()
    .toLowerCase();
  return {
    kind: 'table',
    codes: column.codes,
    passes: Uint8Array.from(column.dictionary, (text) => Number(textPasses(line, text, wanted))),
  };
}

function textPasses(line: FieldLine, text: string, wanted: string): boolean {
  switch (line.op) {
    case 'is':
      return text === wanted;
    case 'is-not':
      return text !== wanted;
    case 'contains':
      return text.includes(wanted);
    case 'begins':
      return text.startsWith(wanted);
    case 'has':
      return text.split(CHOICE_SEPARATOR).includes(wanted);
    case 'has-not':
      return !text.split(CHOICE_SEPARATOR).includes(wanted);
    case 'within-km':
      return isNear(text, line);
    case 'empty':
      return text === '';
    case 'filled':
      return text !== '';
    default:
      return misuse(line, 'text');
  }
}

function isNear(text: string, line: FieldLine): boolean {
  const [here, there] = [parsePoint(text), parsePoint(String(line.to ?? ''))];
  return here !== null && there !== null && distanceKm(here, there) <= Number(line.value);
}

/** Numbers: those within bounds. */
export function numberPlan(line: FieldLine, values: Float64Array): LinePlan {
  const range = (from: number, to: number, wanted = true): LinePlan => ({
    kind: 'range',
    values,
    from,
    to,
    wanted,
  });
  const [value, to] = [Number(line.value), Number(line.to)];
  switch (line.op) {
    case 'equals':
      return range(value, value);
    case 'at-least':
      return range(value, Infinity);
    case 'at-most':
      return range(-Infinity, value);
    case 'between':
      return range(value, to);
    case 'yes':
      return range(1, 1);
    case 'no':
      return range(0, 0);
    case 'empty':
      return range(-Infinity, Infinity, false);
    case 'filled':
      return range(-Infinity, Infinity);
    default:
      return misuse(line, 'number');
  }
}

/** Days: those of a range. */
export function dayPlan(line: FieldLine, values: Int32Array, context: EvaluationContext): LinePlan {
  switch (line.op) {
    case 'empty':
      return daysPlan(values, { from: NO_DAY, end: NO_DAY + 1 });
    case 'filled':
      return daysPlan(values, { from: NO_DAY + 1, end: Infinity });
    case 'anniversary':
      return anniversaryPlan(line, values, context);
    default: {
      // A date that is none asks for no day.
      return daysPlan(values, dayRange(line, context) ?? { from: 0, end: 0 });
    }
  }
}

/** The days that a line about a date asks for; null where its own date is none. */
function dayRange(line: FieldLine, context: EvaluationContext): DayRange | null {
  const { today } = context;
  const at = typeof line.value === 'string' ? parseIsoDay(line.value) : null;
  const n = Number(line.value);
  switch (line.op) {
    case 'on':
      return at === null ? null : { from: at, end: at + 1 };
    case 'before':
      return at === null ? null : { from: NO_DAY + 1, end: at };
    case 'after':
      return at === null ? null : { from: at + 1, end: Infinity };
    case 'between': {
      const to = typeof line.to === 'string' ? parseIsoDay(line.to) : null;
      return at === null || to === null ? null : { from: at, end: to + 1 };
    }
    case 'within-next':
      return { from: today, end: shift(today, n, line.unit) + 1 };
    case 'within-last':
      return { from: shift(today, -n, line.unit), end: today + 1 };
    case 'ahead':
      return { from: shift(today, n, line.unit), end: shift(today, n, line.unit) + 1 };
    case 'ago':
      return { from: shift(today, -n, line.unit), end: shift(today, -n, line.unit) + 1 };
    case 'during':
      return stretchDays(line.value as Stretch, context);
    default:
      return misuse(line, 'date');
  }
}

/** Month-days (101 to 1231) that pass, worked out once: there are 366 of them. */
function monthDays(passes: (monthDay: number) => boolean): Uint8Array {
  const out = new Uint8Array(1232);
  for (let md = 101; md <= 1231; md++) if (isMonthDay(md) && passes(md)) out[md] = 1;
  return out;
}

function isMonthDay(md: number): boolean {
  const day = md % 100;
  const longest = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][Math.floor(md / 100) - 1] ?? 0;
  return day >= 1 && day <= longest;
}

/**
 * The day comes round again within so long; the year itself, when nothing has come round yet, does not count.
 */
function anniversaryPlan(line: FieldLine, values: Int32Array, { today }: EvaluationContext): LinePlan {
  const passes = monthDays(
    (md) => daysToBirthday(md, today) <= shift(today, Number(line.value), line.unit) - today,
  );
  const test = (i: number): boolean => {
    const day = values[i]!;
    if (day === NO_DAY || day > today) return false;
    const { month, day: d } = dateParts(day);
    return passes[month * 100 + d] === 1;
  };
  return { kind: 'test', test };
}

/** Days of any year: each month-day is tested once, the people by theirs. */
export function birthdayPlan(line: FieldLine, codes: Uint16Array, { today }: EvaluationContext): LinePlan {
  const table = (passes: (monthDay: number) => boolean, missing = 0): LinePlan => {
    const all = monthDays(passes);
    all[0] = missing;
    return { kind: 'table', codes, passes: all };
  };
  const many = Number(line.value);
  switch (line.op) {
    case 'within-next':
      return table((md) => daysToBirthday(md, today) <= shift(today, many, line.unit) - today);
    case 'within-last':
      return table((md) => daysSinceBirthday(md, today) <= today - shift(today, -many, line.unit));
    case 'ahead':
      return table((md) => isKept(md, shift(today, many, line.unit)));
    case 'in-month':
      return table((md) => Math.floor(md / 100) === many);
    case 'empty':
      return table(() => false, 1);
    case 'filled':
      return table(() => true);
    default:
      return misuse(line, 'birthday');
  }
}

function isKept(birthday: number, on: Day): boolean {
  const { year, month, day } = dateParts(on);
  return keptOn(birthday, year) === month * 100 + day;
}
