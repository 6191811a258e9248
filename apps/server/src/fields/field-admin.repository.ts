import { Injectable } from '@nestjs/common';
import type { ChangeField } from '@goodword/core/contract';
import { choicesOf, type FieldType, type FieldValue } from '@goodword/core/fields';
import type { Scoped } from '../platform/scoped';
import { valueColumns, type ValueRow } from '../supporters/fields.repository';

const COLUMNS = 'text_value, number_value, date_value, month_day';

/** What is changed about fields themselves. */
@Injectable()
export class FieldAdminRepository {
  async counts(db: Scoped): Promise<Map<number, number>> {
    const rows = await db.sql<{ field_id: number; n: number }>(
      `SELECT v.field_id, COUNT(*) AS n
        FROM field_value v
        WHERE v.organization_id = :org
        GROUP BY v.field_id`,
    );
    return new Map(rows.map((row) => [row.field_id, row.n]));
  }

  async change(
    tx: Scoped,
    id: number,
    { name, section, fallback, help, sensitive, required, choices }: ChangeField,
  ): Promise<void> {
    await tx
      .table('field')
      .where('field.id', id)
      .update({
        name,
        section,
        help,
        is_sensitive: sensitive,
        is_required: required,
        fallback: fallback || null,
        choices: choices?.length ? JSON.stringify(choices) : null,
      });
  }

  async order(tx: Scoped, ids: readonly number[]): Promise<void> {
    if (ids.length > 0)
      await tx.execute(
        'UPDATE field SET position = FIELD(id, :ids) WHERE organization_id = :org AND id IN (:ids)',
        { ids },
      );
  }

  /** All values of a field with whose they are, some thousand at a time. */
  async *values(db: Scoped, fieldId: number): AsyncGenerator<(ValueRow & { name: string })[]> {
    for (let after = 0; ;) {
      const rows = await db.sql<ValueRow & { name: string }>(
        `SELECT v.supporter_id, v.field_id, ${COLUMNS}, TRIM(CONCAT(s.first_name, ' ', s.last_name)) AS name
          FROM field_value v
          JOIN supporter s ON s.id = v.supporter_id
          WHERE v.organization_id = :org AND v.field_id = :fieldId AND v.supporter_id > :after
          ORDER BY v.supporter_id
          LIMIT 5000`,
        { fieldId, after },
      );
      if (rows.length > 0) yield rows;
      if (rows.length < 5000) return;
      after = rows.at(-1)!.supporter_id;
    }
  }

  async setType(tx: Scoped, id: number, type: FieldType): Promise<void> {
    tx.changed('all', 0, 'everybody');
    await tx.table('field').where('field.id', id).update({ type });
  }

  async put(
    tx: Scoped,
    fieldId: number,
    rows: readonly { supporterId: number; value: FieldValue }[],
  ): Promise<void> {
    await tx.execute(
      `DELETE
        FROM field_value
        WHERE organization_id = :org AND field_id = :fieldId AND supporter_id IN (:ids)`,
      {
        fieldId,
        ids: rows.map(({ supporterId }) => supporterId),
      },
    );
    await tx.load(
      'field_value',
      ['supporter_id', 'field_id', 'text_value', 'number_value', 'date_value', 'month_day'],
      rows.map(({ supporterId, value }) => [supporterId, fieldId, ...valueColumns(value)]),
    );
  }

  /** Everybody with the one choice has the other from now on. Returns how many. */
  async renameChoice(tx: Scoped, fieldId: number, from: string, to: string): Promise<number> {
    tx.changed('field', fieldId, 'everybody');
    return tx.execute(
      `UPDATE field_value
        SET text_value = :to
        WHERE organization_id = :org AND field_id = :fieldId AND BINARY text_value = :from`,
      {
        fieldId,
        from,
        to,
      },
    );
  }

  /** What people have in a choice field, with how many; of several choices each counts. */
  async choicesHad(db: Scoped, fieldId: number): Promise<Map<string, number>> {
    const rows = await db.sql<{ text_value: string; n: number }>(
      `SELECT text_value, COUNT(*) AS n
        FROM field_value
        WHERE organization_id = :org AND field_id = :fieldId AND text_value IS NOT NULL
        GROUP BY BINARY text_value`,
      { fieldId },
    );
    const out = new Map<string, number>();
    for (const { text_value, n } of rows)
      for (const choice of choicesOf(text_value)) out.set(choice, (out.get(choice) ?? 0) + n);
    return out;
  }

  async remove(tx: Scoped, id: number): Promise<number> {
    tx.changed('field', id, 'everybody');
    const gone = await tx.execute('DELETE FROM field_value WHERE organization_id = :org AND field_id = :id', {
      id,
    });
    await tx.table('field').where('field.id', id).delete();
    return gone;
  }

  /** Layouts that put a column into the field, and forms that ask for it. */
  async layouts(db: Scoped, id: number): Promise<string[]> {
    const rows = await db.sql<{ name: string; columns: { to: string; fieldId?: number }[] }>(
      'SELECT name, columns FROM layout WHERE organization_id = :org',
    );
    return rows
      .filter((row) => row.columns.some((column) => column.to === 'field' && column.fieldId === id))
      .map((row) => row.name);
  }
}
