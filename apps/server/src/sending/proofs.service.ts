import { Inject, Injectable } from '@nestjs/common';
import type { ProofsView } from '@goodword/core/contract';
import { MessagesRepository } from '../messages/messages.repository';
import { Database } from '../platform/database';
import { Conflict } from '../platform/errors';
import { enqueue } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';
import { SupportersRepository } from '../supporters/supporters.repository';
import { chapterOfMessage } from './movable';
import { ProofsRepository } from './proofs.repository';

/** Proofs of a message: begun, followed, and shown with the names of those who were found. */
@Injectable()
export class ProofsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ProofsRepository) private readonly proofs: ProofsRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
  ) {}

  /** Begins to look through everybody who would get it now; one that is under way for the same is left. */
  async begin(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.messages.need(tx, id);
      const message = await this.messages.lock(tx, id);
      if (message?.state !== 'draft') throw new Conflict(sentence('message.on-its-way'));
      const before = await this.proofs.find(tx, id);
      chapterOfMessage(scope, message);
      const isSame =
        before?.version === message.version &&
        before.group_version === message.group_version &&
        (before.state === 'waiting' || before.state === 'running');
      if (isSame) return;
      await this.proofs.begin(tx, message);
      await enqueue(tx.knex, scope, 'message-proof', id);
    });
  }

  async view(scope: AccessScope, id: number): Promise<ProofsView> {
    const db = this.database.read(scope);
    const message = await this.messages.need(db, id);
    const row = await this.proofs.find(db, id);
    if (!row) return { state: 'none', isCurrent: false, done: 0, total: 0, seconds: null, found: [] };
    const found = row.found ?? [];
    const people = await this.supporters.byIds(db, [...new Set(found.flatMap(({ ids }) => ids))]);
    const names = new Map(people.map((one) => [one.id, `${one.first_name} ${one.last_name}`.trim()]));
    const { state, done, total, began_at: began, ended_at: ended } = row;
    return {
      state,
      isCurrent: row.version === message.version && row.group_version === message.group_version,
      done,
      total,
      seconds: ended === null ? null : Math.round((ended.getTime() - began.getTime()) / 1000),
      // Whoever is gone meanwhile, or is of another chapter, is counted and not shown.
      found: found.map(({ kind, people: n, ids, measure }) => ({
        ...{ kind, people: n, measure },
        readers: ids.flatMap((one) => (names.has(one) ? [{ id: one, name: names.get(one)! }] : [])),
      })),
    };
  }
}
