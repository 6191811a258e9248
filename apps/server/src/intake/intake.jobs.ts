import { Inject, Injectable } from '@nestjs/common';
import type { BatchState } from '@goodword/core/contract';
import { readFile, type IntakePlan, type Sheet } from '@goodword/core/intake';
import { Database, isLostConnection } from '../platform/database';
import type { Running } from '../platform/jobs';
import type { Scope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { DoNotContactService } from '../permission/do-not-contact.service';
import { TeamRepository } from '../team/team.repository';
import { FieldsRepository } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { BatchesRepository, type BatchRow, type Resolved, type StagedRow } from './batches.repository';
import { BringInRepository } from './bring-in.repository';
import { Stager } from './stage';
import { TakeOutRepository } from './take-out.repository';

const SLICE = 2000;

/** Where a batch stands after work on it failed: the step before, from which a person can go on. */
const BACK_TO: Partial<Record<BatchState, BatchState>> = { checking: 'draft', bringing: 'stopped', 'taking-out': 'done' };

/** The three pieces of work on a batch. Each goes on from what is committed, however it was interrupted. */
@Injectable()
export class IntakeJobs {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(BringInRepository) private readonly bringer: BringInRepository,
    @Inject(TakeOutRepository) private readonly taker: TakeOutRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
  ) {}

  /** Cleans and matches every row and stages it with its verdict. Begins anew when interrupted. */
  async check(job: Running): Promise<void> {
    await this.guarded(job, 'checking', async (scope, batch, plan) => {
      const sheet = await this.sheet(batch);
      const { country } = await this.team.organization(scope);
      const stager = new Stager(plan, country);
      await this.database.write(scope, (tx) => this.batches.clearStaged(tx, batch.id));
      for (let at = 0; at < sheet.rows.length; at += SLICE) {
        if (await job.stopped()) return this.leave(scope, batch.id, 'draft');
        const staged = await this.stageSlice(scope, batch, stager, sheet, at);
        await this.database.write(scope, async (tx) => {
          await this.batches.stage(tx, batch.id, staged);
          await this.batches.change(tx, batch.id, { next_row: at + staged.length });
        });
      }
      await this.database.write(scope, async (tx) => {
        const stay = await Promise.all(
          (['email', 'text'] as const).map((channel) => {
            const said = plan.permission[channel];
            return said.said === 'yes' ? this.batches.countStayNo(tx, batch.id, channel, said.scopes) : 0;
          }),
        );
        await this.batches.change(tx, batch.id, { state: 'checked', next_row: 0, stay_no: stay[0]! + stay[1]! });
      });
    });
  }

  private async stageSlice(scope: Scope, batch: BatchRow, stager: Stager, sheet: Sheet, at: number): Promise<StagedRow[]> {
    const clean = sheet.rows.slice(at, at + SLICE).map((cells) => stager.clean(cells));
    const db = this.database.read(scope);
    const normals = (kind: 'email' | 'mobile') => [...new Set(clean.flatMap((row) => (row[kind] ? [row[kind].normal] : [])))];
    const [emails, mobiles] = await Promise.all(
      (['email', 'mobile'] as const).map((kind) => this.batches.candidates(db, batch.chapter_id, kind, normals(kind))),
    );
    const onFile = new Map<string, typeof emails>();
    for (const candidate of [...emails!, ...mobiles!]) {
      const key = `${candidate.by}:${candidate.normal}`;
      onFile.set(key, [...(onFile.get(key) ?? []), candidate]);
    }
    return clean.map((row, i) => stager.stage(at + i + 1, row, ({ kind, normal }) => onFile.get(`${kind}:${normal}`) ?? []));
  }

  /** Brings staged rows in, slice by slice; each slice commits together with how far it is. */
  async bringIn(job: Running): Promise<void> {
    await this.guarded(job, 'bringing', async (scope, batch, plan) => {
      const resolved = await this.resolve(scope, batch, plan);
      let next = (await this.batches.find(this.database.read(scope), batch.id))?.next_row ?? 0;
      const [began, first] = [Date.now(), next];
      while (next < batch.row_count) {
        if (await job.stopped()) return this.leave(scope, batch.id, 'stopped');
        const to = Math.min(next + SLICE, batch.row_count);
        await this.database.write(scope, async (tx) => {
          await this.bringer.bringIn(tx, batch, plan, resolved, next + 1, to);
          await this.batches.change(tx, batch.id, { next_row: to, rate: ((to - first) / (Date.now() - began + 1)) * 1000 });
        });
        next = to;
      }
      await this.flagDoNotContact(scope, batch.id);
      await this.leave(scope, batch.id, 'done');
    });
  }

  /** Makes the plan's new fields, tags and list, once. */
  private async resolve(scope: Scope, batch: BatchRow, plan: IntakePlan): Promise<Resolved> {
    if (batch.resolved) return batch.resolved;
    return this.database.write(scope, async (tx) => {
      const resolved: Resolved = { fields: {}, tagIds: [...plan.tagIds], listId: plan.listId };
      for (const [column, choice] of plan.columns.entries()) {
        if (choice.to !== 'newField') continue;
        const known = (await this.fields.all(tx)).find((field) => field.name.toLowerCase() === choice.name.toLowerCase());
        resolved.fields[column] = known?.id ?? (await this.fields.make(tx, { name: choice.name, type: choice.type, batchId: batch.id }));
      }
      for (const name of plan.newTags)
        resolved.tagIds.push((await this.groups.byName(tx, 'tag', name)) ?? (await this.groups.makeTag(tx, name, batch.id)));
      if (plan.newList)
        resolved.listId = (await this.groups.byName(tx, 'list', plan.newList)) ?? (await this.groups.makeList(tx, { name: plan.newList }, batch.id));
      await this.bringer.resolveValues(tx, batch.id, resolved.fields);
      await this.batches.change(tx, batch.id, { resolved: JSON.stringify(resolved) });
      return resolved;
    });
  }

  /** New addresses that are on do-not-contact, themselves or by their domain or range, are marked as such. */
  private async flagDoNotContact(scope: Scope, batchId: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      if (await this.doNotContact.isEmpty(tx)) return;
      const points = await tx.sql<{ id: number; kind: string; normal: string }>(
        'SELECT id, kind, normal FROM contact_point WHERE organization_id = :org AND batch_id = :batchId AND do_not_contact = 0',
        { batchId },
      );
      await this.doNotContact.closeNew(tx, points);
    });
  }

  async takeOut(job: Running): Promise<void> {
    await this.guarded(job, 'taking-out', async (scope, batch) => {
      await this.database.write(scope, async (tx) => {
        await this.taker.takeOut(tx, batch.id);
        await this.batches.change(tx, batch.id, { state: 'taken-out' });
      });
    });
  }

  private async leave(scope: Scope, id: number, state: string): Promise<void> {
    await this.database.write(scope, (tx) => this.batches.change(tx, id, { state }));
  }

  /** Runs the work when the batch still waits for it; a fault of the file ends the batch with its sentence. */
  private async guarded(job: Running, state: string, work: (scope: Scope, batch: BatchRow, plan: IntakePlan) => Promise<void>): Promise<void> {
    const batch = await this.batches.find(this.database.read({ ...job.scope, chapterId: null }), job.refId);
    if (!batch?.plan || batch.state !== state) return;
    const scope = { ...job.scope, chapterId: batch.chapter_id };
    try {
      await work(scope, batch, batch.plan);
    } catch (error) {
      // A lost connection leaves the job to be taken up again; anything else would only fail again.
      if (isLostConnection(error)) throw error;
      const problem = `It could not go on: ${(error as Error).message}`.slice(0, 500);
      await this.database.write(scope, (tx) => this.batches.change(tx, batch.id, { problem, state: BACK_TO[batch.state] ?? 'draft' }));
    }
  }

  private async sheet(batch: BatchRow): Promise<Sheet> {
    const read = readFile(await this.storage.get(batch.storage_key), batch.plan?.reading);
    if (!read.ok) throw new Error(read.reason);
    return read.sheet;
  }
}
