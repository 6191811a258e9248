import { Inject, Injectable } from '@nestjs/common';
import { isoDay } from '@goodword/core/common';
import type { TimelineItem, TimelineKind } from '@goodword/core/contract';
import { formatMoney, type Manner } from '@goodword/core/fields';
import { type Channel, type Verdict } from '@goodword/core/permission';
import { CHANNEL_WORDS, COLLECTION_METHOD_WORDS, verdictWords } from '@goodword/core/words';
import type { Scoped } from '../platform/scoped';
import { NotesRepository } from './notes.repository';
import type { Tables } from '../platform/tables/generated';
import { EntriesRepository } from '../permission/ledger/entries.repository';

const EVENT_WORDS: Record<string, [string, TimelineItem['tone']]> = {
  sent: ['Got', 'plain'],
  delivered: ['Arrived', 'plain'],
  bounced: ['Bounced', 'bad'],
  opened: ['Opened', 'plain'],
  clicked: ['Clicked a link in', 'good'],
  replied: ['Replied to', 'good'],
  left: ['Left by', 'bad'],
  door: ['Held back as it left', 'bad'],
  unsure: ['Unsure whether it went', 'bad'],
  failed: ['Did not go', 'bad'],
  complained: ['Complained about', 'bad'],
  settled: ['Settled by hand', 'plain'],
};

/**
 * Everything that passed between us and one person, newest first; what happened to records since brought into
 * theirs as well.
 */
@Injectable()
export class TimelineRepository {
  constructor(
    @Inject(NotesRepository) private readonly notes: NotesRepository,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
  ) {}

  async of(
    db: Scoped,
    ids: readonly number[],
    manner: Manner,
    kinds: readonly TimelineKind[],
    limit = 200,
  ): Promise<TimelineItem[]> {
    const readers: Record<TimelineKind, () => Promise<TimelineItem[]>> = {
      delivery: () => this.deliveries(db, ids, limit),
      permission: () => this.entryItems(db, ids, limit),
      gift: () => this.gifts(db, ids, manner, limit),
      edit: () => this.edits(db, ids, limit),
      reply: () => this.replies(db, ids, limit),
      batch: () => this.batches(db, ids, limit),
      note: () => this.noted(db, ids[0]!, limit),
    };
    const parts = await Promise.all(kinds.map((kind) => readers[kind]()));
    return parts
      .flat()
      .sort((a, b) => b.at.localeCompare(a.at))
      .slice(0, limit);
  }

  private async deliveries(db: Scoped, ids: readonly number[], limit: number): Promise<TimelineItem[]> {
    const rows = await db.sql<{
      at: Date;
      kind: string;
      detail: string;
      name: string;
      channel: Channel;
      message_id: number;
      door: Verdict | null;
      automation: string | null;
    }>(
      `SELECT e.at, e.kind, e.detail, m.name, m.channel, m.id AS message_id, d.door_verdict AS door,
          a.name AS automation
        FROM delivery_event e
        JOIN message m ON m.id = e.message_id
        JOIN delivery d ON d.id = e.delivery_id
        LEFT JOIN automation_visit v ON v.id = d.occasion
        LEFT JOIN automation a ON a.id = v.automation_id
        WHERE e.organization_id = :org AND e.supporter_id IN (:ids) ORDER BY e.at DESC LIMIT :limit`,
      { ids, limit },
    );
    return rows.map((row) => {
      const [words, tone] = EVENT_WORDS[row.kind] ?? [row.kind, 'plain'];
      const detail = row.kind === 'door' && row.door ? verdictWords(row.door, row.channel) : row.detail;
      return item(
        row.at,
        'delivery',
        tone,
        `${row.channel === 'call' && row.kind === 'sent' ? 'Called for' : words} “${row.name}”`,
        detail || byWhat(row.channel, row.automation),
        `/hear-back/${row.message_id}`,
      );
    });
  }

  private async entryItems(db: Scoped, ids: readonly number[], limit: number): Promise<TimelineItem[]> {
    const rows = await this.entries.newestAbout(db, ids, limit);
    return rows.map((row) => {
      const said = {
        yes: 'Said yes',
        no: 'Said no',
        asked: 'Asked to confirm',
        implied: 'Implied permission',
        start: 'START',
        pause: 'Pause',
        back: 'Taken back',
      }[row.state];
      const tone = row.state === 'no' ? 'bad' : row.state === 'yes' ? 'good' : 'plain';
      return item(
        row.recorded_at,
        'permission',
        tone,
        `${said}: ${CHANNEL_WORDS[row.channel].toLowerCase()}`,
        [COLLECTION_METHOD_WORDS[row.how], row.source].filter(Boolean).join(', '),
        null,
      );
    });
  }

  private async gifts(
    db: Scoped,
    ids: readonly number[],
    manner: Manner,
    limit: number,
  ): Promise<TimelineItem[]> {
    const rows = await db.sql<Pick<Tables['gift'], 'amount' | 'given_on' | 'note'>>(
      `SELECT amount, given_on, note
        FROM gift
        WHERE organization_id = :org AND supporter_id IN (:ids)
        ORDER BY given_on DESC
        LIMIT :limit`,
      { ids, limit },
    );
    return rows.map((row) =>
      item(
        new Date(`${isoDay(row.given_on)}T12:00:00Z`),
        'gift',
        'good',
        `Gave ${formatMoney(Number(row.amount), manner)}`,
        row.note,
        null,
      ),
    );
  }

  /** Edits of the record itself. Those of sensitive fields are told to whom the fields are shown. */
  private async edits(db: Scoped, ids: readonly number[], limit: number): Promise<TimelineItem[]> {
    const shown = ['owner', 'organizer'].includes(db.scope.role)
      ? ''
      : `AND NOT EXISTS (SELECT 1 FROM field f
        WHERE f.organization_id = :org AND f.is_sensitive = 1 AND (f.id = JSON_VALUE(a.back, '$.fieldId')
          OR (a.act = 'field' AND a.back IS NULL AND a.words LIKE CONCAT(f.name, ' %'))))`;
    const rows = await db.sql<
      Pick<Tables['audit'], 'id' | 'at' | 'act' | 'words' | 'before_value' | 'undone_at'> & {
        name: string | null;
        can_undo: number;
      }
    >(
      `SELECT a.id, a.at, a.act, a.words, a.before_value, t.name, a.back IS NOT NULL AND a.undone_at IS NULL
          AND a.subject_id = :first AS can_undo, a.undone_at
        FROM audit a
        LEFT JOIN teammate t ON t.id = a.actor_id
        WHERE a.organization_id = :org AND a.subject = 'supporter' AND a.subject_id IN (:ids) ${shown}
        ORDER BY a.at DESC, a.id DESC
        LIMIT :limit`,
      { ids, first: ids[0]!, limit },
    );
    return rows.map((row) => {
      const by = row.name ? `By ${row.name}` : 'By the program';
      const detail = [
        by,
        row.before_value ? `before: ${row.before_value}` : '',
        row.undone_at ? 'undone since' : '',
      ]
        .filter(Boolean)
        .join(', ');
      return {
        ...item(row.at, 'edit', 'plain', row.words, detail, null),
        undo: row.can_undo === 1 ? row.id : null,
      };
    });
  }

  private async noted(db: Scoped, id: number, limit: number): Promise<TimelineItem[]> {
    return (await this.notes.of(db, id, limit)).map((note) => ({
      ...item(
        new Date(note.at),
        'note',
        'plain',
        note.kind === 'call' ? 'Called' : 'Note',
        `By ${note.by}${note.changedAt ? ', changed since' : ''}`,
        null,
      ),
      note,
    }));
  }

  private async replies(db: Scoped, ids: readonly number[], limit: number): Promise<TimelineItem[]> {
    const rows = await db.sql<
      Pick<Tables['reply'], 'at' | 'body' | 'keyword'> & {
        channel: Channel;
      }
    >(
      `SELECT at, body, channel, keyword
        FROM reply
        WHERE organization_id = :org AND supporter_id IN (:ids)
        ORDER BY at DESC
        LIMIT :limit`,
      { ids, limit },
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

  private async batches(db: Scoped, ids: readonly number[], limit: number): Promise<TimelineItem[]> {
    const rows = await db.sql<
      Pick<Tables['batch'], 'created_at' | 'name' | 'id'> & {
        verdict: string;
        row_no: number;
      }
    >(
      `SELECT b.created_at, b.name, b.id, r.verdict, r.row_no
        FROM batch_row r
        JOIN batch b ON b.id = r.batch_id
        WHERE r.organization_id = :org AND r.supporter_id IN (:ids)
          AND b.state IN ('done', 'bringing', 'stopped')
        ORDER BY b.created_at DESC
        LIMIT :limit`,
      { ids, limit },
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

/** By what it came, and which automatic message sent it. */
function byWhat(channel: Channel, automation: string | null): string {
  const by = `By ${CHANNEL_WORDS[channel].toLowerCase()}`;
  return automation === null ? by : `${by}, by itself: “${automation}”`;
}

function item(
  at: Date,
  kind: TimelineItem['kind'],
  tone: TimelineItem['tone'],
  title: string,
  detail: string,
  link: string | null,
): TimelineItem {
  return { at: at.toISOString(), kind, tone, title, detail, link, undo: null, note: null };
}
