import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type CampaignView,
  type Page,
  type RosterRow,
  answers,
  type MakeCampaignBody,
  type ChangeCampaignBody,
  type RosterQuery,
  type RosterPutBody,
  type RosterOffBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { CampaignsService } from './campaigns.service';

@Controller('api/campaigns')
export class CampaignsController {
  constructor(@Inject(CampaignsService) private readonly campaigns: CampaignsService) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'Campaigns with the counts of their rosters',
    answer: answers.listOf(answers.campaignView),
  })
  all(@Caller() scope: AccessScope): Promise<CampaignView[]> {
    return this.campaigns.all(scope);
  }

  @Route('post', '', {
    role: 'organizer',
    summary: 'Make a campaign',
    body: schema.makeCampaign,
    answer: answers.made,
  })
  make(@Caller() scope: AccessScope, @Input('body') body: MakeCampaignBody): Promise<{ id: number }> {
    return this.campaigns.make(scope, body);
  }

  @Route('get', ':id', {
    role: 'viewer',
    summary: 'One campaign',
    params: schema.idParams,
    answer: answers.campaignView,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<CampaignView> {
    return this.campaigns.show(scope, id);
  }

  @Route('put', ':id', {
    role: 'organizer',
    summary: 'Change a campaign and its stages',
    params: schema.idParams,
    body: schema.changeCampaign,
  })
  @HttpCode(204)
  change(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: ChangeCampaignBody,
  ): Promise<void> {
    return this.campaigns.change(scope, id, body);
  }

  @Route('delete', ':id', {
    role: 'organizer',
    summary: 'Remove a campaign; its people stay',
    params: schema.idParams,
    answer: answers.counted,
  })
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<{ people: number }> {
    return this.campaigns.remove(scope, id);
  }

  @Route('get', ':id/roster', {
    role: 'viewer',
    summary: 'The roster, a page at a time',
    params: schema.idParams,
    query: schema.rosterQuery,
    answer: answers.pageOf(answers.rosterRow),
  })
  roster(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: RosterQuery,
  ): Promise<Page<RosterRow>> {
    return this.campaigns.roster(scope, id, query);
  }

  @Route('put', ':id/roster', {
    ownPeople: true,
    role: 'organizer',
    summary: 'Put a group on the roster, or move it',
    params: schema.idParams,
    body: schema.rosterPut,
    answer: answers.counted,
  })
  put(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: RosterPutBody,
  ): Promise<{ people: number }> {
    return this.campaigns.put(scope, id, body.group, body.stage);
  }

  @Route('post', ':id/roster/off', {
    role: 'organizer',
    ownPeople: true,
    summary: 'Take a group off the roster',
    params: schema.idParams,
    body: schema.rosterOff,
    answer: answers.counted,
  })
  @HttpCode(200)
  takeOff(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: RosterOffBody,
  ): Promise<{ people: number }> {
    return this.campaigns.takeOff(scope, id, body.group);
  }
}
