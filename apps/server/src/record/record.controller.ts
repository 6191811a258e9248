import { Controller, HttpCode, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import {
  schema,
  type MergePreview,
  type TimelineItem,
  answers,
  type TimelineQuery,
  type UndoParams,
  type NoteBody,
  type NoteParams,
  type ChangeNoteBody,
  type JoinHouseholdBody,
  type HouseholdGreetingBody,
  type MergeQuery,
  type MergeRecordsBody,
  type UnmergeParams,
  type PersonExportQuery,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { HistoryService } from './history.service';
import { MergingService } from './merging.service';
import { PersonFileService } from './person-file.service';
import { RecordService } from './record.service';

@Controller('api/supporters')
export class RecordController {
  constructor(
    @Inject(RecordService) private readonly records: RecordService,
    @Inject(HistoryService) private readonly history: HistoryService,
    @Inject(MergingService) private readonly mergings: MergingService,
    @Inject(PersonFileService) private readonly files: PersonFileService,
  ) {}

  @Route('get', ':id/timeline', {
    role: 'viewer',
    summary: 'Everything that passed between us, or some kinds of it (kinds=gift,note)',
    params: schema.idParams,
    query: schema.timelineQuery,
    answer: answers.listOf(answers.timelineItem),
  })
  timeline(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: TimelineQuery,
  ): Promise<TimelineItem[]> {
    return this.records.timeline(scope, id, query.kinds);
  }

  @Route('post', ':id/history/:auditId/undo', {
    role: 'organizer',
    summary: 'Take one edit of a record back',
    params: schema.undoParams,
  })
  @HttpCode(204)
  undo(@Caller() scope: AccessScope, @Input('params') { id, auditId }: UndoParams): Promise<void> {
    return this.history.undo(scope, id, auditId);
  }

  @Route('post', ':id/notes', {
    role: 'writer',
    summary: 'Write a note',
    params: schema.idParams,
    body: schema.noteBody,
    answer: answers.made,
  })
  addNote(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { body }: NoteBody,
  ): Promise<{ id: number }> {
    return this.records.addNote(scope, id, body);
  }

  @Route('put', ':id/notes/:noteId', {
    role: 'writer',
    summary: 'Change a note of one’s own',
    params: schema.noteParams,
    body: schema.changeNote,
  })
  @HttpCode(204)
  changeNote(
    @Caller() scope: AccessScope,
    @Input('params') { id, noteId }: NoteParams,
    @Input('body') body: ChangeNoteBody,
  ): Promise<void> {
    return this.records.changeNote(scope, id, noteId, body);
  }

  @Route('delete', ':id/notes/:noteId', {
    role: 'writer',
    summary: 'Delete a note of one’s own',
    params: schema.noteParams,
  })
  @HttpCode(204)
  removeNote(@Caller() scope: AccessScope, @Input('params') { id, noteId }: NoteParams): Promise<void> {
    return this.records.changeNote(scope, id, noteId, null);
  }

  @Route('put', ':id/household', {
    role: 'organizer',
    summary: 'Say that two people live together',
    params: schema.idParams,
    body: schema.joinHousehold,
  })
  @HttpCode(204)
  join(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { withId }: JoinHouseholdBody,
  ): Promise<void> {
    return this.records.join(scope, id, withId);
  }

  @Route('delete', ':id/household', {
    role: 'organizer',
    summary: 'Take a person out of the household',
    params: schema.idParams,
  })
  @HttpCode(204)
  leave(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.records.leave(scope, id);
  }

  @Route('put', ':id/household/greeting', {
    role: 'organizer',
    summary: 'How the household is greeted; empty for the first names',
    params: schema.idParams,
    body: schema.householdGreeting,
  })
  @HttpCode(204)
  greet(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { greeting, was }: HouseholdGreetingBody,
  ): Promise<void> {
    return this.records.greet(scope, id, greeting ?? '', was);
  }

  @Route('get', ':id/merging', {
    role: 'organizer',
    summary: 'Two records side by side',
    params: schema.idParams,
    query: schema.mergeQuery,
    answer: answers.mergePreview,
  })
  preview(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') { withId }: MergeQuery,
  ): Promise<MergePreview> {
    return this.mergings.preview(scope, id, withId);
  }

  @Route('post', ':id/merging', {
    role: 'organizer',
    summary: 'Merge with…',
    params: schema.idParams,
    body: schema.mergeRecords,
  })
  @HttpCode(204)
  merge(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: MergeRecordsBody,
  ): Promise<void> {
    return this.mergings.merge(scope, id, body.goneId, body.keep);
  }

  @Route('delete', ':id/merging/:mergingId', {
    role: 'organizer',
    summary: 'Part two records again',
    params: schema.unmergeParams,
  })
  @HttpCode(204)
  unmerge(@Caller() scope: AccessScope, @Input('params') { id, mergingId }: UnmergeParams): Promise<void> {
    return this.mergings.unmerge(scope, id, mergingId);
  }

  @Route('get', ':id/everything', {
    role: 'organizer',
    summary: 'Everything about one person, as JSON, CSV or vCard',
    params: schema.idParams,
    query: schema.personExport,
  })
  async everything(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: PersonExportQuery,
    @Res() response: Response,
  ): Promise<void> {
    const { name, type, text } = await this.files.make(scope, id, query.as);
    response.attachment(name).type(type).send(text);
  }
}
