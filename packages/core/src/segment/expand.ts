import { isGroup, type Rule } from './tree';

/** A tree with other segments put in their places, or which of them is gone or holds itself. */
export type Expanded = { ok: true; rule: Rule } | { ok: false; why: 'gone' | 'cycle'; segmentId: number };

/**
 * Puts the trees of other segments in the places where they are named. A segment that comes to itself again,
 * through however many others, is told as a cycle; one that is not there any more as gone.
 */
export function expand(
  rule: Rule,
  treeOf: (segmentId: number) => Rule | undefined,
  path: readonly number[] = [],
): Expanded {
  if (isGroup(rule)) {
    const rules: Rule[] = [];
    for (const inner of rule.rules) {
      const expanded = expand(inner, treeOf, path);
      if (!expanded.ok) return expanded;
      rules.push(expanded.rule);
    }
    return { ok: true, rule: { kind: rule.kind, rules } };
  }
  if (rule.kind !== 'segment') return { ok: true, rule };
  const { segmentId } = rule;
  if (path.includes(segmentId)) return { ok: false, why: 'cycle', segmentId };
  const tree = treeOf(segmentId);
  if (!tree) return { ok: false, why: 'gone', segmentId };
  const expanded = expand(tree, treeOf, [...path, segmentId]);
  if (!expanded.ok) return expanded;
  return { ok: true, rule: { kind: rule.in ? 'all' : 'none', rules: [expanded.rule] } };
}
