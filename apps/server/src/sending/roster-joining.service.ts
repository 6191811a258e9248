import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { CampaignsRepository } from '../campaigns/campaigns.repository';
import { FallingOutRepository } from '../campaigns/falling-out.repository';
import { StepsRepository, type CampaignFrame } from '../campaigns/steps.repository';
import { SegmentsService } from '../segments/segments.service';

/** Rosters that fill themselves: whoever is in the campaign's segment comes onto it as a step leaves. */
@Injectable()
export class RosterJoiningService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(StepsRepository) private readonly steps: StepsRepository,
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
    @Inject(FallingOutRepository) private readonly fallingOut: FallingOutRepository,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
  ) {}

  /** Fills the roster of the campaign that a message is a step of. */
  async fill(scope: AccessScope, messageId: number): Promise<void> {
    const step = await this.steps.of(this.database.read(scope), messageId);
    if (step) await this.fillOf(scope, step);
  }

  async fillOf(caller: AccessScope, campaign: CampaignFrame): Promise<void> {
    const { campaignId, joinsFrom, stages } = campaign;
    // Of a chapter's campaign those of the chapter, whoever sets it going.
    const scope = { ...caller, chapterId: campaign.chapterId ?? caller.chapterId };
    if (joinsFrom === null) return;
    const { tree } = await this.segments.segment(scope, joinsFrom);
    const roster = { kind: 'roster' as const, campaignId, stages: [], on: false };
    const ids = await this.segments.members(scope, { kind: 'all', rules: [roster, tree] });
    const off = await this.fallingOut.of(this.database.read(scope), campaign, ids);
    const join = ids.filter((id) => off.get(id) !== 'taken-off');
    if (join.length === 0) return;
    await this.database.write(scope, (tx) => this.campaigns.put(tx, campaignId, join, stages[0]!));
  }
}
