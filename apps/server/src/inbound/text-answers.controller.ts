import { Controller, HttpCode, Inject } from '@nestjs/common';
import { answers, schema, type TextAnswers, type TextAnswersBody } from '@goodword/core/contract';
import { Caller, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { TextAnswersService } from './text-answers.service';

@Controller('api/text-answers')
export class TextAnswersController {
  constructor(@Inject(TextAnswersService) private readonly texts: TextAnswersService) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'What is answered to STOP, HELP, START and whoever joins by text',
    answer: answers.automaticAnswers,
  })
  show(@Caller() scope: AccessScope): Promise<TextAnswers> {
    return this.texts.show(scope);
  }

  @Route('put', '', { role: 'owner', ofAll: true, summary: 'Change those answers', body: schema.textAnswers })
  @HttpCode(204)
  save(@Caller() scope: AccessScope, @Input('body') body: TextAnswersBody): Promise<void> {
    return this.texts.save(scope, body);
  }
}
