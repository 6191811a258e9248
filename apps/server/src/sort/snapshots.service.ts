import { Inject, Injectable } from '@nestjs/common';
import { BulkService } from '../bulk/bulk.service';
import { Conflict } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';
import { SegmentsService } from '../segments/segments.service';
import { GroupsService } from '../supporters/groups.service';

/** Lists that keep who was in a segment at a moment. */
@Injectable()
export class SnapshotsService {
  constructor(
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(BulkService) private readonly bulk: BulkService,
    @Inject(GroupsService) private readonly grouping: GroupsService,
  ) {}

  /** Begins to put everybody who is in it now on a new list; refused where that would be nobody. */
  async take(
    scope: AccessScope,
    segmentId: number,
    name: string,
  ): Promise<{ listId: number; bulkId: number; people: number }> {
    const { tree } = await this.segments.segment(scope, segmentId);
    if ((await this.segments.count(scope, tree, false)).total === 0)
      throw new Conflict(sentence('list.would-be-empty'));
    const list = await this.grouping.makeGroup(scope, 'list', { name });
    const begun = await this.bulk.begin(
      scope,
      { tree, without: [] },
      { do: 'list', listId: list.id, on: true },
    );
    return { listId: list.id, bulkId: begun.id, people: begun.people };
  }
}
