import { Inject, Injectable } from '@nestjs/common';
import type { BatchWill } from '@goodword/core/contract';
import { readsRefusals, type IntakePlan } from '@goodword/core/intake';
import { Database } from '../../platform/database';
import { type Scoped } from '../../platform/scoped';
import { HandlesJob, type Running } from '../../platform/jobs';
import type { AccessScope } from '../../platform/scope';
import { HouseRulesRepository } from '../../permission/house-rules.repository';
import { GroupsRepository } from '../../supporters/groups.repository';
import { TeamRepository } from '../../team/team.repository';
import { BatchGuard, stillAsked } from '../batch-guard';
import { BatchesRepository, type BatchRow } from '../batches.repository';
import { BringInRepository } from '../bringing-in/bring-in.repository';
import { RowPermissionRepository } from '../bringing-in/row-permission.repository';
import { OtherFilesRepository } from '../other-files/other-files.repository';
import { contentsBefore, type BatchContents } from './batch-contents';
import { ForecastRepository, type ForecastFacts } from './forecast.repository';
import { StagedRowsRepository } from '../staged-rows.repository';

/**
 * What bringing a batch in will write, told before anything is written; and `batch-count`, which counts it
 * once more.
 */
@Injectable()
export class ForecastService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(BatchGuard) private readonly guard: BatchGuard,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(ForecastRepository) private readonly checker: ForecastRepository,
    @Inject(RowPermissionRepository) private readonly permission: RowPermissionRepository,
    @Inject(BringInRepository) private readonly bringer: BringInRepository,
    @Inject(OtherFilesRepository) private readonly others: OtherFilesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(StagedRowsRepository) private readonly staged: StagedRowsRepository,
  ) {}

  /**
   * What can only be told of the whole file: who stays as they are, which gifts are here, what will be
   * written.
   */
  async settle(
    job: Running,
    scope: AccessScope,
    batch: BatchRow,
    plan: IntakePlan,
    { rows, mixed }: { rows: number; mixed: boolean },
  ): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const facts = await this.facts(tx);
      const [staged, permissionFacts] = [
        { ...batch, row_count: rows },
        { rules: facts.rules, now: Date.now(), contents: await contentsBefore(tx, batch.id) },
      ];
      if (plan.existing === 'fill')
        await this.bringer.keepWhatIsThere(tx, { batchId: batch.id, from: 1, to: rows });
      if (plan.what === 'gifts') await this.others.markDoubled(tx, batch.id, facts.currency);
      else if (plan.what !== 'refusals') {
        const writing = await this.permission.writing(tx, staged, plan, permissionFacts);
        await this.checker.markSame(tx, batch.id, plan, await this.knownGroups(tx, plan), writing);
      }
      await this.applyKept(tx, batch.id);
      await this.permission.markStanding(tx, staged, permissionFacts.contents);
      const will = await this.will(tx, staged, plan, facts, permissionFacts.contents);
      await this.batches.change(tx, batch.id, {
        state: 'checked',
        next_row: 0,
        row_count: rows,
        mixed: mixed ? 1 : 0,
        stay_no: will.saidNo,
        will: JSON.stringify(will),
      });
      await stillAsked(job);
    });
  }

  /** What will be written, by the rows as they stand. */
  private async will(
    db: Scoped,
    batch: BatchRow,
    plan: IntakePlan,
    facts: ForecastFacts,
    contents: BatchContents,
  ): Promise<BatchWill> {
    const now = Date.now();
    const entries = readsRefusals(plan.what)
      ? await this.permission.forecast(db, batch, plan, { rules: facts.rules, now, contents })
      : {};
    return this.checker.will(db, batch.id, plan, { ...facts, contents }, entries);
  }

  /**
   * Counts once more what will be written, after somebody has settled rows. One that is brought in meanwhile
   * is left alone.
   */
  @HandlesJob('batch-count')
  async count(job: Running): Promise<void> {
    await this.guard.run(job, 'checked', (scope, batch) => this.recount(scope, batch));
  }

  async recount(scope: AccessScope, batch: BatchRow): Promise<void> {
    const db = this.database.read(scope);
    if (batch.plan!.existing === 'fill')
      await this.bringer.keepWhatIsThere(db, { batchId: batch.id, from: 1, to: batch.row_count });
    const will = await this.will(
      db,
      batch,
      batch.plan!,
      await this.facts(db),
      await contentsBefore(db, batch.id),
    );
    await db.execute(
      `UPDATE batch
        SET will = :will, stay_no = :stay
        WHERE organization_id = :org AND id = :id AND state = :state`,
      {
        id: batch.id,
        will: JSON.stringify(will),
        stay: will.saidNo,
        // Whoever has moved it on meanwhile counts for themselves.
        state: batch.state,
      },
    );
  }

  /** Fields that a person chose to leave as they are, of rows that were merged by hand. */
  private async applyKept(tx: Scoped, batchId: number): Promise<void> {
    for (const { row_no, outcome, keep } of await this.staged.decisions(tx, batchId)) {
      if (outcome === 'merge' && keep.length > 0) await this.staged.keepTheirs(tx, batchId, row_no, keep);
    }
  }

  async facts(db: Scoped): Promise<ForecastFacts> {
    const [organization, rules] = await Promise.all([this.team.organization(db), this.houseRules.rules(db)]);
    return { currency: organization.currency, rules };
  }

  private async knownGroups(
    db: Scoped,
    plan: IntakePlan,
  ): Promise<{ tagIds: number[]; listIds: number[]; allKnown: boolean }> {
    const tags = await Promise.all(plan.newTags.map((name) => this.groups.byName(db, 'tag', name)));
    const lists = await Promise.all(plan.newLists.map(({ name }) => this.groups.byName(db, 'list', name)));
    const ids = (some: (number | null)[]) => some.filter((id) => id !== null);
    return {
      tagIds: [...plan.tagIds, ...ids(tags)],
      listIds: [...plan.listIds, ...ids(lists)],
      allKnown: ![...tags, ...lists].includes(null),
    };
  }
}
