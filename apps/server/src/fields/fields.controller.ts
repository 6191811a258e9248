import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type ChoiceUse,
  type Conversion,
  type FieldAdminView,
  type FieldDeletion,
  answers,
  type OrderFieldsBody,
  type ChangeFieldBody,
  type FieldTypeQuery,
  type FieldTypeBody,
  type RenameChoiceBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { FieldAdminService } from './field-admin.service';

@Controller('api/house/fields')
export class FieldsController {
  constructor(@Inject(FieldAdminService) private readonly fields: FieldAdminService) {}

  @Route('get', ':id/choices', {
    role: 'organizer',
    summary: 'The choices of a field, with how many people have each',
    params: schema.idParams,
    answer: answers.listOf(answers.choiceUse),
  })
  choices(@Caller() scope: AccessScope, @Id() id: number): Promise<ChoiceUse[]> {
    return this.fields.choices(scope, id);
  }

  @Route('get', '', {
    role: 'organizer',
    summary: 'Fields with how many people have a value',
    answer: answers.listOf(answers.fieldAdminView),
  })
  all(@Caller() scope: AccessScope): Promise<FieldAdminView[]> {
    return this.fields.all(scope);
  }

  @Route('put', 'order', {
    role: 'organizer',
    ofAll: true,
    summary: 'Put fields and their sections in order',
    body: schema.orderFields,
  })
  @HttpCode(204)
  order(@Caller() scope: AccessScope, @Input('body') body: OrderFieldsBody): Promise<void> {
    return this.fields.order(scope, body.ids);
  }

  @Route('put', ':id', {
    role: 'organizer',
    summary: 'Change what a field is called, where it stands and who sees it',
    params: schema.idParams,
    body: schema.changeField,
  })
  @HttpCode(204)
  change(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { was, ...change }: ChangeFieldBody,
  ): Promise<void> {
    return this.fields.change(scope, id, change, was);
  }

  @Route('get', ':id/conversion', {
    ofAll: true,
    role: 'organizer',
    summary: 'What giving a field another type would do',
    params: schema.idParams,
    query: schema.fieldType,
    answer: answers.conversion,
  })
  conversion(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: FieldTypeQuery,
  ): Promise<Conversion> {
    return this.fields.conversion(scope, id, query.type);
  }

  @Route('put', ':id/type', {
    role: 'organizer',
    summary: 'Give a field another type, where every value converts',
    params: schema.idParams,
    body: schema.fieldType,
  })
  @HttpCode(204)
  setType(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: FieldTypeBody): Promise<void> {
    return this.fields.setType(scope, id, body.type);
  }

  @Route('post', ':id/choices/rename', {
    role: 'organizer',
    summary: 'Rename a choice, or make two into one',
    params: schema.idParams,
    body: schema.renameChoice,
    answer: answers.counted,
  })
  @HttpCode(200)
  renameChoice(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: RenameChoiceBody,
  ): Promise<{ people: number }> {
    return this.fields.renameChoice(scope, id, body.from, body.to);
  }

  @Route('get', ':id/deletion', {
    role: 'organizer',
    summary: 'What deleting a field takes with it, and what uses it',
    params: schema.idParams,
    answer: answers.fieldDeletion,
  })
  deletion(@Caller() scope: AccessScope, @Id() id: number): Promise<FieldDeletion> {
    return this.fields.deletion(scope, id);
  }

  @Route('delete', ':id', {
    role: 'organizer',
    summary: 'Delete a field with its values',
    params: schema.idParams,
    answer: answers.valuesGone,
  })
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<{ values: number }> {
    return this.fields.remove(scope, id);
  }
}
