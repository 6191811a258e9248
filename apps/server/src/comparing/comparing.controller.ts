import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  answers,
  schema,
  type ChooseWordingBody,
  type ComparisonView,
  type SaveComparisonBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { ComparingService } from './comparing.service';

@Controller('api/messages/:id')
export class ComparingController {
  constructor(@Inject(ComparingService) private readonly comparing: ComparingService) {}

  @Route('post', 'wordings', {
    role: 'writer',
    summary: 'Begin another wording of a message, with the words of the first',
    params: schema.idParams,
    answer: answers.made,
  })
  add(@Caller() scope: AccessScope, @Id() id: number): Promise<{ id: number }> {
    return this.comparing.add(scope, id);
  }

  @Route('get', 'comparison', {
    role: 'viewer',
    summary: 'The wordings of a message, and what came of each',
    params: schema.idParams,
    answer: answers.comparisonView,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<ComparisonView> {
    return this.comparing.show(scope, id);
  }

  @Route('put', 'comparison', {
    role: 'writer',
    summary: 'Say how the wordings of a message are compared',
    params: schema.idParams,
    body: schema.saveComparison,
    answer: answers.saved,
  })
  save(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SaveComparisonBody,
  ): Promise<{ version: number }> {
    return this.comparing.save(scope, id, body);
  }

  @Route('post', 'comparison/choose', {
    role: 'organizer',
    summary: 'Choose the wording that the rest gets, now',
    params: schema.idParams,
    body: schema.chooseWording,
  })
  @HttpCode(204)
  choose(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { wordingId }: ChooseWordingBody,
  ): Promise<void> {
    return this.comparing.choose(scope, id, wordingId);
  }
}
