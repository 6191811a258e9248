import { parseIsoDay, said, type Said } from '../common';
import { formatDay, formatMoney, type FieldType, type Manner } from '../fields';
import {
  isGroup,
  type FieldLine,
  type GaveLine,
  type Line,
  type MessageLine,
  type Rule,
  type Stretch,
  type Trace,
  type Window,
} from '../segment';
import type { Scope } from '../permission';
import { scopeWords } from './permission';
import { say, speak } from './speak';

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

const yes = (holds: boolean) => (holds ? 'yes' : 'no');

/** A rule as part of a sentence that begins "Supporters who …". */
export function describe(rule: Rule, names: Names): string {
  if (!isGroup(rule)) return speak(lineSaid(rule, names));
  if (rule.rules.length === 0) return say('rule.everybody');
  const rules = rule.rules.map((inner) => {
    const words = describe(inner, names);
    return isGroup(inner) && inner.rules.length > 1 ? say('rule.in-brackets', { rule: words }) : words;
  });
  return say(rule.kind === 'any' && rules.length === 1 ? 'rule.one' : `rule.${rule.kind}`, { rules });
}

function lineSaid(line: Line, names: Names): Said {
  switch (line.kind) {
    case 'field':
      return fieldSaid(line, names);
    case 'tag':
      return said('line.tag', { yes: yes(line.has), tag: names.tag(line.tagId) });
    case 'list':
      return said('line.list', { yes: yes(line.on), list: names.list(line.listId) });
    case 'batch':
      return said('line.batch', { yes: yes(line.in), batch: names.batch(line.batchId) });
    case 'permission': {
      const states = said('line.states', {
        states: line.states.map((state) => say(`state.${state}`).toLowerCase()),
      });
      return said('line.permission', { states, subject: subject(line, names) });
    }
    case 'may':
      return said('line.may', { yes: yes(line.may), subject: subject(line, names) });
    case 'lapses':
      return said('line.lapses', { subject: subject(line, names), days: line.days });
    case 'gave':
      return gaveSaid(line, names);
    case 'roster': {
      const roster = { yes: yes(line.on), campaign: names.campaign(line.campaignId) };
      if (line.stages.length === 0) return said('line.roster', roster);
      return said('line.roster-at', { ...roster, stages: said('line.states', { states: line.stages }) });
    }
    case 'chapter':
      return said('line.chapter', { yes: yes(line.in), chapter: names.chapter(line.chapterId) });
    case 'message':
      return messageSaid(line, names);
    case 'segment':
      return said('line.segment', { yes: yes(line.in), segment: names.segment(line.segmentId) });
  }
}

function messageSaid(line: MessageLine, names: Names): Said {
  const several =
    line.atLeast === 1 ? said('line.message.any') : said('line.message.several', { n: line.atLeast });
  const what =
    line.messageId === null ? several : said('line.message.this', { message: names.message(line.messageId) });
  return said(`line.message.${line.event}`, { yes: yes(line.did), what, when: whenSaid(line.window, names) });
}

function subject(line: { channel: 'email' | 'text' | 'call' | 'post'; scope: Scope }, names: Names): Said {
  return said('line.subject', {
    scope: scopeWords(line.scope, (id) => names.list(id)),
    channel: said(`channel.in.${line.channel}`),
  });
}

function fieldSaid(line: FieldLine, names: Names): Said {
  const { name, type } = names.field(line.field);
  const shown = (value: string | number | undefined) => {
    if (type === 'money') return formatMoney(Number(value), names);
    const day = type === 'date' && typeof value === 'string' ? parseIsoDay(value) : null;
    return day === null ? String(value ?? '') : formatDay(day, names.locale);
  };
  switch (line.op) {
    case 'equals':
      return said('field.is', { field: name, value: shown(line.value) });
    case 'between':
      return said('field.between', { field: name, value: shown(line.value), to: shown(line.to) });
    case 'within-next':
    case 'within-last':
    case 'ahead':
    case 'ago':
    case 'anniversary':
      return said(`field.${line.op}`, { field: name, span: spanSaid(line) });
    case 'during':
      return said('field.during', { field: name, stretch: said(`stretch.${line.value as Stretch}`) });
    case 'within-km':
      return said('field.within-km', { field: name, value: String(line.value), to: String(line.to ?? '?') });
    case 'in-month':
      return said('field.in-month', { field: name, month: said(`month.${Number(line.value) as 1}`) });
    default:
      return said(`field.${line.op}`, { field: name, value: shown(line.value) });
  }
}

/** "30 days", "1 week": what a line counts. */
function spanSaid({ value, unit = 'days' }: Pick<FieldLine, 'value' | 'unit'>): Said {
  return said(`span.${unit}`, { n: Number(value ?? 0) });
}

const windowSaid = (window: Window, locale: string): Said => {
  switch (window.over) {
    case 'ever':
    case 'earlier-years':
      return said(`window.${window.over}`);
    case 'last-days':
    case 'last-weeks':
    case 'last-months':
      return said('window.last', {
        span: spanSaid({ value: window.days, unit: window.over.slice(5) as 'days' }),
      });
    case 'between': {
      const day = (text: string) => {
        const at = parseIsoDay(text);
        return at === null ? text : formatDay(at, locale);
      };
      return said('window.between', { from: day(window.from), to: day(window.to) });
    }
    default:
      return said(`stretch.${window.over}`);
  }
};

/** A window of days, in words. */
export const describeWindow = (window: Window, locale = 'en-US'): string => speak(windowSaid(window, locale));

function whenSaid(window: Window, names: Names): Said {
  if (window.over === 'ever') return said('when.ever');
  return said(window.over === 'between' ? 'when.between' : 'when.in', {
    window: windowSaid(window, names.locale),
  });
}

function gaveSaid(line: GaveLine, names: Names): Said {
  const { measure = 'sum', atMost = null } = line;
  const show = (n: number) => (measure === 'count' ? said('gave.gifts', { n }) : formatMoney(n, names));
  const bounds = [
    ...(line.atLeast === null ? [] : [said('gave.at-least', { amount: show(line.atLeast) })]),
    ...(atMost === null ? [] : [said('gave.at-most', { amount: show(atMost) })]),
  ];
  const bounded = bounds.length > 0 ? said('gave.bounds', { bounds }) : said('gave.anything');
  const gave = { yes: yes(line.did), bounds: bounded, when: whenSaid(line.window, names) };
  if (measure === 'sum' || measure === 'count') return said('gave.sum', gave);
  return said(bounds.length > 0 ? `gave.${measure}-of` : `gave.${measure}`, gave);
}

/** Why somebody is in a segment or not: what each line asks, and what it came to. */
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
