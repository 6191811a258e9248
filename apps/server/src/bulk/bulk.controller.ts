import { Controller, HttpCode, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { schema, type BulkView, answers, type BeginBulkBody } from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import { sendAsDownload } from '../platform/download';
import type { AccessScope } from '../platform/scope';
import { BulkService } from './bulk.service';

@Controller('api/bulk')
export class BulkController {
  constructor(@Inject(BulkService) private readonly bulk: BulkService) {}

  @Route('post', '', {
    role: 'organizer',
    summary: 'Do something to everybody in a group, in the background',
    body: schema.beginBulk,
    answer: answers.bulkBegun,
  })
  @HttpCode(202)
  begin(
    @Caller() scope: AccessScope,
    @Input('body') body: BeginBulkBody,
  ): Promise<{ id: number; people: number }> {
    return this.bulk.begin(scope, body.group, body.act);
  }

  @Route('get', '', {
    role: 'organizer',
    summary: 'What was done to groups lately',
    answer: answers.listOf(answers.bulkView),
  })
  recent(@Caller() scope: AccessScope): Promise<BulkView[]> {
    return this.bulk.recent(scope);
  }

  @Route('get', ':id', {
    role: 'organizer',
    summary: 'How far one of these is',
    params: schema.idParams,
    answer: answers.bulkView,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<BulkView> {
    return this.bulk.show(scope, id);
  }

  @Route('post', ':id/stop', {
    role: 'organizer',
    summary: 'Stop it at its next step',
    params: schema.idParams,
  })
  @HttpCode(202)
  stop(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.bulk.stop(scope, id);
  }

  @Route('post', ':id/undo', {
    role: 'organizer',
    summary: 'Take back what it changed, where nothing changed since',
    params: schema.idParams,
  })
  @HttpCode(202)
  undo(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.bulk.undo(scope, id);
  }

  @Route('get', ':id/file', {
    role: 'organizer',
    summary: 'The file that an export made',
    params: schema.idParams,
  })
  async file(@Caller() scope: AccessScope, @Id() id: number, @Res() response: Response): Promise<void> {
    sendAsDownload(response, await this.bulk.file(scope, id));
  }
}
