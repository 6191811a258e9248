import { formatDay, formatMoney, type FieldType, type Manner } from '../fields';
import { parseIsoDay } from '../common';
import { CHANNEL_WORDS, scopeWords, STATE_WORDS, type Scope } from '../permission';
import { evaluate } from './evaluate';
import type { Columns, Reading } from './columns';
import { isGroup, type FieldLine, type GaveLine, type Line, type Rule, type Window } from './tree';

/** The names behind the ids of a tree. */
export interface Names extends Manner {
  field(ref: FieldLine['field']): { name: string; type: FieldType };
  tag(id: number): string;
  list(id: number): string;
  batch(id: number): string;
}

const MONTHS = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December'];

/** A rule as part of a sentence that begins "Supporters who …". */
export function describe(rule: Rule, names: Names): string {
  if (!isGroup(rule)) return describeLine(rule, names);
  if (rule.rules.length === 0) return 'are on file';
  const parts = rule.rules.map((inner) => {
    const words = describe(inner, names);
    return isGroup(inner) && inner.rules.length > 1 ? `(${words})` : words;
  });
  switch (rule.kind) {
    case 'all':
      return parts.join(' and ');
    case 'any':
      return parts.length === 1 ? parts[0]! : `either ${parts.join(' or ')}`;
    case 'none':
      return `none of: ${parts.join('; ')}`;
  }
}

function describeLine(line: Line, names: Names): string {
  switch (line.kind) {
    case 'field':
      return describeField(line, names);
    case 'tag':
      return `${line.has ? 'have' : 'do not have'} the tag ${names.tag(line.tagId)}`;
    case 'list':
      return `are ${line.on ? '' : 'not '}on the list ${names.list(line.listId)}`;
    case 'batch':
      return `came ${line.in ? '' : 'not '}with the batch ${names.batch(line.batchId)}`;
    case 'permission':
      return `stand for ${subject(line, names)} at ${line.states.map((s) => STATE_WORDS[s]).join(' or ')}`;
    case 'may':
      return `${line.may ? 'may' : 'may not'} be written to now for ${subject(line, names)}`;
    case 'lapses':
      return `have an implied permission for ${subject(line, names)} that lapses within ${line.days} days`;
    case 'gave':
      return describeGave(line, names);
  }
}

function subject(line: { channel: keyof typeof CHANNEL_WORDS; scope: Scope }, names: Names): string {
  return `${scopeWords(line.scope, (id) => names.list(id))} by ${CHANNEL_WORDS[line.channel].toLowerCase()}`;
}

function describeField(line: FieldLine, names: Names): string {
  const { name, type } = names.field(line.field);
  const shown = (value: string | number | undefined) => {
    if (type === 'money') return formatMoney(Number(value), names);
    const day = type === 'date' && typeof value === 'string' ? parseIsoDay(value) : null;
    return day === null ? String(value ?? '') : formatDay(day, names.locale);
  };
  switch (line.op) {
    case 'is':
    case 'equals':
      return `have ${name} ${shown(line.value)}`;
    case 'is-not':
      return `do not have ${name} ${shown(line.value)}`;
    case 'contains':
      return `have ${name} containing ${shown(line.value)}`;
    case 'begins':
      return `have ${name} beginning ${shown(line.value)}`;
    case 'at-least':
      return `have ${name} of at least ${shown(line.value)}`;
    case 'at-most':
      return `have ${name} of at most ${shown(line.value)}`;
    case 'between':
      return `have ${name} from ${shown(line.value)} to ${shown(line.to)}`;
    case 'on':
    case 'before':
    case 'after':
      return `have ${name} ${line.op} ${shown(line.value)}`;
    case 'within-next':
      return `have ${name} within the next ${line.value} days`;
    case 'within-last':
      return `have ${name} within the last ${line.value} days`;
    case 'in-month':
      return `have ${name} in ${MONTHS[Number(line.value) - 1] ?? '?'}`;
    case 'yes':
    case 'no':
      return `have ${name} ${line.op}`;
    case 'empty':
      return `have no ${name}`;
    case 'filled':
      return `have a ${name}`;
  }
}

export function describeWindow(window: Window): string {
  switch (window.over) {
    case 'ever':
      return 'ever';
    case 'this-year':
      return 'this calendar year';
    case 'last-year':
      return 'last calendar year';
    case 'earlier-years':
      return 'any earlier year';
    case 'last-days':
      return `the last ${window.days} days`;
  }
}

function describeGave(line: GaveLine, names: Names): string {
  const amount = line.atLeast === null ? 'anything' : `at least ${formatMoney(line.atLeast, names)}`;
  const when = line.window.over === 'ever' ? 'ever' : `in ${describeWindow(line.window)}`;
  return `${line.did ? 'gave' : 'did not give'} ${amount} ${when}`;
}

export interface Explanation {
  words: string;
  holds: boolean;
  inner: Explanation[];
}

/** Says, rule by rule, whether the person at an ordinal passes: the same evaluator, so it can never tell another story. */
export function explain(rule: Rule, columns: Columns, ordinal: number, reading: Reading, names: Names): Explanation {
  return {
    words: describe(rule, names),
    holds: evaluate(rule, columns, reading).has(ordinal),
    inner: isGroup(rule) ? rule.rules.map((inner) => explain(inner, columns, ordinal, reading, names)) : [],
  };
}
