import { Controller, HttpCode, Inject, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import type { Response } from 'express';
import { schema, answers, type FieldParams, type RegionsQuery } from '@goodword/core/contract';
import { regionsOf, type Region } from '@goodword/core/fields';
import { Caller, Input, Route } from '../platform/api';
import { Invalid } from '../platform/errors';
import { sendAsDownload } from '../platform/download';
import type { AccessScope } from '../platform/scope';
import { FieldFilesService } from './field-files.service';

@Controller('api')
export class FieldFilesController {
  constructor(@Inject(FieldFilesService) private readonly files: FieldFilesService) {}

  @Route('put', 'supporters/:id/fields/:fieldId/file', {
    role: 'organizer',
    summary: 'Put a file into a field (multipart: file)',
    params: schema.fieldParams,
  })
  @UseInterceptors(
    FileInterceptor('file', { limits: { fileSize: schema.FIELD_FILE_LIMIT, files: 1, fields: 0 } }),
  )
  @HttpCode(204)
  async put(
    @Caller() scope: AccessScope,
    @Input('params') params: FieldParams,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<void> {
    if (!file) throw new Invalid([{ field: 'file', code: 'missing', message: 'Choose a file.' }]);
    const name = Buffer.from(file.originalname, 'latin1').toString('utf8');
    await this.files.put(scope, params.id, params.fieldId, { name, bytes: file.buffer });
  }

  @Route('get', 'supporters/:id/fields/:fieldId/file', {
    role: 'viewer',
    summary: 'The file in a field',
    params: schema.fieldParams,
  })
  async read(
    @Caller() scope: AccessScope,
    @Input('params') params: FieldParams,
    @Res() response: Response,
  ): Promise<void> {
    sendAsDownload(response, await this.files.read(scope, params.id, params.fieldId));
  }

  @Route('get', 'regions', {
    role: 'viewer',
    summary: 'Regions of a country (ISO 3166-2)',
    query: schema.regionsQuery,
    answer: answers.listOf(answers.region),
  })
  regions(@Input('query') query: RegionsQuery): readonly Region[] {
    return regionsOf(query.country);
  }
}
