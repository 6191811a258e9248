import { Bits } from '../common';
import type { Columns, EvaluationContext } from './columns';
import { columnKey, linePlan, type Line } from './lines';
import { passes, scan } from './scan';
import { isGroup, type Group, type Rule } from './tree';

/** What a line came to before, kept by whoever reads the same columns again. */
export interface EvaluationCache {
  get(line: Line): Bits | undefined;
  set(line: Line, bits: Bits): void;
}

/** Who passes a rule. One pass over one column for each line, set operations for groups. */
export function evaluate(
  rule: Rule,
  columns: Columns,
  reading: EvaluationContext,
  memo?: EvaluationCache,
): Bits {
  if (!isGroup(rule)) return evaluateLine(rule, columns, reading, memo);
  return joined(
    rule,
    rule.rules.map((inner) => evaluate(inner, columns, reading, memo)),
    columns.size,
  );
}

function joined({ kind }: Group, sets: readonly Bits[], size: number): Bits {
  switch (kind) {
    case 'all':
      return sets.reduce((a, b) => a.and(b), Bits.all(size));
    case 'any':
      return sets.length === 0 ? Bits.all(size) : sets.reduce((a, b) => a.or(b));
    case 'none':
      return sets.reduce((a, b) => a.and(b.not()), Bits.all(size));
  }
}

/** A rule counted: how many pass it alone and, at the top, how many are left after it and all before it. */
export interface NarrowingStep {
  alone: number;
  left: number;
  /** The rules inside, each counted alone, and how many their group comes to as far as it. */
  inner: NarrowingStep[];
}

/** How many people pass each line alone and are left after it. */
export interface Narrowing {
  bits: Bits;
  steps: NarrowingStep[];
}

/**
 * Evaluates a segment and counts how each of its rules narrows (or, under "any", widens) the group that it is
 * in.
 */
export function narrow(
  rule: Rule,
  columns: Columns,
  reading: EvaluationContext,
  among: { memo?: EvaluationCache; within?: Bits } = {},
): Narrowing {
  const top: Group = isGroup(rule) ? rule : { kind: 'all', rules: [rule] };
  const within = among.within ?? Bits.all(columns.size);
  const steps: NarrowingStep[] = [];
  let bits = top.kind === 'any' && top.rules.length > 0 ? new Bits(columns.size) : within;
  for (const one of top.rules) {
    const inside = isGroup(one) ? narrow(one, columns, reading, { ...among, within }) : null;
    const set = inside?.bits ?? evaluate(one, columns, reading, among.memo).and(within);
    bits = top.kind === 'any' ? bits.or(set) : bits.and(top.kind === 'none' ? set.not() : set);
    steps.push({ alone: set.count(), left: bits.count(), inner: inside?.steps ?? [] });
  }
  return { bits, steps };
}

function evaluateLine(
  line: Line,
  columns: Columns,
  reading: EvaluationContext,
  memo: EvaluationCache | undefined,
): Bits {
  const known = memo?.get(line);
  if (known) return known;
  const bits = scan(linePlan(line, columns.get(columnKey(line)), reading), columns.size);
  memo?.set(line, bits);
  return bits;
}

/** Whether one person passes a rule, and each rule inside it: the same tests, put to them alone. */
export interface Trace {
  holds: boolean;
  inner: Trace[];
}

/** What each line of a tree comes to for one person. */
export function trace(rule: Rule, columns: Columns, ordinal: number, reading: EvaluationContext): Trace {
  if (!isGroup(rule))
    return { holds: passes(linePlan(rule, columns.get(columnKey(rule)), reading), ordinal), inner: [] };
  const inner = rule.rules.map((one) => trace(one, columns, ordinal, reading));
  switch (rule.kind) {
    case 'all':
      return { holds: inner.every((one) => one.holds), inner };
    case 'any':
      return { holds: inner.length === 0 || inner.some((one) => one.holds), inner };
    case 'none':
      return { holds: !inner.some((one) => one.holds), inner };
  }
}
