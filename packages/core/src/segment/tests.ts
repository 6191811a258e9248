import { daysSinceBirthday, daysToBirthday, distanceKm, keptOn, dateParts, parseIsoDay, parsePoint, type Day } from '../common';
import { STATES } from '../permission';
import { NO_DAY, type Column, type GiftsColumn, type MessagesColumn, type Reading } from './columns';
import { shift, stretchDays, windowDays, type DayRange } from './windows';
import type { FieldLine, GaveLine, GiftMeasure, Line, MessageLine, Stretch } from './tree';

/** Whether the person at an ordinal passes. */
export type Test = (ordinal: number) => boolean;

/** Between the choices of a field that takes several. */
export const CHOICE_SEPARATOR = '; ';

/**
 * The test that a line puts to one person, made ready for many: what can be worked out once (the days of a window, the
 * words of a dictionary) is, so that each person costs a comparison or two.
 */
export function testOf(line: Line, column: Column, reading: Reading): Test {
  switch (column.kind) {
    case 'bits': {
      const wanted = wantsMember(line);
      return (i) => column.bits.has(i) === wanted;
    }
    case 'state': {
      const wanted = STATES.map((state) => (line.kind === 'permission' ? line.states.includes(state) : false));
      return (i) => wanted[column.codes[i]!]!;
    }
    case 'standing':
      return standingTest(line, column);
    case 'chapter': {
      const { chapterId, in: wanted } = line as Extract<Line, { kind: 'chapter' }>;
      return (i) => (column.ids[i] === chapterId) === wanted;
    }
    case 'gifts':
      return giftTest(line as GaveLine, column, reading);
    case 'messages':
      return messageTest(line as MessageLine, column, reading);
    case 'text':
      return textTest(line as FieldLine, column);
    case 'number':
      return numberTest(line as FieldLine, column.values);
    case 'day':
      if (line.kind === 'lapses') return within(column.values, { from: reading.today, end: reading.today + line.days + 1 });
      return dayTest(line as FieldLine, column.values, reading);
    case 'monthDay':
      return birthdayTest(line as FieldLine, column.values, reading);
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

function standingTest(line: Line, column: { codes: Uint8Array; standings: string[] }): Test {
  if (line.kind !== 'roster') throw new Error(`expected a roster line, got ${line.kind}`);
  const wanted = ['', ...column.standings].map((standing, code) => code > 0 && (line.standings.length === 0 || line.standings.includes(standing)));
  return (i) => wanted[column.codes[i]!] === line.on;
}

/** The dictionary is tested once, the people by code. */
function textTest(line: FieldLine, column: { codes: Uint32Array; dictionary: string[] }): Test {
  const wanted = String(line.value ?? '')
    .trim()
    .toLowerCase();
  const passes = Uint8Array.from(column.dictionary, (text) => (textPasses(line, text, wanted) ? 1 : 0));
  return (i) => passes[column.codes[i]!] === 1;
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

function numberTest(line: FieldLine, values: Float64Array): Test {
  const [value, to] = [Number(line.value), Number(line.to)];
  switch (line.op) {
    case 'equals':
      return (i) => values[i] === value;
    case 'at-least':
      return (i) => values[i]! >= value;
    case 'at-most':
      return (i) => values[i]! <= value;
    case 'between':
      return (i) => values[i]! >= value && values[i]! <= to;
    case 'yes':
      return (i) => values[i] === 1;
    case 'no':
      return (i) => values[i] === 0;
    case 'empty':
      return (i) => Number.isNaN(values[i]);
    case 'filled':
      return (i) => !Number.isNaN(values[i]);
    default:
      return misuse(line, 'number');
  }
}

/** The missing value lies below every range that begins at a real day. */
function within(values: Int32Array, { from, end }: DayRange): Test {
  return (i) => values[i]! >= from && values[i]! < end;
}

function dayTest(line: FieldLine, values: Int32Array, reading: Reading): Test {
  switch (line.op) {
    case 'empty':
      return (i) => values[i] === NO_DAY;
    case 'filled':
      return (i) => values[i] !== NO_DAY;
    case 'anniversary':
      return anniversaryTest(line, values, reading);
    default: {
      const range = dayRange(line, reading);
      return range === null ? () => false : within(values, range);
    }
  }
}

/** The days that a line about a date asks for; null where its own date is none. */
function dayRange(line: FieldLine, reading: Reading): DayRange | null {
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

/** The day comes round again within so long; the year itself, when nothing has come round yet, does not count. */
function anniversaryTest(line: FieldLine, values: Int32Array, { today }: Reading): Test {
  const passes = monthDays((md) => daysToBirthday(md, today) <= shift(today, Number(line.value), line.unit) - today);
  return (i) => {
    const day = values[i]!;
    if (day === NO_DAY || day > today) return false;
    const { month, day: d } = dateParts(day);
    return passes[month * 100 + d] === 1;
  };
}

function birthdayTest(line: FieldLine, values: Uint16Array, { today }: Reading): Test {
  const span = shift(today, Number(line.value), line.unit) - today;
  const by = (passes: Uint8Array): Test => {
    return (i) => passes[values[i]!] === 1;
  };
  switch (line.op) {
    case 'within-next':
      return by(monthDays((md) => daysToBirthday(md, today) <= span));
    case 'within-last':
      return by(monthDays((md) => daysSinceBirthday(md, today) <= today - shift(today, -Number(line.value), line.unit)));
    case 'ahead':
      return by(monthDays((md) => isKept(md, today + span)));
    case 'in-month':
      return (i) => Math.floor(values[i]! / 100) === Number(line.value);
    case 'empty':
      return (i) => values[i] === 0;
    case 'filled':
      return (i) => values[i] !== 0;
    default:
      return misuse(line, 'birthday');
  }
}

function isKept(birthday: number, on: Day): boolean {
  const { year, month, day } = dateParts(on);
  return keptOn(birthday, year) === month * 100 + day;
}

function giftTest(line: GaveLine, gifts: GiftsColumn, reading: Reading): Test {
  const range = windowDays(line.window, reading);
  const [least, most] = [line.atLeast ?? -Infinity, line.atMost ?? Infinity];
  const measured = measureOf(line.measure ?? 'sum', gifts, range);
  return (i) => {
    const value = measured(i);
    return (!Number.isNaN(value) && value >= least && value <= most) === line.did;
  };
}

/** Somebody's measure in a range of days; NaN where they gave nothing there. */
function measureOf(measure: GiftMeasure, { starts, days, amounts }: GiftsColumn, { from, end }: DayRange): (ordinal: number) => number {
  const counts = (g: number) => amounts[g]! > 0;
  switch (measure) {
    case 'sum':
      return (i) => {
        let sum = NaN;
        for (let g = starts[i]!, last = starts[i + 1]!; g < last; g++) {
          const day = days[g]!;
          if (day >= from && day < end) sum = (sum === sum ? sum : 0) + amounts[g]!;
        }
        return sum;
      };
    case 'count':
      return (i) => {
        let n = 0;
        for (let g = starts[i]!; g < starts[i + 1]!; g++) if (days[g]! >= from && days[g]! < end && counts(g)) n++;
        return n === 0 ? NaN : n;
      };
    case 'largest':
      return (i) => {
        let largest = NaN;
        for (let g = starts[i]!; g < starts[i + 1]!; g++)
          if (days[g]! >= from && days[g]! < end && counts(g) && !(amounts[g]! <= largest)) largest = amounts[g]!;
        return largest;
      };
    case 'first':
    case 'last':
      return (i) => {
        let best = -1;
        // Of gifts of one day the later written counts as the later given.
        for (let g = starts[i]!; g < starts[i + 1]!; g++)
          if (counts(g) && (best < 0 || (measure === 'last' ? days[g]! >= days[best]! : days[g]! < days[best]!))) best = g;
        return best >= 0 && days[best]! >= from && days[best]! < end ? amounts[best]! : NaN;
      };
  }
}

function messageTest(line: MessageLine, { starts, days, messageIds }: MessagesColumn, reading: Reading): Test {
  const { from, end } = windowDays(line.window, reading);
  return (i) => {
    let n = 0;
    for (let m = starts[i]!; m < starts[i + 1]!; m++)
      if (days[m]! >= from && days[m]! < end && (line.messageId === null || messageIds[m] === line.messageId)) n++;
    return n >= line.atLeast === line.did;
  };
}
