import { Controller, HttpCode, Inject, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import type { Response } from 'express';
import {
  schema,
  type FieldView,
  type ListView,
  type Page,
  type SupporterRow,
  type TagView,
  answers,
  type SupporterQuery,
  type RenameSupporterBody,
  type FieldParams,
  type SetFieldBody,
  type TagParams,
  type ListParams,
  type AddEntryBody,
  type ObjectionBody,
  type EvidenceParams,
  type SetPlaceBody,
  type AddGiftBody,
  type MakeFieldBody,
  type GroupsQuery,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import { Database } from '../platform/database';
import { Invalid } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { FieldsService } from './fields.service';
import { GroupsRepository } from './groups.repository';
import { ErasureService } from './erasure.service';
import { PersonLedger } from './person-ledger.service';
import { SupportersService } from './supporters.service';
import { sentence } from '../platform/words';
import { GroupsService } from './groups.service';

@Controller('api')
export class SupportersController {
  constructor(
    @Inject(SupportersService) private readonly supporters: SupportersService,
    @Inject(PersonLedger) private readonly ledger: PersonLedger,
    @Inject(ErasureService) private readonly erasure: ErasureService,
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(Database) private readonly database: Database,
    @Inject(GroupsService) private readonly grouping: GroupsService,
  ) {}

  @Route('get', 'supporters', {
    role: 'viewer',
    summary: 'A page of supporters by name',
    query: schema.supporterQuery,
    answer: answers.pageOf(answers.supporterRow),
  })
  page(@Caller() scope: AccessScope, @Input('query') query: SupporterQuery): Promise<Page<SupporterRow>> {
    return this.supporters.page(scope, query);
  }

  @Route('patch', 'supporters/:id', {
    role: 'organizer',
    summary: 'Change a name',
    params: schema.idParams,
    body: schema.renameSupporter,
  })
  @HttpCode(204)
  rename(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: RenameSupporterBody,
  ): Promise<void> {
    return this.supporters.rename(scope, id, body);
  }

  @Route('put', 'supporters/:id/fields/:fieldId', {
    role: 'organizer',
    summary: 'Set or empty a field',
    params: schema.fieldParams,
    body: schema.setField,
  })
  @HttpCode(204)
  setField(
    @Caller() scope: AccessScope,
    @Input('params') params: FieldParams,
    @Input('body') body: SetFieldBody,
  ): Promise<void> {
    return this.supporters.setField(scope, params.id, params.fieldId, body.text, body.was ?? null);
  }

  @Route('put', 'supporters/:id/tags/:tagId', {
    role: 'organizer',
    summary: 'Put a tag on',
    params: schema.tagParams,
  })
  @HttpCode(204)
  putTag(@Caller() scope: AccessScope, @Input('params') params: TagParams): Promise<void> {
    return this.grouping.putInGroup(scope, 'tag', params.id, params.tagId, true);
  }

  @Route('delete', 'supporters/:id/tags/:tagId', {
    role: 'organizer',
    summary: 'Take a tag off',
    params: schema.tagParams,
  })
  @HttpCode(204)
  dropTag(@Caller() scope: AccessScope, @Input('params') params: TagParams): Promise<void> {
    return this.grouping.putInGroup(scope, 'tag', params.id, params.tagId, false);
  }

  @Route('put', 'supporters/:id/lists/:listId', {
    role: 'organizer',
    summary: 'Put on a list',
    params: schema.listParams,
  })
  @HttpCode(204)
  putList(@Caller() scope: AccessScope, @Input('params') params: ListParams): Promise<void> {
    return this.grouping.putInGroup(scope, 'list', params.id, params.listId, true);
  }

  @Route('delete', 'supporters/:id/lists/:listId', {
    role: 'organizer',
    summary: 'Take off a list',
    params: schema.listParams,
  })
  @HttpCode(204)
  dropList(@Caller() scope: AccessScope, @Input('params') params: ListParams): Promise<void> {
    return this.grouping.putInGroup(scope, 'list', params.id, params.listId, false);
  }

  @Route('post', 'supporters/:id/permission', {
    role: 'organizer',
    summary: 'Record what one person said',
    params: schema.idParams,
    body: schema.addEntry,
  })
  @HttpCode(204)
  addEntry(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: AddEntryBody): Promise<void> {
    return this.ledger.addEntry(scope, id, body);
  }

  @Route('post', 'supporters/:id/objection', {
    role: 'organizer',
    summary: 'Close every channel to marketing, as one act (GDPR art. 21)',
    params: schema.idParams,
    body: schema.objection,
  })
  @HttpCode(204)
  object(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: ObjectionBody): Promise<void> {
    return this.ledger.object(scope, id, body);
  }

  @Route('post', 'supporters/:id/evidence', {
    role: 'organizer',
    summary: 'Keep a picture or PDF of the sheet signed (multipart: file)',
    params: schema.idParams,
    answer: answers.made,
  })
  @UseInterceptors(
    FileInterceptor('file', { limits: { fileSize: schema.EVIDENCE_LIMIT, files: 1, fields: 0 } }),
  )
  addEvidence(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<{ id: number }> {
    if (!file) throw new Invalid([{ field: 'file', code: 'missing', message: sentence('evidence.file') }]);
    const name = Buffer.from(file.originalname, 'latin1').toString('utf8');
    return this.ledger.addEvidence(scope, id, { name, bytes: file.buffer });
  }

  @Route('get', 'supporters/:id/evidence/:evidenceId', {
    role: 'viewer',
    summary: 'A piece of evidence',
    params: schema.evidenceParams,
  })
  async evidence(
    @Caller() scope: AccessScope,
    @Input('params') params: EvidenceParams,
    @Res() response: Response,
  ): Promise<void> {
    const file = await this.ledger.readEvidence(scope, params.id, params.evidenceId);
    response.attachment(
      file.name.replace(/\.\w+$/, '') + (file.mime === 'application/pdf' ? '.pdf' : '.jpg'),
    );
    response.type(file.mime).send(file.bytes);
  }

  @Route('put', 'supporters/:id/place', {
    role: 'organizer',
    summary: 'Where they are',
    params: schema.idParams,
    body: schema.setPlace,
  })
  @HttpCode(204)
  setPlace(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { was, ...place }: SetPlaceBody,
  ): Promise<void> {
    return this.ledger.setPlace(scope, id, place, was);
  }

  @Route('delete', 'supporters/:id', {
    role: 'owner',
    summary: 'Erase a person: names, addresses and free words go, dates and states stay',
    params: schema.idParams,
  })
  @HttpCode(204)
  erase(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.erasure.erase(scope, id);
  }

  @Route('post', 'supporters/:id/gifts', {
    role: 'organizer',
    summary: 'Enter a gift',
    params: schema.idParams,
    body: schema.addGift,
  })
  @HttpCode(204)
  addGift(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: AddGiftBody): Promise<void> {
    return this.supporters.addGift(scope, id, body);
  }

  @Route('get', 'fields', {
    role: 'viewer',
    summary: 'Custom fields',
    answer: answers.listOf(answers.fieldView),
  })
  allFields(@Caller() scope: AccessScope): Promise<FieldView[]> {
    return this.fields.all(scope);
  }

  @Route('post', 'fields', {
    role: 'organizer',
    summary: 'Make a custom field',
    body: schema.makeField,
    answer: answers.made,
  })
  makeField(
    @Caller() scope: AccessScope,
    @Input('body')
    body: MakeFieldBody,
  ): Promise<{ id: number }> {
    return this.fields.make(scope, body);
  }

  @Route('get', 'tags', {
    role: 'viewer',
    summary: 'Tags, with how many people have each',
    query: schema.groupsQuery,
    answer: answers.listOf(answers.tagView),
  })
  async tags(
    @Caller() scope: AccessScope,
    @Input('query') { counted }: GroupsQuery,
  ): Promise<(Omit<TagView, 'people'> & Partial<TagView>)[]> {
    const db = this.database.read(scope);
    const tags = await this.groups.tags(db);
    return counted ? this.groups.counted(db, 'tag', tags) : tags;
  }

  @Route('get', 'lists', {
    role: 'viewer',
    summary: 'Lists, with how many people are on each',
    query: schema.groupsQuery,
    answer: answers.listOf(answers.listView),
  })
  async lists(
    @Caller() scope: AccessScope,
    @Input('query') { counted }: GroupsQuery,
  ): Promise<(Omit<ListView, 'people'> & Partial<ListView>)[]> {
    const db = this.database.read(scope);
    const lists = await this.groups.lists(db);
    return counted ? this.groups.counted(db, 'list', lists) : lists;
  }
}
