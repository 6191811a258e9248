import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { once } from 'node:events';
import { schema, type AddressHolder, answers, type AddressQuery } from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { toPdf } from '../print/pdf';
import { EvidenceFileService } from './evidence-file.service';
import { fileDocument, filePage } from './evidence-page';
import { RevocationsService } from './revocations.service';

/** What shows anyone who asks why somebody was written to, and when a no was acted on. */
@Controller('api')
export class EvidenceController {
  constructor(
    @Inject(EvidenceFileService) private readonly files: EvidenceFileService,
    @Inject(RevocationsService) private readonly revocations: RevocationsService,
  ) {}

  @Route('get', 'supporters/:id/permission.json', {
    role: 'viewer',
    summary: "One person's file of permission, also of somebody erased",
    params: schema.idParams,
  })
  async json(@Caller() scope: AccessScope, @Id() id: number, @Res() response: Response): Promise<void> {
    response.attachment(`permission-${id}.json`).json(await this.files.of(scope, id));
  }

  @Route('get', 'supporters/:id/permission.html', {
    role: 'viewer',
    summary: 'The same as a page',
    params: schema.idParams,
  })
  async page(@Caller() scope: AccessScope, @Id() id: number, @Res() response: Response): Promise<void> {
    response.type('html').send(filePage(await this.files.of(scope, id)));
  }

  @Route('get', 'supporters/:id/permission.pdf', {
    role: 'viewer',
    summary: 'The same as PDF',
    params: schema.idParams,
  })
  async pdf(@Caller() scope: AccessScope, @Id() id: number, @Res() response: Response): Promise<void> {
    response
      .attachment(`permission-${id}.pdf`)
      .send(await toPdf(fileDocument(await this.files.of(scope, id))));
  }

  @Route('get', 'permission/files', {
    ofAll: true,
    role: 'owner',
    summary: 'Whose file an address leads to, also of people erased',
    query: schema.addressQuery,
    answer: answers.listOf(answers.addressHolder),
  })
  at(@Caller() scope: AccessScope, @Input('query') query: AddressQuery): Promise<AddressHolder[]> {
    return this.files.at(scope, query.address);
  }

  @Route('get', 'permission/revocations.csv', {
    role: 'organizer',
    summary: 'Every no: when it was received, read and acted on',
  })
  async log(@Caller() scope: AccessScope, @Res() response: Response): Promise<void> {
    response.attachment('revocations.csv').type('csv');
    for await (const part of this.revocations.csv(scope))
      if (!response.write(part)) await once(response, 'drain');
    response.end();
  }
}
