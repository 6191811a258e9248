import type { Instant } from '../common';
import { bearingScopes, isRelationship, RELATIONSHIPS, type PermissionEntry, type Scope } from './vocabulary';

/** A moment and the entry that fixed it. */
export interface Mark {
  at: Instant;
  entryId: number;
  /** Last moment of a pause. */
  until?: Instant;
}

/**
 * The kinds of marks: `ownYes` is the person's own latest express agreement, the only thing that lifts an older no;
 * `stated` an implied permission with a last moment of its own (which is its `at`); one for each relationship, whose
 * length is a house rule; and the newest pause.
 */
export const MARK_KINDS = ['no', 'ownYes', 'yes', 'stated', ...RELATIONSHIPS, 'asked', 'pause'] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

/**
 * What all entries of one contact point, person, channel and scope come to. Each mark is the greatest of its kind, so
 * folding is commutative, associative and idempotent: entries may arrive in any order and any number of times, and the
 * table derived from them can be kept by upserts and rebuilt by one GROUP BY with the same result.
 *
 * `no` is kept per address (for everyone who shares it), the rest per person at the address.
 */
export type Marks = Partial<Record<MarkKind, Mark>>;

function later(a: Mark | undefined, b: Mark): Mark {
  if (!a || b.at > a.at || (b.at === a.at && b.entryId > a.entryId)) return b;
  return a;
}

function marksOf(entry: PermissionEntry): Marks {
  const mark = { at: entry.at, entryId: entry.id };
  switch (entry.state) {
    case 'no':
      return { no: mark };
    case 'yes':
      return entry.byPerson ? { yes: mark, ownYes: mark } : { yes: mark };
    case 'implied':
      return isRelationship(entry.how) ? { [entry.how]: mark } : { stated: { ...mark, at: entry.until ?? entry.at } };
    case 'asked':
      return { asked: mark };
    case 'pause':
      return { pause: { ...mark, until: entry.until ?? entry.at } };
    case 'back':
      return {};
  }
}

export function joinMarks(a: Marks, b: Marks): Marks {
  const out: Marks = { ...a };
  for (const kind of MARK_KINDS) {
    const mark = b[kind];
    if (mark) out[kind] = later(out[kind], mark);
  }
  return out;
}

/** Adds one entry to the marks of its own address, person, channel and scope. */
export function foldEntry(marks: Marks, entry: PermissionEntry): Marks {
  return joinMarks(marks, marksOf(entry));
}

/**
 * The marks that bear on one question: may this person be written to at this address, on this channel, for this scope?
 * Entries for wider scopes bear on every scope within them; a no bears on everyone at the address; the rest only on the
 * person who said it.
 */
export function marksFor(
  entries: Iterable<PermissionEntry>,
  question: { contactPointId: number; supporterId: number; channel: string; scope: Scope },
): Marks {
  const scopes = bearingScopes(question.scope);
  let marks: Marks = {};
  for (const entry of entries) {
    const bears =
      entry.contactPointId === question.contactPointId &&
      entry.channel === question.channel &&
      scopes.includes(entry.scope) &&
      (entry.state === 'no' || entry.supporterId === question.supporterId);
    if (bears) marks = foldEntry(marks, entry);
  }
  return marks;
}
