import { Controller, HttpCode, Inject } from '@nestjs/common';
import { schema, type LayoutView, answers, type ChangeLayoutBody } from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../../platform/api';
import { Database } from '../../platform/database';
import { NotFound } from '../../platform/errors';
import type { AccessScope } from '../../platform/scope';
import { nextVersion } from '../../platform/versions';
import { LayoutsRepository } from './layouts.repository';

@Controller('api/layouts')
export class LayoutsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(LayoutsRepository) private readonly layouts: LayoutsRepository,
  ) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'Remembered layouts, the last used first',
    answer: answers.listOf(answers.layoutView),
  })
  all(@Caller() scope: AccessScope): Promise<LayoutView[]> {
    return this.layouts.all(this.database.read(scope));
  }

  @Route('put', ':id', {
    role: 'organizer',
    summary: 'Rename or change a layout',
    params: schema.idParams,
    body: schema.changeLayout,
  })
  @HttpCode(204)
  async change(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: ChangeLayoutBody,
  ): Promise<void> {
    const values = {
      ...(body.name ? { name: body.name } : {}),
      ...(body.columns ? { columns: JSON.stringify(body.columns) } : {}),
    };
    await this.database.writeUnlogged(scope, async (tx) => {
      await nextVersion(tx, 'layout', id, body.basedOn, 'layout');
      await this.layouts.change(tx, id, values);
    });
  }

  @Route('delete', ':id', { role: 'organizer', summary: 'Forget a layout', params: schema.idParams })
  @HttpCode(204)
  async remove(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    if ((await this.database.writeUnlogged(scope, (tx) => this.layouts.remove(tx, id))) === 0)
      throw new NotFound('layout');
  }
}
