import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { FELL_OUT, type Fall } from '@goodword/core/campaigns';
import { FALL_WORDS } from '@goodword/core/words';
import { oneCopyEach, type Decision, type Verdict } from '@goodword/core/permission';
import { isKept } from '@goodword/core/wordings';
import { FactsRepository, type EligibilityQuery } from '../permission/ledger/facts.repository';
import type { MessageRow } from '../messages/messages.repository';
import type { Bound, Scoped } from '../platform/scoped';
import { HouseholdsRepository } from '../record/households.repository';
import type { GroupReaders } from '../roll/group-readers';

/** More people than an organization has. */
export const EVERYBODY = 20_000_000;

/** Four bytes for each person, the highest first, so that a part of them can be read where they lie. */
const BYTES = 4;

/** Somebody whose delivery is written. */
export interface NewDelivery {
  supporterId: number;
  contactPointId: number | null;
}
/** A delivery as it is written down. */
interface WrittenDelivery extends Pick<Decision, 'contactPointId' | 'entryId' | 'verdict'> {
  supporterId: number;
  /** What it is for, where the same message may come to somebody again; 0 for a message to a group. */
  occasion: number;
  notBefore: Date | null;
  detail: string | null;
}
type KeepingMessage = Pick<MessageRow, 'id' | 'kept_share' | 'kept_seed'>;
/** So many are drawn at once. */
const KEEP_SLICE = 5000;

type FellOf = (tx: Scoped, ids: readonly number[]) => Promise<Map<number, Fall>>;
type MomentsOf = (tx: Scoped, people: readonly NewDelivery[]) => Promise<Map<number, Date>>;

/**
 * The outbox: who is in a message's group, what was decided of each, and the deliveries that came of it. Owns
 * `delivery` as it is prepared, `last_look`, `look_group`.
 */
@Injectable()
export class SendingRepository {
  constructor(
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseholdsRepository) private readonly households: HouseholdsRepository,
  ) {}

  async freezeGroup(tx: Scoped, messageId: number, ids: readonly number[]): Promise<void> {
    await tx.execute('DELETE FROM message_group WHERE organization_id = :org AND message_id = :messageId', {
      messageId,
    });
    await tx.insertAll(
      'message_group',
      ['message_id', 'supporter_id'],
      ids.map((id) => [messageId, id]),
    );
  }

  /** Keeps what a last look came to, so that its numbers open. */
  async keepLook(tx: Scoped, messageId: number, groups: GroupReaders): Promise<void> {
    await tx.execute('DELETE FROM look_group WHERE organization_id = :org AND message_id = :messageId', {
      messageId,
    });
    for (const [verdict, ids] of Object.entries(groups))
      await tx.insert('look_group', { message_id: messageId, verdict, people: ids.length, ids: packed(ids) });
  }

  /** What a message would meet at one person now, and the address that it would go to. */
  async decisionOf(
    db: Scoped,
    supporterId: number,
    asking: EligibilityQuery,
  ): Promise<{ decision: Decision; shown: string | null }> {
    const decision = (await this.facts.decide(db, [supporterId], asking)).get(supporterId)!;
    const [point] = await db.sql<{ shown: string }>(
      'SELECT shown FROM contact_point WHERE organization_id = :org AND id = :id',
      {
        id: decision.contactPointId ?? 0,
      },
    );
    return { decision, shown: point?.shown ?? null };
  }

  /** What the last look of a message came to, as bytes: the verdicts in order, each with its people. */
  async lookBytes(db: Scoped, messageId: number): Promise<Buffer> {
    const rows = await db.sql<{ verdict: Verdict; ids: Buffer }>(
      `SELECT verdict, ids
        FROM look_group
        WHERE organization_id = :org AND message_id = :messageId
        ORDER BY verdict`,
      { messageId },
    );
    return Buffer.concat(rows.flatMap(({ verdict, ids }) => [Buffer.from(`${verdict}:${ids.length};`), ids]));
  }

  /** Everybody whom the last look counted and who is still here, whatever it said of them. */
  async lookedAt(db: Scoped, messageId: number): Promise<number[]> {
    const rows = await db.sql<{ ids: Buffer }>(
      'SELECT ids FROM look_group WHERE organization_id = :org AND message_id = :messageId',
      { messageId },
    );
    const here: number[] = [];
    for (const ids of slices(rows.flatMap((row) => unpacked(row.ids)).sort((a, b) => a - b)))
      here.push(
        ...(
          await db.sql<{ id: number }>(
            `SELECT id
              FROM supporter
              WHERE organization_id = :org AND erased_at IS NULL AND id IN (:ids)
              ORDER BY id`,
            {
              ids,
            },
          )
        ).map(({ id }) => id),
      );
    return here;
  }

  async lookCounts(db: Scoped, messageId: number): Promise<Map<Verdict, number>> {
    const rows = await db.sql<{ verdict: Verdict; people: number }>(
      'SELECT verdict, people FROM look_group WHERE organization_id = :org AND message_id = :messageId',
      { messageId },
    );
    return new Map(rows.map((row) => [row.verdict, row.people]));
  }

  /** So many people of a verdict, behind the first `from` of them. */
  async lookPeople(
    db: Scoped,
    messageId: number,
    verdict: Verdict,
    from: number,
    limit: number,
  ): Promise<number[]> {
    const [row] = await db.sql<{ ids: Buffer }>(
      `SELECT SUBSTRING(ids, 1 + ${BYTES} * :from, ${BYTES} * :limit) AS ids FROM look_group
        WHERE organization_id = :org AND message_id = :messageId AND verdict = :verdict`,
      { messageId, verdict, from, limit },
    );
    return row ? unpacked(row.ids) : [];
  }

  /**
   * Writes the deliveries of the next people of the frozen group, each with its verdict and the entry that it
   * rests on. Returns the last id written, or null when there was nobody left. A delivery is unique by
   * message and person, so a slice may be written again.
   */
  async prepareSlice(
    tx: Scoped,
    messageId: number,
    after: number,
    size: number,
    asking: EligibilityQuery & { together?: boolean; momentsOf?: MomentsOf; fellOf?: FellOf },
  ): Promise<number | null> {
    const { together = false, momentsOf, fellOf } = asking;
    const ids = await tx.sql<{ supporter_id: number }>(
      `SELECT supporter_id
        FROM message_group
        WHERE organization_id = :org AND message_id = :messageId AND supporter_id > :after
        ORDER BY supporter_id LIMIT :size`,
      { messageId, after, size },
    );
    const last = ids.at(-1)?.supporter_id;
    if (last === undefined) return null;
    const people = ids.map((row) => row.supporter_id);
    const decided = await this.facts.decide(tx, people, { ...asking, messageId });
    const fell = (await fellOf?.(tx, people)) ?? new Map<number, Fall>();
    for (const id of fell.keys()) decided.set(id, FELL_OUT);
    const homes = together ? await this.households.idsOf(tx, [...decided.keys()]) : new Map<number, number>();
    const rows = [...decided].map(([supporterId, decision]) => ({
      ...{ supporterId, ...decision },
      householdId: homes.get(supporterId) ?? null,
    }));
    const taken = together
      ? await this.lettersTo(tx, messageId, after, [...homes.values()])
      : await this.copiesAt(tx, messageId, after, rows);
    const written = oneCopyEach(asking.channel, rows, taken);
    const moments = await momentsOf?.(tx, written);
    await this.write(
      tx,
      messageId,
      asking,
      written.map((one) => ({
        ...{ ...one, occasion: 0, notBefore: moments?.get(one.supporterId) ?? null },
        detail: fell.has(one.supporterId) ? FALL_WORDS[fell.get(one.supporterId)!] : null,
      })),
    );
    return last;
  }

  /**
   * Writes the deliveries of people for whom an automatic message was set going, each for an occasion of its
   * own; written once more, they are there already. Of one address several people get one only where none of
   * them did something for it.
   */
  async prepareOccasions(
    tx: Scoped,
    messageId: number,
    people: readonly { supporterId: number; occasion: number }[],
    { ownEach, ...asking }: EligibilityQuery & { ownEach: boolean },
  ): Promise<void> {
    const decided = await this.facts.decide(
      tx,
      people.map(({ supporterId }) => supporterId),
      asking,
    );
    const rows = people.map((one) => ({ ...one, ...decided.get(one.supporterId)!, householdId: null }));
    const written = ownEach ? rows : oneCopyEach(asking.channel, rows, new Set());
    await this.write(
      tx,
      messageId,
      asking,
      written.map((one) => ({ ...one, notBefore: null, detail: null })),
    );
  }

  private async write(
    tx: Scoped,
    messageId: number,
    { channel, ownAct = false }: EligibilityQuery,
    rows: readonly WrittenDelivery[],
  ): Promise<void> {
    await tx.insertAll(
      'delivery',
      [
        ...['message_id', 'supporter_id', 'occasion', 'channel', 'contact_point_id', 'entry_id', 'verdict'],
        ...['state', 'provider_key', 'counts', 'not_before', 'detail'],
      ],
      rows.map((one): Bound[] => [
        ...[messageId, one.supporterId, one.occasion, channel, one.contactPointId, one.entryId, one.verdict],
        ...[one.verdict === 'send' ? 'ready' : 'suppressed', randomUUID(), ownAct ? 0 : 1],
        ...[one.notBefore, one.detail],
      ]),
      true,
    );
  }

  /** Addresses of these people that somebody before them gets the copy of. */
  private async copiesAt(
    db: Scoped,
    messageId: number,
    upTo: number,
    rows: readonly { contactPointId: number | null }[],
  ): Promise<Set<number>> {
    const points = rows.flatMap(({ contactPointId }) => contactPointId ?? []);
    if (points.length === 0) return new Set();
    const taken = await db.sql<{ id: number }>(
      `SELECT contact_point_id AS id
        FROM delivery
        WHERE organization_id = :org AND contact_point_id IN (:points)
        AND message_id = :messageId AND verdict = 'send' AND supporter_id <= :upTo`,
      { messageId, points, upTo },
    );
    return new Set(taken.map(({ id }) => id));
  }

  /** Households that somebody before these people gets the letter of, as `firstCopy` takes them. */
  private async lettersTo(
    db: Scoped,
    messageId: number,
    upTo: number,
    homes: readonly number[],
  ): Promise<Set<number>> {
    if (homes.length === 0) return new Set();
    const taken = await db.sql<{ id: number }>(
      `SELECT DISTINCT s.household_id AS id
        FROM supporter s
        JOIN delivery d ON d.supporter_id = s.id AND d.message_id = :messageId
        WHERE s.organization_id = :org AND s.household_id IN (:homes)
          AND d.verdict = 'send' AND d.supporter_id <= :upTo`,
      { messageId, homes: [...new Set(homes)], upTo },
    );
    return new Set(taken.map(({ id }) => -id));
  }

  /** Whether a message was written down for anybody. */
  async hasAny(db: Scoped, messageId: number): Promise<boolean> {
    const rows = await db.sql(
      'SELECT 1 FROM delivery WHERE organization_id = :org AND message_id = :messageId LIMIT 1',
      { messageId },
    );
    return rows.length > 0;
  }

  /** Deliveries that have not left are stopped for good. */
  /**
   * Keeps some of a slice of those who will get a message without it, behind a delivery. Returns the last, or
   * null where nobody was left. Drawn again, it comes out the same.
   */
  async keepSlice(
    tx: Scoped,
    { id: messageId, kept_share: share, kept_seed: seed }: KeepingMessage,
    after: number,
  ): Promise<number | null> {
    const rows = await tx.sql<{ id: number; supporterId: number }>(
      `SELECT id, supporter_id AS supporterId FROM delivery
        WHERE organization_id = :org AND message_id = :messageId AND state = 'ready' AND id > :after
        ORDER BY id LIMIT :size`,
      { messageId, after, size: KEEP_SLICE },
    );
    const draw = { seed: seed ?? 0, share: share ?? 0 };
    const ids = rows.filter(({ supporterId }) => isKept(supporterId, draw)).map(({ id }) => id);
    if (ids.length > 0)
      await tx.execute("UPDATE delivery SET state = 'kept' WHERE organization_id = :org AND id IN (:ids)", {
        ids,
      });
    return rows.at(-1)?.id ?? null;
  }

  async stopReady(tx: Scoped, messageId: number): Promise<number> {
    return tx.execute(
      `UPDATE delivery
        SET state = 'stopped'
        WHERE organization_id = :org AND message_id = :messageId AND state IN ('ready', 'undecided')`,
      {
        messageId,
      },
    );
  }

  async countReady(db: Scoped, messageId: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n
        FROM delivery
        WHERE organization_id = :org AND message_id = :messageId
          AND state IN ('ready', 'leased', 'in-flight', 'undecided')`,
      { messageId },
    );
    return row?.n ?? 0;
  }
}

function slices(ids: readonly number[], size = 5000): number[][] {
  return Array.from({ length: Math.ceil(ids.length / size) }, (_none, i) =>
    ids.slice(i * size, (i + 1) * size),
  );
}

function packed(ids: Uint32Array): Buffer {
  const out = Buffer.allocUnsafe(ids.length * BYTES);
  ids.forEach((id, i) => out.writeUInt32BE(id, i * BYTES));
  return out;
}

function unpacked(bytes: Buffer): number[] {
  return Array.from({ length: bytes.length / BYTES }, (_none, i) => bytes.readUInt32BE(i * BYTES));
}
