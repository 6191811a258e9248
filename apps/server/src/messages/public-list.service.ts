import { Inject, Injectable } from '@nestjs/common';
import { Invalid, NotFound } from '../platform/errors';
import type { Scoped } from '../platform/scoped';
import { sentence } from '../platform/words';
import { GroupsRepository } from '../supporters/groups.repository';

/** Whether words may be for a list: only a public one is one that people agreed to by name. */
@Injectable()
export class PublicListService {
  constructor(@Inject(GroupsRepository) private readonly groups: GroupsRepository) {}

  async check(tx: Scoped, listId: number): Promise<void> {
    const list = (await this.groups.lists(tx)).find((one) => one.id === listId);
    if (!list) throw new NotFound('list');
    if (!list.isPublic)
      throw new Invalid([
        { field: 'listId', code: 'list', message: sentence('message.list-internal', { name: list.name }) },
      ]);
  }
}
