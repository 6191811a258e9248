import type { Instant } from '../common';
import type { PermissionEntry } from './vocabulary';

/** A moment and the entry that fixed it. */
export interface Mark {
  at: Instant;
  entryId: number;
}

/**
 * What all entries of one contact point, person, channel and scope come to. Each mark is the greatest of its kind, so
 * folding is commutative, associative and idempotent: entries may arrive in any order and any number of times, and the
 * table derived from them can be kept by upserts and rebuilt by one GROUP BY with the same result.
 *
 * `no` is kept per address (for everyone who shares it), the rest per person at the address.
 */
export interface Marks {
  no?: Mark;
  /** The person's own latest express agreement: the only thing that lifts an older no. */
  ownYes?: Mark;
  /** Latest express agreement of any source. */
  yes?: Mark;
  /** Implied permission that lasts longest; `at` is its last moment. */
  implied?: Mark;
  asked?: Mark;
}

function later(a: Mark | undefined, b: Mark): Mark {
  if (!a || b.at > a.at || (b.at === a.at && b.entryId > a.entryId)) return b;
  return a;
}

/** Adds one entry to the marks of its own address, person, channel and scope. */
export function foldEntry(marks: Marks, entry: PermissionEntry): Marks {
  const mark = { at: entry.at, entryId: entry.id };
  switch (entry.state) {
    case 'no':
      return { ...marks, no: later(marks.no, mark) };
    case 'yes':
      return {
        ...marks,
        yes: later(marks.yes, mark),
        ...(entry.byPerson ? { ownYes: later(marks.ownYes, mark) } : {}),
      };
    case 'implied':
      return { ...marks, implied: later(marks.implied, { at: entry.until ?? entry.at, entryId: entry.id }) };
    case 'asked':
      return { ...marks, asked: later(marks.asked, mark) };
  }
}

export function joinMarks(a: Marks, b: Marks): Marks {
  const out: Marks = { ...a };
  for (const kind of ['no', 'ownYes', 'yes', 'implied', 'asked'] as const) {
    const mark = b[kind];
    if (mark) out[kind] = later(out[kind], mark);
  }
  return out;
}

/**
 * The marks that bear on one question: may this person be written to at this address, on this channel, for this scope?
 * Entries for "everything on the channel" bear on every scope of it; a no bears on everyone at the address; the rest
 * only on the person who said it.
 */
export function marksFor(
  entries: Iterable<PermissionEntry>,
  question: { contactPointId: number; supporterId: number; channel: string; scope: string },
): Marks {
  let marks: Marks = {};
  for (const entry of entries) {
    const bears =
      entry.contactPointId === question.contactPointId &&
      entry.channel === question.channel &&
      (entry.scope === 'all' || entry.scope === question.scope) &&
      (entry.state === 'no' || entry.supporterId === question.supporterId);
    if (bears) marks = joinMarks(marks, foldEntry({}, entry));
  }
  return marks;
}
