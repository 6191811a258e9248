import { createHmac, timingSafeEqual } from 'node:crypto';
import { Controller, HttpCode, Inject, Req, type RawBodyRequest } from '@nestjs/common';
import type { Request } from 'express';
import { schema, type TextHookBody } from '@goodword/core/contract';
import { Input, Route } from '../platform/api';
import { CONFIG, type Config } from '../platform/config';
import { Forbidden } from '../platform/errors';
import { TextsService } from './texts.service';
import { sentence } from '../platform/words';

@Controller('hooks/text')
export class TextsController {
  constructor(
    @Inject(TextsService) private readonly texts: TextsService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Route('post', '', {
    role: 'anyone',
    summary: 'What the text gateway reports (signed: x-signature, HMAC-SHA-256 of the body)',
    body: schema.textHook as never,
    ownProof: true,
  })
  @HttpCode(204)
  async hook(@Req() request: RawBodyRequest<Request>, @Input('body') hook: TextHookBody): Promise<void> {
    // Without a secret there is no gateway, and whoever signs with nothing is none.
    if (this.config.TEXT_HOOK_SECRET === '') throw new Forbidden(sentence('texts.no-gateway'));
    const expected = createHmac('sha256', this.config.TEXT_HOOK_SECRET)
      .update(request.rawBody ?? '')
      .digest();
    const given = Buffer.from(String(request.headers['x-signature'] ?? ''), 'hex');
    if (given.length !== expected.length || !timingSafeEqual(given, expected))
      throw new Forbidden(sentence('texts.signature'));
    await (hook.type === 'inbound' ? this.texts.receive(hook) : this.texts.receipt(hook));
  }
}
