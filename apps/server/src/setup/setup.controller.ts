import { Controller, HttpCode, Inject, Req, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import type { Response } from 'express';
import {
  schema,
  type OrganizationView,
  type TeammateView,
  type WaitingFor,
  answers,
  type SaveOrganizationBody,
  type SaveStyleBody,
  type MakeChapterBody,
  type SaveChapterBody,
  type InviteBody,
  type ChangeTeammateBody,
  type TakeOutTeammateBody,
  type BeginHouseBody,
} from '@goodword/core/contract';
import type { HouseStyle } from '@goodword/core/letter';
import { IMAGE_LIMITS } from '../messages/images.service';
import { Caller, Id, Input, placeOfRequest, Route, type KnownRequest } from '../platform/api';
import { CONFIG, type Config } from '../platform/config';
import { setCookie } from '../platform/cookies';
import { Invalid, TooMany } from '../platform/errors';
import { RateLimits, type RateLimit } from '../platform/rate-limit';
import type { AccessScope } from '../platform/scope';
import { TeamService } from '../team/team.service';
import { BeginningService } from './beginning.service';
import { HouseStyleService } from './house-style.service';
import { OrganizationService } from './organization.service';
import { TeammatesService } from './teammates.service';
import { sentence } from '../platform/words';

/** Setup: the organization with its chapters, the team, and how the first owner comes in. */
@Controller('api')
export class SetupController {
  private readonly words: RateLimit;

  constructor(
    @Inject(OrganizationService) private readonly organizations: OrganizationService,
    @Inject(HouseStyleService) private readonly styles: HouseStyleService,
    @Inject(TeammatesService) private readonly mates: TeammatesService,
    @Inject(BeginningService) private readonly beginnings: BeginningService,
    @Inject(TeamService) private readonly team: TeamService,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(RateLimits) limits: RateLimits,
  ) {
    this.words = limits.of('beginning', 20, 3600);
  }

  @Route('get', 'organization', {
    role: 'viewer',
    summary: 'What the organization says of itself, with its chapters',
    answer: answers.organizationView,
  })
  organization(@Caller() scope: AccessScope): Promise<OrganizationView> {
    return this.organizations.view(scope);
  }

  @Route('put', 'organization', {
    role: 'owner',
    ofAll: true,
    summary: 'Change what the organization says of itself',
    body: schema.saveOrganization,
    answer: answers.saved,
  })
  save(
    @Caller() scope: AccessScope,
    @Input('body') body: SaveOrganizationBody,
  ): Promise<{ version: number }> {
    return this.organizations.save(scope, body);
  }

  @Route('get', 'organization/style', {
    role: 'viewer',
    summary: 'How the letters of the house look',
    answer: answers.houseStyle,
  })
  style(@Caller() scope: AccessScope): Promise<HouseStyle> {
    return this.styles.style(scope);
  }

  @Route('put', 'organization/style', {
    role: 'owner',
    ofAll: true,
    summary: 'Change how letters look',
    body: schema.saveStyle,
  })
  @HttpCode(204)
  saveStyle(@Caller() scope: AccessScope, @Input('body') body: SaveStyleBody): Promise<void> {
    return this.styles.save(scope, body);
  }

  @Route('put', 'organization/logo', {
    role: 'owner',
    ofAll: true,
    summary: 'Change the logo (multipart: file)',
  })
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: IMAGE_LIMITS.bytes, files: 1, fields: 0 } }))
  @HttpCode(204)
  async setLogo(
    @Caller() scope: AccessScope,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<void> {
    if (!file) throw new Invalid([{ field: 'file', code: 'missing', message: 'Choose a picture.' }]);
    await this.organizations.setLogo(scope, {
      name: Buffer.from(file.originalname, 'latin1').toString('utf8'),
      bytes: file.buffer,
    });
  }

  @Route('delete', 'organization/logo', { role: 'owner', ofAll: true, summary: 'Take the logo away' })
  @HttpCode(204)
  async dropLogo(@Caller() scope: AccessScope): Promise<void> {
    await this.organizations.setLogo(scope, null);
  }

  @Route('post', 'chapters', {
    role: 'owner',
    ofAll: true,
    summary: 'Open a chapter',
    body: schema.makeChapter,
    answer: answers.made,
  })
  addChapter(@Caller() scope: AccessScope, @Input('body') body: MakeChapterBody): Promise<{ id: number }> {
    return this.organizations.addChapter(scope, body);
  }

  @Route('put', 'chapters/:id', {
    role: 'owner',
    summary: 'Change a chapter',
    params: schema.idParams,
    body: schema.saveChapter,
  })
  @HttpCode(204)
  async changeChapter(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { was, ...chapter }: SaveChapterBody,
  ): Promise<void> {
    await this.organizations.changeChapter(scope, id, chapter, was);
  }

  @Route('get', 'team', {
    role: 'owner',
    ofAll: true,
    summary: 'The team, with who was invited and who is gone',
    answer: answers.listOf(answers.teammateView),
  })
  all(@Caller() scope: AccessScope): Promise<TeammateView[]> {
    return this.mates.all(scope);
  }

  @Route('post', 'team', {
    role: 'owner',
    ofAll: true,
    summary: 'Invite a teammate by mail',
    body: schema.invite,
    answer: answers.made,
  })
  invite(@Caller() scope: AccessScope, @Input('body') body: InviteBody): Promise<{ id: number }> {
    return this.mates.invite(scope, body);
  }

  @Route('post', 'team/:id/invitation', {
    role: 'owner',
    summary: 'Send the invitation again',
    params: schema.idParams,
  })
  @HttpCode(204)
  async inviteAgain(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    await this.mates.inviteAgain(scope, id);
  }

  @Route('put', 'team/:id', {
    role: 'owner',
    summary: 'Change a teammate’s role and chapter',
    params: schema.idParams,
    body: schema.changeTeammate,
  })
  @HttpCode(204)
  async change(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: ChangeTeammateBody,
  ): Promise<void> {
    await this.mates.change(scope, id, body);
  }

  @Route('get', 'team/:id/waiting', {
    role: 'owner',
    ofAll: true,
    summary: 'What waits for a teammate',
    params: schema.idParams,
    answer: answers.waitingFor,
  })
  waiting(@Caller() scope: AccessScope, @Id() id: number): Promise<WaitingFor> {
    return this.mates.waitingFor(scope, id);
  }

  @Route('post', 'team/:id/take-out', {
    role: 'owner',
    summary: 'Take a teammate out, handing on what waits for them',
    params: schema.idParams,
    body: schema.takeOutTeammate,
  })
  @HttpCode(204)
  async takeOut(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: TakeOutTeammateBody,
  ): Promise<void> {
    await this.mates.takeOut(scope, id, body.handTo);
  }

  @Route('delete', 'team/:id/sessions', {
    role: 'owner',
    summary: 'End all sessions of a teammate',
    params: schema.idParams,
  })
  @HttpCode(204)
  async endSessions(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    await this.mates.endSessions(scope, id);
  }

  @Route('get', 'beginning', {
    role: 'anyone',
    summary: 'Whether nobody is here yet',
    answer: answers.openOrNot,
  })
  async isOpen(): Promise<{ open: boolean }> {
    return { open: await this.beginnings.isOpen() };
  }

  @Route('post', 'beginning', {
    role: 'anyone',
    summary: 'Begin, with the one-time word',
    body: schema.beginHouse,
    ownProof: true,
  })
  @HttpCode(204)
  async begin(
    @Req() request: KnownRequest,
    @Input('body') body: BeginHouseBody,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    if (!(await this.words.pass(placeOfRequest(request).network)))
      throw new TooMany(sentence('begin.too-often'));
    const begun = await this.team.begin(await this.beginnings.begin(body), placeOfRequest(request));
    setCookie(this.config, response, 'session', begun.session);
    setCookie(this.config, response, 'known', begun.device);
  }
}
