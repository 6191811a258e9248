import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  answers,
  schema,
  type FinderHit,
  type PeopleView,
  type FinderQuery,
  type SavePeopleViewBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { FindService } from './find.service';
import { PeopleViewsService } from './people-views.service';

/** Finding anybody and anything, and the tables of people that the team has named. */
@Controller('api')
export class FinderController {
  constructor(
    @Inject(FindService) private readonly finder: FindService,
    @Inject(PeopleViewsService) private readonly peopleViews: PeopleViewsService,
  ) {}

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
    return this.peopleViews.all(scope);
  }

  @Route('put', 'people-views', {
    role: 'organizer',
    summary: 'Keep a table under a name, in the place of one of that name',
    body: schema.savePeopleView,
  })
  @HttpCode(204)
  keepView(@Caller() scope: AccessScope, @Input('body') body: SavePeopleViewBody): Promise<void> {
    return this.peopleViews.keep(scope, body);
  }

  @Route('delete', 'people-views/:id', {
    role: 'organizer',
    summary: 'Forget such a table',
    params: schema.idParams,
  })
  @HttpCode(204)
  forgetView(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.peopleViews.forget(scope, id);
  }
}
