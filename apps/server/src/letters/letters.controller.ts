import { Controller, HttpCode, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { parseIsoDay } from '@goodword/core/common';
import { answers, schema, type LettersView } from '@goodword/core/contract';
import type {
  LetterFileParams,
  LetterPageQuery,
  MakeLettersBody,
  PostedLettersBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import { sendAsDownload } from '../platform/download';
import type { AccessScope } from '../platform/scope';
import { LettersService } from './letters.service';

/** Letters of a message by post. */
@Controller('api/messages/:id')
export class LettersController {
  constructor(@Inject(LettersService) private readonly letters: LettersService) {}

  @Route('get', 'letters', {
    role: 'viewer',
    summary: 'How far the letters are, their files, and whose has to be taken out',
    params: schema.idParams,
    answer: answers.lettersShown,
  })
  view(@Caller() scope: AccessScope, @Id() id: number): Promise<LettersView> {
    return this.letters.view(scope, id);
  }

  @Route('post', 'letters', {
    role: 'organizer',
    summary: 'Lay the letters out anew, for those who may be written to now',
    params: schema.idParams,
    body: schema.makeLetters,
  })
  @HttpCode(202)
  make(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { form }: MakeLettersBody,
  ): Promise<void> {
    return this.letters.make(scope, id, form);
  }

  @Route('get', 'letters/:fileId/file', {
    role: 'organizer',
    summary: 'A file of letters to print, or of their addresses',
    params: schema.letterFileParams,
  })
  async file(
    @Caller() scope: AccessScope,
    @Input('params') { id, fileId }: LetterFileParams,
    @Res() response: Response,
  ): Promise<void> {
    sendAsDownload(response, await this.letters.file(scope, id, fileId));
  }

  @Route('get', 'letter-page', {
    role: 'viewer',
    summary: 'The letter of one person as it would be printed',
    params: schema.idParams,
    query: schema.letterPageQuery,
  })
  async page(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: LetterPageQuery,
    @Res() response: Response,
  ): Promise<void> {
    const bytes = await this.letters.page(scope, id, query);
    response.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="letter.pdf"');
    response.send(bytes);
  }

  @Route('post', 'posted', {
    role: 'organizer',
    summary: 'Say that the letters have been posted, and when',
    params: schema.idParams,
    body: schema.postedLetters,
  })
  @HttpCode(204)
  posted(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { on }: PostedLettersBody,
  ): Promise<void> {
    return this.letters.posted(scope, id, parseIsoDay(on)!);
  }
}
