import { Controller, HttpCode, Inject, Req, type RawBodyRequest } from '@nestjs/common';
import type { Request } from 'express';
import { Webhook, WebhookVerificationError } from 'standardwebhooks';
import { schema, type FeedHookParams } from '@goodword/core/contract';
import { Input, Route } from '../platform/api';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { Forbidden, NotFound } from '../platform/errors';
import { sentence } from '../platform/words';
import { unwrapByEither } from '../platform/wrapping';
import { FeedsRepository } from './feeds.repository';

@Controller('hooks/feeds')
export class FeedHooksController {
  constructor(
    @Inject(FeedsRepository) private readonly feeds: FeedsRepository,
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Only that something changed is taken from it: what it is, is read at the source. */
  @Route('post', ':key', {
    role: 'anyone',
    summary: 'A source tells of a change (signed as Standard Webhooks says)',
    params: schema.feedHookParams,
    ownProof: true,
  })
  @HttpCode(204)
  async hook(
    @Req() request: RawBodyRequest<Request>,
    @Input('params') { key }: FeedHookParams,
  ): Promise<void> {
    const knex = this.database.unscoped();
    const feed = await this.feeds.byHook(knex, key);
    const secret = feed?.hook_secret ? unwrapByEither(feed.hook_secret, this.config, 'feed tokens') : null;
    if (!feed || secret === null) throw new NotFound('feed');
    const id = String(request.headers['webhook-id'] ?? '').slice(0, 100);
    try {
      new Webhook(secret).verify(request.rawBody ?? '', {
        'webhook-id': id,
        'webhook-timestamp': String(request.headers['webhook-timestamp'] ?? ''),
        'webhook-signature': String(request.headers['webhook-signature'] ?? ''),
      });
    } catch (error) {
      if (!(error instanceof WebhookVerificationError) && !(error instanceof SyntaxError)) throw error;
      throw new Forbidden(sentence('texts.signature'));
    }
    if (feed.is_on === 1) await this.feeds.tellOf(knex, feed, id);
  }
}
