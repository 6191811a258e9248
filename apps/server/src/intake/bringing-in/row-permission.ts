import { closedScopes, type ChannelPermission, type IntakePlan } from '@goodword/core/intake';
import {
  joinMarks,
  marksFor,
  vouchedState,
  type Cell,
  type Channel,
  type Marks,
  type Place,
  type Scope,
} from '@goodword/core/permission';

/** One address of one row, or a row without any, with what is known of the person there. */
export interface ClaimRow {
  rowNo: number;
  /** The person: an id of somebody here, or minus the row that makes them. */
  person: number;
  /** 0 where the person is still to be made. */
  supporterId: number;
  /** The row makes the person, so nothing was said of them before. */
  isNew: boolean;
  /** What the row's columns of consent and refusal say: 1 yes, 0 no, null nothing. */
  says: number | null;
  /** The no is that of a column of refusals, which is about all of the channel. */
  refused: boolean;
  /** The address in its normal form; null for the row itself, which alone speaks for the person. */
  normal: string | null;
  /** The address on file, where there is one. */
  contactPointId: number | null;
  onHold: boolean;
  doNotContact: boolean;
  signed: string | null;
  words: string | null;
  place: Place;
}

/** An entry that a row comes to. */
export interface RowEntry {
  row: ClaimRow;
  scope: Scope;
  state: 'yes' | 'no' | 'asked';
  how: 'file' | 'feed' | Extract<ChannelPermission, { said: 'yes' }>['how'];
  saidAt: number;
  words: string;
}

export interface ClaimFacts {
  plan: IntakePlan;
  channel: Channel;
  /** When the batch was made: the moment of a refusal that nothing dates. */
  madeAt: number;
  now: number;
  /** Within how many days of acting somebody may be asked to confirm where they are. */
  confirmDays: (place: Place) => number;
  /** What was said before of these people and addresses on the channel. */
  cells: readonly Cell[];
}

const NO_WORDS = 'A consent column of the file says no';
const NO_WORDS_THERE = 'It says no over there';

/**
 * What rows write into the ledger for a channel: the forecast of a batch counts them, and bringing in writes
 * them down. A no in the consent column is the person's, for what the column is about; a yes is at each
 * address, and becomes Asked where the core says so.
 */
export function rowEntries(rows: readonly ClaimRow[], facts: ClaimFacts): RowEntry[] {
  const { channel, plan } = facts;
  // From a file nobody agrees to calls and post; they can say no to them.
  const said: ChannelPermission =
    channel === 'email' || channel === 'text' ? plan.permission[channel] : { said: 'nothing' };
  const at = facts.cells.length > 0 ? cellsByPoint(facts.cells) : null;
  const agreed =
    said.said === 'yes'
      ? {
          said: { ...said, scopes: [...new Set(said.scopes)] },
          saidAt: noon(said.on),
          words: vouched(said.words, said.voucher),
        }
      : null;
  return rows.flatMap((row) =>
    row.normal === null ? refusals(row, said, facts) : agreed ? agreements(row, agreed, facts, at) : [],
  );
}

const vouched = (words: string, voucher: string) => `${words} (vouched for by ${voucher})`;

/** What a file says of everybody, worked out once: the rows are many. */
interface Agreed {
  said: Extract<ChannelPermission, { said: 'yes' }>;
  saidAt: number;
  words: string;
}

const NO_CELLS: readonly Cell[] = [];
const NO_MARKS: Marks = {};

function refusals(row: ClaimRow, said: ChannelPermission, { madeAt, now, plan }: ClaimFacts): RowEntry[] {
  if (row.says !== 0) return [];
  const agreed = said.said === 'yes' ? said.scopes : [];
  if (plan.feed) {
    const scopes = row.refused ? (['all'] as const) : closedScopes(plan.feed.no, agreed);
    const saidAt = Math.min(madeAt, now);
    return scopes.map((scope) => ({ row, scope, state: 'no', how: 'feed', saidAt, words: NO_WORDS_THERE }));
  }
  const isAbout = said.said === 'yes' && said.from === 'column' && !row.refused;
  const scopes = closedScopes(isAbout ? 'agreed' : 'channel', agreed);
  const saidAt = Math.min(said.said === 'yes' ? noon(said.on) : madeAt, now);
  return scopes.map((scope) => ({ row, scope, state: 'no', how: 'file', saidAt, words: NO_WORDS }));
}

function agreements(
  row: ClaimRow,
  agreed: Agreed,
  facts: ClaimFacts,
  at: ReturnType<typeof cellsByPoint> | null,
): RowEntry[] {
  const { said } = agreed;
  if (!(said.from === 'column' ? row.says === 1 : row.says !== 0)) return [];
  const saidAt = Math.min(row.signed === null ? agreed.saidAt : noon(row.signed), facts.now);
  const words = row.words === null ? agreed.words : vouched(row.words, said.voucher);
  const cells = at?.(row) ?? NO_CELLS;
  const toConfirm = facts.channel === 'email' && facts.plan.confirm !== null;
  const claim = {
    toConfirm,
    saidAt,
    now: facts.now,
    // Only of whom is asked to confirm; rules of a place are put together for it.
    withinDays: toConfirm ? facts.confirmDays(row.place) : 0,
    address: row,
    channel: cells.reduce<Marks>((marks, cell) => joinMarks(marks, cell.marks), NO_MARKS),
  };
  const asked = {
    contactPointId: row.contactPointId ?? 0,
    supporterId: row.supporterId,
    channel: facts.channel,
  };
  return said.scopes.map((scope) => {
    const marks = cells.length === 0 ? NO_MARKS : marksFor(cells, { ...asked, scope });
    return { row, scope, state: vouchedState({ ...claim, marks }), how: said.how, saidAt, words };
  });
}

const noon = (day: string) => Date.parse(`${day}T12:00:00Z`);

/** Cells that bear on a person at an address, found without going through all of them. */
export function cellsByPoint(cells: readonly Cell[]): (row: ClaimRow) => Cell[] {
  const [byPoint, byPerson] = [new Map<number, Cell[]>(), new Map<number, Cell[]>()];
  for (const cell of cells) {
    const [map, key] =
      cell.contactPointId > 0 ? [byPoint, cell.contactPointId] : [byPerson, cell.supporterId];
    map.set(key, [...(map.get(key) ?? []), cell]);
  }
  return ({ contactPointId, supporterId }) => [
    ...(contactPointId === null ? [] : (byPoint.get(contactPointId) ?? [])).filter((cell) =>
      [0, supporterId].includes(cell.supporterId),
    ),
    ...(supporterId === 0 ? [] : (byPerson.get(supporterId) ?? [])),
  ];
}

/** What tells two entries apart: the same person, address, scope, state, way, day and words are one. */
export function entryKey(entry: {
  person: number;
  at: string | number | null;
  scope: string;
  state: string;
  how: string;
  saidAt: number;
  words: string;
}): string {
  return [entry.person, entry.at ?? '', entry.scope, entry.state, entry.how, entry.saidAt, entry.words].join(
    '\u0000',
  );
}

/** People of whom more than one of these rows or addresses speaks: only they can say something twice. */
export function severalOf(rows: readonly ClaimRow[]): Set<number> {
  const [seen, several] = [new Set<number>(), new Set<number>()];
  for (const { person } of rows) {
    if (seen.has(person)) several.add(person);
    seen.add(person);
  }
  return several;
}

/**
 * Keeps each entry once, among these and those known before; `seen` grows by them. Of whom `once` holds each
 * is the only one.
 */
export function onceEach(
  entries: readonly RowEntry[],
  seen: Set<string>,
  once: (row: ClaimRow) => boolean = () => false,
): RowEntry[] {
  return entries.filter(({ row, scope, state, how, saidAt, words }) => {
    if (once(row)) return true;
    const key = entryKey({ person: row.person, at: row.normal, scope, state, how, saidAt, words });
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

/**
 * Entries that differ in nothing but whose they are and where: most of a file says the same. Each with one of
 * them.
 */
export function alike(entries: readonly RowEntry[]): [RowEntry, RowEntry[]][] {
  const groups = new Map<string, [RowEntry, RowEntry[]]>();
  let last: [RowEntry, RowEntry[]] | null = null;
  for (const entry of entries) {
    const { scope, state, how, saidAt, words } = entry;
    // Most say what the one before them said.
    if (last && isAlike(last[0], entry)) {
      last[1].push(entry);
      continue;
    }
    const key = [scope, state, how, saidAt, words].join('\u0000');
    last = groups.get(key) ?? null;
    if (last) last[1].push(entry);
    else groups.set(key, (last = [entry, [entry]]));
  }
  return [...groups.values()];
}

function isAlike(a: RowEntry, b: RowEntry): boolean {
  return (
    a.scope === b.scope &&
    a.state === b.state &&
    a.saidAt === b.saidAt &&
    a.how === b.how &&
    a.words === b.words
  );
}
