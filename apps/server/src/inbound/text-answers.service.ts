import { Inject, Injectable } from '@nestjs/common';
import type { TextAnswers, TextAnswersBody } from '@goodword/core/contract';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Invalid } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { stillAs } from '../platform/versions';
import { sentence } from '../platform/words';
import { automaticAnswersOf } from './answers';
import { InboundRepository } from './inbound.repository';

/** What the program texts back by itself, as the organization has it. */
@Injectable()
export class TextAnswersService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(InboundRepository) private readonly inbound: InboundRepository,
  ) {}

  async show(scope: AccessScope): Promise<TextAnswers> {
    return automaticAnswersOf(await this.inbound.answersOf(this.database.read(scope)));
  }

  /** Keeps other answers; each still has to say the word by which people come back or leave. */
  async save(scope: AccessScope, { was, ...answers }: TextAnswersBody): Promise<void> {
    if (!/\bSTART\b/.test(answers.stop))
      throw new Invalid([{ field: 'stop', code: 'start', message: sentence('answers.stop') }]);
    for (const field of ['help', 'start'] as const)
      if (!/\bSTOP\b/.test(answers[field]))
        throw new Invalid([{ field, code: 'stop', message: sentence('answers.others') }]);
    await this.database.writeUnlogged(scope, async (tx) => {
      await tx.lockOrganization();
      stillAs(was, automaticAnswersOf(await this.inbound.answersOf(tx)), 'these answers');
      await this.inbound.keepAnswers(tx, answers);
      await audit(tx, 'text-answers', { 'house-rules': 0 }, 'Answers to texts changed');
    });
  }
}
