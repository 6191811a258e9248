import { Controller, HttpCode, Inject } from '@nestjs/common';
import { answers, schema } from '@goodword/core/contract';
import type {
  GoOnBody,
  MakeWordNoteBody,
  SettleWordNoteBody,
  WordNoteParams,
  WordNoteView,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { GoService } from './go.service';
import { WordNotesService } from './word-notes.service';

/** What a team does with a message together: hands it over, agrees to it, and notes what it thinks. */
@Controller('api/messages/:id')
export class TogetherController {
  constructor(
    @Inject(GoService) private readonly go: GoService,
    @Inject(WordNotesService) private readonly notes: WordNotesService,
  ) {}

  @Route('post', 'go', {
    role: 'writer',
    summary: 'Hand a draft over for a go, take that back, agree to it, or send it back',
    params: schema.idParams,
    body: schema.goOn,
  })
  @HttpCode(204)
  say(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: GoOnBody): Promise<void> {
    return this.go.say(scope, id, body);
  }

  @Route('get', 'notes', {
    role: 'viewer',
    summary: 'Notes to places in the words, with their answers',
    params: schema.idParams,
    answer: answers.listOf(answers.wordNoteView),
  })
  all(@Caller() scope: AccessScope, @Id() id: number): Promise<WordNoteView[]> {
    return this.notes.all(scope, id);
  }

  @Route('post', 'notes', {
    role: 'writer',
    summary: 'Write a note to a place in the words, or answer one',
    params: schema.idParams,
    body: schema.makeWordNote,
    answer: answers.made,
  })
  make(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: MakeWordNoteBody,
  ): Promise<{ id: number }> {
    return this.notes.make(scope, id, body);
  }

  @Route('put', 'notes/:noteId', {
    role: 'writer',
    summary: 'Settle a note, or open it again',
    params: schema.wordNoteParams,
    body: schema.settleWordNote,
  })
  @HttpCode(204)
  settle(
    @Caller() scope: AccessScope,
    @Input('params') { id, noteId }: WordNoteParams,
    @Input('body') { settled }: SettleWordNoteBody,
  ): Promise<void> {
    return this.notes.settle(scope, id, noteId, settled);
  }
}
