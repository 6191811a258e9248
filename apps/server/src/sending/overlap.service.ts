import { Inject, Injectable } from '@nestjs/common';
import type { Overlap } from '@goodword/core/contract';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { RecipientsService } from './recipients.service';
import { SendingRepository } from './sending.repository';

/** As many of those that are planned are looked at, the nearest first. */
const LOOKED_AT = 6;
/** More people than an organization has. */
const EVERYBODY = 20_000_000;

const momentOf = ({ scheduled_at, leaves_at }: MessageRow) => scheduled_at ?? leaves_at;

/** Who of those that a message reaches is to get another one that is planned. */
@Injectable()
export class OverlapService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(RecipientsService) private readonly recipients: RecipientsService,
  ) {}

  /** Of the people whom the last look found, by the groups of the others as they are now. */
  async of(scope: AccessScope, id: number): Promise<Overlap[]> {
    const db = this.database.read(scope);
    await this.messages.need(db, id);
    const planned = (await this.messages.all(db))
      .filter((other) => other.id !== id && other.state === 'scheduled' && momentOf(other) !== null)
      .sort((a, b) => momentOf(a)!.getTime() - momentOf(b)!.getTime())
      .slice(0, LOOKED_AT);
    if (planned.length === 0) return [];
    const reached = new Set(await this.sending.lookPeople(db, id, 'send', 0, EVERYBODY));
    const overlaps: Overlap[] = [];
    for (const other of planned) {
      const own = { ...scope, chapterId: other.chapter_id ?? scope.chapterId };
      let people = 0;
      for (const one of await this.recipients.of(own, other)) if (reached.has(one)) people += 1;
      if (people > 0)
        overlaps.push({
          ...{ messageId: other.id, name: other.name, channel: other.channel, people },
          at: momentOf(other)!.toISOString(),
        });
    }
    return overlaps;
  }
}
