import { Injectable } from '@nestjs/common';
import type { WordNoteView } from '@goodword/core/contract';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

type NoteRow = Pick<
  Tables['message_note'],
  'id' | 'answers_id' | 'quote' | 'body' | 'written_at' | 'settled_at'
> & { by: string | null; settled_by: string | null };

/** Notes of one message; more nobody answers. */
const MOST = 300;

/** Notes to places in messages, with their answers. Owns `message_note`. */
@Injectable()
export class WordNotesRepository {
  /** The open ones first, each in the order in which they were written. */
  async all(db: Scoped, messageId: number): Promise<WordNoteView[]> {
    const rows = await db.sql<NoteRow>(
      `SELECT n.id, n.answers_id, n.quote, n.body, n.written_at, n.settled_at, w.name AS \`by\`,
          s.name AS settled_by
        FROM message_note n
        LEFT JOIN teammate w ON w.id = n.written_by
        LEFT JOIN teammate s ON s.id = n.settled_by
        WHERE n.organization_id = :org AND n.message_id = :messageId
        ORDER BY n.id`,
      { messageId },
    );
    const said = ({ id, by, written_at: at, body }: NoteRow) => ({ id, by, at: at.toISOString(), body });
    return rows
      .filter(({ answers_id: of }) => of === null)
      .map((note) => ({
        ...said(note),
        quote: note.quote,
        answers: rows.filter(({ answers_id: of }) => of === note.id).map(said),
        settledBy: note.settled_by,
        settledAt: note.settled_at?.toISOString() ?? null,
      }))
      .sort((a, b) => Number(a.settledAt !== null) - Number(b.settledAt !== null));
  }

  async find(
    db: Scoped,
    messageId: number,
    id: number,
  ): Promise<Pick<NoteRow, 'id' | 'answers_id' | 'settled_at'> | undefined> {
    const [row] = await db.sql<Pick<NoteRow, 'id' | 'answers_id' | 'settled_at'>>(
      `SELECT id, answers_id, settled_at
        FROM message_note
        WHERE organization_id = :org AND message_id = :messageId AND id = :id`,
      { messageId, id },
    );
    return row;
  }

  async isFull(db: Scoped, messageId: number): Promise<boolean> {
    const [row] = await db.sql<{ n: number }>(
      'SELECT COUNT(*) AS n FROM message_note WHERE organization_id = :org AND message_id = :messageId',
      { messageId },
    );
    return Number(row?.n ?? 0) >= MOST;
  }

  async make(
    tx: Scoped,
    messageId: number,
    { quote, body, answersId }: { quote: string; body: string; answersId: number | null },
  ): Promise<number> {
    return tx.insert('message_note', {
      ...{ message_id: messageId, answers_id: answersId, quote, body },
      written_by: tx.scope.actorId,
    });
  }

  async settle(tx: Scoped, id: number, settled: boolean): Promise<void> {
    await tx
      .table('message_note')
      .where('message_note.id', id)
      .update(
        settled
          ? { settled_at: new Date(), settled_by: tx.scope.actorId }
          : { settled_at: null, settled_by: null },
      );
  }
}
