import { Injectable } from '@nestjs/common';
import type { GroupKind, MessageState, MessageView, Recipients } from '@goodword/core/contract';
import type { LetterDoc } from '@goodword/core/letter';
import type { Purpose, Scope as PermissionScope, SendingChannel } from '@goodword/core/permission';
import type { Bound, Scoped } from '../platform/database';

export interface MessageRow {
  id: number;
  organization_id: number;
  chapter_id: number | null;
  name: string;
  channel: SendingChannel;
  purpose: Purpose | null;
  list_id: number | null;
  state: MessageState;
  subject: string;
  preheader: string;
  letter: LetterDoc | null;
  body: string;
  recipients: Recipients;
  scheduled_at: Date | null;
  started_at: Date | null;
  sender_id: number | null;
  tested_at: Date | null;
  prepared_to: number;
  updated_at: Date;
}

/** The scope of permission that a message asks for. */
export function scopeOf(message: Pick<MessageRow, 'purpose' | 'list_id'>): PermissionScope {
  return message.list_id === null ? (message.purpose ?? 'appeals') : `list:${message.list_id}`;
}

export function messageView(row: MessageRow): MessageView {
  return {
    id: row.id,
    name: row.name,
    channel: row.channel,
    purpose: row.purpose,
    listId: row.list_id,
    state: row.state,
    subject: row.subject,
    preheader: row.preheader,
    letter: row.letter,
    text: row.body,
    recipients: row.recipients,
    scheduledAt: row.scheduled_at?.toISOString() ?? null,
    updatedAt: row.updated_at.toISOString(),
    testedAt: row.tested_at?.toISOString() ?? null,
  };
}

const NEEDING = ['draft', 'scheduled', 'preparing'];

@Injectable()
export class MessagesRepository {
  async all(db: Scoped): Promise<MessageRow[]> {
    return db.sql<MessageRow>(
      'SELECT * FROM message WHERE organization_id = :org AND (:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter) ORDER BY updated_at DESC, id DESC LIMIT 500',
    );
  }

  async find(db: Scoped, id: number): Promise<MessageRow | undefined> {
    const [row] = await db.sql<MessageRow>(
      'SELECT * FROM message WHERE organization_id = :org AND (:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter) AND id = :id',
      { id },
    );
    return row;
  }

  /** Locks the row, so that two people can't move the message at once. */
  async lock(tx: Scoped, id: number): Promise<MessageRow | undefined> {
    const [row] = await tx.sql<MessageRow>('SELECT * FROM message WHERE organization_id = :org AND id = :id FOR UPDATE', { id });
    return row;
  }

  async make(tx: Scoped, message: { name: string; channel: SendingChannel; purpose: Purpose }): Promise<number> {
    return tx.insert('message', {
      ...message,
      chapter_id: tx.scope.chapterId,
      recipients: JSON.stringify({ from: [], minus: [], without: [] }),
      sender_id: tx.scope.actorId,
    });
  }

  async change(tx: Scoped, id: number, values: Record<string, Bound>): Promise<void> {
    await tx
      .table('message')
      .where('message.id', id)
      .update({ ...values, updated_at: new Date() });
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    for (const table of ['last_look', 'message_group', 'message_link']) await tx.table(table).where('message_id', id).delete();
    await tx.table('message').where('message.id', id).delete();
  }

  /** Messages not yet gone that need a group: as recipients, or as the list that they are for. */
  async usersOf(db: Scoped, kind: GroupKind, id: number): Promise<{ id: number; name: string }[]> {
    const rows = (await this.all(db)).filter((message) => NEEDING.includes(message.state));
    const uses = (message: MessageRow) =>
      [...message.recipients.from, ...message.recipients.minus].some((ref) => ref.kind === kind && ref.id === id) ||
      (kind === 'list' && message.list_id === id);
    return rows.filter(uses).map(({ id: messageId, name }) => ({ id: messageId, name }));
  }

  async links(db: Scoped, messageId: number): Promise<{ position: number; url: string }[]> {
    return db.sql('SELECT position, url FROM message_link WHERE organization_id = :org AND message_id = :messageId ORDER BY position', { messageId });
  }

  async keepLinks(tx: Scoped, messageId: number, urls: readonly string[]): Promise<void> {
    await tx.insertAll(
      'message_link',
      ['message_id', 'position', 'url'],
      urls.map((url, position) => [messageId, position, url]),
      true,
    );
  }
}
