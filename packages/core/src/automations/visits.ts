import type { Fall, FallCause } from '../campaigns';

/** What is known of somebody whose next message is due. */
export interface VisitFacts {
  /** What set it going is still so: the gift was not taken back, the tag is still on. */
  stands: boolean;
  /** Since it was set going. */
  gave: boolean;
  replied: boolean;
  left: boolean;
  /** What the sentence excepts is so of them now. */
  excepted: boolean;
}

/** Why somebody gets nothing more of it: the first that holds, or null where the next message leaves. */
export function endOf(stops: readonly FallCause[], facts: VisitFacts): Fall | null {
  if (!facts.stands) return 'cause-gone';
  for (const cause of ['left', 'gave', 'replied'] as const)
    if (facts[cause] && stops.includes(cause)) return cause;
  return facts.excepted ? 'excepted' : null;
}
