import { Inject, Injectable } from '@nestjs/common';
import { dayInZone, isoDay } from '@goodword/core/common';
import type { BatchRowView, BatchView, Page, RowVerdict } from '@goodword/core/contract';
import { choiceKey, permissionFaults, readFile, writeCsv, type FileReading, type IntakePlan, type Sheet } from '@goodword/core/intake';
import { audit } from '../platform/audit';
import { Database, type Scoped } from '../platform/database';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import { cancel, enqueue } from '../platform/jobs';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { Scope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { TeamRepository } from '../team/team.repository';
import { BatchesRepository, type BatchRow } from './batches.repository';
import { TakeOutRepository } from './take-out.repository';

@Injectable()
export class IntakeService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(TakeOutRepository) private readonly taker: TakeOutRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** Takes a file, or says in a sentence why it can't be one. */
  async take(scope: Scope, name: string, fileName: string, bytes: Buffer): Promise<{ id: number }> {
    const sheet = readBytes(bytes);
    const chapterId = scope.chapterId ?? (await this.team.chapters(scope))[0]?.id;
    if (chapterId === undefined) throw new Conflict('There is no chapter to bring people into. Make one in House rules first.');
    const storageKey = await this.storage.put(bytes);
    const id = await this.database.write(scope, (tx) => this.batches.make(tx, { chapterId, name, fileName, storageKey, rows: sheet.rows.length }));
    return { id };
  }

  async list(scope: Scope): Promise<BatchView[]> {
    const db = this.database.read(scope);
    const rows = await this.batches.recent(db);
    const counts = await this.batches.countsOfAll(
      db,
      rows.map((row) => row.id),
    );
    return rows.map((row) => view(row, Object.fromEntries(counts.filter((c) => c.batch_id === row.id).map((c) => [c.verdict, c.n])), 0, null));
  }

  async show(scope: Scope, id: number): Promise<BatchView> {
    const db = this.database.read(scope);
    const batch = await this.batch(db, id);
    const { counts, withFaults } = await this.batches.counts(db, id);
    return view(batch, counts, withFaults, await this.whyNotTakeOut(db, batch));
  }

  /** Fixes what becomes of the file and has it checked. There is no way past the permission step. */
  async plan(scope: Scope, id: number, plan: IntakePlan): Promise<void> {
    const { time_zone } = await this.team.organization(scope);
    await this.database.write(scope, async (tx) => {
      const batch = await this.batch(tx, id);
      if (!['draft', 'checked', 'failed', 'checking'].includes(batch.state))
        throw new Conflict('This batch was brought in already. Take it back out to change its plan.');
      const faults = [...columnFaults(plan), ...permissionFaults(plan, isoDay(dayInZone(Date.now(), time_zone)))];
      if (faults.length > 0) throw new Invalid(faults.map((message) => ({ field: 'permission', code: 'plan', message })));
      await cancel(tx.knex, 'batch-check', id);
      await this.batches.change(tx, id, { plan: JSON.stringify(plan), resolved: null, state: 'checking', next_row: 0, problem: null });
      await enqueue(tx.knex, scope, 'batch-check', id);
    });
  }

  async bringIn(scope: Scope, id: number): Promise<void> {
    await this.move(scope, id, ['checked', 'stopped'], 'bringing', 'batch-bring-in', 'Check it first; then it can be brought in.');
  }

  async stop(scope: Scope, id: number): Promise<void> {
    const batch = await this.batch(this.database.read(scope), id);
    if (batch.state !== 'bringing') throw new Conflict('It is not running, so there is nothing to stop.');
    await cancel(this.database.read(scope).knex, 'batch-bring-in', id);
  }

  async takeOut(scope: Scope, id: number): Promise<void> {
    const db = this.database.read(scope);
    const why = await this.whyNotTakeOut(db, await this.batch(db, id));
    if (why) throw new Conflict(why);
    await this.move(scope, id, ['done', 'stopped'], 'taking-out', 'batch-take-out', 'Only a batch that was brought in can be taken back out.');
  }

  private async move(
    scope: Scope,
    id: number,
    from: string[],
    to: string,
    job: 'batch-bring-in' | 'batch-take-out',
    otherwise: string,
  ): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const batch = await this.batch(tx, id);
      if (!from.includes(batch.state)) throw new Conflict(otherwise);
      await this.batches.change(tx, id, { state: to, problem: null });
      await enqueue(tx.knex, scope, job, id);
      await audit(tx, { act: to, subject: 'batch', subjectId: id, words: `${batch.name}: ${to}` });
    });
  }

  private async whyNotTakeOut(db: Scoped, batch: BatchRow): Promise<string | null> {
    if (!['done', 'stopped'].includes(batch.state)) return 'It has not been brought in.';
    const sent = await this.taker.countSent(db, batch.id);
    if (sent === 0) return null;
    return `${sent === 1 ? '1 message went' : `${sent} messages went`} out on its strength, so the proof of why must stay. Its people can be deleted or taken off lists instead.`;
  }

  async rows(scope: Scope, id: number, query: { verdict?: RowVerdict; after?: string; limit: number }): Promise<Page<BatchRowView>> {
    const db = this.database.read(scope);
    await this.batch(db, id);
    const after = Number(decodeCursor(query.after, 1)?.[0] ?? 0);
    const { rows, total } = await this.batches.rows(db, id, query.verdict, after, query.limit);
    const last = rows.length === query.limit ? rows.at(-1)! : null;
    return {
      total,
      next: last ? encodeCursor([last.row_no]) : null,
      rows: rows.map((row) => ({
        row: row.row_no,
        verdict: row.verdict,
        firstName: row.first_name,
        lastName: row.last_name,
        email: row.email_shown,
        mobile: row.mobile_shown,
        reason: row.reason,
        supporterId: row.supporter_id,
      })),
    };
  }

  /** The rows to mend, as they stood in the file, with the reason in a last column. */
  async faultyCsv(scope: Scope, id: number): Promise<{ name: string; csv: string }> {
    const db = this.database.read(scope);
    const batch = await this.batch(db, id);
    const sheet = readBytes(await this.storage.get(batch.storage_key), batch.plan?.reading);
    const faulty = await this.batches.faulty(db, id);
    const rows = faulty.map(({ row_no, reason }) => {
      const cells = sheet.rows[row_no - 1] ?? [];
      return [...sheet.header.map((_name, i) => cells[i] ?? ''), reason];
    });
    return { name: `${batch.name.replace(/[^\w -]/g, '')} - rows to mend.csv`, csv: writeCsv([...sheet.header, 'Why'], rows) };
  }

  private async batch(db: Scoped, id: number): Promise<BatchRow> {
    const batch = await this.batches.find(db, id);
    if (!batch) throw new NotFound('batch');
    return batch;
  }
}

function readBytes(bytes: Buffer, reading?: FileReading): Sheet {
  const read = readFile(bytes, reading);
  if (!read.ok) throw new Invalid([{ field: 'file', code: 'unreadable', message: read.reason }]);
  return read.sheet;
}

function columnFaults(plan: IntakePlan): string[] {
  const keys = plan.columns.filter((choice) => choice.to !== 'leave').map(choiceKey);
  const twice = keys.find((key, i) => keys.indexOf(key) !== i);
  const faults = twice ? [`Two columns are matched to the same place (${twice}). Leave one of them out.`] : [];
  const reachable = plan.columns.some((choice) => choice.to === 'email' || choice.to === 'mobile');
  return reachable ? faults : [...faults, 'No column is matched to Email or Mobile, so nobody could be reached. Match one.'];
}

function view(batch: BatchRow, counts: BatchView['counts'], withFaults: number, canTakeOut: string | null): BatchView {
  return {
    id: batch.id,
    name: batch.name,
    fileName: batch.file_name,
    state: batch.state,
    rows: batch.row_count,
    createdAt: batch.created_at.toISOString(),
    createdBy: batch.created_by_name ?? '',
    plan: batch.plan,
    counts,
    withFaults,
    stayNo: batch.stay_no,
    done: batch.next_row,
    total: batch.row_count,
    rate: batch.rate,
    problem: batch.problem,
    canTakeOut,
  };
}
