import { Injectable } from '@nestjs/common';
import { endOf, occurrenceKey, type Occurrence, type VisitFacts } from '@goodword/core/automations';
import type { Fall } from '@goodword/core/campaigns';
import { VISIT_STATES, type VisitState } from '@goodword/core/contract';
import type { Channel } from '@goodword/core/permission';
import type { Tables } from '../platform/tables/generated';
import type { Scoped } from '../platform/scoped';
import type { Automation } from './automations.repository';

/** One person for whom an automatic message was set going, by one occasion. */
export interface Visit {
  id: number;
  supporterId: number;
  causeKey: string;
  causedAt: Date;
  takenAt: Date;
  step: number;
  dueAt: Date | null;
  state: VisitState;
  why: Fall | null;
}

/** A visit as a page lists it. */
export interface ListedVisit extends Visit {
  firstName: string;
  lastName: string;
  /** Of the last message that was written down for them; null where none was. */
  deliveryState: Tables['delivery']['state'] | null;
  verdict: string | null;
  doorVerdict: string | null;
  detail: string | null;
  sentAt: Date | null;
  channel: Channel | null;
}

export type VisitCounts = Record<VisitState, number>;
const NONE: VisitCounts = { waiting: 0, held: 0, done: 0, ended: 0 };

const COLUMNS = `v.id, v.supporter_id AS supporterId, v.cause_key AS causeKey, v.caused_at AS causedAt,
  v.taken_at AS takenAt, v.step, v.due_at AS dueAt, v.state, v.why`;
/** Of the people those whom the caller may see. */
const MINE = '(:chapter IS NULL OR s.chapter_id = :chapter)';
const SLICE = 5000;

/** People for whom automatic messages were set going. Owns `automation_visit`. */
@Injectable()
export class VisitsRepository {
  /** Of what happened, what was taken up before, and who of these people. */
  async before(
    db: Scoped,
    id: number,
    found: readonly Occurrence[],
  ): Promise<{ people: Set<number>; occurrences: Set<string> }> {
    const before = { people: new Set<number>(), occurrences: new Set<string>() };
    const people = [...new Set(found.map(({ supporterId }) => supporterId))];
    for (let at = 0; at < people.length; at += SLICE) {
      const rows = await db.sql<{ supporterId: number; key: string }>(
        `SELECT supporter_id AS supporterId, cause_key AS \`key\`
          FROM automation_visit
          WHERE organization_id = :org AND automation_id = :id AND supporter_id IN (:some)`,
        { id, some: people.slice(at, at + SLICE) },
      );
      for (const row of rows) {
        before.people.add(row.supporterId);
        before.occurrences.add(occurrenceKey(row));
      }
    }
    return before;
  }

  /** How many were taken up since a moment, but for those whom somebody has looked at. */
  async takenSince(db: Scoped, id: number, since: Date): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n
        FROM automation_visit
        WHERE organization_id = :org AND automation_id = :id AND taken_at >= :since AND looked = 0`,
      { id, since },
    );
    return row?.n ?? 0;
  }

  async add(
    tx: Scoped,
    id: number,
    visits: readonly (Occurrence & { dueAt: Date | null })[],
    { held, looked, now }: { held: boolean; looked: boolean; now: Date },
  ): Promise<void> {
    await tx.insertAll(
      'automation_visit',
      [
        ...['automation_id', 'supporter_id', 'cause_key', 'caused_at', 'taken_at', 'due_at'],
        ...['state', 'looked'],
      ],
      visits.map((one) => [
        ...[id, one.supporterId, one.key, new Date(one.at), now, one.dueAt],
        ...[held ? 'held' : 'waiting', Number(looked)],
      ]),
      true,
    );
  }

  /** Those whose next message, one of these, is due. */
  async due(
    db: Scoped,
    id: number,
    { now, steps, limit }: { now: Date; steps: readonly number[]; limit: number },
  ): Promise<Visit[]> {
    if (steps.length === 0) return [];
    return db.sql<Visit>(
      `SELECT ${COLUMNS}
        FROM automation_visit v
        JOIN supporter s ON s.id = v.supporter_id
        WHERE v.organization_id = :org AND v.automation_id = :id AND v.state = 'waiting' AND v.due_at <= :now
          AND v.step IN (:steps)
        ORDER BY v.due_at, v.id
        LIMIT :limit`,
      { id, now, steps, limit },
    );
  }

  /** Those of them for whom that is still so, held until the transaction ends. */
  async stillDue(
    tx: Scoped,
    ids: readonly number[],
    { step, now }: { step: number; now: Date },
  ): Promise<Visit[]> {
    return tx.sql<Visit>(
      `SELECT ${COLUMNS}
        FROM automation_visit v
        WHERE v.organization_id = :org AND v.id IN (:ids) AND v.state = 'waiting' AND v.due_at <= :now
          AND v.step = :step
        ORDER BY v.id FOR UPDATE`,
      { ids, step, now },
    );
  }

  async goesOn(tx: Scoped, ids: readonly number[], step: number, dueAt: ReadonlyMap<number, Date>) {
    for (const [moment, some] of byMoment(ids, dueAt))
      await tx.execute(
        `UPDATE automation_visit
          SET step = :step, due_at = :moment
          WHERE organization_id = :org AND id IN (:some)`,
        { step, moment: new Date(moment), some },
      );
  }

  async ends(tx: Scoped, ids: readonly number[], state: 'done' | 'ended', why: Fall | null): Promise<void> {
    if (ids.length === 0) return;
    await tx.execute(
      `UPDATE automation_visit
        SET state = :state, why = :why, due_at = NULL
        WHERE organization_id = :org AND id IN (:ids)`,
      { ids, state, why },
    );
  }

  async counts(db: Scoped, id: number | null = null): Promise<Map<number, VisitCounts>> {
    const rows = await db.sql<{ id: number; state: VisitState; n: number }>(
      `SELECT v.automation_id AS id, v.state, COUNT(*) AS n
        FROM automation_visit v
        JOIN supporter s ON s.id = v.supporter_id AND ${MINE}
        WHERE v.organization_id = :org AND (:id IS NULL OR v.automation_id = :id)
        GROUP BY v.automation_id, v.state`,
      { id },
    );
    const counts = new Map<number, VisitCounts>();
    for (const row of rows)
      counts.set(row.id, { ...(counts.get(row.id) ?? NONE), [row.state]: Number(row.n) });
    return counts;
  }

  /** A page of those at one state; those who wait by when it is, the others the last first. */
  async page(
    db: Scoped,
    id: number,
    { state, after, limit }: { state: VisitState; after: number; limit: number },
  ): Promise<ListedVisit[]> {
    const order = state === 'waiting' ? 'v.due_at, v.id' : 'v.id DESC';
    return db.sql<ListedVisit>(
      `SELECT ${COLUMNS}, s.first_name AS firstName, s.last_name AS lastName, d.state AS deliveryState,
          d.verdict, d.door_verdict AS doorVerdict, d.detail, d.sent_at AS sentAt, d.channel
        FROM automation_visit v
        JOIN supporter s ON s.id = v.supporter_id AND ${MINE}
        LEFT JOIN delivery d ON d.id = (SELECT MAX(e.id) FROM delivery e
          WHERE e.organization_id = :org AND e.supporter_id = v.supporter_id AND e.occasion = v.id)
        WHERE v.organization_id = :org AND v.automation_id = :id AND v.state = :state
        ORDER BY ${order}
        LIMIT :limit OFFSET :after`,
      { id, state, after, limit },
    );
  }

  /** Of some who wait: they are due now. Returns how many. */
  async hurry(tx: Scoped, id: number, ids: readonly number[], now: Date): Promise<number> {
    return tx.execute(
      `UPDATE automation_visit
        SET due_at = LEAST(due_at, :now)
        WHERE organization_id = :org AND automation_id = :id AND id IN (:ids) AND state = 'waiting'`,
      { id, ids, now },
    );
  }

  /** Takes some out who wait, or have a message on its way to them. Returns how many. */
  async takeOut(tx: Scoped, id: number, ids: readonly number[]): Promise<number> {
    return tx.execute(
      `UPDATE automation_visit
        SET state = 'ended', why = 'taken-out', due_at = NULL
        WHERE organization_id = :org AND automation_id = :id AND id IN (:ids)
          AND state IN ('waiting', 'held')`,
      { id, ids },
    );
  }

  async held(tx: Scoped, id: number): Promise<Visit[]> {
    return tx.sql<Visit>(
      `SELECT ${COLUMNS}
        FROM automation_visit v
        WHERE v.organization_id = :org AND v.automation_id = :id AND v.state = 'held'
        ORDER BY v.id FOR UPDATE`,
      { id },
    );
  }

  /** Those who waited for a look: they go, each at their time. */
  async letGo(tx: Scoped, ids: readonly number[], dueAt: ReadonlyMap<number, Date>): Promise<void> {
    for (const [moment, some] of byMoment(ids, dueAt))
      await tx.execute(
        `UPDATE automation_visit
          SET state = 'waiting', looked = 1, due_at = :moment
          WHERE organization_id = :org AND id IN (:some)`,
        { moment: new Date(moment), some },
      );
  }

  async endAll(tx: Scoped, id: number): Promise<void> {
    await tx.execute(
      `UPDATE automation_visit
        SET state = 'ended', why = 'taken-out', due_at = NULL
        WHERE organization_id = :org AND automation_id = :id AND state IN ('waiting', 'held')`,
      { id },
    );
  }

  /** A message more, or one fewer, before where people stand. */
  async moveSteps(tx: Scoped, id: number, behind: number): Promise<void> {
    await tx.execute(
      `UPDATE automation_visit
        SET step = step - 1
        WHERE organization_id = :org AND automation_id = :id AND step > :behind
          AND state IN ('waiting', 'held')`,
      { id, behind },
    );
  }

  /** What people have done since it was set going for them: gave, and replied or left by its messages. */
  async facts(
    db: Scoped,
    automation: Automation,
    visits: readonly Visit[],
  ): Promise<Map<number, Pick<VisitFacts, 'gave' | 'replied' | 'left'>>> {
    const facts = new Map(visits.map(({ id }) => [id, { gave: false, replied: false, left: false }]));
    const ids = visits.map(({ id }) => id);
    if (ids.length === 0 || automation.stops.length === 0) return facts;
    const gave = await db.sql<{ id: number }>(
      // The gift that set it going ends nothing, and none that came before it.
      `SELECT v.id
        FROM automation_visit v
        JOIN gift g ON g.organization_id = v.organization_id AND g.supporter_id = v.supporter_id
          AND g.recorded_at > v.caused_at AND CONCAT('gift:', g.id) <> v.cause_key
        WHERE v.organization_id = :org AND v.id IN (:ids)
        GROUP BY v.id
        HAVING SUM(g.amount) > 0`,
      { ids },
    );
    const acts = await db.sql<{ id: number; replied: number; left_it: number }>(
      `SELECT v.id, MAX(d.replied) AS replied, MAX(d.left_it) AS left_it
        FROM automation_visit v
        JOIN automation_step s ON s.organization_id = v.organization_id AND s.automation_id = v.automation_id
        JOIN delivery d ON d.message_id = s.message_id AND d.supporter_id = v.supporter_id
          AND d.sent_at > v.caused_at AND (d.replied = 1 OR d.left_it = 1)
        WHERE v.organization_id = :org AND v.id IN (:ids)
        GROUP BY v.id`,
      { ids },
    );
    for (const { id } of gave) facts.get(id)!.gave = true;
    for (const { id, replied, left_it } of acts)
      Object.assign(facts.get(id)!, { replied: replied === 1, left: left_it === 1 });
    return facts;
  }

  /**
   * Who of those with a message on its way to them gets no more of it: taken out meanwhile, or by what they
   * did. By person and occasion.
   */
  async fellOut(
    db: Scoped,
    automation: Automation,
    occasions: readonly number[],
  ): Promise<Map<number, Fall>> {
    const out = new Map<number, Fall>();
    if (occasions.length === 0) return out;
    const visits = await db.sql<Visit>(
      `SELECT ${COLUMNS} FROM automation_visit v WHERE v.organization_id = :org AND v.id IN (:occasions)`,
      { occasions },
    );
    const facts = await this.facts(db, automation, visits);
    for (const visit of visits) {
      if (visit.state === 'ended') out.set(visit.id, visit.why ?? 'taken-out');
      else {
        const end = endOf(automation.stops, { ...facts.get(visit.id)!, stands: true, excepted: false });
        if (end) out.set(visit.id, end);
      }
    }
    return out;
  }
}

function byMoment(ids: readonly number[], dueAt: ReadonlyMap<number, Date>): Map<number, number[]> {
  const moments = new Map<number, number[]>();
  for (const id of ids) {
    const moment = dueAt.get(id)!.getTime();
    const some = moments.get(moment);
    if (some) some.push(id);
    else moments.set(moment, [id]);
  }
  return moments;
}

/** All states, for what counts each. */
export const countsOf = (counts: VisitCounts | undefined): VisitCounts =>
  Object.fromEntries(VISIT_STATES.map((state) => [state, counts?.[state] ?? 0])) as VisitCounts;
