import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { GroupsRepository } from '../supporters/groups.repository';

/** How lists lie among each other: their order on the preference page, and their folders. */
@Injectable()
export class ListsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
  ) {}

  /** Puts lists in this order. */
  async order(scope: AccessScope, ids: readonly number[]): Promise<void> {
    await this.database.writeUnlogged(scope, (tx) => this.groups.orderLists(tx, ids));
  }

  /** Puts lists into a folder; into none where its name is empty. */
  async move(scope: AccessScope, ids: readonly number[], folder: string): Promise<void> {
    await this.database.writeUnlogged(scope, (tx) => this.groups.moveLists(tx, ids, folder));
  }
}
