import type { Decision } from '../permission';
import { ENDING_STAGES, type CampaignKind } from './kinds';

/** What can end a campaign for somebody; each campaign says which of them do. */
export const FALL_CAUSES = ['gave', 'replied', 'left'] as const;
export type FallCause = (typeof FALL_CAUSES)[number];

/** When a campaign is over for one person, before it is for all. */
export interface CampaignEnds {
  causes: readonly FallCause[];
  /** Stages at which somebody is asked no further. */
  stages: readonly string[];
  /** Whoever comes into a segment comes onto the roster. */
  joins: boolean;
  /** Whom another appeal is asking gets none of it meanwhile; left out: that does not matter. */
  alone?: boolean;
}

/**
 * What ends a campaign for somebody where nobody said otherwise: an appeal is over for whoever gave or
 * replied (common practice, no source), any campaign for whoever left by it.
 */
export function usualEnds(kind: CampaignKind, stages: readonly string[]): Omit<CampaignEnds, 'joins'> {
  if (kind !== 'appeal') return { causes: ['left'], stages: [] };
  return { causes: [...FALL_CAUSES], stages: ENDING_STAGES.filter((one) => stages.includes(one)) };
}

/** What is known of one person in a campaign. */
export interface RosterFacts {
  /** Where they stand on its roster; null for nowhere. */
  stage: string | null;
  /** Somebody took them off it by hand. */
  takenOff: boolean;
  /** Minor units given since its first day or by its code, refunds taken away. */
  given: number;
  /** They replied to one of its messages. */
  replied: boolean;
  /** They left by one of its messages. */
  left: boolean;
  /** Another appeal is asking them, as `isAskedElsewhere` says. */
  elsewhere: boolean;
}

/** Why somebody gets no more of a campaign, and of an automatic message the other three. */
export type Fall = 'taken-off' | 'stage' | 'elsewhere' | FallCause | 'taken-out' | 'cause-gone' | 'excepted';
/** All of them, as they are tried. */
export const FALLS: readonly Fall[] = [
  ...(['taken-off', 'taken-out', 'cause-gone', 'left', 'gave', 'replied', 'stage'] as const),
  ...(['elsewhere', 'excepted'] as const),
];

/** Decides whether somebody is out of a campaign, and by what: the first that holds of `FALLS`. */
export function fallOf(ends: CampaignEnds, facts: RosterFacts): Fall | null {
  const ended = (cause: FallCause, holds: boolean) => holds && ends.causes.includes(cause);
  // Of a roster that fills itself they are on it already: it is written down when the next step leaves.
  if (facts.stage === null && (facts.takenOff || !ends.joins)) return 'taken-off';
  if (ended('left', facts.left)) return 'left';
  if (ended('gave', facts.given > 0)) return 'gave';
  if (ended('replied', facts.replied)) return 'replied';
  if (facts.stage !== null && ends.stages.includes(facts.stage)) return 'stage';
  return ends.alone && facts.elsewhere ? 'elsewhere' : null;
}

/** What is decided of somebody who is out of the campaign: they get nothing, at no address. */
export const FELL_OUT: Decision = {
  ...{ verdict: 'fell-out', contactPointId: null, state: 'never', entryId: null, until: null },
};
