import { roleReaches, type Role } from './roles';

/** What was said last of a draft that was handed over. */
export const GO_STATES = ['asked', 'back', 'agreed'] as const;
export type GoState = (typeof GO_STATES)[number];

/** What can be done with a draft that somebody else should read before it leaves. */
export const GO_ACTS = ['ask', 'withdraw', 'agree', 'back'] as const;
export type GoAct = (typeof GO_ACTS)[number];

/** A draft's go: what was said of which version of its words, and who had asked. */
export interface Go {
  state: GoState;
  /** The version of the words that it was said of. */
  version: number;
  /** The teammate who handed it over; null where they are gone. */
  askedBy: number | null;
}

/** How a draft stands: agreed words that were changed since are agreed no more. */
export type GoStanding = 'none' | GoState | 'changed';

/** How a draft of this version stands with what was said of it. */
export function goStanding(go: Go | null, version: number): GoStanding {
  if (go === null) return 'none';
  return go.state === 'agreed' && go.version !== version ? 'changed' : go.state;
}

/** Whether it may leave as far as this goes: nobody asked for a go, or these very words have one. */
export const hasItsGo = (standing: GoStanding): boolean => standing === 'none' || standing === 'agreed';

/**
 * Whether somebody may do this with a draft: whoever writes may hand it over, whoever handed it over may take
 * it back, and a go is given, or refused, by an organizer who did not ask for it.
 */
export function mayGo(act: GoAct, go: Go | null, who: { id: number | null; role: Role }): boolean {
  const writes = roleReaches(who.role, 'writer');
  const decides = roleReaches(who.role, 'organizer');
  switch (act) {
    case 'ask':
      return writes && go?.state !== 'asked';
    case 'withdraw':
      return go !== null && writes && (decides || (go.askedBy !== null && go.askedBy === who.id));
    case 'agree':
    case 'back':
      return go !== null && go.state === 'asked' && decides && go.askedBy !== who.id;
  }
}
