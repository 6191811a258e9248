import { Injectable } from '@nestjs/common';
import type { ThreadItem, ThreadLine, ThreadsQuery } from '@goodword/core/contract';
import type { SendingChannel } from '@goodword/core/permission';
import { WRITTEN_TO_THEM_ALONE } from '../messages/messages.repository';
import { likeWords } from '../platform/search';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';
import { ofThread, type Whose } from '../replies/replies.repository';

/** Threads on one page: nobody reads more than so many at once. */
const MOST_THREADS = 200;
/** So much of a thread is shown, of theirs, of ours and of notes each. */
const MOST_ITEMS = 200;
/** Letters of the newest reply that its line shows. */
const LINE = 200;

const NAME = "TRIM(CONCAT(COALESCE(s.first_name, ''), ' ', COALESCE(s.last_name, '')))";

/**
 * One row a thread, of the replies for which a condition holds: how many of them are open and unread, and
 * until when it is aside: as long as each open one is.
 */
const threads = (which: string) => `SELECT MAX(reply.id) AS id,
    SUM(reply.handled_at IS NULL) AS waiting,
    SUM(reply.handled_at IS NULL AND reply.read_at IS NULL) AS unread,
    IF(SUM(reply.handled_at IS NULL AND COALESCE(reply.aside_until, '1970-01-01') <= UTC_TIMESTAMP(3)) = 0,
      MIN(IF(reply.handled_at IS NULL, reply.aside_until, NULL)), NULL) AS aside_until
  FROM reply
  WHERE reply.organization_id = :org AND reply.keyword = 'none' AND ${which}
    AND (:chapter IS NULL OR EXISTS (SELECT 1 FROM supporter c
      WHERE c.id = reply.supporter_id AND c.chapter_id = :chapter))
  GROUP BY COALESCE(reply.supporter_id, 0), IF(reply.supporter_id IS NULL, reply.contact_point_id, 0)`;

/** The replies that wait; an index leads to them. */
const WAITING = 'reply.handled_at IS NULL';

/** Which threads a view shows. */
const VIEWS: Record<ThreadsQuery['view'], string> = {
  open: 't.waiting > 0 AND t.aside_until IS NULL',
  mine: 't.waiting > 0 AND t.aside_until IS NULL AND r.assigned_to = :me',
  aside: 't.aside_until IS NOT NULL',
  done: 't.waiting = 0',
};

/** A thread as its newest reply stands. */
export interface ThreadRow extends Pick<
  Tables['reply'],
  'id' | 'supporter_id' | 'contact_point_id' | 'sender' | 'subject' | 'body' | 'at'
> {
  name: string;
  channel: SendingChannel;
  waiting: number;
  unread: number;
  aside_until: Date | null;
  assigned_to: number | null;
  assigned_name: string | null;
  message: string | null;
}

const ROW = `r.id, r.supporter_id, r.contact_point_id, COALESCE(cp.shown, r.sender) AS sender, r.subject, r.body, r.at, r.channel,
  COALESCE(NULLIF(${NAME}, ''), r.sender) AS name, t.waiting, t.unread, t.aside_until, r.assigned_to,
  mate.name AS assigned_name, m.name AS message`;
const AROUND = `JOIN reply r ON r.id = t.id
  LEFT JOIN supporter s ON s.id = r.supporter_id
  LEFT JOIN contact_point cp ON cp.id = r.contact_point_id
  LEFT JOIN teammate mate ON mate.id = r.assigned_to
  LEFT JOIN delivery d ON d.id = r.delivery_id
  LEFT JOIN message m ON m.id = d.message_id`;

/** What people wrote back, thread by thread. */
@Injectable()
export class ThreadsRepository {
  async page(db: Scoped, { view, q = '' }: ThreadsQuery): Promise<ThreadLine[]> {
    const rows = await db.sql<ThreadRow>(
      `SELECT ${ROW}
        FROM (${threads(view === 'done' ? 'TRUE' : WAITING)}) t
        ${AROUND}
        WHERE ${VIEWS[view]} AND (:q = '' OR ${NAME} LIKE :like OR r.sender LIKE :like OR r.body LIKE :like
          OR r.subject LIKE :like OR m.name LIKE :like)
        ORDER BY r.at DESC, r.id DESC
        LIMIT :most`,
      { me: db.scope.actorId, q, like: likeWords(q), most: MOST_THREADS },
    );
    return rows.map((row) => ({
      replyId: row.id,
      supporterId: row.supporter_id,
      name: row.name,
      channel: row.channel,
      words: row.body.slice(0, LINE),
      at: row.at.toISOString(),
      waiting: Number(row.waiting),
      unread: Number(row.unread) > 0,
      assignedTo: assignedTo(row),
      asideUntil: row.aside_until?.toISOString() ?? null,
      message: row.message,
    }));
  }

  async counts(db: Scoped): Promise<{ open: number; mine: number; aside: number; unread: number }> {
    const [row] = await db.sql<{ open: number; mine: number; aside: number; unread: number }>(
      `SELECT COALESCE(SUM(${VIEWS.open}), 0) AS open, COALESCE(SUM(${VIEWS.mine}), 0) AS mine,
          COALESCE(SUM(${VIEWS.aside}), 0) AS aside,
          COALESCE(SUM(t.aside_until IS NULL AND t.unread > 0), 0) AS unread
        FROM (${threads(WAITING)}) t
        JOIN reply r ON r.id = t.id`,
      { me: db.scope.actorId },
    );
    const { open, mine, aside, unread } = row!;
    return { open: Number(open), mine: Number(mine), aside: Number(aside), unread: Number(unread) };
  }

  /** The thread of somebody, by their newest words; undefined where all that came was from machines. */
  async newest(db: Scoped, whose: Whose): Promise<ThreadRow | undefined> {
    const [row] = await db.sql<ThreadRow>(
      `SELECT ${ROW}
        FROM (${threads(ofThread(whose))}) t
        ${AROUND}`,
      { ...whose },
    );
    return row;
  }

  /** What came from them, the newest first. */
  async theirs(db: Scoped, whose: Whose): Promise<ThreadItem[]> {
    const rows = await db.sql<
      Pick<Tables['reply'], 'id' | 'sender' | 'subject' | 'body' | 'keyword' | 'at'> & {
        channel: SendingChannel;
        message_id: number | null;
        message: string | null;
      }
    >(
      `SELECT reply.id, reply.sender, reply.subject, reply.body, reply.keyword, reply.at, reply.channel,
          m.id AS message_id, m.name AS message
        FROM reply
        LEFT JOIN delivery d ON d.id = reply.delivery_id
        LEFT JOIN message m ON m.id = d.message_id
        WHERE reply.organization_id = :org AND ${ofThread(whose)}
        ORDER BY reply.id DESC
        LIMIT :most`,
      { ...whose, most: MOST_ITEMS },
    );
    const files = await this.files(
      db,
      rows.map(({ id }) => id),
    );
    return rows.map((row) => ({
      kind: 'in',
      id: row.id,
      at: row.at.toISOString(),
      channel: row.channel,
      by: row.sender,
      subject: row.subject,
      words: row.body,
      message: row.message_id === null ? null : { id: row.message_id, name: row.message ?? '' },
      keyword: row.keyword,
      state: null,
      files: files.get(row.id) ?? [],
    }));
  }

  /** What we wrote to them alone, the newest first. */
  async ours(db: Scoped, supporterId: number): Promise<ThreadItem[]> {
    const rows = await db.sql<
      Pick<Tables['message'], 'id' | 'subject' | 'said' | 'created_at'> & {
        name: string;
        channel: SendingChannel;
        state: string | null;
        sent_at: Date | null;
        by: string | null;
      }
    >(
      `SELECT m.id, m.name, m.channel, m.subject, m.said, m.created_at, d.state, d.sent_at, t.name AS \`by\`
        FROM message m
        LEFT JOIN delivery d ON d.message_id = m.id
        LEFT JOIN teammate t ON t.id = m.sender_id
        WHERE m.organization_id = :org AND m.id IN (${WRITTEN_TO_THEM_ALONE})
        ORDER BY m.id DESC
        LIMIT :most`,
      { supporterId, most: MOST_ITEMS },
    );
    return rows.map((row) => ({
      ...BARE_ITEM,
      kind: 'out',
      id: row.id,
      at: (row.sent_at ?? row.created_at).toISOString(),
      channel: row.channel,
      by: row.by ?? '',
      subject: row.subject,
      words: row.said ?? '',
      state: row.state ?? 'ready',
    }));
  }

  /** The open question whether somebody meant to stop. */
  async question(db: Scoped, whose: Whose): Promise<{ taskId: number; words: string } | null> {
    const [row] = await db.sql<{ taskId: number; words: string }>(
      `SELECT k.id AS taskId, k.words
        FROM task k
        JOIN reply ON reply.id = k.reply_id
        WHERE k.organization_id = :org AND k.kind = 'stop' AND k.done_at IS NULL AND ${ofThread(whose)}
        ORDER BY k.id
        LIMIT 1`,
      { ...whose },
    );
    return row ?? null;
  }

  /** Who of the team may answer, in the chapter that one works in. */
  async mates(db: Scoped): Promise<{ id: number; name: string }[]> {
    return db.sql(
      `SELECT id, name
        FROM teammate
        WHERE organization_id = :org AND role IN ('owner', 'organizer') AND left_at IS NULL
          AND (:chapter IS NULL OR chapter_ids IS NULL OR JSON_CONTAINS(chapter_ids, CAST(:chapter AS CHAR)))
        ORDER BY name, id`,
    );
  }

  private async files(db: Scoped, replyIds: readonly number[]): Promise<Map<number, ThreadItem['files']>> {
    const found = new Map<number, ThreadItem['files']>();
    if (replyIds.length === 0) return found;
    const rows = await db.sql<Pick<Tables['reply_file'], 'id' | 'reply_id' | 'name' | 'bytes' | 'refused'>>(
      `SELECT id, reply_id, name, bytes, refused
        FROM reply_file
        WHERE organization_id = :org AND reply_id IN (:replyIds)
        ORDER BY id`,
      { replyIds },
    );
    for (const { reply_id: replyId, ...file } of rows)
      found.set(replyId, [...(found.get(replyId) ?? []), file]);
    return found;
  }
}

/** An item of which nothing else is known. */
export const BARE_ITEM = {
  channel: null,
  subject: '',
  message: null,
  keyword: 'none',
  state: null,
  files: [],
} satisfies Partial<ThreadItem>;

export const assignedTo = (row: Pick<ThreadRow, 'assigned_to' | 'assigned_name'>) =>
  row.assigned_to === null ? null : { id: row.assigned_to, name: row.assigned_name ?? '' };
