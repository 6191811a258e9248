import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  answers,
  schema,
  type AskedPerson,
  type CheckedWords,
  type MakeTemplateBody,
  type Preview,
  type PreviewQuery,
  type SavedWords,
  type SaveTemplateBody,
  type StandTemplateBody,
  type StarterView,
  type TemplateLine,
  type TemplatesQuery,
  type TemplateUses,
  type TemplateView,
  type TryAskBody,
  type WordVersion,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { AskService } from './ask.service';
import { WordVersionsService } from './word-versions.service';
import { TemplatesService } from './templates.service';

@Controller('api')
export class TemplatesController {
  constructor(
    @Inject(TemplatesService) private readonly templates: TemplatesService,
    @Inject(AskService) private readonly asks: AskService,
    @Inject(WordVersionsService) private readonly wordVersions: WordVersionsService,
  ) {}

  @Route('post', 'ask-amounts', {
    role: 'viewer',
    summary: 'What a few people would be asked for by a rule',
    body: schema.tryAsk,
    answer: answers.listOf(answers.askedPerson),
  })
  @HttpCode(200)
  askAmounts(@Caller() scope: AccessScope, @Input('body') body: TryAskBody): Promise<AskedPerson[]> {
    return this.asks.shown(scope, body.ask);
  }

  @Route('get', 'starters', {
    role: 'viewer',
    summary: 'Words to begin with that ship with the program',
    answer: answers.listOf(answers.starterShown),
  })
  starters(): StarterView[] {
    return this.templates.starters();
  }

  @Route('get', 'templates', {
    role: 'viewer',
    summary: 'Templates by words in them, most used first',
    query: schema.templatesQuery,
    answer: answers.listOf(answers.templateLine),
  })
  find(@Caller() scope: AccessScope, @Input('query') query: TemplatesQuery): Promise<TemplateLine[]> {
    return this.templates.find(scope, query);
  }

  @Route('post', 'templates', {
    role: 'writer',
    summary: 'Make a template: blank, or from a starter, a message, another template or words',
    body: schema.makeTemplate,
    answer: answers.made,
  })
  make(@Caller() scope: AccessScope, @Input('body') body: MakeTemplateBody): Promise<{ id: number }> {
    return this.templates.make(scope, body);
  }

  @Route('get', 'templates/:id', {
    role: 'viewer',
    summary: 'One template with its words',
    params: schema.idParams,
    answer: answers.templateShown,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<TemplateView> {
    return this.templates.show(scope, id);
  }

  @Route('put', 'templates/:id', {
    role: 'writer',
    summary: 'Save a template; messages that came from it keep their words',
    params: schema.idParams,
    body: schema.saveTemplate,
    answer: answers.savedWords,
  })
  save(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SaveTemplateBody,
  ): Promise<SavedWords> {
    return this.templates.save(scope, id, body);
  }

  @Route('put', 'templates/:id/standing', {
    role: 'writer',
    summary: "Whether it is the team's (said by an organizer), and whether it is archived",
    params: schema.idParams,
    body: schema.standTemplate,
  })
  @HttpCode(204)
  stand(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: StandTemplateBody,
  ): Promise<void> {
    return this.templates.stand(scope, id, body);
  }

  @Route('delete', 'templates/:id', {
    role: 'writer',
    summary: 'Delete a template; messages that came from it keep their words',
    params: schema.idParams,
  })
  @HttpCode(204)
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.templates.remove(scope, id);
  }

  @Route('get', 'templates/:id/uses', {
    role: 'viewer',
    summary: 'Messages that came from it',
    params: schema.idParams,
    answer: answers.templateUses,
  })
  uses(@Caller() scope: AccessScope, @Id() id: number): Promise<TemplateUses> {
    return this.templates.uses(scope, id);
  }

  @Route('get', 'templates/:id/versions', {
    role: 'viewer',
    summary: 'What it said before, the newest first',
    params: schema.idParams,
    answer: answers.listOf(answers.wordVersion),
  })
  versions(@Caller() scope: AccessScope, @Id() id: number): Promise<WordVersion[]> {
    return this.wordVersions.of(scope, { of: 'template', id });
  }

  @Route('get', 'messages/:id/versions', {
    role: 'viewer',
    summary: 'What a message said before, the newest first',
    params: schema.idParams,
    answer: answers.listOf(answers.wordVersion),
  })
  versionsOfMessage(@Caller() scope: AccessScope, @Id() id: number): Promise<WordVersion[]> {
    return this.wordVersions.of(scope, { of: 'message', id });
  }

  @Route('get', 'templates/:id/faults', {
    role: 'viewer',
    summary: 'Merge fields in it that are unknown',
    params: schema.idParams,
    answer: answers.checkedWords,
  })
  faults(@Caller() scope: AccessScope, @Id() id: number): Promise<CheckedWords> {
    return this.templates.checked(scope, id);
  }

  @Route('get', 'templates/:id/preview', {
    role: 'viewer',
    summary: 'As one supporter would get it from the caller',
    params: schema.idParams,
    query: schema.previewQuery,
    answer: answers.preview,
  })
  preview(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: PreviewQuery,
  ): Promise<Preview> {
    return this.templates.preview(scope, id, query.supporterId);
  }
}
