import { Controller, HttpCode, Inject } from '@nestjs/common';
import { answers, schema, type HouseFilesBody } from '@goodword/core/contract';
import { Caller, Input, Route } from '../../platform/api';
import type { AccessScope } from '../../platform/scope';
import { FileDaysService } from './file-days.service';

/** How long the files of batches are kept. */
@Controller('api/house/files')
export class RetentionController {
  constructor(@Inject(FileDaysService) private readonly days: FileDaysService) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'Days that the files of batches are kept',
    answer: answers.retention,
  })
  show(@Caller() scope: AccessScope): Promise<{ days: number }> {
    return this.days.show(scope);
  }

  @Route('put', '', {
    role: 'owner',
    ofAll: true,
    summary: 'Change how long the files of batches are kept',
    body: schema.houseFiles,
  })
  @HttpCode(204)
  change(@Caller() scope: AccessScope, @Input('body') body: HouseFilesBody): Promise<void> {
    return this.days.change(scope, body);
  }
}
