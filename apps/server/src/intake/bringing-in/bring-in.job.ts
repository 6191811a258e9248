import { Inject, Injectable } from '@nestjs/common';
import { allColumns, layoutKey, type IntakePlan } from '@goodword/core/intake';
import { nameKey } from '@goodword/core/merge';
import type { HouseRules } from '@goodword/core/permission';
import { DoNotContactService } from '../../permission/do-not-contact.service';
import { Database } from '../../platform/database';
import { type Scoped } from '../../platform/scoped';
import { HandlesJob, type Running } from '../../platform/jobs';
import type { AccessScope } from '../../platform/scope';
import { FieldsRepository } from '../../supporters/fields.repository';
import { GroupsRepository } from '../../supporters/groups.repository';
import { BatchGuard } from '../batch-guard';
import { BatchesRepository, type BatchRow, type ResolvedPlan } from '../batches.repository';
import { contentsOf, type BatchContents } from '../checking/batch-contents';
import { ForecastService } from '../checking/forecast.service';
import { LayoutsRepository } from '../layouts/layouts.repository';
import { OtherFilesRepository } from '../other-files/other-files.repository';
import { BatchNotices } from './batch-notices';
import { BringInRepository } from './bring-in.repository';

/** Rows that are brought in by one transaction. */
const SLICE = 2000;

/** `batch-bring-in`: staged rows become people, slice by slice. */
@Injectable()
export class BringInJob {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(BatchGuard) private readonly guard: BatchGuard,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(ForecastService) private readonly forecast: ForecastService,
    @Inject(BringInRepository) private readonly bringer: BringInRepository,
    @Inject(OtherFilesRepository) private readonly others: OtherFilesRepository,
    @Inject(LayoutsRepository) private readonly layouts: LayoutsRepository,
    @Inject(BatchNotices) private readonly notices: BatchNotices,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
  ) {}

  /** Brings staged rows in, slice by slice; each slice commits together with how far it is. */
  @HandlesJob('batch-bring-in')
  async run(job: Running): Promise<void> {
    await this.guard.run(job, 'bringing', async (scope, batch) => {
      const plan = batch.plan!;
      // Brought in before it was counted anew.
      if (!batch.will && batch.next_row === 0) await this.forecast.recount(scope, batch);
      const resolved = await this.resolve(scope, batch, plan);
      const { currency, rules } = await this.forecast.facts(this.database.read(scope));
      let next = (await this.batches.find(this.database.read(scope), batch.id))?.next_row ?? 0;
      const [began, first] = [Date.now(), next];
      const contents = await contentsOf(this.database.read(scope), batch.id);
      const people = (from: number) => this.people(scope, batch, plan, contents, from);
      // The people of the next rows are made while what hangs on these is written: two statements at a time.
      let ahead = people(next);
      while (next < batch.row_count) {
        const to = await ahead;
        const stopping = await job.stopped();
        ahead = stopping ? Promise.resolve(to) : people(to);
        ahead.catch(() => undefined);
        await this.database.write(
          scope,
          async (tx) => {
            tx.changed(
              'people',
              0,
              await this.bringer.peopleOf(tx, { batchId: batch.id, from: next + 1, to }),
            );
            await this.bringSlice(tx, batch, plan, resolved, contents, {
              from: next + 1,
              to,
              rules,
              currency,
            });
            await this.batches.change(tx, batch.id, {
              next_row: to,
              rate: ((to - first) / (Date.now() - began + 1)) * 1000,
            });
          },
          'read committed',
        );
        next = to;
        if (stopping && next < batch.row_count) return this.leave(scope, batch.id, 'stopped');
      }
      await this.flagDoNotContact(scope, batch.id);
      await this.database.writeUnlogged(scope, (tx) =>
        this.batches.change(tx, batch.id, { state: 'done', ended_at: new Date(), seen_at: null }),
      );
      // What comes by a feed has no file that anybody would bring again.
      if (!plan.feed) await this.rememberLayout(scope, batch, resolved);
      await this.notices.tell(scope, batch.id);
    });
  }

  /** Makes the people of the rows after `done`, and their addresses; returns the last of these rows. */
  private async people(
    scope: AccessScope,
    batch: BatchRow,
    plan: IntakePlan,
    contents: BatchContents,
    done: number,
  ): Promise<number> {
    const to = Math.min(done + SLICE, batch.row_count);
    if (to > done && plan.what !== 'here' && plan.what !== 'refusals')
      await this.database.writeUnlogged(
        scope,
        (tx) => {
          // The second half of these rows tells of their people.
          tx.toldLater();
          return this.bringer.bringPeople(tx, batch, contents, { from: done + 1, to });
        },
        'read committed',
      );
    return to;
  }

  private async bringSlice(
    tx: Scoped,
    batch: BatchRow,
    plan: IntakePlan,
    resolved: ResolvedPlan,
    contents: BatchContents,
    within: { from: number; to: number; rules: HouseRules; currency: string },
  ): Promise<void> {
    const slice = { batchId: batch.id, from: within.from, to: within.to };
    if (plan.what !== 'refusals') await this.bringer.bringIn(tx, batch, plan, resolved, contents, within);
    if (plan.what === 'gifts') await this.others.give(tx, batch, slice, within.currency);
    if (plan.what !== 'refusals') return;
    for (const { kind, normal } of await this.others.refuse(tx, batch, slice, plan.refusal)) {
      await this.doNotContact.close(
        tx,
        kind,
        normal,
        'file',
        `Refused in another system: ${batch.file_name}`,
      );
    }
  }

  /** Makes the plan's new fields, tags and lists, once. */
  private async resolve(scope: AccessScope, batch: BatchRow, plan: IntakePlan): Promise<ResolvedPlan> {
    if (batch.resolved) return batch.resolved;
    return this.database.writeUnlogged(scope, async (tx) => {
      const resolved: ResolvedPlan = { fields: {}, tagIds: [...plan.tagIds], listIds: [...plan.listIds] };
      for (const [column, choice] of allColumns(plan).entries()) {
        if (choice.to !== 'newField') continue;
        const known = (await this.fields.all(tx)).find(
          (field) => nameKey(field.name) === nameKey(choice.name),
        );
        resolved.fields[column] = known?.id ?? (await this.fields.make(tx, { ...choice, batchId: batch.id }));
      }
      for (const name of plan.newTags)
        resolved.tagIds.push(
          (await this.groups.byName(tx, 'tag', name)) ?? (await this.groups.makeTag(tx, name, batch.id)),
        );
      for (const { name, folder } of plan.newLists)
        resolved.listIds.push(
          (await this.groups.byName(tx, 'list', name)) ??
            (await this.groups.makeList(tx, { name, folder }, batch.id)),
        );
      await this.bringer.resolveValues(tx, batch.id, resolved.fields);
      await this.batches.change(tx, batch.id, { resolved: JSON.stringify(resolved) });
      return resolved;
    });
  }

  /** The same headers next time get the same columns, without anybody asking for it. */
  private async rememberLayout(scope: AccessScope, batch: BatchRow, resolved: ResolvedPlan): Promise<void> {
    const header = batch.found?.header ?? [];
    if (header.length === 0 || layoutKey(header) === '' || batch.found?.headerLine === null) return;
    const columns = batch.plan!.columns.map((choice, i) => {
      const fieldId = resolved.fields[i];
      return choice.to === 'newField' && fieldId
        ? {
            to: 'field' as const,
            fieldId,
            type: choice.type,
            ...(choice.order ? { order: choice.order } : {}),
          }
        : choice;
    });
    await this.database.writeUnlogged({ ...scope, actorId: batch.created_by }, (tx) =>
      this.layouts.remember(tx, { name: batch.name, what: batch.what, header, columns }),
    );
  }

  /** New addresses that are on do-not-contact, themselves or by their domain or range, are marked as such. */
  private async flagDoNotContact(scope: AccessScope, batchId: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      if (await this.doNotContact.isEmpty(tx)) return;
      const points = await tx.sql<{ id: number; kind: string; normal: string }>(
        `SELECT DISTINCT cp.id, cp.kind, cp.normal
          FROM batch_row r
          JOIN supporter_contact sc ON sc.supporter_id = r.supporter_id
          JOIN contact_point cp ON cp.id = sc.contact_point_id
          WHERE r.organization_id = :org AND r.batch_id = :batchId AND cp.batch_id = :batchId
          AND cp.do_not_contact = 0`,
        { batchId },
      );
      await this.doNotContact.closeNew(tx, points);
    });
  }

  private async leave(scope: AccessScope, id: number, state: string): Promise<void> {
    await this.database.writeUnlogged(scope, (tx) => this.batches.change(tx, id, { state }));
  }
}
