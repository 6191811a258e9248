import { Inject, Injectable } from '@nestjs/common';
import type { GoOnBody } from '@goodword/core/contract';
import { mayGo, type GoAct } from '@goodword/core/team';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Conflict, Forbidden, Newer } from '../platform/errors';
import type { Bound } from '../platform/scoped';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';
import { TeamRepository } from '../team/team.repository';
import { goOf, MessagesRepository } from './messages.repository';

/** A draft that somebody else should read before it leaves: handed over, agreed to, sent back. */
@Injectable()
export class GoService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** What is said holds for the words of one version: others that came meanwhile are looked at first. */
  async say(scope: AccessScope, id: number, { do: act, note, version }: GoOnBody): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.messages.need(tx, id);
      const message = (await this.messages.lock(tx, id))!;
      if (message.state !== 'draft') throw new Conflict(sentence('message.on-its-way'));
      if (message.version !== version)
        throw new Newer('these words', await this.team.nameOf(tx, message.changed_by));
      const go = goOf(message);
      const who = { id: scope.actorId, role: scope.role };
      if (!mayGo(act, go, who)) {
        // What somebody else may do now is not theirs; what nobody may has been done meanwhile.
        const other = mayGo(act, go, { id: null, role: 'owner' });
        throw other ? new Forbidden(sentence('go.not-yours')) : new Conflict(sentence('go.not-now'));
      }
      await this.messages.change(tx, id, columnsOf(act, { note, version, by: scope.actorId }));
      await audit(tx, 'go', { message: id }, sentence(`go.${act}`, { name: message.name, version }));
    });
  }
}

const STATE = { ask: 'asked', agree: 'agreed', back: 'back' } as const;

function columnsOf(
  act: GoAct,
  { note, version, by }: { note: string; version: number; by: number | null },
): Record<string, Bound> {
  if (act === 'withdraw')
    return { go_state: null, go_version: null, go_asked_by: null, go_by: null, go_at: null, go_note: '' };
  return {
    ...{ go_state: STATE[act], go_version: version, go_by: by, go_at: new Date(), go_note: note },
    ...(act === 'ask' ? { go_asked_by: by } : {}),
  };
}
