import type { Instant } from '../common';
import { type Channel } from './channels';
import {
  bearingScopes,
  RELATIONSHIPS,
  type PermissionEntry,
  type RecordedState,
  type Relationship,
  type CollectionMethod,
  type Scope,
} from './vocabulary';

/** A moment and the entry that fixed it. */
export interface Mark {
  at: Instant;
  entryId: number;
  /** Last moment of a pause. */
  until?: Instant;
}

/**
 * Whose a mark is. A no through an address is the address's (whoever shares it) and the person's (wherever
 * they can be reached); START is the number's; a pause the person's; everything else one person's at one
 * address.
 */
export type MarkHolder = 'address' | 'person' | 'both';

/** Which entries make a mark of a kind, what moment it carries, and whose it is. */
export interface MarkRule {
  state: RecordedState;
  /** Only these ways of saying it, or all but these. */
  how?: readonly CollectionMethod[];
  notHow?: readonly CollectionMethod[];
  /**
   * True: only what was said through an address, of everything on the channel; with `notHow`, those ways
   * count where there was no address, or it was of a part.
   */
  stops?: true;
  byPerson?: true;
  at: 'said' | 'until';
  holders: readonly MarkHolder[];
}

/**
 * A STOP from the number, by keyword or in the person's own words, to everything: what START from there opens
 * again.
 */
const STOPPING = ['keyword', 'reply'] as const;

function relationship(how: Relationship): MarkRule {
  return { state: 'implied', how: [how], at: 'said', holders: ['both'] };
}

/**
 * The one table of what entries come to. `foldEntry` reads it, and the statement by which a database folds
 * many entries at once is made from it.
 *
 * `no`, `stop`: refusals, apart because START lifts a STOP and nothing else. `start`: START from the number.
 * `ownYes`: the person's own latest express agreement, the only thing that lifts an older no. `stated`: an
 * implied permission with a last moment of its own (which is its `at`). One for each relationship, whose
 * length is a house rule.
 */
export const MARK_RULES = {
  no: { state: 'no', notHow: STOPPING, stops: true, at: 'said', holders: ['address', 'person'] },
  stop: { state: 'no', how: STOPPING, stops: true, at: 'said', holders: ['address', 'person'] },
  start: { state: 'start', at: 'said', holders: ['address'] },
  ownYes: { state: 'yes', byPerson: true, at: 'said', holders: ['both'] },
  yes: { state: 'yes', at: 'said', holders: ['both'] },
  stated: { state: 'implied', notHow: RELATIONSHIPS, at: 'until', holders: ['both'] },
  gift: relationship('gift'),
  membership: relationship('membership'),
  volunteering: relationship('volunteering'),
  inquiry: relationship('inquiry'),
  asked: { state: 'asked', at: 'said', holders: ['both'] },
  pause: { state: 'pause', at: 'said', holders: ['person'] },
} as const satisfies Record<string, MarkRule>;
export type MarkKind = keyof typeof MARK_RULES;
/** Kinds of marks in the order in which cells keep them. */
export const MARK_KINDS = Object.keys(MARK_RULES) as MarkKind[];

/**
 * What entries come to, one mark of a kind. Each mark is the greatest of its kind, so folding is commutative,
 * associative and idempotent: entries may arrive in any order and any number of times, and the table derived
 * from them can be kept by upserts and rebuilt by one GROUP BY with the same result.
 */
export type Marks = Partial<Record<MarkKind, Mark>>;

/**
 * Where marks are kept: at an address for a person. 0 stands for everybody at the address, and for every
 * address.
 */
export interface Cell {
  contactPointId: number;
  supporterId: number;
  channel: Channel;
  scope: Scope;
  marks: Marks;
}

function later(a: Mark | undefined, b: Mark): Mark {
  if (!a || b.at > a.at || (b.at === a.at && b.entryId > a.entryId)) return b;
  return a;
}

/** Whether an entry makes a mark by a rule. */
export function makes(rule: MarkRule, entry: PermissionEntry): boolean {
  if (entry.state !== rule.state || (rule.byPerson && !entry.byPerson)) return false;
  const isStop = !rule.stops || (entry.contactPointId !== null && entry.scope === 'all');
  if (rule.how) return rule.how.includes(entry.how) && isStop;
  return !rule.notHow?.includes(entry.how) || !isStop;
}

/** The cell of a holder, or null where the entry names none: nobody in particular, or no address. */
function cellOf(
  holder: MarkHolder,
  entry: PermissionEntry,
): { contactPointId: number; supporterId: number } | null {
  const { contactPointId, supporterId } = entry;
  switch (holder) {
    case 'address':
      return contactPointId === null ? null : { contactPointId, supporterId: 0 };
    case 'person':
      return supporterId === null ? null : { contactPointId: 0, supporterId };
    case 'both':
      return contactPointId === null || supporterId === null ? null : { contactPointId, supporterId };
  }
}

function markOf(rule: MarkRule, entry: PermissionEntry): Mark {
  const at = rule.at === 'until' ? (entry.until ?? entry.at) : entry.at;
  return { at, entryId: entry.id, ...(rule.state === 'pause' ? { until: entry.until ?? entry.at } : {}) };
}

/** The cells that one entry writes into. Entries that were taken back are not to be handed in. */
export function cellsOf(entry: PermissionEntry): Cell[] {
  const cells: Cell[] = [];
  for (const kind of MARK_KINDS) {
    const rule: MarkRule = MARK_RULES[kind];
    if (!makes(rule, entry)) continue;
    for (const holder of rule.holders) {
      const at = cellOf(holder, entry);
      if (at)
        cells.push({
          ...at,
          channel: entry.channel,
          scope: entry.scope,
          marks: { [kind]: markOf(rule, entry) },
        });
    }
  }
  return cells;
}

/** Two sets of marks as one: of each kind the newer. */
export function joinMarks(a: Marks, b: Marks): Marks {
  const out: Marks = { ...a };
  for (const kind in b) out[kind as MarkKind] = later(out[kind as MarkKind], b[kind as MarkKind]!);
  return out;
}

/** Which address of whom, for what. */
export interface CellQuery {
  contactPointId: number;
  supporterId: number;
  channel: Channel;
  scope: Scope;
}

/**
 * The marks that bear on one question: those of the person and of everybody, at this address and at every
 * address, for the scope and for every wider one.
 */
export function marksFor(cells: Iterable<Cell>, asked: CellQuery): Marks {
  const scopes = bearingScopes(asked.scope);
  let marks: Marks = {};
  for (const cell of cells) {
    const bears =
      (cell.contactPointId === asked.contactPointId || cell.contactPointId === 0) &&
      (cell.supporterId === asked.supporterId || cell.supporterId === 0) &&
      cell.channel === asked.channel &&
      scopes.includes(cell.scope);
    if (bears) marks = joinMarks(marks, cell.marks);
  }
  return marks;
}

/** All that some entries come to, cell by cell. */
export function foldEntries(entries: Iterable<PermissionEntry>): Cell[] {
  const cells = new Map<string, Cell>();
  for (const entry of entries) {
    for (const cell of cellsOf(entry)) {
      const key = `${cell.contactPointId}:${cell.supporterId}:${cell.channel}:${cell.scope}`;
      const known = cells.get(key);
      cells.set(key, known ? { ...known, marks: joinMarks(known.marks, cell.marks) } : cell);
    }
  }
  return [...cells.values()];
}
