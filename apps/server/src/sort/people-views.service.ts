import { Inject, Injectable } from '@nestjs/common';
import type { PeopleView, SavePeopleViewBody } from '@goodword/core/contract';
import { Database } from '../platform/database';
import { NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { PeopleViewsRepository } from './people-views.repository';

/** Tables of people under names. */
@Injectable()
export class PeopleViewsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PeopleViewsRepository) private readonly views: PeopleViewsRepository,
  ) {}

  all(scope: AccessScope): Promise<PeopleView[]> {
    return this.views.all(this.database.read(scope));
  }

  /** Keeps a table under its name, in the place of one of that name if that is still as it was seen. */
  async keep(scope: AccessScope, view: SavePeopleViewBody): Promise<void> {
    await this.database.writeUnlogged(scope, (tx) => this.views.keep(tx, view));
  }

  async forget(scope: AccessScope, id: number): Promise<void> {
    if ((await this.database.writeUnlogged(scope, (tx) => this.views.forget(tx, id))) === 0)
      throw new NotFound('view');
  }
}
