import { formatDay, formatMoney, type FieldType, type Manner } from '../fields';
import { parseIsoDay } from '../common';
import { CHANNEL_WORDS, scopeWords, STATE_WORDS, type Scope } from '../permission';
import type { Trace } from './evaluate';
import { isGroup, type FieldLine, type GaveLine, type Line, type MessageLine, type Rule, type Stretch, type Window } from './tree';

/** The names behind the ids of a tree. */
export interface Names extends Manner {
  field(ref: FieldLine['field']): { name: string; type: FieldType };
  tag(id: number): string;
  list(id: number): string;
  batch(id: number): string;
  campaign(id: number): string;
  chapter(id: number): string;
  message(id: number): string;
  segment(id: number): string;
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
      return `are ${line.states.map((s) => STATE_WORDS[s].toLowerCase()).join(' or ')} for ${subject(line, names)}`;
    case 'may':
      return `${line.may ? 'may' : 'may not'} be written to now for ${subject(line, names)}`;
    case 'lapses':
      return `have an implied permission for ${subject(line, names)} that lapses within ${line.days} days`;
    case 'gave':
      return describeGave(line, names);
    case 'roster': {
      const standing = line.standings.length > 0 ? ` as ${line.standings.join(' or ')}` : '';
      return `are ${line.on ? '' : 'not '}on the roster of ${names.campaign(line.campaignId)}${standing}`;
    }
    case 'chapter':
      return `are ${line.in ? '' : 'not '}of the chapter ${names.chapter(line.chapterId)}`;
    case 'message':
      return describeMessage(line, names);
    case 'segment':
      return `are ${line.in ? '' : 'not '}in the segment ${names.segment(line.segmentId)}`;
  }
}

const DEED_WORDS: Record<MessageLine['deed'], [did: string, didNot: string]> = {
  got: ['got', 'did not get'],
  opened: ['opened', 'did not open'],
  followed: ['clicked a link in', 'clicked no link in'],
  replied: ['replied to', 'did not reply to'],
};

function describeMessage(line: MessageLine, names: Names): string {
  const verb = DEED_WORDS[line.deed][line.did ? 0 : 1];
  const what =
    line.messageId !== null
      ? `the message ${names.message(line.messageId)}`
      : line.atLeast === 1
        ? 'any message'
        : `${line.atLeast} messages or more`;
  return `${verb} ${what} ${inWindow(line.window, names)}`;
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
      return `have ${name} within the next ${spell(line)}`;
    case 'within-last':
      return `have ${name} within the last ${spell(line)}`;
    case 'ahead':
      return `have ${name} in exactly ${spell(line)}`;
    case 'ago':
      return `have ${name} exactly ${spell(line)} ago`;
    case 'anniversary':
      return `have an anniversary of ${name} within the next ${spell(line)}`;
    case 'during':
      return `have ${name} in ${STRETCH_WORDS[line.value as Stretch] ?? '?'}`;
    case 'has':
      return `have ${shown(line.value)} among ${name}`;
    case 'has-not':
      return `do not have ${shown(line.value)} among ${name}`;
    case 'within-km':
      return `have ${name} within ${line.value} km of ${String(line.to ?? '?')}`;
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

const STRETCH_WORDS: Record<Stretch, string> = {
  'this-month': 'this month',
  'last-month': 'last month',
  'next-month': 'next month',
  'this-year': 'this calendar year',
  'last-year': 'last calendar year',
  'next-year': 'next calendar year',
  'this-fiscal-year': 'this fiscal year',
  'last-fiscal-year': 'last fiscal year',
};

/** "30 days", "1 week": what a line counts. */
function spell({ value, unit = 'days' }: Pick<FieldLine, 'value' | 'unit'>): string {
  return Number(value) === 1 ? `1 ${unit.slice(0, -1)}` : `${value ?? '?'} ${unit}`;
}

export function describeWindow(window: Window, locale = 'en-US'): string {
  switch (window.over) {
    case 'ever':
      return 'ever';
    case 'earlier-years':
      return 'any earlier year';
    case 'last-days':
    case 'last-weeks':
    case 'last-months':
      return `the last ${spell({ value: window.days, unit: window.over.slice(5) as 'days' })}`;
    case 'between': {
      const day = (text: string) => {
        const at = parseIsoDay(text);
        return at === null ? text : formatDay(at, locale);
      };
      return `${day(window.from)} to ${day(window.to)}`;
    }
    default:
      return STRETCH_WORDS[window.over];
  }
}

function inWindow(window: Window, names: Names): string {
  return window.over === 'ever'
    ? 'ever'
    : window.over === 'between'
      ? `from ${describeWindow(window, names.locale)}`
      : `in ${describeWindow(window)}`;
}

function describeGave(line: GaveLine, names: Names): string {
  const { measure = 'sum', atMost = null } = line;
  const show = (n: number) => (measure === 'count' ? `${n} ${n === 1 ? 'gift' : 'gifts'}` : formatMoney(n, names));
  const bounds = [line.atLeast === null ? '' : `at least ${show(line.atLeast)}`, atMost === null ? '' : `at most ${show(atMost)}`]
    .filter(Boolean)
    .join(' and ');
  const when = inWindow(line.window, names);
  switch (measure) {
    case 'sum':
    case 'count':
      return `${line.did ? 'gave' : 'did not give'} ${bounds || 'anything'} ${when}`;
    case 'largest':
      return `${line.did ? 'gave' : 'did not give'} a gift ${bounds ? `of ${bounds} ` : ''}as their largest ${when}`;
    case 'first':
    case 'last':
      return `${line.did ? 'gave' : 'did not give'} their ${measure} gift${bounds ? ` (${bounds})` : ''} ${when}`;
  }
}

export interface Explanation {
  words: string;
  holds: boolean;
  inner: Explanation[];
}

/** Puts words to a trace of the same rule: it can never tell another story than the evaluator. */
export function explained(rule: Rule, of: Trace, names: Names): Explanation {
  return {
    words: describe(rule, names),
    holds: of.holds,
    // A segment inside another is told as one line; its own page tells its lines.
    inner: isGroup(rule) ? rule.rules.map((inner, i) => explained(inner, of.inner[i]!, names)) : [],
  };
}
