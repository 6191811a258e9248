import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  answers,
  schema,
  type Page,
  type SegmentCount,
  type SegmentSize,
  type SegmentVersion,
  type SegmentView,
  type SupporterRow,
  type SaveSegmentBody,
  type ChangeSegmentBody,
  type CountSegmentBody,
  type ListPeopleBody,
  type SnapshotSegmentBody,
  type ExplainParams,
} from '@goodword/core/contract';
import type { Explanation } from '@goodword/core/words';
import { Caller, Id, Input, Route } from '../platform/api';
import { Conflict } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { SegmentsService } from '../segments/segments.service';
import { SnapshotsService } from './snapshots.service';
import { nameKey } from '@goodword/core/merge';
import { sentence } from '../platform/words';
import { stillNeeded, UsesService } from './uses.service';

/** Segments: said, counted, kept with their versions and sizes, and who is in them and why. */
@Controller('api')
export class SegmentsController {
  constructor(
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(SnapshotsService) private readonly snapshots: SnapshotsService,
    @Inject(UsesService) private readonly uses: UsesService,
  ) {}

  @Route('get', 'segments', {
    role: 'viewer',
    summary: 'Segments, each as a sentence',
    answer: answers.listOf(answers.segmentView),
  })
  async allSegments(@Caller() scope: AccessScope): Promise<SegmentView[]> {
    const [segments, uses] = await Promise.all([this.segments.list(scope), this.uses.known(scope)]);
    return segments.map(({ id, name, tree, version, words }) => ({
      id,
      name,
      tree,
      version,
      words,
      usedBy: uses('segment', id).map((use) => ({
        id: use.id,
        name: use.name ?? `a ${use.what} of another chapter`,
      })),
    }));
  }

  @Route('post', 'segments', {
    role: 'organizer',
    summary: 'Save a new segment',
    body: schema.saveSegment,
    answer: answers.segmentSaved,
  })
  makeSegment(
    @Caller() scope: AccessScope,
    @Input('body') body: SaveSegmentBody,
  ): Promise<{ id: number; version: number }> {
    return this.segments.save(scope, null, body);
  }

  @Route('put', 'segments/:id', {
    role: 'organizer',
    summary: 'Change a segment',
    params: schema.idParams,
    body: schema.changeSegment,
    answer: answers.segmentSaved,
  })
  async changeSegment(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: ChangeSegmentBody,
  ): Promise<{ id: number; version: number }> {
    await this.keepName(scope, id, body.name);
    return this.segments.save(scope, id, body);
  }

  @Route('delete', 'segments/:id', {
    role: 'organizer',
    summary: 'Delete a segment',
    params: schema.idParams,
  })
  @HttpCode(204)
  async removeSegment(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    const needed = stillNeeded(await this.uses.of(scope, 'segment', id));
    if (needed) throw new Conflict(needed);
    await this.segments.remove(scope, id);
  }

  @Route('post', 'segments/count', {
    role: 'viewer',
    summary: 'Count a rule, with how each line narrows',
    body: schema.countSegment,
    ownProof: true,
    answer: answers.segmentCount,
  })
  @HttpCode(200)
  count(@Caller() scope: AccessScope, @Input('body') body: CountSegmentBody): Promise<SegmentCount> {
    return this.segments.count(scope, body.tree, body.reach);
  }

  @Route('post', 'segments/people', {
    role: 'viewer',
    summary: 'The people that a rule takes in, in any order',
    body: schema.listPeople,
    ownProof: true,
    answer: answers.pageOf(answers.supporterRow),
  })
  @HttpCode(200)
  people(@Caller() scope: AccessScope, @Input('body') body: ListPeopleBody): Promise<Page<SupporterRow>> {
    return this.segments.people(scope, body.tree, body);
  }

  @Route('get', 'segments/:id/versions', {
    role: 'viewer',
    summary: 'A segment as it was saved, the newest first',
    params: schema.idParams,
    answer: answers.listOf(answers.segmentVersion),
  })
  versions(@Caller() scope: AccessScope, @Id() id: number): Promise<SegmentVersion[]> {
    return this.segments.versions(scope, id);
  }

  @Route('get', 'segments/:id/sizes', {
    role: 'viewer',
    summary: 'How many a segment took in, day by day',
    params: schema.idParams,
    answer: answers.listOf(answers.segmentSize),
  })
  sizes(@Caller() scope: AccessScope, @Id() id: number): Promise<SegmentSize[]> {
    return this.segments.sizes(scope, id);
  }

  @Route('post', 'segments/:id/snapshot', {
    ownPeople: true,
    role: 'organizer',
    summary: 'Put everybody who is in it now on a new list',
    params: schema.idParams,
    body: schema.snapshotSegment,
    answer: answers.snapshotBegun,
  })
  @HttpCode(202)
  snapshot(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SnapshotSegmentBody,
  ): Promise<{ listId: number; bulkId: number; people: number }> {
    return this.snapshots.take(scope, id, body.name);
  }

  @Route('get', 'segments/:id/why/:supporterId', {
    role: 'viewer',
    summary: 'Why one person is in or out',
    params: schema.explainParams,
    answer: answers.whyInSegment,
  })
  why(
    @Caller() scope: AccessScope,
    @Input('params') params: ExplainParams,
  ): Promise<{ name: string } & Explanation> {
    return this.segments.explain(scope, params.id, params.supporterId);
  }

  /** A name that passages of waiting messages go by stays. */
  private async keepName(scope: AccessScope, id: number, name: string): Promise<void> {
    const before = (await this.segments.segment(scope, id)).name;
    if (nameKey(before) === nameKey(name)) return;
    const naming = await this.uses.namingSegment(scope, id);
    if (naming.length > 0)
      throw new Conflict(sentence('segment.named', { messages: `“${naming.join('”, “')}”`, name: before }));
  }
}
