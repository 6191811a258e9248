import { Controller, HttpCode, Inject, Req, Res, UseGuards } from '@nestjs/common';
import { Throttle, ThrottlerGuard } from '@nestjs/throttler';
import type { Response } from 'express';
import { schema, type SessionView } from '@goodword/core/contract';
import { Caller, Input, Route, type KnownRequest } from '../platform/api';
import { CONFIG, type Config } from '../platform/config';
import type { Scope } from '../platform/scope';
import { TeamService } from './team.service';

const COOKIE = 'gw_session';

@Controller('api/session')
export class TeamController {
  constructor(
    @Inject(TeamService) private readonly team: TeamService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Route('post', '', { role: 'anyone', summary: 'Sign in', body: schema.signIn, ownProof: true })
  @UseGuards(ThrottlerGuard)
  @Throttle({ default: { limit: 20, ttl: 60_000 } })
  @HttpCode(204)
  async signIn(@Input('body') body: { email: string; password: string }, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = await this.team.signIn(body.email, body.password);
    response.cookie(COOKIE, token, { httpOnly: true, sameSite: 'lax', secure: this.config.COOKIE_SECURE, path: '/', maxAge: 14 * 86_400_000 });
  }

  @Route('get', '', { role: 'viewer', summary: 'Who is signed in, and where' })
  view(@Req() request: KnownRequest): Promise<SessionView> {
    return this.team.view(request.session!);
  }

  @Route('get', 'teammates', { role: 'viewer', summary: 'Who works here' })
  teammates(@Caller() scope: Scope): Promise<{ id: number; name: string; email: string }[]> {
    return this.team.teammates(scope);
  }

  @Route('put', 'chapter', { role: 'viewer', summary: 'Work in another chapter', body: schema.chooseChapter })
  @HttpCode(204)
  async chooseChapter(@Req() request: KnownRequest, @Input('body') body: { chapterId: number | null }): Promise<void> {
    await this.team.chooseChapter(request.session!, body.chapterId);
  }

  @Route('delete', '', { role: 'viewer', summary: 'Sign out' })
  @HttpCode(204)
  async signOut(@Req() request: KnownRequest, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.team.signOut(request.session!);
    response.clearCookie(COOKIE, { path: '/' });
  }
}
