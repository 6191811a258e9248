import { Inject, Injectable } from '@nestjs/common';
import type { MakeWordNoteBody, WordNoteView } from '@goodword/core/contract';
import { Database } from '../platform/database';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';
import { MessagesRepository } from './messages.repository';
import { WordNotesRepository } from './word-notes.repository';

/** What a team says to each other beside the words of a message. Supporters never see it. */
@Injectable()
export class WordNotesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(WordNotesRepository) private readonly notes: WordNotesRepository,
  ) {}

  async all(scope: AccessScope, messageId: number): Promise<WordNoteView[]> {
    const db = this.database.read(scope);
    await this.messages.need(db, messageId);
    return this.notes.all(db, messageId);
  }

  /** An answer opens its note again: it is not settled yet. */
  async make(scope: AccessScope, messageId: number, note: MakeWordNoteBody): Promise<{ id: number }> {
    return this.database.writeUnlogged(scope, async (tx) => {
      await this.messages.need(tx, messageId);
      await this.messages.lock(tx, messageId);
      if (await this.notes.isFull(tx, messageId)) throw new Conflict(sentence('word-notes.full'));
      if (note.answersId !== null) {
        const of = await this.notes.find(tx, messageId, note.answersId);
        if (!of || of.answers_id !== null) throw new NotFound('note');
        if (of.settled_at !== null) await this.notes.settle(tx, of.id, false);
      }
      return { id: await this.notes.make(tx, messageId, note) };
    });
  }

  async settle(scope: AccessScope, messageId: number, id: number, settled: boolean): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.messages.need(tx, messageId);
      const note = await this.notes.find(tx, messageId, id);
      if (!note || note.answers_id !== null) throw new NotFound('note');
      await this.notes.settle(tx, id, settled);
    });
  }
}
