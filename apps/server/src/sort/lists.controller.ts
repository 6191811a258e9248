import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  answers,
  schema,
  type DeletionNotice,
  type MakeListBody,
  type OrderListsBody,
  type MoveListsBody,
  type ChangeListBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { ListsService } from './lists.service';
import { stillNeeded, UsesService } from './uses.service';
import { GroupsService } from '../supporters/groups.service';

/** Lists: made, changed, put in order and into folders, and deleted once nothing needs them. */
@Controller('api')
export class ListsController {
  constructor(
    @Inject(ListsService) private readonly lists: ListsService,
    @Inject(UsesService) private readonly uses: UsesService,
    @Inject(GroupsService) private readonly grouping: GroupsService,
  ) {}

  @Route('post', 'lists', {
    role: 'organizer',
    summary: 'Make a list',
    body: schema.makeList,
    answer: answers.made,
  })
  makeList(@Caller() scope: AccessScope, @Input('body') body: MakeListBody): Promise<{ id: number }> {
    return this.grouping.makeGroup(scope, 'list', body);
  }

  @Route('put', 'lists/order', {
    role: 'organizer',
    ofAll: true,
    summary: 'The order of public lists on the preference page',
    body: schema.orderLists,
  })
  @HttpCode(204)
  orderLists(@Caller() scope: AccessScope, @Input('body') body: OrderListsBody): Promise<void> {
    return this.lists.order(scope, body.ids);
  }

  @Route('put', 'lists/folder', {
    role: 'organizer',
    summary: 'Put lists into a folder, or out of any',
    body: schema.moveLists,
  })
  @HttpCode(204)
  moveLists(@Caller() scope: AccessScope, @Input('body') body: MoveListsBody): Promise<void> {
    return this.lists.move(scope, body.ids, body.folder);
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
    return this.grouping.changeGroup(scope, 'list', id, body);
  }

  @Route('get', 'lists/:id/deletion', {
    role: 'organizer',
    summary: 'What deleting a list takes with it',
    params: schema.idParams,
    answer: answers.deletionNotice,
  })
  async listDeletion(@Caller() scope: AccessScope, @Id() id: number): Promise<DeletionNotice> {
    return this.grouping.groupDeletion(scope, 'list', id, stillNeeded(await this.uses.of(scope, 'list', id)));
  }

  @Route('delete', 'lists/:id', { role: 'organizer', summary: 'Delete a list', params: schema.idParams })
  @HttpCode(204)
  async removeList(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    await this.grouping.removeGroup(scope, 'list', id, stillNeeded(await this.uses.of(scope, 'list', id)));
  }
}
