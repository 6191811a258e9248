import { Controller, HttpCode, Inject } from '@nestjs/common';
import { schema, type TextAnswers, answers, type TextAnswersBody } from '@goodword/core/contract';
import { Caller, Input, Route } from '../platform/api';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Invalid } from '../platform/errors';
import { stillAs } from '../platform/versions';
import type { AccessScope } from '../platform/scope';
import { automaticAnswersOf } from './answers';
import { InboundRepository } from './inbound.repository';
import { sentence } from '../platform/words';

@Controller('api/text-answers')
export class TextAnswersController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(InboundRepository) private readonly inbound: InboundRepository,
  ) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'What is answered to STOP, HELP, START and whoever joins by text',
    answer: answers.automaticAnswers,
  })
  async show(@Caller() scope: AccessScope): Promise<TextAnswers> {
    return automaticAnswersOf(await this.inbound.answersOf(this.database.read(scope)));
  }

  @Route('put', '', { role: 'owner', ofAll: true, summary: 'Change those answers', body: schema.textAnswers })
  @HttpCode(204)
  async save(@Caller() scope: AccessScope, @Input('body') { was, ...body }: TextAnswersBody): Promise<void> {
    if (!/\bSTART\b/.test(body.stop))
      throw new Invalid([{ field: 'stop', code: 'start', message: sentence('answers.stop') }]);
    for (const field of ['help', 'start'] as const)
      if (!/\bSTOP\b/.test(body[field]))
        throw new Invalid([{ field, code: 'stop', message: sentence('answers.others') }]);
    await this.database.writeUnlogged(scope, async (tx) => {
      await tx.lockOrganization();
      stillAs(was, automaticAnswersOf(await this.inbound.answersOf(tx)), 'these answers');
      await this.inbound.keepAnswers(tx, body);
      await audit(tx, {
        act: 'text-answers',
        subject: 'house-rules',
        subjectId: 0,
        words: 'Answers to texts changed',
      });
    });
  }
}
