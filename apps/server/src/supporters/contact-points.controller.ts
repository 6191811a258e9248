import { Controller, HttpCode, Inject } from '@nestjs/common';
import { schema, type PointParams } from '@goodword/core/contract';
import type { NewAddress } from '@goodword/core/common';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { ContactPointsService } from './contact-points.service';

/** Addresses on a record. */
@Controller('api/supporters/:id/contact-points')
export class ContactPointsController {
  constructor(@Inject(ContactPointsService) private readonly points: ContactPointsService) {}

  @Route('post', '', {
    role: 'organizer',
    summary: 'Add an address',
    params: schema.idParams,
    body: schema.addContact,
  })
  @HttpCode(204)
  add(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: NewAddress): Promise<void> {
    return this.points.add(scope, id, body);
  }

  @Route('put', ':pointId', {
    role: 'organizer',
    summary: 'Put another address in the place of one; what was agreed to at the old one stays there',
    params: schema.pointParams,
    body: schema.changeContact,
  })
  @HttpCode(204)
  change(
    @Caller() scope: AccessScope,
    @Input('params') params: PointParams,
    @Input('body') body: NewAddress & { was: string },
  ): Promise<void> {
    return this.points.change(scope, params.id, params.pointId, body);
  }

  @Route('delete', ':pointId', {
    role: 'organizer',
    summary: 'Take an address off',
    params: schema.pointParams,
  })
  @HttpCode(204)
  drop(@Caller() scope: AccessScope, @Input('params') params: PointParams): Promise<void> {
    return this.points.drop(scope, params.id, params.pointId);
  }

  @Route('post', ':pointId/first', {
    role: 'organizer',
    summary: 'Write to this address before others of its kind',
    params: schema.pointParams,
  })
  @HttpCode(204)
  putFirst(@Caller() scope: AccessScope, @Input('params') params: PointParams): Promise<void> {
    return this.points.putFirst(scope, params.id, params.pointId);
  }

  @Route('post', ':pointId/release', {
    role: 'organizer',
    summary: 'Take an address off hold',
    params: schema.pointParams,
  })
  @HttpCode(204)
  release(@Caller() scope: AccessScope, @Input('params') params: PointParams): Promise<void> {
    return this.points.release(scope, params.id, params.pointId);
  }
}
