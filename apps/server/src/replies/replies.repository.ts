import { Injectable } from '@nestjs/common';
import { isDuplicate } from '../platform/database-errors';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

/** Something that came in, before it is kept. */
export interface NewReply {
  /** By which it is known when it comes again. */
  key: string;
  channel: 'email' | 'text';
  sender: string;
  contactPointId: number;
  supporterId: number | null;
  deliveryId: number | null;
  body: string;
  keyword: string;
  /** When it reached us, or the gateway. */
  receivedAt: Date;
  /** Of a mail. */
  subject?: string;
  mailId?: string | null;
}

/** A file that came with a mail: kept, or not and why. */
export interface ReplyFile {
  name: string;
  mime: string;
  bytes: number;
  storageKey: string | null;
  refused: Tables['reply_file']['refused'];
}

/** Of whom a thread is: of a person, or of an address that is nobody's. */
export interface Whose {
  supporterId: number | null;
  contactPointId: number | null;
}

export type ReplyRow = Pick<
  Tables['reply'],
  | 'id'
  | 'supporter_id'
  | 'contact_point_id'
  | 'delivery_id'
  | 'channel'
  | 'sender'
  | 'subject'
  | 'mail_id'
  | 'body'
  | 'keyword'
  | 'at'
  | 'handled_at'
>;

/**
 * The replies of one thread, as a condition on them that binds `supporterId` and `contactPointId`. It is one
 * of two, so that an index leads to them: a choice within the statement would look at every reply there is.
 */
export const ofThread = ({ supporterId }: Whose): string =>
  supporterId === null
    ? 'reply.supporter_id IS NULL AND reply.contact_point_id = :contactPointId'
    : 'reply.supporter_id = :supporterId';

export const whoseIs = (reply: Pick<ReplyRow, 'supporter_id' | 'contact_point_id'>): Whose => ({
  supporterId: reply.supporter_id,
  contactPointId: reply.contact_point_id,
});

/**
 * What people wrote back, as it is kept. A thread is all that one person wrote, and how it stands (read, put
 * aside, whose it is to answer, done) is kept on its replies: so it needs nothing of its own that could be
 * left behind when two records become one. Owns `reply` and `reply_file`.
 */
@Injectable()
export class RepliesRepository {
  /** Keeps what came in once and returns its id; null where it has come before. */
  async keep(tx: Scoped, reply: NewReply): Promise<number | null> {
    const whose = { supporterId: reply.supporterId, contactPointId: reply.contactPointId };
    const [before] = await tx.sql<{ assigned_to: number | null }>(
      `SELECT assigned_to
        FROM reply
        WHERE organization_id = :org AND ${ofThread(whose)}
        ORDER BY id DESC
        LIMIT 1`,
      { ...whose },
    );
    try {
      return await tx.insert('reply', {
        provider_key: reply.key,
        channel: reply.channel,
        sender: reply.sender,
        contact_point_id: reply.contactPointId,
        supporter_id: reply.supporterId,
        delivery_id: reply.deliveryId,
        subject: (reply.subject ?? '').slice(0, 300),
        mail_id: reply.mailId ?? null,
        body: reply.body,
        keyword: reply.keyword,
        received_at: reply.receivedAt,
        // Whoever answers them goes on doing so.
        assigned_to: before?.assigned_to ?? null,
      });
    } catch (error) {
      if (isDuplicate(error)) return null;
      throw error;
    }
  }

  async keepFiles(tx: Scoped, replyId: number, files: readonly ReplyFile[]): Promise<void> {
    for (const { storageKey, ...file } of files)
      await tx.insert('reply_file', { ...file, reply_id: replyId, storage_key: storageKey });
  }

  /** What an incoming text turned out to be; it needs no answer by a person then. */
  async settle(tx: Scoped, key: string, keyword: string): Promise<void> {
    await tx.execute(
      'UPDATE reply SET keyword = :keyword WHERE organization_id = :org AND provider_key = :key',
      { key, keyword },
    );
  }

  /** A reply that the caller may see. */
  async find(db: Scoped, id: number): Promise<ReplyRow | undefined> {
    return this.seen(db, id, '');
  }

  /** Likewise, and nobody else acts on it until this is done. */
  async lock(tx: Scoped, id: number): Promise<ReplyRow | undefined> {
    return this.seen(tx, id, 'FOR UPDATE');
  }

  private async seen(db: Scoped, id: number, how: '' | 'FOR UPDATE'): Promise<ReplyRow | undefined> {
    const [reply] = await db.sql<ReplyRow>(
      `SELECT id, supporter_id, contact_point_id, delivery_id, channel, sender, subject, mail_id, body, keyword,
          at, handled_at
        FROM reply
        WHERE organization_id = :org AND id = :id AND (:chapter IS NULL OR EXISTS (SELECT 1 FROM supporter s
          WHERE s.id = reply.supporter_id AND s.chapter_id = :chapter)) ${how}`,
      { id },
    );
    return reply;
  }

  /**
   * Done, all of a thread that had come when this one was looked at; or open again, this one alone. What
   * comes later stays open.
   */
  async handle(tx: Scoped, reply: ReplyRow, handled: boolean): Promise<void> {
    const whose = whoseIs(reply);
    await tx.execute(
      handled
        ? `UPDATE reply
            SET handled_at = UTC_TIMESTAMP(3), read_at = COALESCE(read_at, UTC_TIMESTAMP(3)), aside_until = NULL
            WHERE organization_id = :org AND ${ofThread(whose)} AND id <= :id AND handled_at IS NULL`
        : 'UPDATE reply SET handled_at = NULL WHERE organization_id = :org AND id = :id',
      { ...whose, id: reply.id },
    );
  }

  /** Somebody has read the thread to here. */
  async read(tx: Scoped, reply: ReplyRow): Promise<void> {
    const whose = whoseIs(reply);
    await tx.execute(
      `UPDATE reply
        SET read_at = UTC_TIMESTAMP(3)
        WHERE organization_id = :org AND ${ofThread(whose)} AND id <= :id AND read_at IS NULL`,
      { ...whose, id: reply.id },
    );
  }

  /** Aside until then, or no longer; a reply that comes meanwhile brings the thread back. */
  async putAside(tx: Scoped, reply: ReplyRow, until: Date | null): Promise<void> {
    const whose = whoseIs(reply);
    await tx.execute(
      `UPDATE reply
        SET aside_until = :until, read_at = COALESCE(read_at, UTC_TIMESTAMP(3))
        WHERE organization_id = :org AND ${ofThread(whose)} AND id <= :id AND handled_at IS NULL`,
      { ...whose, id: reply.id, until },
    );
  }

  /** Whose the thread is to answer, what comes later too. */
  async assign(tx: Scoped, reply: ReplyRow, teammateId: number | null): Promise<void> {
    const whose = whoseIs(reply);
    await tx.execute(
      `UPDATE reply SET assigned_to = :teammateId WHERE organization_id = :org AND ${ofThread(whose)}`,
      { ...whose, teammateId },
    );
  }

  /** How many open threads are a teammate's to answer. */
  async waitingFor(db: Scoped, teammateId: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(DISTINCT COALESCE(supporter_id, 0), IF(supporter_id IS NULL, contact_point_id, 0)) AS n
        FROM reply
        WHERE organization_id = :org AND assigned_to = :teammateId
          AND handled_at IS NULL AND keyword = 'none'`,
      { teammateId },
    );
    return Number(row!.n);
  }

  /** What one teammate was to answer is another's. */
  async handOn(tx: Scoped, from: number, to: number): Promise<void> {
    await tx.execute(
      'UPDATE reply SET assigned_to = :to WHERE organization_id = :org AND assigned_to = :from',
      { from, to },
    );
  }

  async file(db: Scoped, replyId: number, id: number): Promise<{ name: string; key: string } | undefined> {
    const [file] = await db.sql<{ name: string; storage_key: string | null }>(
      `SELECT name, storage_key
        FROM reply_file
        WHERE organization_id = :org AND reply_id = :replyId AND id = :id`,
      { replyId, id },
    );
    return file?.storage_key ? { name: file.name, key: file.storage_key } : undefined;
  }
}
