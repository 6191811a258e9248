import { Inject, Injectable } from '@nestjs/common';
import type { Overlap } from '@goodword/core/contract';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { RecipientsService } from './recipients.service';
import { EVERYBODY, SendingRepository } from './sending.repository';

/** As many of those that are planned are looked at, the nearest first. */
const LOOKED_AT = 6;
const momentOf = ({ scheduled_at, leaves_at }: MessageRow) => scheduled_at ?? leaves_at;

/** A message that is planned, when it leaves, and who of some people is in its group as it is now. */
interface Planned {
  other: MessageRow;
  leaves: Date;
  both: number[];
}

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
    const reached = await this.sending.lookPeople(db, id, 'send', 0, EVERYBODY);
    return (await this.planned(scope, id, reached)).map(({ other, leaves, both }) => ({
      ...{ messageId: other.id, name: other.name, channel: other.channel, people: both.length },
      at: leaves.toISOString(),
    }));
  }

  /** What else is planned for some of these people, the nearest first. */
  async planned(scope: AccessScope, id: number, reached: readonly number[]): Promise<Planned[]> {
    const planned = (await this.messages.all(this.database.read(scope)))
      .flatMap((other) => {
        const leaves = momentOf(other);
        return other.id !== id && other.state === 'scheduled' && leaves ? [{ other, leaves }] : [];
      })
      .sort((a, b) => a.leaves.getTime() - b.leaves.getTime())
      .slice(0, LOOKED_AT);
    if (planned.length === 0) return [];
    const ours = new Set(reached);
    const found: Planned[] = [];
    for (const { other, leaves } of planned) {
      const own = { ...scope, chapterId: other.chapter_id ?? scope.chapterId };
      const both = (await this.recipients.of(own, other)).filter((one) => ours.has(one));
      if (both.length > 0) found.push({ other, leaves, both });
    }
    return found;
  }
}
