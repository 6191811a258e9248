import { Inject, Injectable } from '@nestjs/common';
import { goStanding, hasItsGo } from '@goodword/core/team';
import { ComposingService } from '../messages/composing.service';
import { goOf, MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';

/** Why a message waits that was on its way as its automatic message was switched off. */
export const SWITCHED_OFF = sentence('automation.paused-why');

/** What keeps a message from going by itself. */
@Injectable()
export class LackingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
  ) {}

  async ofMessage(scope: AccessScope, id: number): Promise<string[]> {
    const message = await this.messages.need(this.database.read(scope).ofAll(), id);
    const { name, state } = message;
    if (state === 'draft') return this.ofDraft({ ...scope, chapterId: message.chapter_id }, message);
    if (state === 'paused' && message.paused_why !== SWITCHED_OFF)
      return [sentence('automation.is-paused', { name })];
    return state === 'stopped' ? [sentence('automation.was-stopped', { name })] : [];
  }

  private async ofDraft(scope: AccessScope, message: MessageRow): Promise<string[]> {
    const { name } = message;
    const faults = await this.composing.faults(scope, message);
    const asks = await this.composing.asks(this.database.read(scope), message);
    const said = goStanding(goOf(message), message.version);
    return [
      ...faults.map((fault) => sentence('automation.fault', { name, fault: fault.message })),
      ...(asks.length > 0 ? [sentence('automation.asks', { name, asks: asks.join('”, “') })] : []),
      ...(faults.length === 0 && !message.tested_at ? [sentence('automation.untested', { name })] : []),
      ...(hasItsGo(said) ? [] : [sentence('automation.no-go', { name })]),
    ];
  }
}
