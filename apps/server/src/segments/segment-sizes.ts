import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../platform/database';
import { rowsOf } from '../platform/scoped';
import { programScope } from '../platform/scope';
import { SegmentsService } from './segments.service';

const EVERY_MS = 600_000;

/** Counts every segment once a day, so that its size over time can be seen also when nobody looked at it. */
@Injectable()
export class SegmentSizes {
  private next = 0;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
  ) {}

  /** One round over all organizations, some segments of each; false when it was not yet time. */
  async round(now = Date.now()): Promise<boolean> {
    if (now < this.next) return false;
    this.next = now + EVERY_MS;
    const organizations = await rowsOf(this.database.unscoped(), 'organization').select('id');
    for (const { id } of organizations) while ((await this.segments.measureAll(programScope(id))) > 0);
    return false;
  }
}
