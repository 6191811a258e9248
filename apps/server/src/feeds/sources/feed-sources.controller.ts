import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  answers,
  schema,
  type FeedSourceView,
  type MakeFeedSourceBody,
  type SaveFeedSourceBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../../platform/api';
import type { AccessScope } from '../../platform/scope';
import { FeedSourcesService } from './feed-sources.service';

@Controller('api/feed-sources')
export class FeedSourcesController {
  constructor(@Inject(FeedSourcesService) private readonly sources: FeedSourcesService) {}

  @Route('get', '', {
    role: 'organizer',
    summary: 'Systems that feeds take from',
    answer: answers.listOf(answers.feedSourceView),
  })
  all(@Caller() scope: AccessScope): Promise<FeedSourceView[]> {
    return this.sources.all(scope);
  }

  @Route('post', '', {
    role: 'owner',
    ofAll: true,
    summary: 'Add a system that answers at an address',
    body: schema.makeFeedSource,
    answer: answers.made,
  })
  make(@Caller() scope: AccessScope, @Input('body') body: MakeFeedSourceBody): Promise<{ id: number }> {
    return this.sources.make(scope, body);
  }

  @Route('put', ':id', {
    role: 'owner',
    ofAll: true,
    summary: 'Change where a system answers, or its token',
    params: schema.idParams,
    body: schema.saveFeedSource,
    answer: answers.saved,
  })
  save(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SaveFeedSourceBody,
  ): Promise<{ version: number }> {
    return this.sources.save(scope, id, body);
  }

  @Route('delete', ':id', {
    role: 'owner',
    ofAll: true,
    summary: 'Delete a system that no feed takes from',
    params: schema.idParams,
  })
  @HttpCode(204)
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.sources.remove(scope, id);
  }
}
