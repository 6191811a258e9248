import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type DeletionNotice,
  type FinderHit,
  type Page,
  type PeopleView,
  type RecordView,
  type SegmentCount,
  type SegmentSize,
  type SegmentVersion,
  type SegmentView,
  type SupporterRow,
  type TagUse,
  answers,
  type MakeTagBody,
  type ChangeTagBody,
  type JoinTagBody,
  type MakeListBody,
  type OrderListsBody,
  type MoveListsBody,
  type ChangeListBody,
  type SaveSegmentBody,
  type ChangeSegmentBody,
  type CountSegmentBody,
  type ListPeopleBody,
  type FinderQuery,
  type SavePeopleViewBody,
  type SnapshotSegmentBody,
  type ExplainParams,
} from '@goodword/core/contract';
import type { Explanation } from '@goodword/core/words';
import { Caller, Id, Input, Route } from '../platform/api';
import { Database } from '../platform/database';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { RecordService } from '../record/record.service';
import { SegmentsService } from '../segments/segments.service';
import { FindService } from './find.service';
import { PeopleViewsRepository } from './people-views.repository';
import { TagsService } from './tags.service';
import { stillNeeded, UsesService } from './uses.service';
import { BulkService } from '../bulk/bulk.service';
import { GroupsRepository } from '../supporters/groups.repository';
import { SupportersService } from '../supporters/supporters.service';
import { sentence } from '../platform/words';

/** Groups of people, and what still needs them: the place where supporters, segments and messages meet. */
@Controller('api')
export class SortController {
  constructor(
    @Inject(SupportersService) private readonly supporters: SupportersService,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(RecordService) private readonly records: RecordService,
    @Inject(UsesService) private readonly uses: UsesService,
    @Inject(TagsService) private readonly tagsOf: TagsService,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(BulkService) private readonly bulk: BulkService,
    @Inject(FindService) private readonly finder: FindService,
    @Inject(PeopleViewsRepository) private readonly peopleViews: PeopleViewsRepository,
    @Inject(Database) private readonly database: Database,
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

  @Route('post', 'tags', {
    role: 'organizer',
    summary: 'Make a tag',
    body: schema.makeTag,
    answer: answers.made,
  })
  makeTag(@Caller() scope: AccessScope, @Input('body') body: MakeTagBody): Promise<{ id: number }> {
    return this.supporters.makeGroup(scope, 'tag', body);
  }

  @Route('put', 'tags/:id', {
    role: 'organizer',
    summary: 'Rename a tag',
    params: schema.idParams,
    body: schema.changeTag,
  })
  @HttpCode(204)
  changeTag(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: ChangeTagBody,
  ): Promise<void> {
    return this.supporters.changeGroup(scope, 'tag', id, body);
  }

  @Route('get', 'tags/:id/use', {
    role: 'viewer',
    summary: 'How many people of each chapter have a tag',
    params: schema.idParams,
    answer: answers.listOf(answers.tagUse),
  })
  tagUse(@Caller() scope: AccessScope, @Id() id: number): Promise<TagUse[]> {
    return this.tagsOf.use(scope, id);
  }

  @Route('post', 'tags/:id/join', {
    role: 'organizer',
    summary: 'Make this tag one with another',
    params: schema.idParams,
    body: schema.joinTag,
    answer: answers.counted,
  })
  @HttpCode(200)
  joinTag(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: JoinTagBody,
  ): Promise<{ people: number }> {
    return this.tagsOf.merge(scope, id, body.intoId);
  }

  @Route('get', 'tags/:id/deletion', {
    role: 'organizer',
    summary: 'What deleting a tag takes with it',
    params: schema.idParams,
    answer: answers.deletionNotice,
  })
  async tagDeletion(@Caller() scope: AccessScope, @Id() id: number): Promise<DeletionNotice> {
    return this.supporters.groupDeletion(scope, 'tag', id, stillNeeded(await this.uses.of(scope, 'tag', id)));
  }

  @Route('delete', 'tags/:id', { role: 'organizer', summary: 'Delete a tag', params: schema.idParams })
  @HttpCode(204)
  async removeTag(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    await this.supporters.removeGroup(scope, 'tag', id, stillNeeded(await this.uses.of(scope, 'tag', id)));
  }

  @Route('post', 'lists', {
    role: 'organizer',
    summary: 'Make a list',
    body: schema.makeList,
    answer: answers.made,
  })
  makeList(@Caller() scope: AccessScope, @Input('body') body: MakeListBody): Promise<{ id: number }> {
    return this.supporters.makeGroup(scope, 'list', body);
  }

  @Route('put', 'lists/order', {
    role: 'organizer',
    ofAll: true,
    summary: 'The order of public lists on the preference page',
    body: schema.orderLists,
  })
  @HttpCode(204)
  async orderLists(@Caller() scope: AccessScope, @Input('body') body: OrderListsBody): Promise<void> {
    await this.database.writeUnlogged(scope, (tx) => this.groups.orderLists(tx, body.ids));
  }

  @Route('put', 'lists/folder', {
    role: 'organizer',
    summary: 'Put lists into a folder, or out of any',
    body: schema.moveLists,
  })
  @HttpCode(204)
  async moveLists(@Caller() scope: AccessScope, @Input('body') body: MoveListsBody): Promise<void> {
    await this.database.writeUnlogged(scope, (tx) => this.groups.moveLists(tx, body.ids, body.folder));
  }

  @Route('put', 'lists/:id', {
    role: 'organizer',
    summary: 'Change a list',
    params: schema.idParams,
    body: schema.changeList,
  })
  @HttpCode(204)
  changeList(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: ChangeListBody,
  ): Promise<void> {
    return this.supporters.changeGroup(scope, 'list', id, body);
  }

  @Route('get', 'lists/:id/deletion', {
    role: 'organizer',
    summary: 'What deleting a list takes with it',
    params: schema.idParams,
    answer: answers.deletionNotice,
  })
  async listDeletion(@Caller() scope: AccessScope, @Id() id: number): Promise<DeletionNotice> {
    return this.supporters.groupDeletion(
      scope,
      'list',
      id,
      stillNeeded(await this.uses.of(scope, 'list', id)),
    );
  }

  @Route('delete', 'lists/:id', { role: 'organizer', summary: 'Delete a list', params: schema.idParams })
  @HttpCode(204)
  async removeList(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    await this.supporters.removeGroup(scope, 'list', id, stillNeeded(await this.uses.of(scope, 'list', id)));
  }

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
  changeSegment(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: ChangeSegmentBody,
  ): Promise<{ id: number; version: number }> {
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

  @Route('get', 'find', {
    role: 'viewer',
    summary: 'Find anybody and anything by a few letters',
    query: schema.finderQuery,
    answer: answers.listOf(answers.finderHit),
  })
  find(@Caller() scope: AccessScope, @Input('query') query: FinderQuery): Promise<FinderHit[]> {
    return this.finder.find(scope, query.text);
  }

  @Route('get', 'people-views', {
    role: 'viewer',
    summary: 'Tables of people that the team has named',
    answer: answers.listOf(answers.peopleView),
  })
  views(@Caller() scope: AccessScope): Promise<PeopleView[]> {
    return this.peopleViews.all(this.database.read(scope));
  }

  @Route('put', 'people-views', {
    role: 'organizer',
    summary: 'Keep a table under a name, in the place of one of that name',
    body: schema.savePeopleView,
  })
  @HttpCode(204)
  async keepView(@Caller() scope: AccessScope, @Input('body') body: SavePeopleViewBody): Promise<void> {
    await this.database.writeUnlogged(scope, (tx) => this.peopleViews.keep(tx, body));
  }

  @Route('delete', 'people-views/:id', {
    role: 'organizer',
    summary: 'Forget such a table',
    params: schema.idParams,
  })
  @HttpCode(204)
  async forgetView(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    if ((await this.database.writeUnlogged(scope, (tx) => this.peopleViews.forget(tx, id))) === 0)
      throw new NotFound('view');
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
  async snapshot(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SnapshotSegmentBody,
  ): Promise<{ listId: number; bulkId: number; people: number }> {
    const { tree } = await this.segments.segment(scope, id);
    if ((await this.segments.count(scope, tree, false)).total === 0)
      throw new Conflict(sentence('list.would-be-empty'));
    const list = await this.supporters.makeGroup(scope, 'list', { name: body.name });
    const begun = await this.bulk.begin(
      scope,
      { tree, without: [] },
      { do: 'list', listId: list.id, on: true },
    );
    return { listId: list.id, bulkId: begun.id, people: begun.people };
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
}
