import { randomBytes } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { MessageState } from '@goodword/core/contract';
import { drawnFor, REST, USUAL_COMPARISON, type Comparison } from '@goodword/core/wordings';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

/** How the wordings of a message are compared, and what was decided. */
export type ComparisonRow = Pick<
  Tables['comparison'],
  'share' | 'measure' | 'hours' | 'seed' | 'version' | 'chosen_id' | 'decided_at' | 'decided_by'
>;

/** How far a comparison is: who of those that were drawn still waits, and who waits for what is decided. */
export interface Underway {
  leaving: number;
  lastLeft: Date | null;
  rest: number;
}

const SLICE = 5000;

/**
 * The wordings of a message, which belong to the first of them; who was drawn for which, and who waits. Owns
 * `comparison`.
 */
@Injectable()
export class WordingsRepository {
  /** The wordings beside the first, in the order in which they were made. */
  async beside(db: Scoped, firstId: number): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      'SELECT id FROM message WHERE organization_id = :org AND wording_of = :firstId ORDER BY id',
      { firstId },
    );
    return rows.map(({ id }) => id);
  }

  async comparison(db: Scoped, firstId: number): Promise<ComparisonRow | undefined> {
    const [row] = await db.sql<ComparisonRow>(
      `SELECT share, measure, hours, seed, version, chosen_id, decided_at, decided_by
        FROM comparison
        WHERE organization_id = :org AND message_id = :firstId`,
      { firstId },
    );
    return row;
  }

  /** Makes a message a wording of another, which is compared as is usual where nobody said how. */
  async add(tx: Scoped, firstId: number, wordingId: number): Promise<void> {
    await tx.table('message').where('message.id', wordingId).update({ wording_of: firstId });
    const { share, measure, hours } = USUAL_COMPARISON;
    await tx.insertAll(
      'comparison',
      ['message_id', 'share', 'measure', 'hours', 'seed'],
      [[firstId, share, measure, hours, randomBytes(4).readUInt32BE()]],
      true,
    );
  }

  /** How they are compared; the seed of the draw stays. */
  async say(tx: Scoped, firstId: number, { share, measure, hours }: Comparison): Promise<void> {
    await tx.execute(
      `UPDATE comparison
        SET share = :share, measure = :measure, hours = :hours, version = version + 1
        WHERE organization_id = :org AND message_id = :firstId`,
      { firstId, share, measure, hours },
    );
  }

  /** Of a message that goes: what it was compared with goes too, or is compared no more. */
  async forget(tx: Scoped, messageId: number): Promise<void> {
    await tx.execute(
      `DELETE c FROM comparison c
        WHERE c.organization_id = :org AND (c.message_id = :messageId OR (
          c.message_id = (SELECT m.wording_of FROM message m WHERE m.id = :messageId)
          AND NOT EXISTS (SELECT 1 FROM message o
            WHERE o.wording_of = c.message_id AND o.id <> :messageId)))`,
      { messageId },
    );
  }

  /** The wordings beside the first go the way that it goes; one that paused itself stays so. */
  async follow(tx: Scoped, firstId: number, from: readonly MessageState[], to: MessageState): Promise<void> {
    await tx.execute(
      `UPDATE message
        SET state = :to
        WHERE organization_id = :org AND wording_of = :firstId AND state IN (:from)
          AND (state <> 'paused' OR :to = 'stopped' OR paused_why IS NULL)`,
      { firstId, from: [...from], to },
    );
  }

  /** What is said of a message as a whole is said of each of its wordings. */
  async share(tx: Scoped, firstId: number): Promise<void> {
    await tx.execute(
      `UPDATE message w
        JOIN message m ON m.id = w.wording_of
        SET w.purpose = m.purpose, w.list_id = m.list_id, w.chapter_id = m.chapter_id,
          w.started_at = m.started_at, w.tag_triggers = m.tag_triggers,
          w.sender_id = COALESCE(w.sender_id, m.sender_id)
        WHERE w.organization_id = :org AND w.wording_of = :firstId`,
      { firstId },
    );
  }

  /**
   * Draws a slice of those who will get a message, behind a delivery: some get another wording, some wait for
   * what is decided. Returns the last, or null where nobody was left. Drawn again, it comes out the same.
   */
  async drawSlice(
    tx: Scoped,
    firstId: number,
    { seed, share }: Pick<ComparisonRow, 'seed' | 'share'>,
    wordings: readonly number[],
    after: number,
  ): Promise<number | null> {
    const rows = await tx.sql<{ id: number; supporterId: number }>(
      `SELECT id, supporter_id AS supporterId FROM delivery
        WHERE organization_id = :org AND message_id = :firstId AND state = 'ready' AND id > :after
        ORDER BY id LIMIT :size`,
      { firstId, after, size: SLICE },
    );
    const drawn = new Map<number, number[]>();
    for (const { id, supporterId } of rows) {
      const which = drawnFor(supporterId, { seed, share, wordings: wordings.length + 1 });
      drawn.set(which, [...(drawn.get(which) ?? []), id]);
    }
    for (const [which, ids] of drawn) {
      if (which === REST)
        await tx.execute(
          "UPDATE delivery SET state = 'undecided' WHERE organization_id = :org AND id IN (:ids)",
          { ids },
        );
      else if (which > 0)
        await tx.execute(
          'UPDATE delivery SET message_id = :to WHERE organization_id = :org AND id IN (:ids)',
          { ids, to: wordings[which - 1]! },
        );
    }
    return rows.at(-1)?.id ?? null;
  }

  async underway(db: Scoped, firstId: number): Promise<Underway> {
    const [row] = await db.sql<{ leaving: number; lastLeft: Date | null; rest: number }>(
      `SELECT COALESCE(SUM(d.state IN ('ready', 'leased', 'in-flight')), 0) AS leaving,
          MAX(d.sent_at) AS lastLeft, COALESCE(SUM(d.state = 'undecided'), 0) AS rest
        FROM delivery d
        JOIN message m ON m.id = d.message_id AND (m.id = :firstId OR m.wording_of = :firstId)
        WHERE d.organization_id = :org`,
      { firstId },
    );
    return {
      ...{ leaving: Number(row!.leaving), rest: Number(row!.rest) },
      lastLeft: row!.lastLeft && new Date(row!.lastLeft),
    };
  }

  /** How many of those to whom a message came, until a moment or at all, gave since it left. */
  async gave(db: Scoped, messageId: number, until: Date | null): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n FROM delivery d
        WHERE d.organization_id = :org AND d.message_id = :messageId AND d.sent_at IS NOT NULL
          AND (:until IS NULL OR d.sent_at <= :until) AND d.state <> 'bounced' AND EXISTS (SELECT 1 FROM gift g
            WHERE g.organization_id = :org AND g.supporter_id = d.supporter_id AND g.amount > 0
              AND g.recorded_at >= d.sent_at AND g.given_on >= DATEDIFF(d.sent_at, '1970-01-01') - 1)`,
      { messageId, until },
    );
    return Number(row!.n);
  }

  /** Says which wording the rest gets; false where that was said already. */
  async decide(tx: Scoped, firstId: number, chosenId: number, by: number | null): Promise<boolean> {
    const changed = await tx.execute(
      `UPDATE comparison
        SET chosen_id = :chosenId, decided_at = UTC_TIMESTAMP(3), decided_by = :by
        WHERE organization_id = :org AND message_id = :firstId AND chosen_id IS NULL`,
      { firstId, chosenId, by },
    );
    return changed > 0;
  }

  /** Lets some of the rest go with the wording that was chosen; how many. */
  async release(tx: Scoped, firstId: number, chosenId: number): Promise<number> {
    return tx.execute(
      `UPDATE delivery
        SET state = 'ready', message_id = :chosenId
        WHERE organization_id = :org AND message_id = :firstId AND state = 'undecided'
        ORDER BY id LIMIT :size`,
      { firstId, chosenId, size: SLICE },
    );
  }
}
