import { isDeepStrictEqual } from 'node:util';
import { Inject, Injectable } from '@nestjs/common';
import type {
  CampaignView,
  MakeCampaignBody,
  MessageState,
  Page,
  RosterGroup,
  RosterRow,
  UndoStep,
} from '@goodword/core/contract';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { isDuplicate } from '../platform/database-errors';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { AccessScope } from '../platform/scope';
import { nextVersion } from '../platform/versions';
import { MessagesRepository } from '../messages/messages.repository';
import { stillNeeded, UsesService } from '../sort/uses.service';
import { SegmentsRepository } from '../segments/segments.repository';
import { SegmentsService } from '../segments/segments.service';
import { mapLines, type Line } from '@goodword/core/segment';
import { CampaignsRepository } from './campaigns.repository';
import { FallingOutRepository } from './falling-out.repository';
import { AutomationsRepository } from '../automations/automations.repository';
import { StepsRepository } from './steps.repository';
import { sentence } from '../platform/words';

/** States in which a message still goes to people. */
const ON_THE_WAY: readonly MessageState[] = ['posting', 'calling', 'sending', 'paused'];

/** Campaigns with their rosters: who is asked, and how each of them stands. */
@Injectable()
export class CampaignsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(SegmentsRepository) private readonly rules: SegmentsRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(UsesService) private readonly uses: UsesService,
    @Inject(StepsRepository) private readonly steps: StepsRepository,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
    @Inject(FallingOutRepository) private readonly fallingOut: FallingOutRepository,
  ) {}

  all(scope: AccessScope): Promise<CampaignView[]> {
    return this.campaigns.all(this.database.read(scope));
  }

  show(scope: AccessScope, id: number): Promise<CampaignView> {
    return this.campaign(this.database.read(scope), id);
  }

  async make(scope: AccessScope, campaign: MakeCampaignBody): Promise<{ id: number }> {
    const id = await this.named(campaign.name, () =>
      this.database.write(scope, async (tx) => {
        tx.unchanged();
        const made = await this.campaigns.make(tx, campaign);
        await audit(tx, 'make', { campaign: made }, `Campaign ${campaign.name} made`);
        return made;
      }),
    );
    return { id };
  }

  /** Standings that people stand at can be renamed, not dropped. */
  async change(
    scope: AccessScope,
    id: number,
    change: MakeCampaignBody & { isOpen: boolean; renamed: Record<string, string>; basedOn: number },
  ): Promise<void> {
    await this.named(change.name, () =>
      this.database.write(scope, async (tx) => {
        tx.unchanged();
        const before = await this.campaign(tx, id);
        await nextVersion(tx, 'campaign', id, change.basedOn, 'campaign');
        // A map: a stage may be called what every object answers to.
        const renamed = new Map(Object.entries(change.renamed));
        for (const [from, to] of renamed) if (change.stages.includes(to)) await this.rename(tx, id, from, to);
        const lost = before.stages.filter(
          (one) => !change.stages.includes(one) && !renamed.has(one) && (before.counts[one] ?? 0) > 0,
        );
        if (lost.length > 0)
          throw new Conflict(
            sentence('stage.has-people', { people: before.counts[lost[0]!] ?? 0, stage: lost[0]! }),
          );
        const endsAt = (await this.steps.frame(tx, id))?.ends.stages
          .map((one) => renamed.get(one) ?? one)
          .filter((one) => change.stages.includes(one));
        await this.campaigns.change(tx, id, {
          ...(endsAt && { ends_at: JSON.stringify(endsAt) }),
          name: change.name,
          kind: change.kind,
          appeal_code: change.appealCode,
          stages: JSON.stringify(change.stages),
          is_open: change.isOpen,
        });
        await audit(tx, 'change', { campaign: id }, `Campaign ${change.name} changed`);
      }),
    );
  }

  /** On the roster, in segments that ask for it, and in messages that have not gone. */
  private async rename(tx: Scoped, id: number, from: string, to: string): Promise<void> {
    await this.campaigns.renameStanding(tx, id, from, to);
    await this.messages.renameStage(tx, id, from, to);
    const anew = (line: Line) =>
      line.kind === 'roster' && line.campaignId === id
        ? { ...line, stages: line.stages.map((one) => (one === from ? to : one)) }
        : line;
    await this.steps.rewrite(tx, anew);
    await this.automations.rewrite(tx, anew);
    await this.automations.renameStage(tx, id, from, to);
    for (const segment of await this.rules.all(tx.ofAll())) {
      const tree = mapLines(segment.tree, anew);
      if (isDeepStrictEqual(tree, segment.tree)) continue;
      await this.rules.change(tx, segment.id, { name: segment.name, tree });
      await this.rules.keepVersion(tx, segment.id, { name: segment.name, tree }, null);
    }
  }

  async remove(scope: AccessScope, id: number): Promise<{ people: number }> {
    // A roster that is gone holds nobody: whoever was to be left out by it would get the message.
    const needed = stillNeeded(await this.uses.of(scope, 'campaign', id));
    if (needed) throw new Conflict(needed);
    return this.database.write(scope, async (tx) => {
      const campaign = await this.campaign(tx, id);
      // Who has fallen out is known by the campaign alone, to the last one who is handed over.
      const leaving = (await this.steps.all(tx, id)).find(({ state }) => ON_THE_WAY.includes(state));
      if (leaving) throw new Conflict(sentence('campaign.step-leaving', { step: leaving.name }));
      await this.steps.removeAll(tx, id);
      await this.campaigns.remove(tx, id);
      await this.fallingOut.forget(tx, id);
      await audit(
        tx,
        'remove',
        { campaign: id },
        `Campaign ${campaign.name} removed, ${campaign.people} people taken off its roster`,
      );
      return { people: campaign.people };
    });
  }

  async roster(
    scope: AccessScope,
    id: number,
    query: { stage?: string; after?: string; limit: number },
  ): Promise<Page<RosterRow>> {
    const db = this.database.read(scope);
    await this.campaign(db, id);
    const after = Number(decodeCursor(query.after, 1)?.[0] ?? 0);
    const { rows, total } = await this.campaigns.roster(db, id, { ...query, after });
    return {
      rows,
      total,
      next: rows.length === query.limit ? encodeCursor([rows.at(-1)!.supporterId]) : null,
    };
  }

  /** Puts a group on the roster, or moves those who are on it. */
  async put(scope: AccessScope, id: number, group: RosterGroup, stage: string): Promise<{ people: number }> {
    const ids = await this.idsOf(scope, group);
    return this.database.write(scope, async (tx) => {
      const campaign = await this.campaign(tx, id);
      if (!campaign.stages.includes(stage))
        throw new Invalid([
          {
            field: 'stage',
            code: 'stage',
            message: sentence('stage.expected', { stages: campaign.stages.join(', '), stage }),
          },
        ]);
      const before = await this.standingOfOne(tx, id, ids);
      await this.campaigns.put(tx, id, ids, stage);
      await this.tellOne(tx, campaign, ids, before);
      await audit(
        tx,
        'roster-put',
        { campaign: id },
        `${ids.length} people set to ${stage} on ${campaign.name}`,
      );
      return { people: ids.length };
    });
  }

  async takeOff(scope: AccessScope, id: number, group: RosterGroup): Promise<{ people: number }> {
    const ids = await this.idsOf(scope, group);
    return this.database.write(scope, async (tx) => {
      const campaign = await this.campaign(tx, id);
      const before = await this.standingOfOne(tx, id, ids);
      const people = await this.campaigns.takeOff(tx, id, ids);
      await this.fallingOut.tookOff(tx, id, ids);
      await this.tellOne(tx, campaign, ids, before);
      await audit(tx, 'roster-off', { campaign: id }, `${people} people taken off ${campaign.name}`);
      return { people };
    });
  }

  /** Where the one person that it is about stands; null for a group, whose history is the campaign's. */
  private async standingOfOne(db: Scoped, id: number, ids: readonly number[]): Promise<string | null> {
    return ids.length === 1
      ? ((await this.campaigns.of(db, ids[0]!)).find((roster) => roster.id === id)?.stage ?? null)
      : null;
  }

  /** A change of one person alone stands in their history, and can be undone there. */
  private async tellOne(
    tx: Scoped,
    { id, name }: CampaignView,
    ids: readonly number[],
    before: string | null,
  ): Promise<void> {
    if (ids.length !== 1) return;
    const after = await this.standingOfOne(tx, id, ids);
    if (before === after) return;
    const words =
      after === null
        ? `Taken off the roster of ${name}`
        : before === null
          ? `Put on the roster of ${name}: ${after}`
          : `${name}: ${before}, now ${after}`;
    const undo: UndoStep = { kind: 'roster', campaignId: id, before, after };
    await audit(tx, 'roster', { supporter: ids[0]! }, words, { before, after, undo });
  }

  private async idsOf(scope: AccessScope, group: RosterGroup): Promise<number[]> {
    if ('ids' in group) return group.ids;
    const db = this.database.read(scope);
    if (group.kind === 'segment')
      return this.segments.members(scope, (await this.segments.segment(scope, group.id)).tree);
    return this.campaigns.idsIn(db, group.kind, group.id);
  }

  private async campaign(db: Scoped, id: number): Promise<CampaignView> {
    const campaign = await this.campaigns.find(db, id);
    if (!campaign) throw new NotFound('campaign');
    return campaign;
  }

  private async named<T>(name: string, work: () => Promise<T>): Promise<T> {
    try {
      return await work();
    } catch (error) {
      if (isDuplicate(error)) throw new Conflict(sentence('campaign.name-taken', { name }));
      throw error;
    }
  }
}
