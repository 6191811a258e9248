import { Controller, HttpCode, Inject } from '@nestjs/common';
import { dayInZone, startOfDay } from '@goodword/core/common';
import {
  schema,
  type DoneView,
  type JobView,
  type TodayView,
  type WeekView,
  answers,
  type SettleTaskBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { SegmentsService } from '../segments/segments.service';
import { SenderService } from '../sender/sender.service';
import { TeamRepository } from '../team/team.repository';
import { JobsRepository } from './jobs.repository';
import { TasksRepository } from './tasks.repository';
import { TasksService } from './tasks.service';
import { TodayRepository } from './today.repository';
import { WeekService } from './week.service';

/** In time to ask again by a message that the rule still allows. */
const LAPSING_DAYS = 30;

@Controller('api')
export class TodayController {
  private readonly counted = new Map<string, { at: number; people: number }>();

  constructor(
    @Inject(TodayRepository) private readonly today: TodayRepository,
    @Inject(JobsRepository) private readonly jobs: JobsRepository,
    @Inject(TasksRepository) private readonly tasks: TasksRepository,
    @Inject(TasksService) private readonly settling: TasksService,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(WeekService) private readonly weeks: WeekService,
    @Inject(SenderService) private readonly sender: SenderService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(Database) private readonly database: Database,
  ) {}

  @Route('get', 'today', { role: 'viewer', summary: 'What waits', answer: answers.todayView })
  async view(@Caller() scope: AccessScope): Promise<TodayView> {
    const db = this.database.read(scope);
    const [view, stops, erasures, lapsing, sender] = await Promise.all([
      this.today.view(db),
      this.tasks.stops(db),
      scope.role === 'owner' ? this.tasks.erasures(db) : [],
      this.lapsing(scope),
      this.sender.faults(scope),
    ]);
    return { ...view, stops, erasures, sender, lapsing: { people: lapsing, days: LAPSING_DAYS } };
  }

  /** Today is asked for again and again, and what lapses changes slowly: counted once a minute. */
  private async lapsing(scope: AccessScope): Promise<number> {
    const key = `${scope.organizationId}:${scope.chapterId ?? 'all'}`;
    const known = this.counted.get(key);
    if (known && Date.now() - known.at < 60_000) return known.people;
    const ids = await this.segments.members(scope, {
      kind: 'lapses',
      channel: 'email',
      scope: 'appeals',
      days: LAPSING_DAYS,
    });
    this.counted.set(key, { at: Date.now(), people: ids.length });
    return ids.length;
  }

  @Route('get', 'today/week', {
    role: 'viewer',
    summary: 'What the last seven days brought, and what a week brings usually',
    answer: answers.weekView,
  })
  week(@Caller() scope: AccessScope): Promise<WeekView> {
    return this.weeks.view(scope);
  }

  @Route('get', 'today/done', { role: 'viewer', summary: 'What was done today', answer: answers.doneView })
  async done(@Caller() scope: AccessScope): Promise<DoneView> {
    const { time_zone: zone } = await this.team.organization(scope);
    return this.today.done(
      this.database.read(scope),
      new Date(startOfDay(dayInZone(Date.now(), zone), zone)),
    );
  }

  @Route('get', 'jobs', {
    role: 'viewer',
    summary: 'Work in the background, running and finished',
    answer: answers.listOf(answers.jobView),
  })
  work(@Caller() scope: AccessScope): Promise<JobView[]> {
    return this.jobs.recent(this.database.read(scope));
  }

  @Route('post', 'tasks/:id/settle', {
    role: 'organizer',
    summary: 'Settle what only a person can',
    params: schema.idParams,
    body: schema.settleTask,
  })
  @HttpCode(204)
  settle(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: SettleTaskBody): Promise<void> {
    return this.settling.settle(scope, id, body.outcome);
  }
}
