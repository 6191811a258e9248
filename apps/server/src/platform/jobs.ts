import { hostname } from 'node:os';
import type { Knex } from 'knex';
import { type Database } from './database';
import { rowsOf } from './scoped';
import { isLostConnection } from './database-errors';
import { programScope, type AccessScope } from './scope';
import { traced } from './tracing';

/**
 * Kinds of jobs, each in the lane that it waits in. Work of one lane is done in its order; the lanes go on
 * side by side. What somebody waits for before the page (a word to one person, a file to be read) is never
 * behind what takes its time, and what leaves is never behind what comes in. A new one has a place here, and
 * whoever does it says so with `HandlesJob`; the worker does not begin before each has somebody.
 */
const LANE_OF = {
  'message-personal': 'personal',
  'message-prepare': 'preparing',
  'message-decide': 'preparing',
  'message-proof': 'proofs',
  'message-letters': 'letters',
  'message-calls': 'preparing',
  'batch-read': 'checking',
  'batch-check': 'checking',
  'batch-count': 'checking',
  'batch-bring-in': 'bringing',
  'batch-take-out': 'bringing',
  'feed-run': 'feeds',
  'bulk-act': 'groups',
  'bulk-undo': 'groups',
} as const;

export type JobKind = keyof typeof LANE_OF;
export const JOB_KINDS = Object.keys(LANE_OF) as JobKind[];
/** The kinds of each lane. */
export const LANES: readonly (readonly JobKind[])[] = [...new Set(Object.values(LANE_OF))].map((lane) =>
  JOB_KINDS.filter((kind) => LANE_OF[kind] === lane),
);

interface JobRow {
  id: number;
  organization_id: number;
  chapter_id: number | null;
  kind: JobKind;
  ref_id: number;
  attempts: number;
}

/** What a running job is given: its subject, and a way to learn that it should stop. */
export interface Running {
  scope: AccessScope;
  refId: number;
  /** True when somebody asked to stop, or this process no longer holds the lease. Checked between steps. */
  stopped(): Promise<boolean>;
  /**
   * Says how far it is, for work that counts in steps of its own; seen at once, whatever transaction is under
   * way.
   */
  progress(done: number, total: number): Promise<void>;
}

export type JobHandler = (job: Running) => Promise<void>;

type Doer = new (...parts: never[]) => object;

/** Who does which kind of job. */
export class JobRegistry {
  private readonly doers = new Map<JobKind, { doer: Doer; method: string }>();

  /** Says that a method of a class does jobs of some kinds. */
  add(kinds: readonly JobKind[], doer: Doer, method: string): void {
    for (const kind of kinds) {
      if (this.doers.has(kind)) throw new Error(`expected one place that does ${kind} jobs, got two`);
      this.doers.set(kind, { doer, method });
    }
  }

  /** Who does each kind of job; `made` gives the one of a class. Throws for a kind that nobody does. */
  handlers(made: (doer: Doer) => object): Record<JobKind, JobHandler> {
    const handlers = JOB_KINDS.map((kind): [JobKind, JobHandler] => {
      const { doer, method } = this.doers.get(kind) ?? {};
      if (!doer || !method) throw new Error(`expected a place that does ${kind} jobs, got none`);
      const does = made(doer) as Record<string, JobHandler>;
      return [kind, (job) => does[method]!(job)];
    });
    return Object.fromEntries(handlers) as Record<JobKind, JobHandler>;
  }
}

/** The jobs of this program. */
export const JOBS = new JobRegistry();

/** Put before the method that does jobs of some kinds. */
export function HandlesJob(...kinds: JobKind[]) {
  return (of: object, method: string): void => JOBS.add(kinds, of.constructor as Doer, method);
}

const MOST_ATTEMPTS = 5;

/** For `due`: the kinds of which a job waits, or was left by a process whose lease has run out. */
export const JOBS_DUE = `SELECT DISTINCT kind AS due FROM job WHERE run_at <= UTC_TIMESTAMP(3)
  AND (state = 'waiting' OR (state = 'running' AND lease_until < UTC_TIMESTAMP(3)))`;

/** Puts work on the queue, inside the caller's transaction where one is given. */
export async function enqueue(
  knex: Knex,
  scope: AccessScope,
  kind: JobKind,
  refId: number,
  runAt = new Date(),
): Promise<void> {
  await rowsOf(knex, 'job').insert({
    organization_id: scope.organizationId,
    chapter_id: scope.chapterId,
    kind,
    ref_id: refId,
    run_at: runAt,
    created_by: scope.actorId,
  });
}

/** As `enqueue`, unless the same waits already: one that runs may have begun before what this one is for. */
export async function enqueueOnce(
  knex: Knex,
  scope: AccessScope,
  kind: JobKind,
  refId: number,
): Promise<void> {
  const waiting = await rowsOf(knex, 'job')
    .where({ kind, ref_id: refId, state: 'waiting', cancel: 0 })
    .first('id');
  if (!waiting) await enqueue(knex, scope, kind, refId);
}

/** Asks a waiting or running job to stop at its next step. */
export async function cancel(knex: Knex, kind: JobKind, refId: number): Promise<void> {
  await rowsOf(knex, 'job')
    .where({ kind, ref_id: refId })
    .whereIn('state', ['waiting', 'running'])
    .update({ cancel: 1 });
}

/** Whether any work on a subject is to be done, and whether somebody asked to stop it. */
export async function workOn(
  knex: Knex,
  kind: JobKind,
  refId: number,
): Promise<{ isToBeDone: boolean; isToStop: boolean }> {
  const rows: { cancel: number }[] = await rowsOf(knex, 'job')
    .where({ kind, ref_id: refId })
    .whereIn('state', ['waiting', 'running'])
    .select('cancel');
  return { isToBeDone: rows.length > 0, isToStop: rows.some(({ cancel }) => cancel === 1) };
}

/** Waiting, or left by a process whose lease has run out. */
const isOpen = (now: Knex.Raw) => (q: Knex.QueryBuilder) =>
  void q
    .where('state', 'waiting')
    .orWhere((r) => void r.where('state', 'running').where('lease_until', '<', now));

/**
 * Claims jobs one at a time under a lease that a heartbeat renews. A process that dies leaves a lease that
 * runs out, and the next process to look takes the job up again: handlers go on from what they have
 * committed.
 */
export class JobRunner {
  readonly name = `${hostname()}:${process.pid}`;

  constructor(
    private readonly database: Database,
    private readonly handlers: Record<JobKind, JobHandler>,
    private readonly leaseSeconds: number,
    private readonly log: { info(o: object, m: string): void; error(o: object, m: string): void },
  ) {}

  /** Runs one due job of these kinds; false when there was none. */
  async runOne(kinds: readonly JobKind[] = JOB_KINDS): Promise<boolean> {
    const job = await this.claim(kinds);
    if (!job) return false;
    const beat = setInterval(
      () => void this.renew(job.id).catch(() => undefined),
      (this.leaseSeconds * 1000) / 3,
    );
    try {
      this.log.info(
        { job: job.id, kind: job.kind, ref: job.ref_id, attempt: job.attempts + 1 },
        'job begins',
      );
      const running: Running = {
        scope: programScope(job.organization_id, job.chapter_id),
        refId: job.ref_id,
        stopped: () => this.isStopped(job.id),
        progress: async (done, total) =>
          void (await this.jobs().where({ id: job.id, leased_by: this.name }).update({ done, total })),
      };
      const { kind, ref_id: ref } = job;
      await traced(`job ${kind}`, { job: job.id, ref }, () => this.handlers[kind](running));
      await this.jobs()
        .where({ id: job.id, leased_by: this.name })
        .update({
          state: 'done',
          leased_by: null,
          ended_at: this.database.unscoped().raw('UTC_TIMESTAMP(3)'),
        });
      this.log.info({ job: job.id, kind: job.kind }, 'job done');
    } catch (error) {
      await this.fail(job, error);
    } finally {
      clearInterval(beat);
    }
    return true;
  }

  private jobs(): Knex.QueryBuilder {
    return rowsOf(this.database.unscoped(), 'job');
  }

  private async claim(kinds: readonly JobKind[]): Promise<JobRow | null> {
    return this.database.unscoped().transaction(async (trx) => {
      const job = (await rowsOf(trx, 'job')
        .whereIn('kind', [...kinds])
        .where('run_at', '<=', trx.raw('UTC_TIMESTAMP(3)'))
        .where(isOpen(trx.raw('UTC_TIMESTAMP(3)')))
        .orderBy('id')
        .forUpdate()
        .skipLocked()
        .first()) as JobRow | undefined;
      if (!job) return null;
      await rowsOf(trx, 'job')
        .where('id', job.id)
        .update({
          state: 'running',
          leased_by: this.name,
          lease_until: this.leaseEnd(trx),
          began_at: trx.raw('COALESCE(began_at, UTC_TIMESTAMP(3))'),
        });
      return job;
    });
  }

  private leaseEnd(knex: Knex): Knex.Raw {
    return knex.raw('UTC_TIMESTAMP(3) + INTERVAL ? SECOND', [this.leaseSeconds]);
  }

  private async renew(id: number): Promise<void> {
    await this.jobs()
      .where({ id, leased_by: this.name })
      .update({ lease_until: this.leaseEnd(this.database.unscoped()) });
  }

  private async isStopped(id: number): Promise<boolean> {
    const row = (await this.jobs().where('id', id).first('cancel', 'leased_by')) as
      { cancel: number; leased_by: string } | undefined;
    return !row || row.cancel === 1 || row.leased_by !== this.name;
  }

  /**
   * A lost connection costs no attempt; anything else is tried again, later each time, and given up after
   * five.
   */
  private async fail(job: JobRow, error: unknown): Promise<void> {
    this.log.error({ job: job.id, kind: job.kind, err: error }, 'job failed');
    if (isLostConnection(error)) return;
    const attempts = job.attempts + 1;
    const over = attempts >= MOST_ATTEMPTS;
    await this.jobs()
      .where({ id: job.id, leased_by: this.name })
      .update({
        attempts,
        state: over ? 'failed' : 'waiting',
        leased_by: null,
        error: String((error as Error).message).slice(0, 500),
        run_at: this.database.unscoped().raw('UTC_TIMESTAMP(3) + INTERVAL ? SECOND', [2 ** attempts]),
      });
  }
}
