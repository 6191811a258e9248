import type { Line } from './lines';

/** A segment: rules that keep themselves up to date. The same tree is the JSON of the API. */
export type Rule = Group | Line;

/** Rules of which all, one or none must hold. */
export interface Group {
  kind: 'all' | 'any' | 'none';
  rules: Rule[];
}

/** Tells groups from lines. */
export function isGroup(rule: Rule): rule is Group {
  return rule.kind === 'all' || rule.kind === 'any' || rule.kind === 'none';
}

/** Every line of the tree, in reading order. */
export function segmentLines(rule: Rule): Line[] {
  return isGroup(rule) ? rule.rules.flatMap(segmentLines) : [rule];
}

/** Depth and size that a tree may have: deeper ones can't be read as a sentence. */
export const TREE_LIMITS = { depth: 4, lines: 40 } as const;

/** The same tree with each line replaced. */
export function mapLines(rule: Rule, change: (line: Line) => Line): Rule {
  return isGroup(rule) ? { ...rule, rules: rule.rules.map((one) => mapLines(one, change)) } : change(rule);
}
