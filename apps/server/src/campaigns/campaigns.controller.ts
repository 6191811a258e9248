import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type CampaignView,
  type MakeCampaign,
  type Page,
  type RosterGroup,
  type RosterRow,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { CampaignsService } from './campaigns.service';

@Controller('api/campaigns')
export class CampaignsController {
  constructor(@Inject(CampaignsService) private readonly campaigns: CampaignsService) {}

  @Route('get', '', { role: 'viewer', summary: 'Campaigns with the counts of their rosters' })
  all(@Caller() scope: AccessScope): Promise<CampaignView[]> {
    return this.campaigns.all(scope);
  }

  @Route('post', '', { role: 'organizer', summary: 'Make a campaign', body: schema.makeCampaign })
  make(@Caller() scope: AccessScope, @Input('body') body: MakeCampaign): Promise<{ id: number }> {
    return this.campaigns.make(scope, body);
  }

  @Route('get', ':id', { role: 'viewer', summary: 'One campaign', params: schema.idParams })
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
    @Input('body') body: MakeCampaign & { isOpen: boolean; renamed: Record<string, string>; basedOn: number },
  ): Promise<void> {
    return this.campaigns.change(scope, id, body);
  }

  @Route('delete', ':id', {
    role: 'organizer',
    summary: 'Remove a campaign; its people stay',
    params: schema.idParams,
  })
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<{ people: number }> {
    return this.campaigns.remove(scope, id);
  }

  @Route('get', ':id/roster', {
    role: 'viewer',
    summary: 'The roster, a page at a time',
    params: schema.idParams,
    query: schema.rosterQuery,
  })
  roster(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: { stage?: string; after?: string; limit: number },
  ): Promise<Page<RosterRow>> {
    return this.campaigns.roster(scope, id, query);
  }

  @Route('put', ':id/roster', {
    ownPeople: true,
    role: 'organizer',
    summary: 'Put a group on the roster, or move it',
    params: schema.idParams,
    body: schema.rosterPut,
  })
  put(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: { group: RosterGroup; stage: string },
  ): Promise<{ people: number }> {
    return this.campaigns.put(scope, id, body.group, body.stage);
  }

  @Route('post', ':id/roster/off', {
    role: 'organizer',
    ownPeople: true,
    summary: 'Take a group off the roster',
    params: schema.idParams,
    body: schema.rosterOff,
  })
  @HttpCode(200)
  takeOff(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: { group: RosterGroup },
  ): Promise<{ people: number }> {
    return this.campaigns.takeOff(scope, id, body.group);
  }
}
