import { Inject, Injectable } from '@nestjs/common';
import type { DecideRowsBody, DoubleView } from '@goodword/core/contract';
import type { RowVerdict } from '@goodword/core/intake';
import { formatValue } from '@goodword/core/fields';
import { Database } from '../../platform/database';
import { type Scoped } from '../../platform/scoped';
import { Conflict, Invalid, NotFound } from '../../platform/errors';
import { enqueueOnce } from '../../platform/jobs';
import type { AccessScope } from '../../platform/scope';
import { FieldsRepository, valueOf } from '../../supporters/fields.repository';
import { SupportersRepository } from '../../supporters/supporters.repository';
import { TeamRepository } from '../../team/team.repository';
import { BatchesRepository, type BatchRow } from '../batches.repository';
import { type StagedView } from '../staged-rows.repository';
import { OtherFilesRepository } from '../other-files/other-files.repository';
import { settledVerdict } from '../checking/stager';
import { sentence } from '../../platform/words';
import { StagedRowsRepository } from '../staged-rows.repository';
import { ContactPointsRepository } from '../../supporters/contact-points.repository';

/** Rows that may be somebody who is here: seen side by side, and settled by a person. */
@Injectable()
export class DoublesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(OtherFilesRepository) private readonly others: OtherFilesRepository,
    @Inject(StagedRowsRepository) private readonly staged: StagedRowsRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  /** A row beside the people it may be, field by field. */
  async sideBySide(scope: AccessScope, id: number, rowNo: number): Promise<DoubleView> {
    const db = this.database.read(scope);
    const row = await this.staged.row(db, id, rowNo);
    if (!row || !(await this.batches.find(db, id))) throw new NotFound('row');
    const candidates = row.candidates ?? [];
    const ids = candidates.map((one) => one.id).filter((one) => one > 0);
    const [own, earlier, people, fields, values, staged, points] = await Promise.all([
      this.team.organization(scope),
      Promise.all(candidates.filter((one) => one.id < 0).map((one) => this.staged.row(db, id, -one.id))),
      this.supporters.byIds(db, ids),
      this.fields.all(db),
      this.fields.valuesOf(db, ids),
      this.staged.valuesOf(db, id, [rowNo, ...candidates.filter((one) => one.id < 0).map((one) => -one.id)]),
      this.contacts.points(db, ids),
    ]);
    const manner = { locale: own.locale, currency: own.currency };
    const known = people.map((person) => ({
      id: person.id,
      first: person.first_name,
      last: person.last_name,
      email: points
        .filter((one) => one.supporter_id === person.id && one.kind === 'email')
        .map((one) => one.shown),
      mobile: points
        .filter((one) => one.supporter_id === person.id && one.kind === 'mobile')
        .map((one) => one.shown),
    }));
    const rows = earlier
      .filter((one): one is StagedView => !!one)
      .map((one) => ({
        id: -one.row_no,
        first: one.first_name,
        last: one.last_name,
        email: [one.email_shown ?? ''],
        mobile: [one.mobile_shown ?? ''],
      }));
    const all = [...known, ...rows];
    const of = (pick: (one: (typeof all)[number]) => string) =>
      Object.fromEntries(all.map((one) => [one.id, pick(one)]));
    const fieldRows = fields.flatMap((field) => {
      const mine = staged.find((one) => one.row_no === rowNo && one.field_id === field.id);
      const theirs = Object.fromEntries(
        all.map((one) => {
          const value =
            one.id > 0
              ? values.find((v) => v.supporter_id === one.id && v.field_id === field.id)
              : staged.find((v) => v.row_no === -one.id && v.field_id === field.id);
          return [one.id, value ? formatValue(field.type, valueOf(value), manner) : ''];
        }),
      );
      const row = mine ? formatValue(field.type, valueOf(mine), manner) : '';
      return row || Object.values(theirs).some(Boolean)
        ? [{ key: `field:${field.id}`, name: field.name, row, theirs }]
        : [];
    });
    return {
      row: rowNo,
      why: row.why,
      people: candidates.flatMap((one) => {
        const person = all.find((some) => some.id === one.id);
        return person
          ? [
              {
                ...one,
                name: `${person.first} ${person.last}`.trim() || 'No name',
                supporterId: one.id > 0 ? one.id : null,
                rowNo: one.id < 0 ? -one.id : null,
              },
            ]
          : [];
      }),
      fields: [
        { key: 'firstName', name: 'First name', row: row.first_name, theirs: of((one) => one.first) },
        { key: 'lastName', name: 'Last name', row: row.last_name, theirs: of((one) => one.last) },
        {
          key: 'email',
          name: 'Email',
          row: row.email_shown ?? '',
          theirs: of((one) => one.email.join(', ')),
        },
        {
          key: 'mobile',
          name: 'Phone',
          row: row.mobile_shown ?? '',
          theirs: of((one) => one.mobile.join(', ')),
        },
        ...fieldRows,
      ],
    };
  }

  /**
   * Settles rows: merged with whom they may be, brought in as somebody new, or left out. Returns how many.
   */
  async decide(scope: AccessScope, id: number, decision: DecideRowsBody): Promise<{ rows: number }> {
    const { currency } = await this.team.organization(scope);
    return this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.batches.find(tx, id);
      if (!batch) throw new NotFound('batch');
      if (batch.state !== 'checked') throw new Conflict(sentence('looks.when'));
      if (!decision.rows && !decision.why)
        throw new Invalid([{ field: 'rows', code: 'missing', message: sentence('looks.which') }]);
      const verdict = settledVerdict(batch.what, decision.as);
      if (decision.why && !decision.rows) {
        const settled = await this.staged.decideKind(tx, id, decision.why, decision.as, verdict);
        await this.changed(tx, batch, currency);
        return { rows: settled };
      }
      const rows = await this.staged.possibleDuplicates(tx, id, decision.rows ?? []);
      const settled = rows.map((row) => ({
        row,
        withId: decision.as === 'merge' ? this.whom(row, decision) : null,
      }));
      for (const { row, withId } of settled)
        await this.settle(tx, id, row.row_no, { ...decision, verdict }, withId);
      await this.changed(tx, batch, currency);
      return { rows: rows.length };
    });
  }

  /** What was counted before holds no longer; and a gift whose giver is known now may be here already. */
  private async changed(tx: Scoped, { id, what }: BatchRow, currency: string): Promise<void> {
    if (what === 'gifts') await this.others.markDoubled(tx, id, currency);
    await this.batches.change(tx, id, { will: null });
    await enqueueOnce(tx.knex, tx.scope, 'batch-count', id);
  }

  private whom(row: StagedView, decision: DecideRowsBody): number {
    const candidates = row.candidates ?? [];
    const chosen =
      decision.supporterId === undefined
        ? candidates[0]
        : candidates.find((one) => one.id === decision.supporterId);
    if (!chosen)
      throw new Invalid([
        { field: 'supporterId', code: 'candidate', message: sentence('looks.person', { rowNo: row.row_no }) },
      ]);
    return chosen.id;
  }

  private async settle(
    tx: Scoped,
    id: number,
    rowNo: number,
    decision: DecideRowsBody & { verdict: RowVerdict },
    withId: number | null,
  ): Promise<void> {
    await this.staged.decide(tx, id, rowNo, {
      as: decision.as,
      verdict: decision.verdict,
      withId,
      keep: decision.keep,
      actorId: tx.scope.actorId,
    });
    if (decision.as === 'merge' && decision.keep.length > 0)
      await this.staged.keepTheirs(tx, id, rowNo, decision.keep);
  }

  /** Puts a settled row back to be looked at. */
  async undecide(scope: AccessScope, id: number, rowNo: number): Promise<void> {
    const { currency } = await this.team.organization(scope);
    await this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.batches.find(tx, id);
      if (!batch) throw new NotFound('batch');
      if (batch.state !== 'checked') throw new Conflict(sentence('looks.when'));
      await this.staged.undecide(tx, id, rowNo);
      await this.changed(tx, batch, currency);
    });
  }
}
