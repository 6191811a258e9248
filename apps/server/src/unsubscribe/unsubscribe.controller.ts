import { Controller, HttpCode, Inject, Param, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { schema, type LeaveBody } from '@goodword/core/contract';
import { LANGUAGES } from '@goodword/core/forms';
import { languageOf } from '../platform/pages/page';
import { Input, Route } from '../platform/api';
import { NotFound } from '../platform/errors';
import { RateLimits, type RateLimit } from '../platform/rate-limit';
import { deadLinkPage, leavePage } from './leave-page';
import { UnsubscribeService } from './unsubscribe.service';

const PIXEL = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64');

/** Pages and marks behind signed tokens. No session, no script, no question before it is done. */
@Controller()
export class UnsubscribeController {
  /** Links of nobody that one place follows in an hour. */
  private readonly dead: RateLimit;

  constructor(
    @Inject(UnsubscribeService) private readonly unsubscribe: UnsubscribeService,
    @Inject(RateLimits) limits: RateLimits,
  ) {
    this.dead = limits.of('dead-links', 100, 3600);
  }

  @Route('get', 'leave/:token', {
    role: 'anyone',
    summary: 'The page to leave by: shows a button, does nothing',
    params: schema.tokenParams,
  })
  async page(
    @Param('token') token: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    await this.answer(token, request, response, async () => undefined);
  }

  @Route('post', 'leave/:token', {
    role: 'anyone',
    summary: 'Leave (also the one-click POST of RFC 8058)',
    params: schema.tokenParams,
    body: schema.leaveBody,
    ownProof: true,
  })
  @HttpCode(200)
  async leave(
    @Param('token') token: string,
    @Input('body') body: LeaveBody,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    await this.answer(token, request, response, async () => {
      await this.unsubscribe.leave(await this.unsubscribe.find('leave', token), body.what, request.ip ?? '');
    });
  }

  private async answer(
    token: string,
    request: Request,
    response: Response,
    act: () => Promise<void>,
  ): Promise<void> {
    const language = languageOf(request, LANGUAGES, 'en');
    try {
      await act();
      const delivery = await this.unsubscribe.find('leave', token);
      response.type('html').send(
        leavePage(delivery, await this.unsubscribe.leaveStatus(delivery), {
          language,
          choices: `/choices/${token}`,
        }),
      );
    } catch (error) {
      if (!(error instanceof NotFound)) throw error;
      response.status(404).type('html').send(deadLinkPage(language));
    }
  }

  @Route('get', 'o/:token.gif', {
    role: 'anyone',
    summary: 'The mark of an open',
    params: schema.tokenParams,
  })
  async opened(@Param('token') token: string, @Res() response: Response): Promise<void> {
    await this.unsubscribe.opened(token).catch((error: unknown) => {
      if (!(error instanceof NotFound)) throw error;
    });
    response
      .type('image/gif')
      .set('cache-control', 'no-store')
      .set('cross-origin-resource-policy', 'cross-origin')
      .send(PIXEL);
  }

  @Route('get', 'f/:token', { role: 'anyone', summary: 'A tracked link', params: schema.tokenParams })
  async clicked(
    @Param('token') token: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    // Short links can be guessed at: whoever tries one after the other is no reader.
    const from = request.ip ?? '';
    if (token.startsWith('-') && (await this.dead.spent(from))) {
      response.status(429).type('html').send(deadLinkPage());
      return;
    }
    try {
      response.redirect(302, await this.unsubscribe.clicked(token));
    } catch (error) {
      if (!(error instanceof NotFound)) throw error;
      await this.dead.pass(from);
      response.status(404).type('html').send(deadLinkPage());
    }
  }
}
