import { t } from '@lingui/core/macro';
import type { FieldView } from '@goodword/core/contract';
import { asksOf, type FieldOp } from '@goodword/core/fields';
import { STANDARD_FIELD_TYPES, type FieldLine, type Group, type Rule } from '@goodword/core/segment';
import { localDay } from '../../app/day';

/** Words of each question that a field can be asked. */
export const OP_WORDS: Record<FieldOp, string> = {
  is: 'is',
  'is-not': t`is not`,
  contains: 'contains',
  begins: t`begins with`,
  equals: 'is',
  'at-least': t`is at least`,
  'at-most': t`is at most`,
  between: t`is between`,
  on: t`is on`,
  before: t`is before`,
  after: t`is after`,
  'within-next': t`is within the next`,
  'within-last': t`was within the last`,
  ahead: t`is in exactly`,
  ago: t`was exactly`,
  anniversary: t`comes round within the next`,
  during: t`is in`,
  'in-month': t`is in`,
  has: 'has',
  'has-not': t`has not`,
  'within-km': t`is within`,
  yes: t`is yes`,
  no: t`is no`,
  empty: t`is empty`,
  filled: t`is filled`,
};

/** Questions that count days, weeks or months. */
export const COUNTS_TIME: readonly FieldOp[] = ['within-next', 'within-last', 'ahead', 'ago', 'anniversary'];
export const NEEDS_NOTHING: readonly FieldOp[] = ['yes', 'no', 'empty', 'filled'];
export function typeOf(field: FieldLine['field'], fields: readonly FieldView[]): FieldView['type'] {
  return typeof field === 'number'
    ? (fields.find((one) => one.id === field)?.type ?? 'text')
    : STANDARD_FIELD_TYPES[field];
}

/** A value to begin with, fit for the question. */
export function startValue(type: FieldView['type'], op: FieldOp): Pick<FieldLine, 'value' | 'to'> {
  if (NEEDS_NOTHING.includes(op)) return {};
  if (COUNTS_TIME.includes(op)) return { value: 30 };
  if (op === 'during') return { value: 'this-month' };
  if (op === 'within-km') return { value: 50, to: '' };
  if (op === 'in-month') return { value: new Date().getMonth() + 1 };
  const today = localDay();
  if (type === 'date') return op === 'between' ? { value: today, to: today } : { value: today };
  if (type === 'number' || type === 'money')
    return op === 'between' ? { value: 0, to: 100 } : { value: type === 'money' ? 1000 : 1 };
  return { value: '' };
}

export function newFieldLine(
  field: FieldLine['field'],
  fields: readonly FieldView[],
  op?: FieldOp,
): FieldLine {
  const type = typeOf(field, fields);
  const chosen = op && asksOf(type).includes(op) ? op : asksOf(type)[0]!;
  return { kind: 'field', field, op: chosen, ...startValue(type, chosen) };
}

/** A segment as the builder edits it: a top group of lines and of further groups. */
export function asTop(tree: Rule): Group {
  return tree.kind === 'all' || tree.kind === 'any' || tree.kind === 'none'
    ? tree
    : { kind: 'all', rules: [tree] };
}

export function replaceAt(group: Group, at: number, rule: Rule | null): Group {
  const rules = group.rules.flatMap((old, i) => (i === at ? (rule === null ? [] : [rule]) : [old]));
  return { ...group, rules };
}

/** A line joined to another by "or". */
export function withOr(rule: Rule, line: Rule): Group {
  return rule.kind === 'any'
    ? { ...rule, rules: [...rule.rules, line] }
    : { kind: 'any', rules: [rule, line] };
}

/**
 * A tree carried by an address, so that another view can open the builder on it; an empty one where it can't
 * be read.
 */
export function treeFrom(text: string | null): Group {
  const empty: Group = { kind: 'all', rules: [] };
  if (!text) return empty;
  try {
    const tree = JSON.parse(text) as Rule;
    return typeof tree === 'object' && tree !== null && 'kind' in tree ? asTop(tree) : empty;
  } catch {
    return empty;
  }
}
