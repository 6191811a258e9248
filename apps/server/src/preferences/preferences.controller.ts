import { Controller, HttpCode, Inject, Param, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { schema, answers } from '@goodword/core/contract';
import { LANGUAGES, type Language } from '@goodword/core/forms';
import { escapeHtml } from '@goodword/core/letter';
import { languageOf, supporterPage } from '../platform/pages/page';
import { phrase, PHRASES } from '../platform/pages/phrases';
import { Caller, Id, Route } from '../platform/api';
import { NotFound } from '../platform/errors';
import { RateLimits, type RateLimit } from '../platform/rate-limit';
import type { AccessScope } from '../platform/scope';
import { preferencesPage, type PageNotice } from './preferences-page';
import { PreferencesService, type OpenedLink } from './preferences.service';
import { PreferenceCommands, type PostedPreferences } from './preference-commands.service';

type Posted = Record<string, string | string[] | undefined>;

/** The preference page behind a signed link. No session, no script, no question before it is done. */
@Controller()
export class PreferencesController {
  private readonly posts: RateLimit;
  private readonly freshLinks: RateLimit;

  constructor(
    @Inject(PreferencesService) private readonly preferences: PreferencesService,
    @Inject(PreferenceCommands) private readonly commands: PreferenceCommands,
    @Inject(RateLimits) limits: RateLimits,
  ) {
    this.posts = limits.of('preferences', 120, 600);
    this.freshLinks = limits.of('fresh-link', 3, 86_400);
  }

  @Route('get', 'choices/:token', {
    role: 'anyone',
    summary: 'What a supporter gets, and why',
    params: schema.tokenParams,
    query: schema.pageQuery,
  })
  async page(
    @Param('token') token: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const opened = await this.openLink(token, request, response);
    if (opened) await this.show(opened, token, request, response, {});
  }

  @Route('get', 'choices/:token/data.json', {
    role: 'anyone',
    summary: 'Everything opened about them',
    params: schema.tokenParams,
  })
  async data(
    @Param('token') token: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const opened = await this.openLink(token, request, response);
    if (!opened) return;
    if (!opened.fresh) return this.show(opened, token, request, response, {});
    response
      .set('cache-control', 'no-store')
      .attachment('what-we-hold.json')
      .json(await this.preferences.copy(opened));
  }

  @Route('post', 'choices/:token', {
    role: 'anyone',
    summary: 'Choose, pause, leave, correct',
    params: schema.tokenParams,
    body: schema.postedPreferences,
    ownProof: true,
  })
  async act(
    @Param('token') token: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const opened = await this.openLink(token, request, response);
    if (!opened) return;
    const language = this.language(request);
    if (!(await this.posts.pass(request.ip ?? ''))) {
      const p = PHRASES[language];
      response
        .status(429)
        .type('html')
        .send(
          supporterPage(p.tooMany, `<h1>${escapeHtml(p.tooMany)}</h1><p>${escapeHtml(p.tooManyBody)}</p>`, {
            language,
          }),
        );
      return;
    }
    await this.show(
      opened,
      token,
      request,
      response,
      await this.done(opened, (request.body ?? {}) as Posted, language, request.ip ?? ''),
    );
  }

  @Route('post', 'api/supporters/:id/choices-link', {
    role: 'organizer',
    summary: 'Sends one person a fresh link to their preference page; nobody else sees it',
    params: schema.idParams,
    answer: answers.sentTo,
  })
  @HttpCode(200)
  async link(@Caller() scope: AccessScope, @Id() id: number): Promise<{ to: string }> {
    return { to: await this.preferences.sendLink(scope, id) };
  }

  private async done(
    opened: OpenedLink,
    posted: Posted,
    language: Language,
    origin: string,
  ): Promise<PageNotice> {
    const p = PHRASES[language];
    const act = String(posted.act ?? '');
    const pause = /^pause-(0|30|60|90)$/.exec(act);
    if (pause) {
      const days = Number(pause[1]);
      await this.commands.pause(opened, days, origin, days === 0 ? p.unpause : phrase(p.pauseDays, { days }));
      return days === 0 ? { done: 'saved' } : {};
    }
    switch (act) {
      case 'choose':
        return { done: await this.commands.choose(opened, choicesOf(posted), language, origin) };
      case 'nothing':
        await this.commands.nothing(opened, origin, p.nothing);
        return { done: 'left' };
      case 'fresh':
        return this.fresh(opened, language);
    }
    // What shows or changes personal data wants a fresh link.
    if (!opened.fresh) return {};
    if (act === 'erase') {
      await this.commands.askErasure(opened);
      return {};
    }
    if (act !== 'yours') return {};
    const one = (name: string) => (typeof posted[name] === 'string' ? posted[name] : '');
    const { fault } = await this.commands.correct(
      opened,
      { firstName: one('firstName'), lastName: one('lastName'), email: one('email'), mobile: one('mobile') },
      language,
    );
    return fault ? { fault } : { done: 'yoursSaved' };
  }

  /** What came of asking for a fresh link: a page that says it is on its way has sent it. */
  private async fresh(opened: OpenedLink, language: Language): Promise<PageNotice> {
    const key = String(opened.supporterId);
    if (!(await this.freshLinks.pass(key))) return { not: 'freshEnough' };
    const { not } = await this.preferences.freshLink(opened, language);
    if (not) await this.freshLinks.undo(key);
    return not ? { not: not === 'closed' ? 'freshClosed' : 'freshAway' } : { done: 'freshSent' };
  }

  private async show(
    opened: OpenedLink,
    token: string,
    request: Request,
    response: Response,
    said: PageNotice,
  ): Promise<void> {
    const view = await this.preferences.view(opened, this.language(request));
    response
      .status(said.fault ? 422 : 200)
      .set('cache-control', 'no-store')
      .type('html')
      .send(preferencesPage(view, `/choices/${token}`, said));
  }

  private async openLink(token: string, request: Request, response: Response): Promise<OpenedLink | null> {
    try {
      return await this.preferences.openLink(token);
    } catch (error) {
      if (!(error instanceof NotFound)) throw error;
      const language = this.language(request);
      const p = PHRASES[language];
      response
        .status(404)
        .type('html')
        .send(
          supporterPage(p.dead, `<h1>${escapeHtml(p.dead)}</h1><p>${escapeHtml(p.deadBody)}</p>`, {
            language,
          }),
        );
      return null;
    }
  }

  private language(request: Request): Language {
    return languageOf(request, LANGUAGES, 'en');
  }
}

function choicesOf(posted: Posted): PostedPreferences {
  const was = posted.wasSaid === undefined ? null : new Set(many(posted.was));
  return { shown: new Set(many(posted.shown)), was, ticked: new Set(many(posted.on)) };
}

function many(value: string | string[] | undefined): string[] {
  return value === undefined ? [] : Array.isArray(value) ? value : [value];
}
