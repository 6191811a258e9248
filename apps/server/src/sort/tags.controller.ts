import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  answers,
  schema,
  type DeletionNotice,
  type TagUse,
  type MakeTagBody,
  type ChangeTagBody,
  type JoinTagBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { TagsService } from './tags.service';
import { stillNeeded, UsesService } from './uses.service';
import { GroupsService } from '../supporters/groups.service';

/** Tags: made, renamed, made one with another, and deleted once nothing needs them. */
@Controller('api')
export class TagsController {
  constructor(
    @Inject(TagsService) private readonly tags: TagsService,
    @Inject(UsesService) private readonly uses: UsesService,
    @Inject(GroupsService) private readonly grouping: GroupsService,
  ) {}

  @Route('post', 'tags', {
    role: 'organizer',
    summary: 'Make a tag',
    body: schema.makeTag,
    answer: answers.made,
  })
  makeTag(@Caller() scope: AccessScope, @Input('body') body: MakeTagBody): Promise<{ id: number }> {
    return this.grouping.makeGroup(scope, 'tag', body);
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
    return this.grouping.changeGroup(scope, 'tag', id, body);
  }

  @Route('get', 'tags/:id/use', {
    role: 'viewer',
    summary: 'How many people of each chapter have a tag',
    params: schema.idParams,
    answer: answers.listOf(answers.tagUse),
  })
  tagUse(@Caller() scope: AccessScope, @Id() id: number): Promise<TagUse[]> {
    return this.tags.use(scope, id);
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
    return this.tags.merge(scope, id, body.intoId);
  }

  @Route('get', 'tags/:id/deletion', {
    role: 'organizer',
    summary: 'What deleting a tag takes with it',
    params: schema.idParams,
    answer: answers.deletionNotice,
  })
  async tagDeletion(@Caller() scope: AccessScope, @Id() id: number): Promise<DeletionNotice> {
    return this.grouping.groupDeletion(scope, 'tag', id, stillNeeded(await this.uses.of(scope, 'tag', id)));
  }

  @Route('delete', 'tags/:id', { role: 'organizer', summary: 'Delete a tag', params: schema.idParams })
  @HttpCode(204)
  async removeTag(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    await this.grouping.removeGroup(scope, 'tag', id, stillNeeded(await this.uses.of(scope, 'tag', id)));
  }
}
