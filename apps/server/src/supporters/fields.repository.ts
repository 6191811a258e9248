import { Injectable } from '@nestjs/common';
import type { FieldView } from '@goodword/core/contract';
import type { FieldValue } from '@goodword/core/fields';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export type ValueRow = Pick<
  Tables['field_value'],
  'supporter_id' | 'field_id' | 'text_value' | 'number_value' | 'date_value' | 'month_day'
>;

export function valueOf(row: Omit<ValueRow, 'supporter_id' | 'field_id'>): FieldValue {
  if (row.text_value !== null) return { text: row.text_value };
  if (row.date_value !== null)
    return row.number_value === null
      ? { date: row.date_value }
      : { date: row.date_value, number: row.number_value };
  if (row.number_value !== null) return { number: row.number_value };
  return row.month_day === null ? {} : { monthDay: row.month_day };
}

/** The value in the order of the columns text, number, date, month-day. */
export function valueColumns(
  value: FieldValue,
): [string | null, number | null, number | null, number | null] {
  return [value.text ?? null, value.number ?? null, value.date ?? null, value.monthDay ?? null];
}

/** So many people have what can be shown without telling of one of them. */
const SEVERAL = 5;

/** Fields, and their values on records. Owns `field`, `field_value`. */
@Injectable()
export class FieldsRepository {
  /**
   * Fields in the order that they were put in; sensitive ones for owners and organizers alone, wherever
   * fields are read.
   */
  async all(db: Scoped): Promise<FieldView[]> {
    const all = ['owner', 'organizer'].includes(db.scope.role) ? '' : 'AND is_sensitive = 0';
    const rows = await db.sql<Omit<FieldView, 'sensitive' | 'required'> & { hidden: number; needed: number }>(
      `SELECT id, name, type, section, fallback, choices, help, is_sensitive AS hidden, is_required AS needed
        FROM field
        WHERE organization_id = :org ${all}
        ORDER BY position, section, id`,
    );
    return rows.map(({ hidden, needed, ...row }) => ({
      ...row,
      sensitive: hidden === 1,
      required: needed === 1,
    }));
  }

  /**
   * What strangers are offered: the choices that the field was given; where it has none, what several people
   * have in it. What stands on one person's record alone is nobody else's to read.
   */
  async offered(db: Scoped, fieldId: number): Promise<string[]> {
    const [field] = await db.sql<{ choices: string[] | null }>(
      'SELECT choices FROM field WHERE organization_id = :org AND id = :fieldId',
      {
        fieldId,
      },
    );
    if (field?.choices?.length) return field.choices;
    const rows = await db.sql<{ text_value: string }>(
      `SELECT text_value
        FROM field_value
        WHERE organization_id = :org AND field_id = :fieldId AND text_value IS NOT NULL
        GROUP BY text_value HAVING COUNT(*) >= :several ORDER BY COUNT(*) DESC LIMIT 40`,
      { fieldId, several: SEVERAL },
    );
    return rows.map((row) => row.text_value);
  }

  /** The choices that a field was given, then what people have in it beside, the most frequent first. */
  async choices(db: Scoped, fieldId: number): Promise<string[]> {
    const [field] = await db.sql<{ choices: string[] | null }>(
      'SELECT choices FROM field WHERE organization_id = :org AND id = :fieldId',
      {
        fieldId,
      },
    );
    const rows = await db.sql<{ text_value: string }>(
      `SELECT text_value
        FROM field_value
        WHERE organization_id = :org AND field_id = :fieldId AND text_value IS NOT NULL
        GROUP BY text_value
        ORDER BY COUNT(*) DESC
        LIMIT 40`,
      { fieldId },
    );
    return [...new Set([...(field?.choices ?? []), ...rows.map((row) => row.text_value)])];
  }

  async make(
    tx: Scoped,
    field: {
      name: string;
      type: string;
      section?: string;
      choices?: readonly string[];
      fallback?: string | null;
      batchId?: number | null;
    },
  ): Promise<number> {
    return tx.insert('field', {
      name: field.name,
      type: field.type,
      section: field.section || 'More',
      choices: field.choices?.length ? JSON.stringify(field.choices) : null,
      fallback: field.fallback || null,
      batch_id: field.batchId ?? null,
    });
  }

  async valuesOf(db: Scoped, supporterIds: readonly number[]): Promise<ValueRow[]> {
    if (supporterIds.length === 0) return [];
    return db.sql<ValueRow>(
      `SELECT supporter_id, field_id, text_value, number_value, date_value, month_day
        FROM field_value
        WHERE organization_id = :org AND supporter_id IN (:supporterIds)`,
      { supporterIds },
    );
  }

  /** Sets a value, or takes it away where it is empty. */
  async set(tx: Scoped, supporterId: number, fieldId: number, value: FieldValue | null): Promise<void> {
    tx.changed('field', fieldId, [supporterId]);
    await tx.execute(
      `DELETE
        FROM field_value
        WHERE organization_id = :org AND supporter_id = :supporterId AND field_id = :fieldId`,
      {
        supporterId,
        fieldId,
      },
    );
    if (!value) return;
    const [text, number, date, monthDay] = valueColumns(value);
    await tx.insertAll(
      'field_value',
      ['supporter_id', 'field_id', 'text_value', 'number_value', 'date_value', 'month_day'],
      [[supporterId, fieldId, text, number, date, monthDay]],
    );
  }
}
