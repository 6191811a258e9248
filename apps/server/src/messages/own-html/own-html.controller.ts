import { Controller, HttpCode, Inject, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { answers } from '@goodword/core/contract';
import type { LetterDoc } from '@goodword/core/letter';
import { Caller, Route } from '../../platform/api';
import { Invalid } from '../../platform/errors';
import type { AccessScope } from '../../platform/scope';
import { sentence } from '../../platform/words';
import { OwnHtmlService } from './own-html.service';

/** What a page with its pictures may weigh. */
const MOST_BYTES = 20 * 1024 * 1024;

@Controller('api/own-html')
export class OwnHtmlController {
  constructor(@Inject(OwnHtmlService) private readonly own: OwnHtmlService) {}

  @Route('post', '', {
    role: 'writer',
    summary: 'Clean a page of HTML that was made elsewhere, or a zip of one, for a letter (multipart: file)',
    answer: answers.letterDoc,
  })
  @HttpCode(200)
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: MOST_BYTES, files: 1, fields: 1 } }))
  bringIn(
    @Caller() scope: AccessScope,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<LetterDoc> {
    if (!file) throw new Invalid([{ field: 'file', code: 'missing', message: sentence('own-html.page') }]);
    return this.own.bringIn(scope, file.buffer);
  }
}
