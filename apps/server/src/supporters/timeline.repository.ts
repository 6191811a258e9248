import { Injectable } from '@nestjs/common';
import { isoDay } from '@goodword/core/common';
import type { TimelineItem } from '@goodword/core/contract';
import { formatMoney, type Manner } from '@goodword/core/fields';
import { CHANNEL_WORDS, ROAD_WORDS, VERDICT_WORDS, type Channel, type Road, type Verdict } from '@goodword/core/permission';
import type { Scoped } from '../platform/database';

const EVENT_WORDS: Record<string, [string, TimelineItem['tone']]> = {
  sent: ['Got', 'plain'],
  delivered: ['Arrived', 'plain'],
  bounced: ['Bounced', 'bad'],
  opened: ['Opened', 'plain'],
  followed: ['Followed a link in', 'good'],
  replied: ['Replied to', 'good'],
  left: ['Left by', 'bad'],
  door: ['Held at the door', 'bad'],
  unsure: ['Unsure whether it went', 'bad'],
  failed: ['Did not go', 'bad'],
  complained: ['Complained about', 'bad'],
  settled: ['Settled by hand', 'plain'],
};

/** Everything that passed between us and one person, newest first. */
@Injectable()
export class TimelineRepository {
  async of(db: Scoped, supporterId: number, manner: Manner, limit = 200): Promise<TimelineItem[]> {
    const parts = await Promise.all([
      this.deliveries(db, supporterId, limit),
      this.entries(db, supporterId, limit),
      this.gifts(db, supporterId, manner, limit),
      this.edits(db, supporterId, limit),
      this.replies(db, supporterId, limit),
      this.batches(db, supporterId, limit),
    ]);
    return parts
      .flat()
      .sort((a, b) => b.at.localeCompare(a.at))
      .slice(0, limit);
  }

  private async deliveries(db: Scoped, supporterId: number, limit: number): Promise<TimelineItem[]> {
    const rows = await db.sql<{ at: Date; kind: string; detail: string; name: string; channel: Channel; message_id: number; door: Verdict | null }>(
      `SELECT e.at, e.kind, e.detail, m.name, m.channel, m.id AS message_id, d.door_verdict AS door FROM delivery_event e JOIN message m ON m.id = e.message_id JOIN delivery d ON d.id = e.delivery_id
        WHERE e.organization_id = :org AND e.supporter_id = :supporterId ORDER BY e.at DESC LIMIT :limit`,
      { supporterId, limit },
    );
    return rows.map((row) => {
      const [words, tone] = EVENT_WORDS[row.kind] ?? [row.kind, 'plain'];
      const detail = row.kind === 'door' && row.door ? VERDICT_WORDS[row.door] : row.detail;
      return item(
        row.at,
        'delivery',
        tone,
        `${words} “${row.name}”`,
        detail || `By ${CHANNEL_WORDS[row.channel].toLowerCase()}`,
        `/hear-back/${row.message_id}`,
      );
    });
  }

  private async entries(db: Scoped, supporterId: number, limit: number): Promise<TimelineItem[]> {
    const rows = await db.sql<{ recorded_at: Date; state: string; channel: Channel; scope: string; how: Road; source: string }>(
      `SELECT recorded_at, state, channel, scope, how, source FROM permission_entry WHERE organization_id = :org AND (supporter_id = :supporterId
        OR (state = 'no' AND contact_point_id IN (SELECT contact_point_id FROM supporter_contact WHERE supporter_id = :supporterId))) ORDER BY recorded_at DESC LIMIT :limit`,
      { supporterId, limit },
    );
    return rows.map((row) => {
      const said = { yes: 'Said yes', no: 'Said no', asked: 'Asked to confirm', implied: 'Implied permission' }[row.state] ?? row.state;
      const tone = row.state === 'no' ? 'bad' : row.state === 'yes' ? 'good' : 'plain';
      return item(
        row.recorded_at,
        'permission',
        tone,
        `${said}: ${CHANNEL_WORDS[row.channel].toLowerCase()}`,
        [ROAD_WORDS[row.how], row.source].filter(Boolean).join(', '),
        null,
      );
    });
  }

  private async gifts(db: Scoped, supporterId: number, manner: Manner, limit: number): Promise<TimelineItem[]> {
    const rows = await db.sql<{ amount: number; given_on: number; note: string }>(
      'SELECT amount, given_on, note FROM gift WHERE organization_id = :org AND supporter_id = :supporterId ORDER BY given_on DESC LIMIT :limit',
      { supporterId, limit },
    );
    return rows.map((row) =>
      item(new Date(`${isoDay(row.given_on)}T12:00:00Z`), 'gift', 'good', `Gave ${formatMoney(Number(row.amount), manner)}`, row.note, null),
    );
  }

  private async edits(db: Scoped, supporterId: number, limit: number): Promise<TimelineItem[]> {
    const rows = await db.sql<{ at: Date; words: string; name: string | null; before_value: string | null }>(
      `SELECT a.at, a.words, a.before_value, t.name FROM audit a LEFT JOIN teammate t ON t.id = a.actor_id
        WHERE a.organization_id = :org AND a.subject = 'supporter' AND a.subject_id = :supporterId ORDER BY a.at DESC LIMIT :limit`,
      { supporterId, limit },
    );
    return rows.map((row) =>
      item(
        row.at,
        'edit',
        'plain',
        row.words,
        [row.name ? `By ${row.name}` : 'By the program', row.before_value ? `before: ${row.before_value}` : ''].filter(Boolean).join(', '),
        null,
      ),
    );
  }

  private async replies(db: Scoped, supporterId: number, limit: number): Promise<TimelineItem[]> {
    const rows = await db.sql<{ at: Date; body: string; channel: Channel; keyword: string }>(
      'SELECT at, body, channel, keyword FROM reply WHERE organization_id = :org AND supporter_id = :supporterId ORDER BY at DESC LIMIT :limit',
      { supporterId, limit },
    );
    return rows.map((row) =>
      item(
        row.at,
        'reply',
        row.keyword === 'stop' ? 'bad' : 'good',
        `Wrote “${row.body.slice(0, 140)}”`,
        `By ${CHANNEL_WORDS[row.channel].toLowerCase()}`,
        null,
      ),
    );
  }

  private async batches(db: Scoped, supporterId: number, limit: number): Promise<TimelineItem[]> {
    const rows = await db.sql<{ created_at: Date; name: string; id: number; verdict: string; row_no: number }>(
      `SELECT b.created_at, b.name, b.id, r.verdict, r.row_no FROM batch_row r JOIN batch b ON b.id = r.batch_id
        WHERE r.organization_id = :org AND r.supporter_id = :supporterId AND b.state IN ('done', 'bringing', 'stopped') ORDER BY b.created_at DESC LIMIT :limit`,
      { supporterId, limit },
    );
    return rows.map((row) =>
      item(
        row.created_at,
        'batch',
        'plain',
        `${row.verdict === 'new' || row.verdict === 'shares' ? 'Came' : 'Was'} in the batch “${row.name}”`,
        `Row ${row.row_no}`,
        `/gather/${row.id}`,
      ),
    );
  }
}

function item(at: Date, kind: TimelineItem['kind'], tone: TimelineItem['tone'], title: string, detail: string, link: string | null): TimelineItem {
  return { at: at.toISOString(), kind, tone, title, detail, link };
}
