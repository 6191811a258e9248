import { CHOICE_SEPARATOR } from '../fields';
import {
  daysSinceBirthday,
  daysToBirthday,
  distanceKm,
  keptOn,
  dateParts,
  parseIsoDay,
  parsePoint,
  type Bits,
  type Day,
} from '../common';
import { STATES } from '../permission';
import {
  NO_DAY,
  type Column,
  type GiftsColumn,
  type MessagesColumn,
  type EvaluationContext,
} from './columns';
import { shift, stretchDays, windowDays, type DayRange } from './windows';
import type { FieldLine, GaveLine, GiftMeasure, Line, MessageLine, Stretch } from './tree';

/**
 * What a line asks of its column, worked out as far as it can be before anybody is looked at: the days of a
 * window, the words of a dictionary, the month-days of a birthday. The same plan is put to a million people
 * (see scan.ts) or to one.
 */
export type LinePlan =
  | { kind: 'member'; bits: Bits; wanted: boolean }
  /**
   * A value from `from` to `to`, both included; missing values (NaN, NO_DAY) lie outside of every range that
   * is asked for.
   */
  | { kind: 'range'; values: Int32Array | Float64Array; from: number; to: number; wanted: boolean }
  /** A code whose place in `passes` holds a one. */
  | { kind: 'table'; codes: Uint8Array | Uint16Array | Uint32Array; passes: Uint8Array }
  | {
      kind: 'gifts';
      gifts: GiftsColumn;
      measure: GiftMeasure;
      days: DayRange;
      least: number;
      most: number;
      wanted: boolean;
    }
  | {
      kind: 'messages';
      messages: MessagesColumn;
      messageId: number | null;
      days: DayRange;
      least: number;
      wanted: boolean;
    }
  /** Whatever is not asked often enough to have a loop of its own. */
  | { kind: 'test'; test: (ordinal: number) => boolean };

/** What is done to a column for a line, worked out once for everybody. */
export function linePlan(line: Line, column: Column, reading: EvaluationContext): LinePlan {
  switch (column.kind) {
    case 'bits':
      return { kind: 'member', bits: column.bits, wanted: wantsMember(line) };
    case 'state': {
      const states = line.kind === 'permission' ? line.states : [];
      return {
        kind: 'table',
        codes: column.codes,
        passes: Uint8Array.from(STATES, (state) => Number(states.includes(state))),
      };
    }
    case 'stage':
      return standingPlan(line, column);
    case 'chapter': {
      const { chapterId, in: wanted } = line as Extract<Line, { kind: 'chapter' }>;
      return { kind: 'test', test: (i) => (column.ids[i] === chapterId) === wanted };
    }
    case 'gifts': {
      const { measure = 'sum', atLeast, atMost, window, did } = line as GaveLine;
      const bounds = { least: atLeast ?? -Infinity, most: atMost ?? Infinity };
      return {
        kind: 'gifts',
        gifts: column,
        measure,
        days: windowDays(window, reading),
        ...bounds,
        wanted: did,
      };
    }
    case 'messages': {
      const { messageId, atLeast, window, did } = line as MessageLine;
      return {
        kind: 'messages',
        messages: column,
        messageId,
        days: windowDays(window, reading),
        least: atLeast,
        wanted: did,
      };
    }
    case 'text':
      return textPlan(line as FieldLine, column);
    case 'number':
      return numberPlan(line as FieldLine, column.values);
    case 'day':
      if (line.kind === 'lapses')
        return within(column.values, { from: reading.today, end: reading.today + line.days + 1 });
      return dayPlan(line as FieldLine, column.values, reading);
    case 'monthDay':
      return birthdayPlan(line as FieldLine, column.values, reading);
  }
}

/** Whether a line over a set wants those in it or those outside. */
export function wantsMember(line: Line): boolean {
  switch (line.kind) {
    case 'tag':
      return line.has;
    case 'list':
      return line.on;
    case 'batch':
      return line.in;
    case 'may':
      return line.may;
    case 'field':
    case 'lapses':
    case 'permission':
    case 'gave':
    case 'roster':
    case 'chapter':
    case 'message':
    case 'segment':
      throw new Error(`expected a column of values for a ${line.kind} line, got a set`);
  }
}

function misuse(line: FieldLine, kind: string): never {
  throw new Error(`expected an operator for a ${kind} field, got "${line.op}"`);
}

function standingPlan(line: Line, column: { codes: Uint8Array; stages: string[] }): LinePlan {
  if (line.kind !== 'roster') throw new Error(`expected a roster line, got ${line.kind}`);
  const isOn = (stage: string, code: number) =>
    code > 0 && (line.stages.length === 0 || line.stages.includes(stage));
  return {
    kind: 'table',
    codes: column.codes,
    passes: Uint8Array.from(['', ...column.stages], (stage, code) => Number(isOn(stage, code) === line.on)),
  };
}

/** The dictionary is tested once, the people by code. */
function textPlan(line: FieldLine, column: { codes: Uint32Array; dictionary: string[] }): LinePlan {
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

function numberPlan(line: FieldLine, values: Float64Array): LinePlan {
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

/** The missing value lies below every range that begins at a real day. */
function within(values: Int32Array, { from, end }: DayRange): LinePlan {
  return { kind: 'range', values, from, to: end - 1, wanted: true };
}

function dayPlan(line: FieldLine, values: Int32Array, reading: EvaluationContext): LinePlan {
  switch (line.op) {
    case 'empty':
      return within(values, { from: NO_DAY, end: NO_DAY + 1 });
    case 'filled':
      return within(values, { from: NO_DAY + 1, end: Infinity });
    case 'anniversary':
      return anniversaryPlan(line, values, reading);
    default: {
      // A date that is none asks for no day.
      return within(values, dayRange(line, reading) ?? { from: 0, end: 0 });
    }
  }
}

/** The days that a line about a date asks for; null where its own date is none. */
function dayRange(line: FieldLine, reading: EvaluationContext): DayRange | null {
  const { today } = reading;
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
      return stretchDays(line.value as Stretch, reading);
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

function birthdayPlan(line: FieldLine, codes: Uint16Array, { today }: EvaluationContext): LinePlan {
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
