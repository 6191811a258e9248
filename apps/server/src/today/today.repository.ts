import { Injectable } from '@nestjs/common';
import type { BatchState, TodayView } from '@goodword/core/contract';
import { isSeenBy } from '../intake/batches.repository';
import type { Scoped } from '../platform/database';

const WAITS: Partial<Record<BatchState, string>> = {
  reading: 'is being read',
  unreadable: 'could not be read',
  draft: 'its columns and permission are to be settled',
  checking: 'is being checked',
  checked: 'is checked and can come in',
  bringing: 'is coming in',
  stopped: 'was stopped half-way',
};

/** What waits at each station, in a few counts. */
@Injectable()
export class TodayRepository {
  async view(db: Scoped): Promise<Omit<TodayView, 'lapsing' | 'stops' | 'erasures'>> {
    const mine = '(:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter)';
    const [batches, arrived, messages, counts] = await Promise.all([
      db.sql<{ id: number; name: string; state: BatchState }>(
        `SELECT id, name, state FROM batch WHERE organization_id = :org AND ${mine} AND ${isSeenBy(db, 'batch')} AND state IN (:states) ORDER BY id DESC LIMIT 20`,
        { states: Object.keys(WAITS) },
      ),
      db.sql<{ id: number; name: string; ended_at: Date; people: number }>(
        `SELECT id, name, ended_at, (SELECT COUNT(*) FROM batch_row r WHERE r.batch_id = batch.id AND r.supporter_id > 0) AS people FROM batch
          WHERE organization_id = :org AND ${mine} AND ${isSeenBy(db, 'batch')} AND state = 'done' AND seen_at IS NULL AND ended_at > UTC_TIMESTAMP(3) - INTERVAL 7 DAY ORDER BY id DESC LIMIT 10`,
      ),
      db.sql<{ id: number; name: string; state: string; scheduled_at: Date | null }>(
        `SELECT id, name, state, scheduled_at FROM message WHERE organization_id = :org AND ${mine} AND state IN ('scheduled', 'preparing', 'sending', 'paused') ORDER BY scheduled_at, id LIMIT 20`,
      ),
      this.counts(db, mine),
    ]);
    return {
      batches: batches.map((batch) => ({ ...batch, waits: WAITS[batch.state] ?? '' })),
      arrived: arrived.map(({ id, name, ended_at, people }) => ({ id, name, at: ended_at.toISOString(), people })),
      messages: messages.map((message) => ({
        id: message.id,
        name: message.name,
        state: message.state,
        when: message.scheduled_at?.toISOString() ?? null,
      })),
      ...counts,
    };
  }

  /**
   * In one statement, since every page asks. For those on hold from the few addresses to their people; kinds and lines are
   * named so that the index leads to them.
   */
  private async counts(db: Scoped, mine: string): Promise<Pick<TodayView, 'replies' | 'unsure' | 'unsureMessageId' | 'onHold' | 'drafts'>> {
    const ofChapter = db.scope.chapterId === null ? '' : 'AND s.chapter_id = :chapter';
    const [row] = await db.sql<Pick<TodayView, 'replies' | 'unsure' | 'unsureMessageId' | 'onHold' | 'drafts'>>(
      `SELECT
        (SELECT COUNT(*) FROM reply r LEFT JOIN supporter s ON s.id = r.supporter_id
          WHERE r.organization_id = :org AND r.keyword = 'none' AND r.handled_at IS NULL ${ofChapter}) AS replies,
        (SELECT COUNT(*) FROM delivery WHERE organization_id = :org AND state = 'unsure') AS unsure,
        (SELECT MAX(message_id) FROM delivery WHERE organization_id = :org AND state = 'unsure') AS unsureMessageId,
        (SELECT COUNT(DISTINCT s.id) FROM contact_point cp FORCE INDEX (by_health)
          JOIN supporter_contact sc ON sc.contact_point_id = cp.id JOIN supporter s ON s.id = sc.supporter_id ${ofChapter}
          WHERE cp.organization_id = :org AND cp.kind IN ('email', 'mobile', 'post')
          AND (cp.line IS NULL OR cp.line IN ('mobile', 'landline', 'voip', 'other')) AND cp.on_hold = 1) AS onHold,
        (SELECT COUNT(*) FROM message WHERE organization_id = :org AND ${mine} AND state = 'draft') AS drafts`,
    );
    return row!;
  }
}
