import { Inject, Injectable } from '@nestjs/common';
import { ASK_NAMES, askKey } from '@goodword/core/letter';
import { emptySlots, rawKey, type MergeValues } from '@goodword/core/merge';
import { ProofFinder, type ReadBySomebody } from '@goodword/core/proofs';
import { countParts } from '@goodword/core/text';
import { filledText, slotsIn, type Composed } from '../messages/composer';
import { ComposingService } from '../messages/composing.service';
import { MessageValuesService, wantedFor } from '../messages/message-values.service';
import { MessagesRepository, scopeOfMessage, type MessageRow } from '../messages/messages.repository';
import { Database } from '../platform/database';
import { HandlesJob, type Running } from '../platform/jobs';
import { RollService } from '../roll/roll.service';
import { TeamRepository } from '../team/team.repository';
import { chapterOfMessage } from './movable';
import { ProofsRepository } from './proofs.repository';
import { RecipientsService } from './recipients.service';

const CHUNK = 1000;

/** Fills a message for everybody who would get it now, and keeps whom it is worth reading it as. */
@Injectable()
export class ProofsJob {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ProofsRepository) private readonly proofs: ProofsRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MessageValuesService) private readonly values: MessageValuesService,
    @Inject(RecipientsService) private readonly recipients: RecipientsService,
    @Inject(RollService) private readonly roll: RollService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  @HandlesJob('message-proof')
  async run(job: Running): Promise<void> {
    const message = await this.messages.find(this.database.read(job.scope), job.refId);
    if (!message) return;
    const keep = (values: Parameters<ProofsRepository['change']>[2]) =>
      this.database.writeUnlogged(job.scope, (tx) => this.proofs.change(tx, message, values));
    try {
      const finder = await this.lookThrough(job, message, keep);
      if (finder) await keep({ state: 'done', found: JSON.stringify(finder.found()), ended_at: new Date() });
    } catch (error) {
      await keep({ state: 'failed' });
      throw error;
    }
  }

  /** Null where it was stopped, or is about words that were changed since. */
  private async lookThrough(
    job: Running,
    message: MessageRow,
    keep: (values: Parameters<ProofsRepository['change']>[2]) => Promise<boolean>,
  ): Promise<ProofFinder | null> {
    const scope = chapterOfMessage(job.scope, message);
    const group = await this.recipients.of(scope, message);
    const asked = { channel: message.channel, scope: scopeOfMessage(message) };
    const households = await this.recipients.households(scope, message, group);
    const look = await this.roll.ask(scope, 'look', { asked, households, ids: Uint32Array.from(group) });
    const reached = [...(look.send ?? [])];
    const { composed, organization } = await this.composing.compose(scope, message);
    const sender = message.sender_id ? await this.team.teammate(scope, message.sender_id) : undefined;
    const wanted = wantedFor(message, { composed, organization, sender });
    const read = readerOfMessage(composed, message.channel === 'text');
    const finder = new ProofFinder();
    await keep({ state: 'running', total: reached.length });
    for (let from = 0; from < reached.length; from += CHUNK) {
      const values = await this.values.of(scope, reached.slice(from, from + CHUNK), wanted);
      for (const [id, own] of values) finder.see(read(id, own));
      const done = Math.min(from + CHUNK, reached.length);
      if ((await job.stopped()) || !(await keep({ done }))) return null;
      await job.progress(done, reached.length);
    }
    return finder;
  }
}

/** What proofs look at of a message, for one person after the other. */
function readerOfMessage(
  composed: Composed,
  isText: boolean,
): (id: number, values: MergeValues) => ReadBySomebody {
  const passages = [...composed.rules.map((_rule, at) => `fits:${at}`), ...composed.conditions].filter(
    (key, at, all) => key.startsWith('fits:') && all.indexOf(key) === at,
  );
  const asks = slotsIn(composed).some(({ key }) => key.startsWith('ask.'));
  return (id, values) => {
    const { subject, text } = filledText({ ...composed, html: [] }, values);
    return {
      id,
      firstName: values.firstName ?? '',
      lastName: values.lastName ?? '',
      subject,
      text,
      holes: emptySlots({ parts: composed.own }, values).map(({ name }) => name),
      segments: isText ? countParts(text, composed.shiftTables).parts : 0,
      passages: passages.length === 0 ? null : passages.filter((key) => values[key]).length,
      asked: asks ? ASK_NAMES.flatMap((name) => Number(values[rawKey(askKey(name))] ?? 0) || []) : null,
    };
  };
}
