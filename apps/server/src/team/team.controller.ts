import { Controller, HttpCode, Inject, Req, Res } from '@nestjs/common';
import type { Response } from 'express';
import {
  schema,
  type LinkView,
  type Profile,
  type SessionLine,
  type SessionView,
  answers,
  type SignInBody,
  type ChooseChapterBody,
  type SaveProfileBody,
  type ChangePasswordBody,
  type ForgottenBody,
  type LinkParams,
  type UseLinkBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, placeOfRequest, Route, type KnownRequest } from '../platform/api';
import { CONFIG, type Config } from '../platform/config';
import { dropCookie, readCookie, setCookie } from '../platform/cookies';
import { TooMany } from '../platform/errors';
import { RateLimits, type RateLimit } from '../platform/rate-limit';
import type { AccessScope } from '../platform/scope';
import { TeammateLinks } from './teammate-links.service';
import { TeamService, type StartedSession } from './team.service';
import { sentence } from '../platform/words';

/** Signing in and out, one's own profile and sessions, and the links by which a password is set. */
@Controller('api')
export class TeamController {
  /** Whoever asks for links for others' addresses. */
  private readonly asked: RateLimit;

  constructor(
    @Inject(TeamService) private readonly team: TeamService,
    @Inject(TeammateLinks) private readonly links: TeammateLinks,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(RateLimits) limits: RateLimits,
  ) {
    this.asked = limits.of('forgotten', 10, 3600);
  }

  @Route('post', 'session', { role: 'anyone', summary: 'Sign in', body: schema.signIn, ownProof: true })
  @HttpCode(204)
  async signIn(
    @Req() request: KnownRequest,
    @Input('body') body: SignInBody,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    this.admit(
      response,
      await this.team.signIn(body, placeOfRequest(request), readCookie(this.config, request, 'known')),
    );
  }

  @Route('get', 'session', {
    role: 'viewer',
    summary: 'Who is signed in, and where',
    answer: answers.sessionView,
  })
  view(@Req() request: KnownRequest): Promise<SessionView> {
    return this.team.view(request.session!);
  }

  @Route('get', 'session/teammates', {
    role: 'viewer',
    summary: 'Who works here',
    answer: answers.listOf(answers.colleague),
  })
  teammates(@Caller() scope: AccessScope): Promise<{ id: number; name: string; email: string }[]> {
    return this.team.teammates(scope);
  }

  @Route('put', 'session/chapter', {
    role: 'viewer',
    summary: 'Work in another chapter',
    body: schema.chooseChapter,
  })
  @HttpCode(204)
  async chooseChapter(@Req() request: KnownRequest, @Input('body') body: ChooseChapterBody): Promise<void> {
    await this.team.chooseChapter(request.session!, body.chapterId);
  }

  @Route('delete', 'session', { role: 'viewer', summary: 'Sign out' })
  @HttpCode(204)
  async signOut(@Req() request: KnownRequest, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.team.signOut(request.session!);
    dropCookie(this.config, response, 'session');
    response.set('clear-site-data', '"cache"');
  }

  @Route('get', 'me', { role: 'viewer', summary: 'What one says of oneself', answer: answers.profile })
  profile(@Req() request: KnownRequest): Promise<Profile> {
    return this.team.profile(request.session!);
  }

  @Route('put', 'me', {
    role: 'viewer',
    summary: 'Change what one says of oneself',
    body: schema.saveProfile,
  })
  @HttpCode(204)
  async saveProfile(@Req() request: KnownRequest, @Input('body') body: SaveProfileBody): Promise<void> {
    await this.team.saveProfile(request.session!, body);
  }

  @Route('put', 'me/password', {
    role: 'viewer',
    summary: 'Change one’s password',
    body: schema.changePassword,
  })
  @HttpCode(204)
  async changePassword(@Req() request: KnownRequest, @Input('body') body: ChangePasswordBody): Promise<void> {
    await this.team.changePassword(
      request.session!,
      body,
      placeOfRequest(request),
      readCookie(this.config, request, 'known'),
    );
  }

  @Route('get', 'me/sessions', {
    role: 'viewer',
    summary: 'One’s own open sessions',
    answer: answers.listOf(answers.sessionLine),
  })
  sessions(@Req() request: KnownRequest): Promise<SessionLine[]> {
    return this.team.openSessions(request.session!);
  }

  @Route('delete', 'me/sessions/:id', {
    role: 'viewer',
    summary: 'End one of one’s own sessions',
    params: schema.idParams,
  })
  @HttpCode(204)
  async endSession(@Req() request: KnownRequest, @Id() id: number): Promise<void> {
    await this.team.endSession(request.session!, id);
  }

  @Route('delete', 'me/sessions', { role: 'viewer', summary: 'End all of one’s sessions but this one' })
  @HttpCode(204)
  async endOthers(@Req() request: KnownRequest): Promise<void> {
    await this.team.endOthers(request.session!);
  }

  @Route('post', 'password/forgotten', {
    role: 'anyone',
    summary: 'Have a link sent to set a new password',
    body: schema.forgotten,
    ownProof: true,
  })
  @HttpCode(204)
  async forgotten(@Req() request: KnownRequest, @Input('body') body: ForgottenBody): Promise<void> {
    if (!(await this.asked.pass(placeOfRequest(request).network)))
      throw new TooMany(sentence('access.many-links'));
    // Not waited for: how long it takes would tell whether there is such an address.
    void this.links.forgotten(body.email).catch(() => undefined);
  }

  @Route('get', 'password/:token', {
    role: 'anyone',
    summary: 'What a link is for',
    params: schema.linkParams,
    answer: answers.linkView,
  })
  look(@Input('params') params: LinkParams): Promise<LinkView> {
    return this.links.look(params.token);
  }

  @Route('post', 'password/:token', {
    role: 'anyone',
    summary: 'Set the password by a link, and sign in',
    params: schema.linkParams,
    body: schema.useLink,
    ownProof: true,
  })
  @HttpCode(204)
  async use(
    @Req() request: KnownRequest,
    @Input('params') params: LinkParams,
    @Input('body') body: UseLinkBody,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const mate = await this.links.use(params.token, body);
    this.admit(response, await this.team.begin(mate, placeOfRequest(request)));
  }

  private admit(response: Response, begun: StartedSession): void {
    setCookie(this.config, response, 'session', begun.session);
    setCookie(this.config, response, 'known', begun.device);
  }
}
