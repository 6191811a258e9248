import { Inject, Injectable } from '@nestjs/common';
import type { ChangeLayoutBody, LayoutView } from '@goodword/core/contract';
import { Database } from '../../platform/database';
import { NotFound } from '../../platform/errors';
import type { AccessScope } from '../../platform/scope';
import { nextVersion } from '../../platform/versions';
import { LayoutsRepository } from './layouts.repository';

/** What headers of files were matched to before, kept under names. */
@Injectable()
export class LayoutsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(LayoutsRepository) private readonly layouts: LayoutsRepository,
  ) {}

  all(scope: AccessScope): Promise<LayoutView[]> {
    return this.layouts.all(this.database.read(scope));
  }

  async change(scope: AccessScope, id: number, { name, columns, basedOn }: ChangeLayoutBody): Promise<void> {
    const values = { ...(name ? { name } : {}), ...(columns ? { columns: JSON.stringify(columns) } : {}) };
    await this.database.writeUnlogged(scope, async (tx) => {
      await nextVersion(tx, 'layout', id, basedOn, 'layout');
      await this.layouts.change(tx, id, values);
    });
  }

  async remove(scope: AccessScope, id: number): Promise<void> {
    if ((await this.database.writeUnlogged(scope, (tx) => this.layouts.remove(tx, id))) === 0)
      throw new NotFound('layout');
  }
}
