import { isGroup, lineKindOf, windowSaid, type Names, type Rule, type Trace, type Window } from '../segment';
import { say, speak } from './speak';

/** A rule as part of a sentence that begins "Supporters who …". */
export function describe(rule: Rule, names: Names): string {
  if (!isGroup(rule)) return speak(lineKindOf(rule).said(rule, names));
  if (rule.rules.length === 0) return say('rule.everybody');
  const rules = rule.rules.map((inner) => {
    const words = describe(inner, names);
    return isGroup(inner) && inner.rules.length > 1 ? say('rule.in-brackets', { rule: words }) : words;
  });
  return say(rule.kind === 'any' && rules.length === 1 ? 'rule.one' : `rule.${rule.kind}`, { rules });
}

/** A window of days, in words. */
export const describeWindow = (window: Window, locale = 'en-US'): string => speak(windowSaid(window, locale));

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
