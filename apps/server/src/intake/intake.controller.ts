import { Controller, HttpCode, Inject, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import type { Response } from 'express';
import { schema, type BatchRowView, type BatchView, type Page, type RowVerdict } from '@goodword/core/contract';
import { FILE_LIMITS, type IntakePlan } from '@goodword/core/intake';
import { Caller, Id, Input, Route } from '../platform/api';
import { Invalid } from '../platform/errors';
import type { Scope } from '../platform/scope';
import { IntakeService } from './intake.service';

@Controller('api/batches')
export class IntakeController {
  constructor(@Inject(IntakeService) private readonly intake: IntakeService) {}

  @Route('get', '', { role: 'viewer', summary: 'Batches, newest first' })
  list(@Caller() scope: Scope): Promise<BatchView[]> {
    return this.intake.list(scope);
  }

  @Route('post', '', { role: 'organizer', summary: 'Take a file (multipart: file)' })
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: FILE_LIMITS.bytes, files: 1, fields: 2 } }))
  take(@Caller() scope: Scope, @UploadedFile() file: Express.Multer.File | undefined): Promise<{ id: number }> {
    if (!file) throw new Invalid([{ field: 'file', code: 'missing', message: 'Drop a CSV file, or paste rows.' }]);
    // Multer reads names as Latin-1; browsers send UTF-8.
    const fileName = Buffer.from(file.originalname, 'latin1').toString('utf8').slice(0, 200);
    return this.intake.take(scope, fileName.replace(/\.\w+$/, '').slice(0, 120) || 'Unnamed', fileName, file.buffer);
  }

  @Route('get', ':id', { role: 'viewer', summary: 'One batch with its counts', params: schema.idParams })
  show(@Caller() scope: Scope, @Id() id: number): Promise<BatchView> {
    return this.intake.show(scope, id);
  }

  @Route('put', ':id/plan', {
    role: 'organizer',
    summary: 'Fix what becomes of the file, and check it',
    params: schema.idParams,
    body: schema.intakePlan,
  })
  @HttpCode(202)
  plan(@Caller() scope: Scope, @Id() id: number, @Input('body') body: IntakePlan): Promise<void> {
    return this.intake.plan(scope, id, body);
  }

  @Route('post', ':id/bring-in', { role: 'organizer', summary: 'Bring the people in, or go on', params: schema.idParams })
  @HttpCode(202)
  bringIn(@Caller() scope: Scope, @Id() id: number): Promise<void> {
    return this.intake.bringIn(scope, id);
  }

  @Route('post', ':id/stop', { role: 'organizer', summary: 'Stop after the rows under way', params: schema.idParams })
  @HttpCode(202)
  stop(@Caller() scope: Scope, @Id() id: number): Promise<void> {
    return this.intake.stop(scope, id);
  }

  @Route('post', ':id/take-out', { role: 'organizer', summary: 'Take the whole batch back out', params: schema.idParams })
  @HttpCode(202)
  takeOut(@Caller() scope: Scope, @Id() id: number): Promise<void> {
    return this.intake.takeOut(scope, id);
  }

  @Route('get', ':id/rows', { role: 'viewer', summary: 'Rows by what became of them', params: schema.idParams, query: schema.batchRowsQuery })
  rows(
    @Caller() scope: Scope,
    @Id() id: number,
    @Input('query') query: { verdict?: RowVerdict; after?: string; limit: number },
  ): Promise<Page<BatchRowView>> {
    return this.intake.rows(scope, id, query);
  }

  @Route('get', ':id/rows-to-mend.csv', { role: 'viewer', summary: 'Rows to mend, with the reason in a column', params: schema.idParams })
  async faulty(@Caller() scope: Scope, @Id() id: number, @Res() response: Response): Promise<void> {
    const { name, csv } = await this.intake.faultyCsv(scope, id);
    response.attachment(name).type('text/csv; charset=utf-8').send(`\ufeff${csv}`);
  }
}
