import { Inject, Injectable } from '@nestjs/common';
import { HoldsRepository } from '../permission/holds.repository';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Forbidden, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { noReadInReply } from '../replies/said-no';
import { TasksRepository, type TaskRow } from './tasks.repository';
import { sentence } from '../platform/words';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

export type TaskOutcome = 'meant' | 'not-meant' | 'done' | 'declined';

/**
 * Settling what only a person can: whether somebody meant to stop, and that a request to be erased was
 * answered.
 */
@Injectable()
export class TasksService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(TasksRepository) private readonly tasks: TasksRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(HoldsRepository) private readonly holds: HoldsRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  async settle(scope: AccessScope, id: number, outcome: TaskOutcome): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const task = await this.tasks.find(tx, id);
      if (!task) throw new NotFound('open task');
      if (task.kind === 'erasure') {
        if (scope.role !== 'owner') throw new Forbidden(sentence('task.owner'));
        if (outcome !== 'declined') throw new Conflict(sentence('task.erase'));
      } else {
        if (outcome !== 'meant' && outcome !== 'not-meant') throw new Conflict(sentence('task.stop'));
        // Meant: the no is dated when they said it, and the hold has done its work either way.
        if (outcome === 'meant') await this.stop(tx, task);
      }
      await this.tasks.settle(tx, id, outcome);
      // What else was asked of the address still holds it.
      const point = task.kind === 'stop' ? task.contact_point_id : null;
      if (point !== null && !(await this.contacts.isAsked(tx, point)))
        await this.holds.releaseAnswered(
          tx,
          point,
          outcome === 'meant' ? 'They meant stop, and that is recorded' : 'They did not mean stop',
        );
      await audit(
        tx,
        `task-${outcome}`,
        { [task.supporter_id ? 'supporter' : 'task']: task.supporter_id ?? id },
        task.kind === 'stop'
          ? `“${task.words.slice(0, 200)}”: ${outcome === 'meant' ? 'meant stop' : 'did not mean stop'}`
          : 'Request to be erased declined',
      );
    });
  }

  /** The channel is closed at the address; of a number that several share, for each of them. */
  private async stop(tx: Scoped, task: TaskRow): Promise<void> {
    const isEmail = task.point_kind === 'email';
    await this.ledger.recordAll(
      tx,
      noReadInReply({
        contactPointId: task.contact_point_id,
        kind: isEmail ? 'email' : 'mobile',
        supporterId: task.supporter_id,
        sharers: isEmail ? [] : await this.contacts.ownersOf(tx, task.contact_point_id!),
        words: task.words,
        saidAt: task.asked_at,
        replyId: task.reply_id,
      }),
    );
  }
}
