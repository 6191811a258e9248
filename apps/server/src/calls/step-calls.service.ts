import { Inject, Injectable } from '@nestjs/common';
import { CALL_AGAIN, type StepCalls } from '@goodword/core/contract';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Conflict } from '../platform/errors';
import { HandlesJob, type Running } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { sentence } from '../platform/words';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { ByHandRepository } from '../sending/by-hand.repository';
import { movable } from '../sending/movable';
import { SendingRepository } from '../sending/sending.repository';
import { CallPermission } from './call-permission.service';
import { CallsRepository } from './calls.repository';
import { StepCallsRepository } from './step-calls.repository';

/** So many can be gone through by people; a sheet of more is not a sheet. */
export const MOST_CALLS = 5000;

/** Whether somebody was spoken with; who was not reached or had no time is called once more. */
const isReached = (outcome: string | null) => outcome !== null && !CALL_AGAIN.includes(outcome);

/**
 * Calls that are a step of a campaign: the lists that they are made by, and how each call counts as the
 * step's.
 */
@Injectable()
export class StepCallsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(CallsRepository) private readonly calls: CallsRepository,
    @Inject(StepCallsRepository) private readonly steps: StepCallsRepository,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(ByHandRepository) private readonly byHand: ByHandRepository,
    @Inject(CallPermission) private readonly permission: CallPermission,
  ) {}

  /** Makes the lists of a step whose people are written down: one, or as many as that takes. */
  @HandlesJob('message-calls')
  async run(job: Running): Promise<void> {
    const found = await this.messages.find(this.database.read(job.scope), job.refId);
    if (!found) return;
    const scope = { ...job.scope, chapterId: found.chapter_id };
    await this.database.writeUnlogged(scope, async (tx) => {
      const message = await this.messages.lock(tx, job.refId);
      // Stopped meanwhile, or made already by a worker that was killed before it could say so.
      if (message?.state !== 'calling' || (await this.calls.ofMessage(tx, message.id)).length > 0) return;
      const people = (await this.steps.waiting(tx, message.id)).map(({ supporter_id: id }) => id);
      const lists = Math.ceil(people.length / MOST_CALLS);
      for (let i = 0; i < lists; i++) {
        const name =
          lists === 1
            ? message.name
            : sentence('calls.part', { name: message.name.slice(0, 100), part: i + 1, parts: lists });
        const some = people.slice(i * MOST_CALLS, (i + 1) * MOST_CALLS);
        await this.calls.make(
          tx,
          {
            ...{ name, campaignId: message.campaign_id, script: message.body, messageId: message.id },
            purpose: message.purpose ?? 'appeals',
          },
          some.map((id) => ({ id, suppressed: null })),
        );
      }
      if (lists === 0) await this.messages.change(tx, message.id, { state: 'done' });
    });
  }

  /** Its lists, and how many are still to be called. */
  async view(scope: AccessScope, id: number): Promise<StepCalls> {
    const db = this.database.read(scope);
    await this.messages.need(db, id);
    const lists = await this.calls.ofMessage(db, id);
    return {
      lists: lists.map(({ id: listId, name, people, called, again, suppressed }) => ({
        ...{ id: listId, name, people, called, again, suppressed },
      })),
      waiting: await this.sending.countReady(db, id),
    };
  }

  /**
   * Locks the step of a list before a call of it is answered. A step that was stopped takes no answers: its
   * calls count as not made.
   */
  async lock(tx: Scoped, messageId: number): Promise<MessageRow> {
    const message = (await this.messages.lock(tx, messageId))!;
    if (message.state === 'stopped')
      throw new Conflict(sentence('calls.step-stopped', { name: message.name }));
    return message;
  }

  /** What came of a call, for the step: whoever was spoken with has got it. The last one ends the step. */
  async answered(
    tx: Scoped,
    message: MessageRow,
    supporterId: number,
    outcome: string | null,
  ): Promise<void> {
    const delivery = await this.steps.of(tx, message.id, supporterId);
    if (!delivery) return;
    tx.changed('reach', 0, [supporterId]);
    tx.changed('messages', 0, [supporterId]);
    if (isReached(outcome)) await this.byHand.came(tx, [delivery.id], new Date());
    else await this.byHand.cameNot(tx, delivery.id, message.state === 'calling' ? 'ready' : 'stopped');
    if (message.state === 'calling' && (await this.sending.countReady(tx, message.id)) === 0)
      await this.messages.change(tx, message.id, { state: 'done' });
  }

  /** Nobody more is called for it: who may not be is held back with why, the others were not reached. */
  async over(scope: AccessScope, id: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const message = await movable(this.messages, tx, scope, id, ['calling']);
      const waiting = await this.steps.waiting(tx, id);
      const people = waiting.map(({ supporter_id: one }) => one);
      tx.changed('messages', 0, people);
      const suppressed = await this.permission.suppressedOf(tx, people, {
        ...{ purpose: message.purpose ?? 'appeals', message_id: id },
      });
      for (const { id: delivery, supporter_id: one } of waiting) {
        const verdict = suppressed.get(one);
        if (verdict) await this.byHand.refuse(tx, delivery, verdict);
      }
      await this.sending.stopReady(tx, id);
      await this.messages.change(tx, id, { state: 'done' });
      await audit(
        tx,
        'called',
        { message: id },
        sentence('calls.over', { name: message.name, people: people.length - suppressed.size }),
      );
    });
  }
}
