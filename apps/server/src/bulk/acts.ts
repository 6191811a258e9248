import type { BulkAct } from '@goodword/core/contract';
import type { FieldValue } from '@goodword/core/fields';
import {
  ADDRESS_KIND,
  type CollectionMethod,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import type { LedgerRepository } from '../permission/ledger/ledger.repository';
import type { Bound, Scoped } from '../platform/scoped';
import { valueColumns } from '../supporters/fields.repository';
import { takes } from '../permission/line.sql';

/** Some people of one act: those after `from` up to `to`. */
export interface BulkSlice extends Record<string, Bound> {
  bulkId: number;
  from: number;
  to: number;
}

const SLICE =
  'm.organization_id = :org AND m.bulk_id = :bulkId AND m.supporter_id > :from AND m.supporter_id <= :to';
/** People of the slice who are still here and of the caller's chapter. */
const HERE = `JOIN supporter s ON s.id = m.supporter_id AND s.erased_at IS NULL
    AND (:chapter IS NULL OR s.chapter_id = :chapter)`;

/**
 * What an act does to a slice, and how that is taken back: each a few statements over the whole slice, in the
 * order mark (who is not so yet), do. Only whom it changed is changed back, and only where nothing was
 * changed since.
 */
export interface SetAct {
  apply(tx: Scoped, slice: BulkSlice): Promise<void>;
  undo: ((tx: Scoped, slice: BulkSlice) => Promise<void>) | null;
}

function membership(kind: 'tag' | 'list', groupId: number, on: boolean): SetAct {
  const table = `supporter_${kind}`;
  const put = (tx: Scoped, slice: BulkSlice) =>
    tx.execute(
      `INSERT IGNORE INTO ${table} (organization_id, supporter_id, ${kind}_id, added_by)
        SELECT :org, m.supporter_id, k.id, :actor
        FROM bulk_member m
        JOIN ${kind} k ON k.organization_id = :org AND k.id = :groupId
        WHERE ${SLICE} AND m.changed = 1`,
      { ...slice, groupId, actor: tx.scope.actorId },
    );
  const take = (tx: Scoped, slice: BulkSlice) =>
    tx.execute(
      `DELETE g
        FROM ${table} g
        JOIN bulk_member m ON m.supporter_id = g.supporter_id
        WHERE ${SLICE} AND m.changed = 1 AND g.${kind}_id = :groupId`,
      {
        ...slice,
        groupId,
      },
    );
  return {
    async apply(tx, slice) {
      await tx.execute(
        `UPDATE bulk_member m ${HERE}
          LEFT JOIN ${table} g ON g.supporter_id = m.supporter_id AND g.${kind}_id = :groupId
          SET m.changed = 1
          WHERE ${SLICE} AND g.supporter_id IS ${on ? '' : 'NOT '}NULL`,
        { ...slice, groupId },
      );
      await (on ? put : take)(tx, slice);
    },
    async undo(tx, slice) {
      await (on ? take : put)(tx, slice);
    },
  };
}

function roster(campaignId: number, stage: string | null): SetAct {
  const of = (slice: BulkSlice) => ({ ...slice, campaignId, stage });
  return {
    async apply(tx, slice) {
      await tx.execute(
        `UPDATE bulk_member m ${HERE}
          LEFT JOIN roster o ON o.campaign_id = :campaignId AND o.supporter_id = m.supporter_id
          SET m.changed = 1, m.was = o.stage
          WHERE ${SLICE} AND NOT (o.stage <=> :stage)`,
        of(slice),
      );
      if (stage === null)
        await tx.execute(
          `DELETE o
            FROM roster o
            JOIN bulk_member m ON m.supporter_id = o.supporter_id
            WHERE ${SLICE} AND m.changed = 1 AND o.campaign_id = :campaignId`,
          of(slice),
        );
      else
        await tx.execute(
          `INSERT INTO roster (organization_id, campaign_id, supporter_id, stage, put_by)
            SELECT :org, :campaignId, m.supporter_id, :stage, :actor
            FROM bulk_member m
            WHERE ${SLICE} AND m.changed = 1
            ON DUPLICATE KEY UPDATE stage = VALUES(stage), put_by = VALUES(put_by), put_at = UTC_TIMESTAMP(3),
              batch_id = NULL`,
          { ...of(slice), actor: tx.scope.actorId },
        );
    },
    async undo(tx, slice) {
      await tx.execute(
        `DELETE o
          FROM roster o
          JOIN bulk_member m ON m.supporter_id = o.supporter_id
          WHERE ${SLICE} AND m.changed = 1 AND m.was IS NULL AND o.campaign_id = :campaignId
            AND o.stage <=> :stage`,
        of(slice),
      );
      await tx.execute(
        `INSERT INTO roster (organization_id, campaign_id, supporter_id, stage, put_by)
          SELECT :org, :campaignId, m.supporter_id, m.was, :actor
          FROM bulk_member m
          LEFT JOIN roster o ON o.campaign_id = :campaignId AND o.supporter_id = m.supporter_id
          WHERE ${SLICE} AND m.changed = 1 AND m.was IS NOT NULL AND o.stage <=> :stage
          ON DUPLICATE KEY UPDATE stage = VALUES(stage), put_by = VALUES(put_by)`,
        { ...of(slice), actor: tx.scope.actorId },
      );
    },
  };
}

const VALUE_COLUMNS = ['text_value', 'number_value', 'date_value', 'month_day'] as const;

function field(fieldId: number, value: FieldValue | null): SetAct {
  const [text, number, date, monthDay] = value ? valueColumns(value) : [null, null, null, null];
  const bound = { fieldId, text: text!, number: number!, date: date!, monthDay: monthDay! };
  const isNow = `f.text_value <=> :text AND f.number_value <=> :number
    AND f.date_value <=> :date AND f.month_day <=> :monthDay`;
  const kept = `IF(f.supporter_id IS NULL, NULL, JSON_OBJECT(${VALUE_COLUMNS.map((column) => `'${column}', f.${column}`).join(', ')}))`;
  const before = (column: string, type: string) => `CAST(JSON_VALUE(m.was, '$.${column}') AS ${type})`;
  return {
    async apply(tx, slice) {
      await tx.execute(
        `UPDATE bulk_member m ${HERE}
          LEFT JOIN field_value f ON f.supporter_id = m.supporter_id AND f.field_id = :fieldId
          SET m.changed = 1, m.was = ${kept}
          WHERE ${SLICE} AND NOT (${isNow})`,
        { ...slice, ...bound },
      );
      if (!value)
        await tx.execute(
          `DELETE f
            FROM field_value f
            JOIN bulk_member m ON m.supporter_id = f.supporter_id
            WHERE ${SLICE} AND m.changed = 1 AND f.field_id = :fieldId`,
          {
            ...slice,
            ...bound,
          },
        );
      else
        await tx.execute(
          `INSERT INTO field_value (organization_id, supporter_id, field_id, ${VALUE_COLUMNS.join(', ')})
            SELECT :org, m.supporter_id, :fieldId, :text, :number, :date, :monthDay
            FROM bulk_member m
            WHERE ${SLICE} AND m.changed = 1
            ON DUPLICATE KEY UPDATE
              ${VALUE_COLUMNS.map((column) => `${column} = VALUES(${column})`).join(', ')}`,
          { ...slice, ...bound },
        );
    },
    async undo(tx, slice) {
      // Who was edited since keeps the later value.
      const still = `FROM bulk_member m
        LEFT JOIN field_value f ON f.supporter_id = m.supporter_id AND f.field_id = :fieldId
        WHERE ${SLICE} AND m.changed = 1 AND ${isNow}`;
      await tx.execute(
        `UPDATE bulk_member m
          SET m.changed = 0
          WHERE ${SLICE} AND m.changed = 1
            AND m.supporter_id NOT IN (SELECT supporter_id FROM (SELECT m.supporter_id ${still}) k)`,
        {
          ...slice,
          ...bound,
        },
      );
      await tx.execute(
        `DELETE f
          FROM field_value f
          JOIN bulk_member m ON m.supporter_id = f.supporter_id
          WHERE ${SLICE} AND m.changed = 1 AND f.field_id = :fieldId`,
        {
          ...slice,
          ...bound,
        },
      );
      await tx.execute(
        `INSERT INTO field_value (organization_id, supporter_id, field_id, ${VALUE_COLUMNS.join(', ')})
          SELECT :org, m.supporter_id, :fieldId, JSON_VALUE(m.was, '$.text_value'),
          ${before('number_value', 'DOUBLE')}, ${before('date_value', 'SIGNED')},
          ${before('month_day', 'SIGNED')}
          FROM bulk_member m WHERE ${SLICE} AND m.changed = 1 AND m.was IS NOT NULL`,
        { ...slice, ...bound },
      );
    },
  };
}

/**
 * An agreement that a person vouches for, at the first address of each; it never lifts a no, as no third
 * party's does.
 */
function permission(act: Extract<BulkAct, { do: 'permission' }>, ledger: LedgerRepository): SetAct {
  const kind = ADDRESS_KIND[act.channel];
  const serves = `cp.kind = '${kind}' AND ${takes(act.channel, 'cp.line')}`;
  const saidAt = new Date(Math.min(Date.parse(`${act.on}T12:00:00Z`), Date.now()));
  return {
    async apply(tx, slice) {
      await tx.execute(
        `UPDATE bulk_member m ${HERE}
          SET m.changed = 1
          WHERE ${SLICE} AND EXISTS (SELECT 1 FROM supporter_contact sc
          JOIN contact_point cp ON cp.id = sc.contact_point_id AND ${serves}
          WHERE sc.supporter_id = m.supporter_id)`,
        slice,
      );
      const firsts = await tx.sql<{ supporterId: number; contactPointId: number }>(
        `SELECT m.supporter_id AS supporterId, (SELECT cp.id FROM supporter_contact sc
          JOIN contact_point cp ON cp.id = sc.contact_point_id
            AND ${serves}
            WHERE sc.supporter_id = m.supporter_id
            ORDER BY sc.position, cp.id
            LIMIT 1) AS contactPointId
          FROM bulk_member m WHERE ${SLICE} AND m.changed = 1`,
        slice,
      );
      await ledger.recordAll(
        tx,
        act.scopes.flatMap((scope) =>
          firsts.map((first) => ({
            ...first,
            channel: act.channel,
            scope: scope as PermissionScope,
            state: 'yes' as const,
            saidAt,
            byPerson: false,
            how: act.how as CollectionMethod,
            words: `${act.words} (vouched for by ${act.voucher})`,
            source: `By hand for a group (${Number(slice.bulkId)})`,
          })),
        ),
      );
    },
    undo: null,
  };
}

/** The acts that are statements over sets; exports and erasure go person by person. */
export function setActOf(act: BulkAct, value: FieldValue | null, ledger: LedgerRepository): SetAct | null {
  switch (act.do) {
    case 'tag':
      return membership('tag', act.tagId, act.on);
    case 'list':
      return membership('list', act.listId, act.on);
    case 'roster':
      return roster(act.campaignId, act.stage);
    case 'field':
      return field(act.fieldId, value);
    case 'permission':
      return permission(act, ledger);
    case 'export':
    case 'print':
    case 'erase':
      return null;
  }
}

/** Says in the change log what a slice of an act changed. */
export function tellChanged(tx: Scoped, act: BulkAct, ids: readonly number[]): void {
  switch (act.do) {
    case 'tag':
      return tx.changed('tag', act.tagId, ids);
    case 'list':
      return tx.changed('list', act.listId, ids);
    case 'roster':
      return tx.changed('roster', act.campaignId, ids);
    case 'field':
      return tx.changed('field', act.fieldId, ids);
    case 'permission':
      return tx.changed('reach', 0, ids);
    case 'export':
    case 'print':
      return tx.unchanged();
    case 'erase':
      return tx.changed('people', 0, ids);
  }
}
