import { Controller, HttpCode, Inject } from '@nestjs/common';
import { answers, schema, type ChangeLayoutBody, type LayoutView } from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../../platform/api';
import type { AccessScope } from '../../platform/scope';
import { LayoutsService } from './layouts.service';

@Controller('api/layouts')
export class LayoutsController {
  constructor(@Inject(LayoutsService) private readonly layouts: LayoutsService) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'Remembered layouts, the last used first',
    answer: answers.listOf(answers.layoutView),
  })
  all(@Caller() scope: AccessScope): Promise<LayoutView[]> {
    return this.layouts.all(scope);
  }

  @Route('put', ':id', {
    role: 'organizer',
    summary: 'Rename or change a layout',
    params: schema.idParams,
    body: schema.changeLayout,
  })
  @HttpCode(204)
  change(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: ChangeLayoutBody,
  ): Promise<void> {
    return this.layouts.change(scope, id, body);
  }

  @Route('delete', ':id', { role: 'organizer', summary: 'Forget a layout', params: schema.idParams })
  @HttpCode(204)
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.layouts.remove(scope, id);
  }
}
