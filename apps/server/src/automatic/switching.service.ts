import { Inject, Injectable } from '@nestjs/common';
import { comesAgain, takeUp, type Occurrence } from '@goodword/core/automations';
import type { AutomationLook, SwitchOnBody } from '@goodword/core/contract';
import {
  AutomationsRepository,
  type Automation,
  type AutomationStepRow,
} from '../automations/automations.repository';
import { VisitsRepository } from '../automations/visits.repository';
import { ComposingService } from '../messages/composing.service';
import { MessagesRepository } from '../messages/messages.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { nextVersion } from '../platform/versions';
import { sentence } from '../platform/words';
import { RuleNamesService } from '../segments/rule-names.service';
import { SendingRepository } from '../sending/sending.repository';
import { TeamRepository } from '../team/team.repository';
import { LackingService, SWITCHED_OFF } from './lacking.service';
import { SourcesService } from './sources.service';
import { TakingUpService } from './taking-up.service';
import { windowSince } from './window';

const DAY_MS = 86_400_000;

/** Switching an automatic message on and off, and the look before it. */
@Injectable()
export class SwitchingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
    @Inject(VisitsRepository) private readonly visits: VisitsRepository,
    @Inject(SourcesService) private readonly sources: SourcesService,
    @Inject(TakingUpService) private readonly takingUp: TakingUpService,
    @Inject(LackingService) private readonly lacking: LackingService,
    @Inject(RuleNamesService) private readonly ruleNames: RuleNamesService,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** What keeps it from being switched on, and to how many it happened since so many days. */
  async look(scope: AccessScope, id: number, days: number): Promise<AutomationLook> {
    const automation = await this.need(scope, id);
    const { lacks } = await this.lacks(scope, automation);
    const now = new Date();
    const people = async (since: number) =>
      since === 0 ? 0 : (await this.happened(scope, automation, { days: since, now })).length;
    return { lacks, people: await people(days), month: await people(30) };
  }

  private async lacks(scope: AccessScope, { id, excepted, chapterId }: Automation) {
    const steps = await this.automations.steps(this.database.read(scope), id);
    if (excepted) await this.ruleNames.checked({ ...scope, chapterId }, excepted);
    const lacks = await Promise.all(steps.map(({ messageId }) => this.lacking.ofMessage(scope, messageId)));
    return { steps, lacks: steps.length === 0 ? [sentence('automation.no-steps')] : lacks.flat() };
  }

  /** What would be taken up of the last so many days. */
  private async happened(
    scope: AccessScope,
    automation: Automation,
    { days, now }: { days: number; now: Date },
  ): Promise<Occurrence[]> {
    const { time_zone: zone } = await this.team.organization(scope);
    const since = new Date(now.getTime() - days * DAY_MS);
    const { cause } = automation;
    const own = { ...scope, chapterId: automation.chapterId };
    const found = await this.sources.found(own, cause, windowSince(since, now, zone, { cause, since }));
    return this.ofThese(this.database.read(scope), automation, found);
  }

  private async ofThese(db: Scoped, { id, cause, again }: Automation, found: readonly Occurrence[]) {
    const before = await this.visits.before(db, id, found);
    return takeUp(found, { ...before, lately: 0 }, { again: comesAgain(cause, again), pile: Infinity }).taken;
  }

  /** From now on; what happened before is taken up where that was asked for, and as many as were seen. */
  async on(scope: AccessScope, id: number, { basedOn, days, people }: SwitchOnBody): Promise<void> {
    const known = await this.need(scope, id);
    const { steps, lacks } = await this.lacks(scope, known);
    if (lacks.length > 0) throw new Conflict(lacks.join(' '));
    const now = new Date();
    const happened = days === 0 ? [] : await this.happened(scope, known, { days, now });
    const { time_zone: zone } = await this.team.organization(scope);
    const links = await this.linksOf(scope, steps);
    await this.database.write(scope, async (tx) => {
      tx.unchanged();
      const automation = await this.automations.find(tx, id, 'FOR UPDATE');
      if (!automation) throw new NotFound('automatic message');
      if (automation.on) throw new Conflict(sentence('automation.on-already'));
      await nextVersion(tx, 'automation', id, basedOn, 'automatic message');
      const taken = await this.ofThese(tx, automation, happened);
      if (taken.length !== people)
        throw new Conflict(sentence('automation.other-count', { people: taken.length }));
      for (const step of steps) await this.stand(tx, step, links.get(step.messageId)!);
      await this.takingUp.setGoing(tx, automation, steps, taken, { held: false, looked: true, now, zone });
      await this.automations.change(tx, id, { is_on: 1, on_since: now, since: now, looked_at: null });
      await audit(
        tx,
        'send',
        { automation: id },
        `Automatic message ${automation.name} switched on${days > 0 ? `, for ${people} of the last ${days} days` : ''}`,
      );
    });
  }

  /** What is looked at of each draft, so that another that was written meanwhile does not go unseen. */
  private async linksOf(scope: AccessScope, steps: readonly AutomationStepRow[]) {
    const out = new Map<number, { links: readonly string[]; version: number }>();
    for (const { messageId } of steps) {
      const message = await this.messages.need(this.database.read(scope), messageId);
      const { composed } = await this.composing.compose({ ...scope, chapterId: message.chapter_id }, message);
      out.set(messageId, { links: composed.links, version: message.version });
    }
    return out;
  }

  private async stand(
    tx: Scoped,
    { messageId, name }: AutomationStepRow,
    seen: { links: readonly string[]; version: number },
  ): Promise<void> {
    const message = (await this.messages.lock(tx, messageId))!;
    if (message.version !== seen.version) throw new Conflict(sentence('automation.words-changed', { name }));
    if (message.state === 'draft') {
      await this.messages.keepLinks(tx, messageId, [...seen.links]);
      await this.messages.change(tx, messageId, {
        state: 'standing',
        sender_id: message.sender_id ?? tx.scope.actorId,
      });
    } else if (message.state === 'paused' && message.paused_why === SWITCHED_OFF)
      await this.messages.change(tx, messageId, {
        state: (await this.sending.countReady(tx, messageId)) > 0 ? 'sending' : 'standing',
        paused_why: null,
      });
  }

  /** Nobody is taken up, and nothing leaves; whoever waits waits. Words that nobody had are a draft again. */
  async off(scope: AccessScope, id: number, basedOn: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      tx.unchanged();
      const automation = await this.automations.find(tx, id, 'FOR UPDATE');
      if (!automation) throw new NotFound('automatic message');
      if (!automation.on) throw new Conflict(sentence('automation.off-already'));
      await nextVersion(tx, 'automation', id, basedOn, 'automatic message');
      for (const { messageId } of await this.automations.steps(tx, id)) {
        const { state } = (await this.messages.lock(tx, messageId))!;
        if (state === 'standing' && !(await this.sending.hasAny(tx, messageId)))
          await this.messages.change(tx, messageId, { state: 'draft' });
        if (state === 'sending')
          await this.messages.change(tx, messageId, { state: 'paused', paused_why: SWITCHED_OFF });
      }
      await this.automations.change(tx, id, { is_on: 0 });
      await audit(tx, 'stop', { automation: id }, `Automatic message ${automation.name} switched off`);
    });
  }

  private async need(scope: AccessScope, id: number): Promise<Automation> {
    const found = await this.automations.find(this.database.read(scope), id);
    if (!found) throw new NotFound('automatic message');
    return found;
  }
}
