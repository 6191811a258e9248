import { Inject, Injectable } from '@nestjs/common';
import { endOf, momentAfter } from '@goodword/core/automations';
import type { Fall } from '@goodword/core/campaigns';
import {
  AutomationsRepository,
  type Automation,
  type AutomationStepRow,
} from '../automations/automations.repository';
import { VisitsRepository, type Visit } from '../automations/visits.repository';
import { MessagesRepository } from '../messages/messages.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { RuleNamesService } from '../segments/rule-names.service';
import { SegmentsService } from '../segments/segments.service';
import { eligibilityQueryOf } from '../sending/last-look.service';
import { SendingRepository } from '../sending/sending.repository';
import { TeamRepository } from '../team/team.repository';
import { SourcesService } from './sources.service';

const SLICE = 500;
/** States of a message that takes more people. */
const TAKES: readonly string[] = ['standing', 'sending'];

/** Gives whoever is due to the outbox, or ends it for them with its reason. */
@Injectable()
export class LeavingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
    @Inject(VisitsRepository) private readonly visits: VisitsRepository,
    @Inject(SourcesService) private readonly sources: SourcesService,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(RuleNamesService) private readonly ruleNames: RuleNamesService,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** One slice of those who are due; returns how many it was about. */
  async leave(scope: AccessScope, id: number, now: Date): Promise<number> {
    const db = this.database.read(scope);
    const automation = await this.automations.find(db, id);
    if (!automation?.on) return 0;
    const steps = await this.automations.steps(db, id);
    const open = steps.flatMap(({ state }, nth) => (TAKES.includes(state) ? [nth] : []));
    const due = await this.visits.due(db, id, { now, steps: open, limit: SLICE });
    if (due.length === 0) return 0;
    const ends = await this.ends(scope, automation, due);
    for (const nth of new Set(due.map(({ step }) => step)))
      await this.give(
        scope,
        automation,
        { steps, nth, now },
        due.filter(({ step }) => step === nth),
        ends,
      );
    return due.length;
  }

  /** For whom it is over, and by what. */
  private async ends(
    scope: AccessScope,
    automation: Automation,
    due: readonly Visit[],
  ): Promise<Map<number, Fall>> {
    const own = { ...scope, chapterId: automation.chapterId };
    const facts = await this.visits.facts(this.database.read(scope), automation, due);
    const standing = await this.sources.standing(own, automation.cause, due);
    const excepted = await this.exceptedOf(own, automation, due);
    const ends = new Map<number, Fall>();
    for (const { id, supporterId } of due) {
      const end = endOf(automation.stops, {
        ...facts.get(id)!,
        stands: standing.has(id),
        excepted: excepted.has(supporterId),
      });
      if (end) ends.set(id, end);
    }
    return ends;
  }

  private async exceptedOf(
    scope: AccessScope,
    { excepted }: Automation,
    due: readonly Visit[],
  ): Promise<Set<number>> {
    if (excepted === null) return new Set();
    // What can't be asked any more excepts nobody it was meant to: then nothing leaves.
    await this.ruleNames.checked(scope, excepted);
    const people = due.map(({ supporterId }) => supporterId);
    return (await this.segments.among(scope, [excepted], people))[0]!;
  }

  private async give(
    scope: AccessScope,
    known: Automation,
    { steps, nth, now }: { steps: readonly AutomationStepRow[]; nth: number; now: Date },
    due: readonly Visit[],
    ends: ReadonlyMap<number, Fall>,
  ): Promise<void> {
    const { time_zone: zone } = await this.team.organization(scope);
    await this.database.writeUnlogged(scope, async (tx) => {
      // Before anything is read: another worker, or somebody who switches it off, waits or has been.
      const automation = await this.automations.find(tx, known.id, 'FOR UPDATE');
      if (!automation?.on || automation.version !== known.version) return;
      const message = await this.messages.lock(tx, steps[nth]!.messageId);
      if (!message || !TAKES.includes(message.state)) return;
      const still = await this.visits.stillDue(
        tx,
        due.map(({ id }) => id),
        { step: nth, now },
      );
      for (const [why, some] of byEnd(still, ends)) await this.visits.ends(tx, some, 'ended', why);
      const going = still.filter(({ id }) => !ends.has(id));
      if (going.length === 0) return;
      const asking = eligibilityQueryOf(message, await this.houseRules.rules(tx), automation.cause);
      await this.sending.prepareOccasions(tx, message.id, occasionsOf(going), asking);
      if ((await this.sending.countReady(tx, message.id)) > 0)
        await this.messages.change(tx, message.id, {
          state: 'sending',
          started_at: message.started_at ?? now,
        });
      await this.goesOn(tx, going, { next: steps[nth + 1], nth, zone });
    });
  }

  private async goesOn(
    tx: Scoped,
    going: readonly Visit[],
    { next, nth, zone }: { next: AutomationStepRow | undefined; nth: number; zone: string },
  ): Promise<void> {
    const ids = going.map(({ id }) => id);
    if (!next) return this.visits.ends(tx, ids, 'done', null);
    const dueAt = new Map(
      going.map(({ id, dueAt: due }) => [id, new Date(momentAfter(due!.getTime(), next.wait, zone))]),
    );
    await this.visits.goesOn(tx, ids, nth + 1, dueAt);
  }
}

const occasionsOf = (visits: readonly Visit[]) =>
  visits.map(({ id, supporterId }) => ({ supporterId, occasion: id }));

function byEnd(visits: readonly Visit[], ends: ReadonlyMap<number, Fall>): Map<Fall, number[]> {
  const out = new Map<Fall, number[]>();
  for (const { id } of visits) {
    const why = ends.get(id);
    if (why) out.set(why, [...(out.get(why) ?? []), id]);
  }
  return out;
}
