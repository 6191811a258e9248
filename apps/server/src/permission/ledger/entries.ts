import type {
  Channel,
  PermissionEntry,
  RecordedState,
  CollectionMethod,
  Scope as PermissionScope,
} from '@goodword/core/permission';
import type { Bound } from '../../platform/scoped';

/** An entry to be written. */
export interface NewEntry {
  /** Null: said without an address, so that it holds at every one. Only a no, a pause. */
  contactPointId: number | null;
  supporterId: number | null;
  channel: Channel;
  scope: PermissionScope;
  state: RecordedState;
  saidAt: Date;
  untilAt?: Date | null;
  byPerson: boolean;
  how: CollectionMethod;
  words?: string;
  source?: string;
  origin?: string | null;
  evidenceId?: number | null;
  /** The message that it was said through. */
  deliveryId?: number | null;
  /** Who wrote it down, where that is not whoever does so now. */
  recordedBy?: number | null;
  /** When it was written down, where that was before it came here. */
  recordedAt?: Date;
  /** The form, as it stood then. */
  form?: { id: number; version: number } | null;
  /** The page that it was said on. */
  page?: string | null;
  /** The reply that it was said in. */
  replyId?: number | null;
  /** The row of a file that says so. */
  batch?: { id: number; row: number };
}

/** What is said alike of many by the rows of a batch. */
export type SaidAlike = Omit<NewEntry, 'contactPointId' | 'supporterId' | 'batch'> & { batchId: number };

/** Where and of whom one row says it. */
export interface SaidWhere {
  contactPointId: number | null;
  supporterId: number | null;
  row: number;
}

export type Written = Pick<NewEntry, 'contactPointId' | 'supporterId'> & { id: number };

export const kindOf = ({ contactPointId, supporterId }: Written) =>
  contactPointId === null ? 'person' : supporterId === null ? 'address' : 'at';

export interface EntryRow {
  id: number;
  contact_point_id: number | null;
  supporter_id: number | null;
  channel: Channel;
  scope: PermissionScope;
  state: RecordedState;
  said_at: Date;
  until_at: Date | null;
  by_person: number;
  how: CollectionMethod;
  words: string;
  source: string;
  origin: string | null;
  batch_id: number | null;
  evidence_id: number | null;
  delivery_id: number | null;
  recorded_by: number | null;
  recorded_at: Date;
  recorded_name: string | null;
  form_id: number | null;
  form_version: number | null;
  page: string | null;
  reply_id: number | null;
  shown: string | null;
  taken_back_at: Date | null;
}

/** A no, with what is known of its way to us. */
export interface Revocation extends EntryRow {
  /** When the reply that said it reached us, and when it was read. */
  received_at: Date | null;
  read_at: Date | null;
  /** From when the address was on hold while a person read what was said. */
  held_at: Date | null;
}

/** The columns of an entry, in the order of `valuesOf`. */
export const ENTRY_COLUMNS = [
  ...[
    'contact_point_id',
    'supporter_id',
    'channel',
    'scope',
    'state',
    'said_at',
    'until_at',
    'by_person',
    'how',
    'words',
    'source',
  ],
  ...['origin', 'evidence_id', 'delivery_id', 'batch_id', 'batch_row', 'recorded_by', 'recorded_at'],
  ...['form_id', 'form_version', 'page', 'reply_id'],
] as const;

/** An entry that is there, as one to be written for somebody else. */
export function asNew(row: EntryRow): NewEntry {
  return {
    contactPointId: row.contact_point_id,
    supporterId: row.supporter_id,
    channel: row.channel,
    scope: row.scope,
    state: row.state,
    saidAt: row.said_at,
    untilAt: row.until_at,
    byPerson: row.by_person === 1,
    how: row.how,
    words: row.words,
    source: row.source,
    origin: row.origin,
    evidenceId: row.evidence_id,
    deliveryId: row.delivery_id,
    form: row.form_id === null ? null : { id: row.form_id, version: row.form_version ?? 1 },
    page: row.page,
    replyId: row.reply_id,
  };
}

/** What a kept entry says, as the core reads it. One that was taken back says nothing. */
export function asSaid(row: EntryRow): PermissionEntry[] {
  return row.state === 'back' || row.taken_back_at !== null ? [] : [asCore(asNew(row), row.id)];
}

export function asCore(entry: Omit<NewEntry, 'batch'>, id: number): PermissionEntry {
  const { contactPointId, supporterId, channel, scope, state, how, byPerson } = entry;
  const [at, until] = [entry.saidAt.getTime(), entry.untilAt?.getTime() ?? null];
  return { id, contactPointId, supporterId, channel, scope, state, how, byPerson, at, until };
}

/** The values of an entry in the order of COLUMNS. */
export function valuesOf(entry: NewEntry, actorId: number | null): Bound[] {
  return [
    entry.contactPointId,
    entry.supporterId,
    entry.channel,
    entry.scope,
    entry.state,
    entry.saidAt,
    entry.untilAt ?? null,
    entry.byPerson ? 1 : 0,
    entry.how,
    (entry.words ?? '').slice(0, 2000),
    (entry.source ?? '').slice(0, 300),
    entry.origin ?? null,
    entry.evidenceId ?? null,
    entry.deliveryId ?? null,
    entry.batch?.id ?? null,
    entry.batch?.row ?? null,
    entry.recordedBy === undefined ? actorId : entry.recordedBy,
    entry.recordedAt ?? new Date(),
    entry.form?.id ?? null,
    entry.form?.version ?? null,
    entry.page?.slice(0, 300) ?? null,
    entry.replyId ?? null,
  ];
}
