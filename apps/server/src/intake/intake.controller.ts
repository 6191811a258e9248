import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { Readable } from 'node:stream';
import { Body, Controller, HttpCode, Inject, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import type { Response } from 'express';
import {
  schema,
  type BatchPreview,
  type BatchRowView,
  type BatchView,
  type DoubleView,
  type Page,
  answers,
  type BatchesQuery,
  type SheetFormParams,
  type ReadAgainBody,
  type KeepDraftBody,
  type IntakePlanBody,
  type BatchRowsQuery,
  type BatchRowParams,
  type DecideRowsBody,
  type BatchSheetParams,
} from '@goodword/core/contract';
import { BATCH_KINDS, FILE_LIMITS, type BatchKind } from '@goodword/core/intake';
import { Caller, Id, Input, Route } from '../platform/api';
import { Invalid } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { IntakeService } from './intake.service';
import { DoublesService } from './doubles/doubles.service';
import { SheetsService, type SheetFile } from './reading/sheets.service';
import { sentence } from '../platform/words';
import { BatchViewsService } from './batch-views.service';

/** What came in a multipart body; read by the interceptor below, so it is no part of the route's schema. */
interface TakenFields {
  name?: string;
  what?: string;
}

@Controller('api/batches')
export class IntakeController {
  constructor(
    @Inject(IntakeService) private readonly intake: IntakeService,
    @Inject(DoublesService) private readonly looks: DoublesService,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(BatchViewsService) private readonly views: BatchViewsService,
  ) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'Batches, newest first',
    query: schema.batchesQuery,
    answer: answers.listOf(answers.batchView),
  })
  list(@Caller() scope: AccessScope, @Input('query') query: BatchesQuery): Promise<BatchView[]> {
    return this.views.list(scope, query);
  }

  @Route('post', '', {
    role: 'organizer',
    summary: 'Take a file (multipart: file, and name and what if wanted)',
    answer: answers.made,
  })
  @UseInterceptors(
    FileInterceptor('file', {
      dest: tmpdir(),
      limits: { fileSize: FILE_LIMITS.bytes, files: 1, fields: 4, fieldSize: 2000 },
    }),
  )
  async take(
    @Caller() scope: AccessScope,
    @UploadedFile() file: Express.Multer.File | undefined,
    @Body() body: TakenFields | undefined,
  ): Promise<{ id: number }> {
    if (!file) throw new Invalid([{ field: 'file', code: 'missing', message: sentence('file.none') }]);
    try {
      // Multer reads names as Latin-1; browsers send UTF-8.
      const fileName = Buffer.from(file.originalname, 'latin1').toString('utf8').slice(0, 200);
      const name = (body?.name ?? '').trim() || fileName.replace(/\.\w+$/, '');
      const what = (BATCH_KINDS as readonly string[]).includes(body?.what ?? '')
        ? (body!.what as BatchKind)
        : null;
      return await this.intake.take(scope, {
        name: name.slice(0, 120) || 'Unnamed',
        fileName,
        path: file.path,
        what,
      });
    } finally {
      await rm(file.path, { force: true });
    }
  }

  @Route('get', 'prepared.:form', {
    role: 'viewer',
    summary: 'A blank sheet to fill in',
    params: schema.sheetForm,
  })
  async prepared(
    @Caller() scope: AccessScope,
    @Input('params') { form }: SheetFormParams,
    @Res() response: Response,
  ): Promise<void> {
    download(response, await this.sheets.prepared(scope, form));
  }

  @Route('get', ':id', {
    role: 'viewer',
    summary: 'One batch: what was found, its plan, its counts',
    params: schema.idParams,
    answer: answers.batchView,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<BatchView> {
    return this.views.show(scope, id);
  }

  @Route('delete', ':id', {
    role: 'organizer',
    summary: 'Throw a batch away that never came in',
    params: schema.idParams,
  })
  @HttpCode(204)
  discard(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.intake.discard(scope, id);
  }

  @Route('get', ':id/preview', {
    role: 'organizer',
    summary: 'The first rows as they are read, with a guess and its confidence for each column',
    params: schema.idParams,
    answer: answers.batchPreview,
  })
  preview(@Caller() scope: AccessScope, @Id() id: number): Promise<BatchPreview> {
    return this.views.preview(scope, id);
  }

  @Route('get', ':id/text', {
    role: 'organizer',
    summary: 'The file as text, as it is read',
    params: schema.idParams,
  })
  async text(@Caller() scope: AccessScope, @Id() id: number, @Res() response: Response): Promise<void> {
    response.type('application/octet-stream');
    Readable.from(await this.views.text(scope, id)).pipe(response);
  }

  @Route('put', ':id/reading', {
    role: 'organizer',
    summary: 'Read the file anew: encoding, separator, sheet, header line, what it is',
    params: schema.idParams,
    body: schema.readAgain,
  })
  @HttpCode(202)
  readAgain(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: ReadAgainBody,
  ): Promise<void> {
    return this.intake.readAgain(scope, id, body.reading, body.what);
  }

  @Route('put', ':id/draft', {
    role: 'organizer',
    summary: 'Keep a half-done batch for the team',
    params: schema.idParams,
    body: schema.keepDraft,
    answer: answers.saved,
  })
  keep(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: KeepDraftBody,
  ): Promise<{ version: number }> {
    const { basedOn, ...draft } = body;
    return this.intake.keep(scope, id, draft, basedOn);
  }

  @Route('put', ':id/plan', {
    role: 'organizer',
    summary: 'Fix what becomes of the file, and check it',
    params: schema.idParams,
    body: schema.intakePlan,
  })
  @HttpCode(202)
  plan(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: IntakePlanBody): Promise<void> {
    return this.intake.plan(scope, id, body);
  }

  @Route('post', ':id/bring-in', {
    role: 'organizer',
    summary: 'Bring the people in, or go on',
    params: schema.idParams,
  })
  @HttpCode(202)
  bringIn(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.intake.bringIn(scope, id);
  }

  @Route('post', ':id/stop', {
    role: 'organizer',
    summary: 'Stop after the rows under way',
    params: schema.idParams,
  })
  @HttpCode(202)
  stop(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.intake.stop(scope, id);
  }

  @Route('post', ':id/seen', {
    role: 'viewer',
    summary: 'Somebody has looked at what came of it',
    params: schema.idParams,
  })
  @HttpCode(204)
  seen(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.intake.seen(scope, id);
  }

  @Route('get', ':id/take-out', {
    role: 'organizer',
    summary: 'How many people would have to stay',
    params: schema.idParams,
    answer: answers.staying,
  })
  takeOutNotice(@Caller() scope: AccessScope, @Id() id: number): Promise<{ staying: number }> {
    return this.intake.takeOutNotice(scope, id);
  }

  @Route('post', ':id/take-out', {
    role: 'organizer',
    summary: 'Take the whole batch back out',
    params: schema.idParams,
  })
  @HttpCode(202)
  takeOut(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.intake.takeOut(scope, id);
  }

  @Route('get', ':id/rows', {
    role: 'organizer',
    summary: 'Rows with what becomes of them and why',
    params: schema.idParams,
    query: schema.batchRowsQuery,
    answer: answers.pageOf(answers.batchRowView),
  })
  rows(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: BatchRowsQuery,
  ): Promise<Page<BatchRowView>> {
    return this.views.rows(scope, id, query);
  }

  @Route('get', ':id/rows/:row', {
    role: 'organizer',
    summary: 'A row beside the people it may be',
    params: schema.batchRow,
    answer: answers.doubleView,
  })
  sideBySide(
    @Caller() scope: AccessScope,
    @Input('params') { id, row }: BatchRowParams,
  ): Promise<DoubleView> {
    return this.looks.sideBySide(scope, id, row);
  }

  @Route('post', ':id/decisions', {
    role: 'organizer',
    summary: 'Settle rows that may be somebody who is here',
    params: schema.idParams,
    body: schema.decideRows,
    answer: answers.decided,
  })
  @HttpCode(200)
  decide(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: DecideRowsBody,
  ): Promise<{ rows: number }> {
    return this.looks.decide(scope, id, body);
  }

  @Route('delete', ':id/rows/:row/decision', {
    role: 'organizer',
    summary: 'Put a settled row back to be looked at',
    params: schema.batchRow,
  })
  @HttpCode(204)
  undecide(@Caller() scope: AccessScope, @Input('params') { id, row }: BatchRowParams): Promise<void> {
    return this.looks.undecide(scope, id, row);
  }

  @Route('get', ':id/rows-to-mend.:form', {
    role: 'organizer',
    summary: 'Rows with errors, with the reason in a column',
    params: schema.batchSheet,
  })
  async toMend(
    @Caller() scope: AccessScope,
    @Input('params') { id, form }: BatchSheetParams,
    @Res() response: Response,
  ): Promise<void> {
    download(response, await this.sheets.toMend(scope, id, form));
  }

  @Route('get', ':id/brought-in.:form', {
    role: 'organizer',
    summary: 'Rows that came in, with our ids',
    params: schema.batchSheet,
  })
  async came(
    @Caller() scope: AccessScope,
    @Input('params') { id, form }: BatchSheetParams,
    @Res() response: Response,
  ): Promise<void> {
    download(response, await this.sheets.came(scope, id, form));
  }
}

function download(response: Response, file: SheetFile): void {
  response.attachment(file.name).type(file.mime).send(file.bytes);
}
