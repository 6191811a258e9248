import { Injectable } from '@nestjs/common';
import {
  GOING_STATES,
  type BatchState,
  type DoneView,
  type MessageState,
  type TodayView,
} from '@goodword/core/contract';
import type { Channel } from '@goodword/core/permission';
import { isSeenBy } from '../intake/batches.repository';
import type { Scoped } from '../platform/scoped';

const HALF_DONE: readonly BatchState[] = [
  'reading',
  'unreadable',
  'draft',
  'checking',
  'checked',
  'bringing',
  'stopped',
];
/** A reply that is put aside waits for its time. */
const NOT_ASIDE = '(r.aside_until IS NULL OR r.aside_until <= UTC_TIMESTAMP(3))';
/** Of a reply, as much as a line shows. */
const WORDS = 160;

type Counts = Pick<TodayView, 'replies' | 'unsure' | 'unsureMessageId' | 'onHold' | 'drafts'> & {
  unsureSince: Date | null;
};
interface FirstReply {
  name: string;
  words: string;
  message: string | null;
  at: Date;
}

/** What waits at each station, since when, and what was done since midnight. */
@Injectable()
export class TodayRepository {
  async view(db: Scoped): Promise<Omit<TodayView, 'lapsing' | 'stops' | 'erasures' | 'sender'>> {
    const [batches, arrived, messages, counts] = await Promise.all([
      db.sql<{ id: number; name: string; state: BatchState; rows: number; by: string; at: Date }>(
        `SELECT batch.id, batch.name, batch.state, batch.row_count AS \`rows\`,
          COALESCE(t.name, '') AS \`by\`, batch.created_at AS at
          FROM batch LEFT JOIN teammate t ON t.id = batch.created_by
          WHERE batch.organization_id = :org AND ${mine('batch')} AND ${isSeenBy(db, 'batch')}
          AND batch.state IN (:states) AND batch.feed_run_id IS NULL
          ORDER BY batch.id DESC LIMIT 20`,
        { states: HALF_DONE },
      ),
      db.sql<{ id: number; name: string; ended_at: Date; people: number }>(
        `SELECT id, name, ended_at, (SELECT COUNT(*) FROM batch_row r
            WHERE r.batch_id = batch.id AND r.supporter_id > 0) AS people
          FROM batch
          WHERE organization_id = :org AND ${mine('batch')} AND ${isSeenBy(db, 'batch')} AND state = 'done'
            AND feed_run_id IS NULL AND seen_at IS NULL AND ended_at > UTC_TIMESTAMP(3) - INTERVAL 7 DAY
          ORDER BY id DESC
          LIMIT 10`,
      ),
      db.sql<{
        id: number;
        name: string;
        state: MessageState;
        channel: Channel;
        at: Date | null;
        pausedWhy: string | null;
        people: number | null;
      }>(
        `SELECT m.id, m.name, m.state, m.channel, IF(m.state = 'paused', m.paused_why, NULL) AS pausedWhy,
            COALESCE(m.scheduled_at, m.leaves_at) AS at,
            IF(m.state IN ('posting', 'sending', 'paused'),
              (SELECT COUNT(*) FROM delivery d
              WHERE d.message_id = m.id AND d.state IN ('ready', 'leased', 'in-flight', 'undecided')),
              (SELECT l.people FROM look_group l
              WHERE l.organization_id = :org AND l.message_id = m.id AND l.verdict = 'send')) AS people
          FROM message m
          WHERE m.organization_id = :org AND ${mine('m')} AND m.state IN (:states)
            AND (m.state = 'paused' OR NOT EXISTS (SELECT 1 FROM message f
              WHERE f.id = m.wording_of AND f.state IN (:states)))
          ORDER BY at IS NULL DESC, at, m.id
          LIMIT 20`,
        { states: GOING_STATES },
      ),
      this.counts(db),
    ]);
    const [firstReply, draft, goes, piles, feeds] = await Promise.all([
      counts.replies > 0 ? this.firstReply(db) : undefined,
      counts.drafts > 0 ? this.draft(db) : undefined,
      counts.drafts > 0 ? this.goes(db) : [],
      this.piles(db),
      this.feeds(db),
    ]);
    const { unsureSince, ...waiting } = counts;
    return {
      batches: batches.map((batch) => ({ ...batch, at: batch.at.toISOString() })),
      arrived: arrived.map(({ id, name, ended_at, people }) => ({
        id,
        name,
        at: ended_at.toISOString(),
        people,
      })),
      messages: messages.map(({ at, people, ...message }) => ({
        ...message,
        when: at?.toISOString() ?? null,
        people: people === null ? null : Number(people),
      })),
      piles: piles.map(({ at, ...one }) => ({ ...one, at: at.toISOString() })),
      feeds: feeds.map(({ at, ...one }) => ({ ...one, at: at.toISOString() })),
      ...waiting,
      unsureSince: unsureSince?.toISOString() ?? null,
      goes: goes.map(({ at, ...one }) => ({ ...one, at: at.toISOString() })),
      firstReply: firstReply ? { ...firstReply, at: firstReply.at.toISOString() } : null,
      draft: draft ? { ...draft, at: draft.at.toISOString() } : null,
    };
  }

  private async firstReply(db: Scoped): Promise<FirstReply | undefined> {
    const [first] = await db.sql<FirstReply>(
      `SELECT COALESCE(NULLIF(CONCAT_WS(' ', NULLIF(s.first_name, ''), NULLIF(s.last_name, '')), ''),
        r.sender) AS name,
          LEFT(r.body, :letters) AS words, m.name AS message, r.at
          FROM reply r
          LEFT JOIN supporter s ON s.id = r.supporter_id
          LEFT JOIN delivery d ON d.id = r.delivery_id LEFT JOIN message m ON m.id = d.message_id
        WHERE r.organization_id = :org AND r.keyword = 'none' AND r.handled_at IS NULL AND ${NOT_ASIDE}
          AND (:chapter IS NULL OR s.chapter_id = :chapter) ORDER BY r.at, r.id LIMIT 1`,
      { letters: WORDS },
    );
    return first;
  }

  /** Drafts that wait for a go: for those who may give one, but for whoever asked. */
  private goes(db: Scoped): Promise<{ id: number; name: string; by: string; at: Date; note: string }[]> {
    return db.sql(
      `SELECT m.id, m.name, COALESCE(t.name, '') AS \`by\`, m.go_at AS at, m.go_note AS note
        FROM message m
        LEFT JOIN teammate t ON t.id = m.go_asked_by
        WHERE m.organization_id = :org AND ${mine('m')} AND m.state = 'draft' AND m.go_state = 'asked'
          AND NOT (m.go_asked_by <=> :me)
        ORDER BY m.go_at, m.id
        LIMIT 20`,
      { me: db.scope.actorId },
    );
  }

  /** Automatic messages that wait for a look at whom they were set going for. */
  /** Feeds that stopped by themselves: since their last run. */
  private feeds(db: Scoped): Promise<{ id: number; name: string; problem: string; at: Date }[]> {
    return db.sql(
      `SELECT f.id, f.name, f.problem, COALESCE(MAX(r.ended_at), f.made_at) AS at
        FROM feed f
        LEFT JOIN feed_run r ON r.organization_id = :org AND r.feed_id = f.id
        WHERE f.organization_id = :org AND ${mine('f')} AND f.is_on = 0 AND f.problem IS NOT NULL
        GROUP BY f.id
        ORDER BY at
        LIMIT 20`,
    );
  }

  private piles(db: Scoped): Promise<{ id: number; name: string; people: number; at: Date }[]> {
    return db.sql(
      `SELECT a.id, a.name, COUNT(*) AS people, MIN(v.taken_at) AS at
        FROM automation a
        JOIN automation_visit v ON v.automation_id = a.id AND v.state = 'held'
        WHERE a.organization_id = :org AND ${mine('a')}
        GROUP BY a.id, a.name
        LIMIT 20`,
    );
  }

  private async draft(db: Scoped): Promise<{ id: number; name: string; at: Date } | undefined> {
    const [draft] = await db.sql<{ id: number; name: string; at: Date }>(
      `SELECT m.id, m.name, m.updated_at AS at FROM message m
        WHERE m.organization_id = :org AND ${mine('m')} AND m.state = 'draft' AND m.personal_to IS NULL
        ORDER BY m.updated_at DESC, m.id DESC
        LIMIT 1`,
    );
    return draft;
  }

  /**
   * In one statement, since every page asks. For those on hold from the few addresses to their people; kinds
   * and lines are named so that the index leads to them.
   */
  private async counts(db: Scoped): Promise<Counts> {
    const unsure = `FROM delivery d ${person(db, 'd')} WHERE d.organization_id = :org AND d.state = 'unsure'`;
    const [row] = await db.sql<Counts>(
      `SELECT
        (SELECT COUNT(DISTINCT COALESCE(r.supporter_id, 0), IF(r.supporter_id IS NULL, r.contact_point_id, 0))
          FROM reply r ${person(db, 'r')}
          WHERE r.organization_id = :org AND r.keyword = 'none' AND r.handled_at IS NULL
          AND ${NOT_ASIDE}) AS replies,
        (SELECT COUNT(*) ${unsure}) AS unsure,
        (SELECT MAX(d.message_id) ${unsure}) AS unsureMessageId,
        (SELECT MIN(e.at) FROM delivery d FORCE INDEX (by_state)
        STRAIGHT_JOIN delivery_event e ON e.delivery_id = d.id AND e.kind = 'unsure'
          ${person(db, 'd')} WHERE d.organization_id = :org AND d.state = 'unsure') AS unsureSince,
        (SELECT COUNT(DISTINCT s.id) FROM contact_point cp FORCE INDEX (by_health)
          JOIN supporter_contact sc ON sc.contact_point_id = cp.id
          JOIN supporter s ON s.id = sc.supporter_id ${ofChapter(db)}
          WHERE cp.organization_id = :org AND cp.kind IN ('email', 'mobile', 'post')
          AND (cp.line IS NULL OR cp.line IN ('mobile', 'landline', 'voip', 'other')) AND cp.on_hold = 1) AS
          onHold,
        (SELECT COUNT(*) FROM message m
        WHERE m.organization_id = :org AND ${mine('m')} AND m.state = 'draft' AND m.personal_to IS NULL) AS
        drafts`,
    );
    return row!;
  }

  /** What was done since midnight; what was sent is found by when. */
  async done(db: Scoped, midnight: Date): Promise<DoneView> {
    const [row] = await db.sql<DoneView>(
      `SELECT
        (SELECT COUNT(*) FROM reply r ${person(db, 'r')}
          WHERE r.organization_id = :org AND r.keyword = 'none' AND r.handled_at >= :midnight) AS answered,
        (SELECT COALESCE(SUM((SELECT COUNT(*) FROM batch_row r
        WHERE r.batch_id = b.id AND r.supporter_id > 0)), 0) FROM batch b
          WHERE b.organization_id = :org AND ${mine('b')} AND ${isSeenBy(db, 'b')} AND b.state = 'done'
          AND b.ended_at >= :midnight) AS broughtIn,
        (SELECT COUNT(*) FROM delivery d FORCE INDEX (by_sent) ${person(db, 'd')}
          WHERE d.organization_id = :org AND d.channel IN ('email', 'text') AND d.sent_at >= :midnight) AS
          sent`,
      { midnight },
    );
    return { answered: row!.answered, broughtIn: Number(row!.broughtIn), sent: row!.sent };
  }
}

/** What belongs to the whole organization or to the caller's chapter. */
function mine(of: string): string {
  return `(:chapter IS NULL OR ${of}.chapter_id IS NULL OR ${of}.chapter_id = :chapter)`;
}

function ofChapter(db: Scoped): string {
  return db.scope.chapterId === null ? '' : 'AND s.chapter_id = :chapter';
}

/** Whose something is, where the caller sees one chapter's people alone. */
function person(db: Scoped, of: string): string {
  return db.scope.chapterId === null ? '' : `JOIN supporter s ON s.id = ${of}.supporter_id ${ofChapter(db)}`;
}
