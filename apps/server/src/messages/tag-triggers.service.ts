import { Inject, Injectable } from '@nestjs/common';
import type { TagTrigger, TagTriggerEvent } from '@goodword/core/contract';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { stillAs } from '../platform/versions';
import { GroupsRepository } from '../supporters/groups.repository';
import { MessagesRepository } from './messages.repository';

const WORDS: Record<TagTriggerEvent, string> = { clicked: 'clicks a link', replied: 'replies' };

/** Tags that a message puts on whoever clicks a link in it, or replies to it. */
@Injectable()
export class TagTriggersService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
  ) {}

  /** May change also when the message has gone: it counts for what is done from then on. */
  async save(
    scope: AccessScope,
    id: number,
    triggers: readonly TagTrigger[],
    was: readonly TagTrigger[],
  ): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const message = await this.messages.lock(tx, id);
      if (!message) throw new NotFound('message');
      stillAs(was, message.tag_triggers ?? [], 'what this message tags');
      const told: string[] = [];
      for (const { on, tagId } of triggers) {
        const tag = await this.groups.find(tx, 'tag', tagId);
        if (!tag) throw new NotFound('tag');
        told.push(`whoever ${WORDS[on]} gets ${tag.name}`);
      }
      await this.messages.change(tx, id, {
        tag_triggers: triggers.length === 0 ? null : JSON.stringify(triggers),
      });
      await audit(
        tx,
        'tag-triggers',
        { message: id },
        `${message.name}: ${told.join(', ') || 'tags nobody'}`.slice(0, 600),
      );
    });
  }

  /**
   * Somebody did this for the first time: they get the tags that the message names, as far as these are still
   * there.
   */
  async done(
    tx: Scoped,
    delivery: { messageId: number; supporterId: number | null },
    on: TagTriggerEvent,
  ): Promise<void> {
    if (delivery.supporterId === null) return;
    const message = await this.messages.find(tx, delivery.messageId);
    for (const trigger of message?.tag_triggers ?? []) {
      if (trigger.on !== on || !(await this.groups.find(tx, 'tag', trigger.tagId))) continue;
      await this.groups.put(tx, 'tag', delivery.supporterId, trigger.tagId, delivery.messageId);
    }
  }
}
