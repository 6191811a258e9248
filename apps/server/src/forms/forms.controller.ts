import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type FormView,
  answers,
  type MakeFormBody,
  type SaveFormBody,
  type OpenFormSchemaBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { FormsService } from './forms.service';

@Controller('api/forms')
export class FormsController {
  constructor(@Inject(FormsService) private readonly forms: FormsService) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'Sign-up forms with their counts',
    answer: answers.listOf(answers.formView),
  })
  list(@Caller() scope: AccessScope): Promise<FormView[]> {
    return this.forms.list(scope);
  }

  @Route('post', '', {
    role: 'organizer',
    summary: 'Make a form, for a public list or for news',
    body: schema.makeForm,
    answer: answers.made,
  })
  make(@Caller() scope: AccessScope, @Input('body') body: MakeFormBody): Promise<{ id: number }> {
    return this.forms.make(scope, body.name, body.listId);
  }

  @Route('get', ':id', {
    role: 'viewer',
    summary: 'One form',
    params: schema.idParams,
    answer: answers.formView,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<FormView> {
    return this.forms.show(scope, id);
  }

  @Route('put', ':id', {
    role: 'organizer',
    summary: 'Save a new version',
    params: schema.idParams,
    body: schema.saveForm,
    answer: answers.formSaved,
  })
  save(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SaveFormBody,
  ): Promise<Pick<FormView, 'faults'>> {
    return this.forms.save(scope, id, body);
  }

  @Route('put', ':id/open', {
    role: 'organizer',
    summary: 'Open or close a form',
    params: schema.idParams,
    body: schema.openFormSchema,
  })
  @HttpCode(204)
  open(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: OpenFormSchemaBody,
  ): Promise<void> {
    return this.forms.open(scope, id, body.open);
  }
}
