import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  answers,
  schema,
  type FeedNotice,
  type FeedOffer,
  type FeedRows,
  type FeedSampleQuery,
  type FeedView,
  type FeedWhole,
  type MakeFeedBody,
  type RunFeedBody,
  type RunParams,
  type SaveFeedBody,
  type TurnFeedBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { FeedsService } from './feeds.service';
import { LookingService } from './looking.service';
import { TellingService } from './telling/telling.service';

@Controller('api/feeds')
export class FeedsController {
  constructor(
    @Inject(FeedsService) private readonly feeds: FeedsService,
    @Inject(LookingService) private readonly looking: LookingService,
    @Inject(TellingService) private readonly telling: TellingService,
  ) {}

  @Route('get', '', { role: 'viewer', summary: 'Feeds', answer: answers.listOf(answers.feedView) })
  all(@Caller() scope: AccessScope): Promise<FeedView[]> {
    return this.feeds.all(scope);
  }

  @Route('post', '', {
    role: 'organizer',
    summary: 'Begin a feed',
    body: schema.makeFeed,
    answer: answers.made,
  })
  make(@Caller() scope: AccessScope, @Input('body') body: MakeFeedBody): Promise<{ id: number }> {
    return this.feeds.make(scope, body);
  }

  @Route('get', ':id', {
    role: 'viewer',
    summary: 'A feed with its last runs',
    params: schema.idParams,
    answer: answers.feedWhole,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<FeedWhole> {
    return this.feeds.show(scope, id);
  }

  @Route('put', ':id', {
    role: 'organizer',
    summary: 'Change what it says; while it is off',
    params: schema.idParams,
    body: schema.saveFeed,
    answer: answers.saved,
  })
  save(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SaveFeedBody,
  ): Promise<{ version: number }> {
    return this.feeds.save(scope, id, body);
  }

  @Route('delete', ':id', {
    role: 'organizer',
    summary: 'Delete a feed and its history; whom it brought in stays',
    params: schema.idParams,
  })
  @HttpCode(204)
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.feeds.remove(scope, id);
  }

  @Route('get', ':id/offer', {
    role: 'organizer',
    summary: 'What its source has to take',
    params: schema.idParams,
    answer: answers.feedOffer,
  })
  offer(@Caller() scope: AccessScope, @Id() id: number): Promise<FeedOffer> {
    return this.looking.offer(scope, id);
  }

  @Route('get', ':id/rows', {
    role: 'organizer',
    summary: 'The first rows over there, and what each column may become',
    params: schema.idParams,
    query: schema.feedSample,
    answer: answers.feedRows,
  })
  rows(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: FeedSampleQuery,
  ): Promise<FeedRows> {
    return this.looking.rows(scope, id, query);
  }

  @Route('get', ':id/notices', {
    role: 'organizer',
    summary: 'Noes that its source is still to be told of',
    params: schema.idParams,
    answer: answers.listOf(answers.feedNotice),
  })
  notices(@Caller() scope: AccessScope, @Id() id: number): Promise<FeedNotice[]> {
    return this.telling.waiting(scope, id);
  }

  @Route('post', ':id/on', {
    role: 'organizer',
    summary: 'Turn it on as it was seen',
    params: schema.idParams,
    body: schema.turnFeed,
  })
  @HttpCode(204)
  on(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { basedOn }: TurnFeedBody,
  ): Promise<void> {
    return this.feeds.on(scope, id, basedOn);
  }

  @Route('post', ':id/off', {
    role: 'organizer',
    summary: 'Turn it off; what came stays',
    params: schema.idParams,
    body: schema.turnFeed,
  })
  @HttpCode(204)
  off(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { basedOn }: TurnFeedBody,
  ): Promise<void> {
    return this.feeds.off(scope, id, basedOn);
  }

  @Route('post', ':id/runs', {
    role: 'organizer',
    summary: 'Run it now; a trial writes nothing',
    params: schema.idParams,
    body: schema.runFeed,
    answer: answers.made,
  })
  run(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: RunFeedBody,
  ): Promise<{ id: number }> {
    return this.feeds.run(scope, id, body);
  }

  @Route('post', ':id/stop', {
    role: 'organizer',
    summary: 'Stop the run that is under way',
    params: schema.idParams,
  })
  @HttpCode(204)
  stop(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.feeds.stop(scope, id);
  }

  @Route('post', ':id/runs/:runId/take-back', {
    role: 'organizer',
    summary: 'Take a run back out, and turn the feed off',
    params: schema.runParams,
  })
  @HttpCode(204)
  takeBack(@Caller() scope: AccessScope, @Input('params') { id, runId }: RunParams): Promise<void> {
    return this.feeds.takeBack(scope, id, runId);
  }
}
