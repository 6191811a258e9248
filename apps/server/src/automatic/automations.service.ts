import { Inject, Injectable } from '@nestjs/common';
import { CAUSES, SERIES_LIMITS, type Cause } from '@goodword/core/automations';
import type {
  AddAutomationStepBody,
  AutomationStep,
  AutomationView,
  AutomationWhole,
  ChangeAutomationStepBody,
  MakeAutomationBody,
  SaveAutomationBody,
} from '@goodword/core/contract';
import type { Purpose } from '@goodword/core/permission';
import { readIntent } from '@goodword/core/text';
import { causeWords } from '@goodword/core/words';
import {
  AutomationsRepository,
  type Automation,
  type AutomationStepRow,
} from '../automations/automations.repository';
import { countsOf, VisitsRepository } from '../automations/visits.repository';
import { StepsRepository } from '../campaigns/steps.repository';
import { MessagesRepository } from '../messages/messages.repository';
import { MessagesService } from '../messages/messages.service';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { isDuplicate } from '../platform/database-errors';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { nextVersion } from '../platform/versions';
import { sentence } from '../platform/words';
import { SegmentsService } from '../segments/segments.service';
import { SendingRepository } from '../sending/sending.repository';
import { TeamRepository } from '../team/team.repository';
import { CauseNamesRepository, namedBy } from './cause-names.repository';
import { FieldTypesRepository } from './field-types.repository';
import { LackingService } from './lacking.service';

/** What a message for a cause is about, until somebody says otherwise. */
const purposeFor = ({ kind }: Cause): Purpose =>
  kind === 'gift' || kind === 'keyword' ? 'service' : kind === 'quiet' ? 'appeals' : 'news';

/** Automatic messages as they are said: what sets one going, its messages in a row, what ends it. */
@Injectable()
export class AutomationsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
    @Inject(VisitsRepository) private readonly visits: VisitsRepository,
    @Inject(CauseNamesRepository) private readonly names: CauseNamesRepository,
    @Inject(FieldTypesRepository) private readonly fieldTypes: FieldTypesRepository,
    @Inject(LackingService) private readonly lacking: LackingService,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(MessagesService) private readonly drafts: MessagesService,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(StepsRepository) private readonly campaignSteps: StepsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  async all(scope: AccessScope): Promise<AutomationView[]> {
    const db = this.database.read(scope);
    const rows = await this.automations.all(db);
    const [counts, messages] = [await this.visits.counts(db), await this.automations.messageNames(db)];
    const names = await this.namesOf(scope, rows);
    return rows.map(({ id, name, on, cause }) => ({
      ...{ id, name, on, words: causeWords(cause, names) },
      ...{ messages: messages.get(id) ?? [], counts: countsOf(counts.get(id)) },
    }));
  }

  async show(scope: AccessScope, id: number): Promise<AutomationWhole> {
    const db = this.database.read(scope);
    const { onSince, excepted, chapterId: _chapter, ...one } = await this.need(db, id);
    const [unlessWords] = await this.segments.wordsOf(scope, [excepted]);
    return {
      ...{ id, version: one.version, name: one.name, on: one.on, cause: one.cause, again: one.again },
      ...{ onSince: onSince?.toISOString() ?? null, stops: one.stops },
      words: causeWords(one.cause, await this.namesOf(scope, [one])),
      ...{ unless: excepted, unlessWords: unlessWords ?? '' },
      steps: await this.views(scope, await this.automations.steps(db, id)),
      counts: countsOf((await this.visits.counts(db, id)).get(id)),
    };
  }

  async need(db: Scoped, id: number): Promise<Automation> {
    const found = await this.automations.find(db, id);
    if (!found) throw new NotFound('automatic message');
    return found;
  }

  private async views(scope: AccessScope, steps: readonly AutomationStepRow[]): Promise<AutomationStep[]> {
    const ids = steps.map(({ messageId }) => messageId);
    const went = await this.campaignSteps.went(this.database.read(scope), ids);
    return Promise.all(
      steps.map(async ({ messageId, name, channel, state, wait, groupVersion }) => ({
        ...{ messageId, version: groupVersion, name, channel, state, wait },
        lacks: await this.lacking.ofMessage(scope, messageId),
        went: went.get(messageId) ?? 0,
      })),
    );
  }

  private async namesOf(scope: AccessScope, some: readonly Pick<Automation, 'cause'>[]) {
    const causes = some.map(({ cause }) => cause);
    return this.names.of(this.database.read(scope), causes, await this.team.organization(scope));
  }

  async make(scope: AccessScope, { name, cause }: MakeAutomationBody): Promise<{ id: number }> {
    return this.named(name, () =>
      this.database.write(scope, async (tx) => {
        tx.unchanged();
        await this.checkCause(tx, cause);
        const id = await this.automations.make(tx, name, cause, CAUSES[cause.kind].again);
        await audit(tx, 'make', { automation: id }, `Automatic message ${name} begun`);
        return { id };
      }),
    );
  }

  async save(scope: AccessScope, id: number, body: SaveAutomationBody): Promise<{ version: number }> {
    const { name, cause, again, stops, unless, basedOn } = body;
    if (unless) await this.segments.count(scope, unless, false);
    return this.named(name, () =>
      this.database.write(scope, async (tx) => {
        tx.unchanged();
        await this.off(tx, id);
        await this.checkCause(tx, cause);
        const version = await nextVersion(tx, 'automation', id, basedOn, 'automatic message');
        await this.automations.change(tx, id, {
          ...{ name, cause: JSON.stringify(cause), again: Number(again), stops: JSON.stringify(stops) },
          excepted: unless && JSON.stringify(unless),
        });
        await audit(tx, 'change', { automation: id }, `Automatic message ${name} changed`);
        return { version };
      }),
    );
  }

  /** Only one that was never set going for anybody: what was is part of their history. */
  async remove(scope: AccessScope, id: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      tx.unchanged();
      const { name } = await this.off(tx, id);
      if ((await this.visits.counts(tx, id)).size > 0) throw new Conflict(sentence('automation.has-people'));
      await this.automations.remove(tx, id);
      await audit(
        tx,
        'delete',
        { automation: id },
        `Automatic message ${name} deleted; its words are drafts`,
      );
    });
  }

  async addStep(
    scope: AccessScope,
    id: number,
    { name, channel, wait, from }: AddAutomationStepBody,
  ): Promise<{ id: number }> {
    return this.database.write(scope, async (tx) => {
      tx.unchanged();
      const automation = await this.off(tx, id);
      const steps = await this.automations.steps(tx, id);
      if (steps.length >= SERIES_LIMITS.steps)
        throw new Conflict(sentence('automation.full', { most: SERIES_LIMITS.steps }));
      const made = await this.drafts.begin(tx, {
        name,
        channel,
        purpose: purposeFor(automation.cause),
        from,
      });
      await this.automations.addStep(tx, automation, made, steps.length, wait);
      await audit(tx, 'change', { automation: id }, `${name} added to ${automation.name}`);
      return { id: made };
    });
  }

  async changeStep(
    scope: AccessScope,
    id: number,
    stepId: number,
    { wait, basedOn }: ChangeAutomationStepBody,
  ): Promise<{ version: number }> {
    return this.database.write(scope, async (tx) => {
      tx.unchanged();
      await this.off(tx, id);
      const { name } = await this.step(tx, id, stepId);
      const message = (await this.messages.lock(tx, stepId))!;
      if (message.group_version !== basedOn) throw new Conflict(sentence('automation.step-changed'));
      await this.automations.changeStep(tx, stepId, { wait: JSON.stringify(wait) });
      const version = await this.messages.revise(tx, message, 'group_version', {});
      await audit(tx, 'change', { automation: id }, `When ${name} leaves was changed`);
      return { version };
    });
  }

  /** Takes one out that has gone to nobody; its words stay as a draft. */
  async removeStep(scope: AccessScope, id: number, stepId: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      tx.unchanged();
      const { name } = await this.off(tx, id);
      const step = await this.step(tx, id, stepId);
      if (step.state !== 'draft') throw new Conflict(sentence('automation.step-went', { name: step.name }));
      await this.automations.removeStep(tx, step, id);
      await this.visits.moveSteps(tx, id, step.position);
      await audit(tx, 'change', { automation: id }, `${step.name} taken out of ${name}`);
    });
  }

  /** One that has gone to somebody stays as it went: others get new words, a draft that begins with them. */
  async anew(scope: AccessScope, id: number, stepId: number): Promise<{ id: number }> {
    const db = this.database.read(scope);
    await this.need(db, id);
    await this.step(db, id, stepId);
    const { id: made } = await this.drafts.copy(scope, stepId);
    await this.database.write(scope, async (tx) => {
      tx.unchanged();
      const automation = await this.off(tx, id);
      const step = await this.step(tx, id, stepId);
      const old = (await this.messages.lock(tx, stepId))!;
      if (old.state === 'draft') throw new Conflict(sentence('automation.still-a-draft', { name: old.name }));
      if ((await this.sending.countReady(tx, stepId)) > 0)
        throw new Conflict(sentence('automation.under-way', { name: old.name }));
      await this.automations.changeStep(tx, stepId, { message_id: made });
      await this.messages.change(tx, stepId, { state: 'done', paused_why: null });
      await this.messages.change(tx, made, { name: old.name, chapter_id: automation.chapterId });
      await audit(tx, 'change', { automation: id }, `${step.name} is written anew`);
    });
    return { id: made };
  }

  /** The automatic message, locked and switched off: while it is on nothing of it moves. */
  private async off(tx: Scoped, id: number): Promise<Automation> {
    const automation = await this.automations.find(tx, id, 'FOR UPDATE');
    if (!automation) throw new NotFound('automatic message');
    if (automation.on) throw new Conflict(sentence('automation.is-on'));
    return automation;
  }

  private async step(db: Scoped, id: number, stepId: number): Promise<AutomationStepRow> {
    const step = (await this.automations.steps(db, id)).find(({ messageId }) => messageId === stepId);
    if (!step) throw new NotFound('message');
    return step;
  }

  /** What it names has to be there, a date has to be one, and a word must not be one that ends texts. */
  private async checkCause(tx: Scoped, cause: Cause): Promise<void> {
    const names = await this.names.of(tx, [cause], { currency: 'USD', locale: 'en-US' });
    for (const [kind, id] of namedBy(cause))
      if (names[kind](id) === undefined) throw invalid(sentence('automation.gone', { kind }));
    if (cause.kind === 'keyword' && readIntent(cause.word) !== 'none')
      throw invalid(sentence('automation.keyword-taken', { word: cause.word }));
    if (cause.kind !== 'date') return;
    const type = await this.fieldTypes.of(tx, cause.fieldId);
    if (type !== 'date' && type !== 'birthday') throw invalid(sentence('automation.no-date'));
    if (type === 'birthday' && !cause.yearly) throw invalid(sentence('automation.birthday-yearly'));
  }

  private async named<T>(name: string, work: () => Promise<T>): Promise<T> {
    try {
      return await work();
    } catch (error) {
      if (isDuplicate(error)) throw new Conflict(sentence('automation.name-taken', { name }));
      throw error;
    }
  }
}

const invalid = (message: string) => new Invalid([{ field: 'cause', code: 'cause', message }]);
