import { WAITS_FOR_HOUR } from '../sending/delivery-events';
import { Injectable } from '@nestjs/common';
import type { ResultKind } from '@goodword/core/contract';
import type { Scoped } from '../platform/scoped';

/** What can only have been done by somebody whom it reached. */
const ACTED = '(d.opened = 1 OR d.clicked = 1 OR d.replied = 1 OR d.left_it = 1)';

/**
 * Which deliveries count under a kind. A mail counts as delivered when it was accepted and has not come back,
 * and also when it was opened and came back later, so that no rate is over the whole.
 */
const WHICH: Record<ResultKind, string> = {
  sent: `((d.state IN ('sent', 'delivered', 'bounced') AND d.sent_at IS NOT NULL) OR ${ACTED})`,
  delivered: `(d.state = 'delivered' OR (d.channel = 'email' AND d.state = 'sent') OR ${ACTED})`,
  bounced: "d.state = 'bounced'",
  opened: 'd.opened = 1',
  clicked: 'd.clicked = 1',
  replied: 'd.replied = 1',
  left: 'd.left_it = 1',
  door: "d.state = 'door'",
  unsure: "d.state = 'unsure'",
  failed: "d.state = 'failed'",
  waiting: "d.state IN ('ready', 'leased', 'in-flight', 'undecided')",
  kept: "d.state = 'kept'",
  suppressed: "d.state = 'suppressed'",
};

/** Of those with a message, or of those kept without it. */
export interface WithOrWithout {
  kept: number;
  people: number;
  gave: string;
  given: string;
}

export interface PersonResult {
  id: number;
  supporter_id: number;
  name: string;
  address: string | null;
  at: Date | null;
  detail: string | null;
  verdict: string;
  door_verdict: string | null;
}

/** What came of a message, counted and person by person. */
@Injectable()
export class ResultsRepository {
  /**
   * Beside the kinds: those that a server was asked to take, whether it did or refused them at once. `until`:
   * of what left by then alone.
   */
  async counts(
    db: Scoped,
    messageId: number,
    until: Date | null = null,
  ): Promise<Record<ResultKind | 'tried', number>> {
    const sums = Object.entries({ ...WHICH, tried: `(${WHICH.sent} OR ${WHICH.bounced})` })
      .map(([kind, which]) => `COALESCE(SUM(IF(${which}, d.n, 0)), 0) AS \`${kind}\``)
      .join(', ');
    // Those that are alike are asked once for all: a message to many has a handful of kinds.
    const alike = 'channel, state, opened, clicked, replied, left_it';
    const [row] = await db.sql<Record<ResultKind | 'tried', string>>(
      `SELECT ${sums} FROM (SELECT ${alike}, MAX(sent_at) AS sent_at, COUNT(*) AS n FROM delivery
        WHERE organization_id = :org AND message_id = :messageId AND (:until IS NULL OR sent_at <= :until)
        GROUP BY ${alike}, sent_at IS NULL) d`,
      { messageId, until },
    );
    return Object.fromEntries(Object.entries(row!).map(([kind, n]) => [kind, Number(n)])) as Record<
      ResultKind | 'tried',
      number
    >;
  }

  async people(
    db: Scoped,
    messageId: number,
    kind: ResultKind,
    after: number,
    limit: number,
  ): Promise<{ rows: PersonResult[]; total: number }> {
    const from = `FROM delivery d
      JOIN supporter s ON s.id = d.supporter_id AND (:chapter IS NULL OR s.chapter_id = :chapter)
      LEFT JOIN contact_point cp ON cp.id = d.contact_point_id
      WHERE d.organization_id = :org AND d.message_id = :messageId AND ${WHICH[kind]}`;
    const [count] = await db.sql<{ n: number }>(`SELECT COUNT(*) AS n ${from}`, { messageId });
    const rows = await db.sql<PersonResult>(
      `SELECT d.id, d.supporter_id, CONCAT_WS(' ', s.first_name, s.last_name) AS name, cp.shown AS address,
          d.sent_at AS at, d.detail, d.verdict, d.door_verdict ${from} AND d.id > :after
        ORDER BY d.id
        LIMIT :limit`,
      { messageId, after, limit },
    );
    return { rows, total: count?.n ?? 0 };
  }

  /** The people behind a number, for writing to them. */
  async peopleIds(db: Scoped, messageId: number, kind: ResultKind): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT DISTINCT d.supporter_id AS id
        FROM delivery d
        WHERE d.organization_id = :org AND d.message_id = :messageId AND ${WHICH[kind]}`,
      { messageId },
    );
    return rows.map(({ id }) => id);
  }

  async overTime(db: Scoped, messageId: number): Promise<{ at: string; kind: string; n: number }[]> {
    return db.sql(
      `SELECT DATE_FORMAT(MIN(at), '%Y-%m-%dT%H:00:00Z') AS at, kind, COUNT(*) AS n FROM delivery_event
        WHERE organization_id = :org AND message_id = :messageId
        AND kind IN ('sent', 'opened', 'clicked', 'replied', 'left')
        GROUP BY TIMESTAMPDIFF(HOUR, '2000-01-01', at), kind ORDER BY 1`,
      { messageId },
    );
  }

  async links(db: Scoped, messageId: number): Promise<{ url: string; people: number }[]> {
    return db.sql(
      `SELECT l.url, COUNT(DISTINCT e.delivery_id) AS people
        FROM message_link l
        LEFT JOIN delivery_event e ON e.organization_id = :org AND e.message_id = l.message_id
          AND e.kind = 'clicked' AND e.detail = l.url
        WHERE l.organization_id = :org AND l.message_id = :messageId
        GROUP BY l.position, l.url
        ORDER BY l.position`,
      { messageId },
    );
  }

  /**
   * Of those who were kept without a message, and of those whom it or a wording of it has gone to, how many
   * have given since it began to leave, and how much. As drawn: who was refused at the door or came back
   * counts among the second, who still waits does not.
   */
  async withAndWithout(db: Scoped, messageId: number): Promise<WithOrWithout[]> {
    return db.sql(
      `SELECT kept, COUNT(*) AS people, COALESCE(SUM(given > 0), 0) AS gave, COALESCE(SUM(given), 0) AS given
        FROM (SELECT d.state = 'kept' AS kept,
            (SELECT SUM(g.amount) FROM gift g
              WHERE g.organization_id = :org AND g.supporter_id = d.supporter_id
                AND g.recorded_at >= f.started_at
                AND g.given_on >= DATEDIFF(f.started_at, '1970-01-01') - 1) AS given
          FROM message f
          JOIN message m ON m.id = f.id OR m.wording_of = f.id
          JOIN delivery d ON d.message_id = m.id AND d.verdict = 'send'
            AND d.state NOT IN ('ready', 'leased', 'in-flight', 'undecided', 'stopped')
          WHERE f.organization_id = :org AND f.id = :messageId) x
        GROUP BY kept`,
      { messageId },
    );
  }

  /** Messages handed over in the last ten seconds. */
  async recent(db: Scoped, messageId: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n
        FROM delivery_event
        WHERE organization_id = :org AND message_id = :messageId AND kind = 'sent'
          AND at > UTC_TIMESTAMP(3) - INTERVAL 10 SECOND`,
      { messageId },
    );
    return row?.n ?? 0;
  }

  /** Those that wait for a decent hour where their people are. */
  async night(db: Scoped, messageId: number): Promise<{ people: number; until: Date | null }> {
    const [row] = await db.sql<{ people: number; until: Date | null }>(
      `SELECT COUNT(*) AS people, MIN(not_before) AS until
        FROM delivery
        WHERE organization_id = :org AND message_id = :messageId AND state = 'ready'
          AND detail = :waits AND not_before > UTC_TIMESTAMP(3)`,
      { messageId, waits: WAITS_FOR_HOUR },
    );
    return row ?? { people: 0, until: null };
  }

  /** Those whose own moment has not come; a retry has a reason, and is none of them. */
  async turn(db: Scoped, messageId: number): Promise<{ people: number; until: Date | null }> {
    const [row] = await db.sql<{ people: number; until: Date | null }>(
      `SELECT COUNT(*) AS people, MAX(not_before) AS until
        FROM delivery
        WHERE organization_id = :org AND message_id = :messageId AND state = 'ready'
          AND detail IS NULL AND not_before > UTC_TIMESTAMP(3)`,
      { messageId },
    );
    return row ?? { people: 0, until: null };
  }

  async delivery(
    db: Scoped,
    id: number,
  ): Promise<{ id: number; message_id: number; state: string } | undefined> {
    const [row] = await db.sql<{ id: number; message_id: number; state: string }>(
      'SELECT id, message_id, state FROM delivery WHERE organization_id = :org AND id = :id',
      { id },
    );
    return row;
  }

  /** A person has settled what became of an unsure delivery. */
  async settle(tx: Scoped, id: number, as: 'sent' | 'again'): Promise<void> {
    const to = as === 'sent' ? "'sent', sent_at = UTC_TIMESTAMP(3)" : "'ready'";
    await tx.execute(
      `UPDATE delivery
        SET state = ${to}, detail = NULL
        WHERE organization_id = :org AND id = :id AND state = 'unsure'`,
      { id },
    );
    if (as === 'again')
      await tx.execute(
        `UPDATE message m
          JOIN delivery d ON d.message_id = m.id
          SET m.state = 'sending'
          WHERE m.organization_id = :org AND d.id = :id AND m.state = 'done'`,
        { id },
      );
    await tx.execute(
      `INSERT INTO delivery_event (organization_id, delivery_id, message_id, supporter_id, kind, detail)
        SELECT organization_id, id, message_id, supporter_id, :kind, :detail
        FROM delivery
        WHERE organization_id = :org AND id = :id`,
      { id, kind: 'settled', detail: as === 'sent' ? 'Counted as sent' : 'Sent again' },
    );
  }
}
