import { Bits, daysToBirthday, nextYearStart, parseIsoDay, yearStart, type Day } from '../common';
import { STATES } from '../permission';
import { columnKey, NO_DAY, type Column, type Columns, type Reading } from './columns';
import { isGroup, type FieldLine, type GaveLine, type Line, type Rule, type Window } from './tree';

type Test = (ordinal: number) => boolean;

/** Who passes a rule. One pass over one column for each line, set operations for groups. */
export function evaluate(rule: Rule, columns: Columns, reading: Reading): Bits {
  if (!isGroup(rule)) return evaluateLine(rule, columns, reading);
  const sets = rule.rules.map((inner) => evaluate(inner, columns, reading));
  switch (rule.kind) {
    case 'all':
      return sets.reduce((a, b) => a.and(b), Bits.all(columns.size));
    case 'any':
      return sets.length === 0 ? Bits.all(columns.size) : sets.reduce((a, b) => a.or(b));
    case 'none':
      return sets.reduce((a, b) => a.and(b.not()), Bits.all(columns.size));
  }
}

export interface Narrowing {
  bits: Bits;
  /** For each rule at the top: how many pass it alone, and how many are left after it and all before it. */
  steps: { alone: number; left: number }[];
}

/** Evaluates a segment and counts how each of its top rules narrows (or, under "any", widens) it. */
export function narrow(rule: Rule, columns: Columns, reading: Reading): Narrowing {
  const top = isGroup(rule) ? rule : { kind: 'all' as const, rules: [rule] };
  const steps: Narrowing['steps'] = [];
  let bits = top.kind === 'any' && top.rules.length > 0 ? new Bits(columns.size) : Bits.all(columns.size);
  for (const inner of top.rules) {
    const set = evaluate(inner, columns, reading);
    bits = top.kind === 'any' ? bits.or(set) : bits.and(top.kind === 'none' ? set.not() : set);
    steps.push({ alone: set.count(), left: bits.count() });
  }
  return { bits, steps };
}

function evaluateLine(line: Line, columns: Columns, reading: Reading): Bits {
  const column = columns.get(columnKey(line));
  if (column.kind === 'bits') return wantsMember(line) ? column.bits : column.bits.not();
  const test = testOf(line, column, reading);
  const out = new Bits(columns.size);
  for (let ordinal = 0; ordinal < columns.size; ordinal++) if (test(ordinal)) out.add(ordinal);
  return out;
}

function wantsMember(line: Line): boolean {
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
      throw new Error(`expected a column of values for a ${line.kind} line, got a set`);
  }
}

function testOf(line: Line, column: Exclude<Column, { kind: 'bits' }>, reading: Reading): Test {
  switch (column.kind) {
    case 'state': {
      const wanted = new Set(line.kind === 'permission' ? line.states.map((state) => STATES.indexOf(state)) : []);
      return (i) => wanted.has(column.codes[i]!);
    }
    case 'gifts':
      return giftTest(line as GaveLine, column, reading);
    case 'text':
      return textTest(line as FieldLine, column);
    case 'number':
      return numberTest(line as FieldLine, column.values);
    case 'day':
      if (line.kind === 'lapses')
        return dayTest({ kind: 'field', field: 'created', op: 'within-next', value: line.days }, column.values, reading.today);
      return dayTest(line as FieldLine, column.values, reading.today);
    case 'monthDay':
      return birthdayTest(line as FieldLine, column.values, reading.today);
  }
}

function misuse(line: FieldLine, kind: string): never {
  throw new Error(`expected an operator for a ${kind} field, got "${line.op}"`);
}

/** The dictionary is tested once, the people by code. */
function textTest(line: FieldLine, column: { codes: Uint32Array; dictionary: string[] }): Test {
  const wanted = String(line.value ?? '')
    .trim()
    .toLowerCase();
  const word = (text: string): boolean => {
    switch (line.op) {
      case 'is':
        return text === wanted;
      case 'is-not':
        return text !== wanted;
      case 'contains':
        return text.includes(wanted);
      case 'begins':
        return text.startsWith(wanted);
      case 'empty':
        return text === '';
      case 'filled':
        return text !== '';
      default:
        return misuse(line, 'text');
    }
  };
  const passes = column.dictionary.map(word);
  return (i) => passes[column.codes[i]!]!;
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

/** Half-open ranges of days; the missing value lies below every range that begins at a real day. */
function dayTest(line: FieldLine, values: Int32Array, today: Day): Test {
  const within =
    (from: Day, end: Day): Test =>
    (i) =>
      values[i]! >= from && values[i]! < end;
  const at = typeof line.value === 'string' ? parseIsoDay(line.value) : null;
  const days = Number(line.value);
  switch (line.op) {
    case 'on':
      return at === null ? () => false : within(at, at + 1);
    case 'before':
      return at === null ? () => false : within(NO_DAY + 1, at);
    case 'after':
      return at === null ? () => false : within(at + 1, Infinity);
    case 'between': {
      const end = typeof line.to === 'string' ? parseIsoDay(line.to) : null;
      return at === null || end === null ? () => false : within(at, end + 1);
    }
    case 'within-next':
      return within(today, today + days + 1);
    case 'within-last':
      return within(today - days, today + 1);
    case 'empty':
      return (i) => values[i] === NO_DAY;
    case 'filled':
      return (i) => values[i] !== NO_DAY;
    default:
      return misuse(line, 'date');
  }
}

function birthdayTest(line: FieldLine, values: Uint16Array, today: Day): Test {
  switch (line.op) {
    case 'within-next': {
      const passes = new Uint8Array(1232);
      for (let md = 101; md <= 1231; md++) if (isMonthDay(md)) passes[md] = daysToBirthday(md, today) <= Number(line.value) ? 1 : 0;
      return (i) => passes[values[i]!] === 1;
    }
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

function isMonthDay(md: number): boolean {
  const day = md % 100;
  const longest = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][Math.floor(md / 100) - 1] ?? 0;
  return day >= 1 && day <= longest;
}

/** First day of the window and the day after its last. */
export function windowDays(window: Window, today: Day): { from: Day; end: Day } {
  switch (window.over) {
    case 'ever':
      return { from: NO_DAY + 1, end: Infinity };
    case 'this-year':
      return { from: yearStart(today), end: nextYearStart(today) };
    case 'last-year':
      return { from: yearStart(yearStart(today) - 1), end: yearStart(today) };
    case 'earlier-years':
      return { from: NO_DAY + 1, end: yearStart(today) };
    case 'last-days':
      return { from: today - window.days, end: today + 1 };
  }
}

function giftTest(line: GaveLine, gifts: { starts: Uint32Array; days: Int32Array; amounts: Float64Array }, reading: Reading): Test {
  const { from, end } = windowDays(line.window, reading.today);
  return (i) => {
    let [sum, count] = [0, 0];
    for (let g = gifts.starts[i]!; g < gifts.starts[i + 1]!; g++) {
      if (gifts.days[g]! >= from && gifts.days[g]! < end) [sum, count] = [sum + gifts.amounts[g]!, count + 1];
    }
    return (line.atLeast === null ? count > 0 : sum >= line.atLeast) === line.did;
  };
}
