import { Controller, Inject } from '@nestjs/common';
import { answers, schema, type RecordView } from '@goodword/core/contract';
import { Caller, Id, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { SupportersService } from '../supporters/supporters.service';
import { SegmentsService } from '../segments/segments.service';
import { RecordService } from '../record/record.service';

/** One person whole: their record with the segments that they are in and what is around them. */
@Controller('api')
export class WholeRecordController {
  constructor(
    @Inject(SupportersService) private readonly supporters: SupportersService,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(RecordService) private readonly records: RecordService,
  ) {}

  @Route('get', 'supporters/:id', {
    role: 'viewer',
    summary: "One supporter's record",
    params: schema.idParams,
    answer: answers.recordView,
  })
  async record(@Caller() scope: AccessScope, @Id() id: number): Promise<RecordView> {
    const [record, segments, around] = await Promise.all([
      this.supporters.record(scope, id),
      this.segments.of(scope, id),
      this.records.around(scope, id),
    ]);
    return { ...record, segments, ...around };
  }
}
