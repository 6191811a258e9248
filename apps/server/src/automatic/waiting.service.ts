import { Inject, Injectable } from '@nestjs/common';
import { firstMoment } from '@goodword/core/automations';
import type { Page, VisitRow, VisitsQuery } from '@goodword/core/contract';
import { AutomationsRepository, type Automation } from '../automations/automations.repository';
import { countsOf, VisitsRepository, type ListedVisit } from '../automations/visits.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Conflict, NotFound } from '../platform/errors';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { sentence } from '../platform/words';
import { cameWords } from '../sending/came';
import { TeamRepository } from '../team/team.repository';

/** Those for whom an automatic message was set going: seen, hurried, taken out, let go. */
@Injectable()
export class WaitingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
    @Inject(VisitsRepository) private readonly visits: VisitsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  async people(scope: AccessScope, id: number, query: VisitsQuery): Promise<Page<VisitRow>> {
    const db = this.database.read(scope);
    if (!(await this.automations.find(db, id))) throw new NotFound('automatic message');
    const after = Number(decodeCursor(query.after, 1)?.[0] ?? 0);
    const rows = await this.visits.page(db, id, { ...query, after });
    const steps = await this.automations.steps(db, id);
    const total = countsOf((await this.visits.counts(db, id)).get(id))[query.state];
    return {
      rows: rows.map((row) => ({
        ...{ id: row.id, supporterId: row.supporterId, why: row.why },
        name: `${row.firstName} ${row.lastName}`.trim(),
        causedAt: row.causedAt.toISOString(),
        dueAt: row.dueAt?.toISOString() ?? null,
        came: row.deliveryState === null ? null : cameOf(row),
        next: row.state === 'done' ? null : (steps[row.step]?.name ?? null),
      })),
      total,
      next: rows.length === query.limit ? encodeCursor([after + rows.length]) : null,
    };
  }

  /** Their next message leaves now. */
  async hurry(scope: AccessScope, id: number, ids: readonly number[]): Promise<{ people: number }> {
    return this.within(scope, id, async (tx, { name }) => {
      const people = await this.visits.hurry(tx, id, ids, new Date());
      await audit(tx, 'change', { automation: id }, `${name}: ${people} hurried`);
      return { people };
    });
  }

  async takeOut(scope: AccessScope, id: number, ids: readonly number[]): Promise<{ people: number }> {
    return this.within(scope, id, async (tx, { name }) => {
      const people = await this.visits.takeOut(tx, id, ids);
      await audit(tx, 'change', { automation: id }, `${name}: ${people} taken out`);
      return { people };
    });
  }

  /** Those who waited for a look go, as many as were seen. */
  async letGo(scope: AccessScope, id: number, people: number): Promise<void> {
    const { time_zone: zone } = await this.team.organization(scope);
    await this.within(scope, id, async (tx, { name, cause }) => {
      const held = await this.visits.held(tx, id);
      sameNumber(held.length, people);
      const steps = await this.automations.steps(tx, id);
      const wait = steps[0]?.wait;
      if (!wait) throw new Conflict(sentence('automation.no-steps'));
      const now = Date.now();
      const dueAt = new Map(
        held.map((one) => [
          one.id,
          new Date(Math.max(now, firstMoment(cause.kind, one.causedAt.getTime(), wait, zone))),
        ]),
      );
      await this.visits.letGo(tx, [...dueAt.keys()], dueAt);
      await audit(tx, 'send', { automation: id }, `${name}: ${people} let go after a look`);
    });
  }

  /** None of those who waited for a look gets it. */
  async dropHeld(scope: AccessScope, id: number, people: number): Promise<void> {
    await this.within(scope, id, async (tx, { name }) => {
      const held = await this.visits.held(tx, id);
      sameNumber(held.length, people);
      await this.visits.ends(
        tx,
        held.map((one) => one.id),
        'ended',
        'taken-out',
      );
      await audit(tx, 'change', { automation: id }, `${name}: ${people} taken out after a look`);
    });
  }

  private async within<T>(
    scope: AccessScope,
    id: number,
    work: (tx: Scoped, automation: Automation) => Promise<T>,
  ): Promise<T> {
    return this.database.write(scope, async (tx) => {
      tx.unchanged();
      const automation = await this.automations.find(tx, id, 'FOR UPDATE');
      if (!automation) throw new NotFound('automatic message');
      return work(tx, automation);
    });
  }
}

function cameOf({ deliveryState, verdict, doorVerdict, detail, sentAt, channel }: ListedVisit): string {
  return cameWords(
    {
      ...{ state: deliveryState!, verdict: verdict!, door_verdict: doorVerdict },
      ...{ detail, sent_at: sentAt },
    },
    channel!,
  );
}

function sameNumber(now: number, seen: number): void {
  if (now !== seen) throw new Conflict(sentence('automation.other-count', { people: now }));
}
