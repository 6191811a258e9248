import { Inject, Injectable } from '@nestjs/common';
import type { MessageFault, MessageState } from '@goodword/core/contract';
import { ComposingService } from '../messages/composing.service';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { Database } from '../platform/database';
import { Conflict } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { sentence } from '../platform/words';
import { WordingsRepository } from '../wordings/wordings.repository';

/** The other wordings of a message that is about to leave: it leaves when all of them could. */
@Injectable()
export class BesideService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(WordingsRepository) private readonly wordings: WordingsRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
  ) {}

  async of(db: Scoped, message: Pick<MessageRow, 'id'>): Promise<MessageRow[]> {
    const ids = await this.wordings.beside(db, message.id);
    return Promise.all(ids.map((id) => this.messages.need(db, id)));
  }

  /** What the others say, from whom, and how they are compared: differs where any of it does. */
  async aboutOf(scope: AccessScope, message: MessageRow): Promise<unknown[]> {
    const db = this.database.read(scope);
    const others = await this.of(db, message);
    if (others.length === 0) return [];
    const composed = await Promise.all(others.map((one) => this.composing.compose(scope, one)));
    const comparison = await this.wordings.comparison(db, message.id);
    return [
      comparison && [comparison.share, comparison.measure, comparison.hours],
      ...others.map(({ id, version, sender_id }, i) => [id, version, sender_id, composed[i]!.composed]),
    ];
  }

  /** What is wrong in the words of the others, each by its name. */
  async faults(scope: AccessScope, message: MessageRow): Promise<MessageFault[]> {
    const others = await this.of(this.database.read(scope), message);
    const found = await Promise.all(
      others.map(async (one) => {
        const faults = (await this.composing.faults(scope, one)).map((fault) => fault.message);
        const untested = one.tested_at === null ? [sentence('send.test-first')] : [];
        return [...faults, ...untested].map((fault) =>
          sentence('automation.fault', { name: one.name, fault }),
        );
      }),
    );
    return found
      .flat()
      .map((words) => ({ where: 'message', message: words, suggestion: null, excerpt: null }));
  }

  /** What asks in any of them. */
  async asks(db: Scoped, message: MessageRow): Promise<string[]> {
    const all = [message, ...(await this.of(db, message))];
    const found = await Promise.all(all.map((one) => this.composing.asks(db, one)));
    return [...new Set(found.flat())];
  }

  /** Locks the others as the message is locked, and refuses where any is not as it was seen. */
  async lockAs(tx: Scoped, seen: readonly MessageRow[], message: MessageRow): Promise<void> {
    const ids = await this.wordings.beside(tx, message.id);
    const now = await Promise.all(ids.map((id) => this.messages.lock(tx, id)));
    const asOf = (one: MessageRow | undefined) => one && `${one.id}:${one.version}:${one.sender_id}`;
    if (now.map(asOf).join() !== seen.map(asOf).join()) throw new Conflict(sentence('send.look-again'));
  }

  /** They go where the message goes. */
  async follow(
    tx: Scoped,
    message: Pick<MessageRow, 'id'>,
    from: readonly MessageState[],
    to: MessageState,
  ): Promise<void> {
    await this.wordings.share(tx, message.id);
    await this.wordings.follow(tx, message.id, from, to);
  }
}
