import { Injectable } from '@nestjs/common';
import type { FormCounts } from '@goodword/core/contract';
import type { FormDefinition } from '@goodword/core/forms';
import type { Database } from '../platform/database';
import type { Scoped } from '../platform/scoped';
import { calledBy } from '../platform/versions';

export interface FormRow {
  id: number;
  organization_id: number;
  chapter_id: number | null;
  name: string;
  slug: string;
  is_open: number;
  version: number;
  keyword: string | null;
  definition: FormDefinition;
}

const COLUMNS = [
  'f.id',
  'f.organization_id',
  'f.chapter_id',
  'f.name',
  'f.slug',
  'f.is_open',
  'f.version',
  'f.keyword',
  'v.definition',
];
const FORM = `SELECT ${COLUMNS.join(', ')}
  FROM form f
  JOIN form_version v ON v.form_id = f.id AND v.version = f.version`;

/**
 * Forms, each version of what they ask and say, and how often they were seen. Owns `form`, `form_version`,
 * `form_count`.
 */
@Injectable()
export class FormsRepository {
  /** A form is found by the word in its address alone: whoever opens the page has no scope yet. */
  async bySlug(database: Database, slug: string): Promise<FormRow | undefined> {
    return database
      .unscoped()('form as f')
      .join('form_version as v', (on) => on.on('v.form_id', 'f.id').andOn('v.version', 'f.version'))
      .where('f.slug', slug)
      .first<FormRow | undefined>(COLUMNS);
  }

  /** What they are called and where they are, without what is on them. */
  async names(db: Scoped): Promise<Pick<FormRow, 'id' | 'name' | 'slug'>[]> {
    return db.sql(
      `SELECT id, name, slug
        FROM form
        WHERE organization_id = :org AND (:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter)
        ORDER BY name`,
    );
  }

  async all(db: Scoped): Promise<FormRow[]> {
    return db.sql<FormRow>(
      `${FORM}
        WHERE f.organization_id = :org
          AND (:chapter IS NULL OR f.chapter_id IS NULL OR f.chapter_id = :chapter)
        ORDER BY f.name`,
    );
  }

  async find(db: Scoped, id: number): Promise<FormRow | undefined> {
    return (await this.all(db)).find((form) => form.id === id);
  }

  async byKeyword(db: Scoped, keyword: string): Promise<FormRow | undefined> {
    const [row] = await db.sql<FormRow>(
      `${FORM} WHERE f.organization_id = :org AND f.keyword = :keyword AND f.is_open = 1`,
      { keyword },
    );
    return row;
  }

  async definitionOf(db: Scoped, formId: number, version: number): Promise<FormDefinition | undefined> {
    const [row] = await db.sql<{ definition: FormDefinition }>(
      `SELECT definition
        FROM form_version
        WHERE organization_id = :org AND form_id = :formId AND version = :version`,
      { formId, version },
    );
    return row?.definition;
  }

  async make(tx: Scoped, form: { name: string; slug: string; definition: FormDefinition }): Promise<number> {
    const id = await tx.insert('form', { name: form.name, slug: form.slug, chapter_id: tx.scope.chapterId });
    await tx.insert('form_version', {
      form_id: id,
      version: 1,
      definition: JSON.stringify(form.definition),
      made_by: tx.scope.actorId,
    });
    return id;
  }

  /** Keeps a new version beside the old ones. */
  /** Who saved a version, as whoever asks calls them; null where it was the program. */
  async savedBy(tx: Scoped, id: number, version: number): Promise<string | null> {
    const [row] = await tx.sql<{ id: number | null; name: string | null }>(
      `SELECT t.id, t.name FROM form_version v LEFT JOIN teammate t ON t.id = v.made_by
        WHERE v.organization_id = :org AND v.form_id = :id AND v.version = :version`,
      { id, version },
    );
    return row ? calledBy(tx.scope, row.id, row.name) : null;
  }

  async save(
    tx: Scoped,
    id: number,
    form: { name: string; slug: string; version: number; definition: FormDefinition },
  ): Promise<void> {
    await tx.insert('form_version', {
      form_id: id,
      version: form.version,
      definition: JSON.stringify(form.definition),
      made_by: tx.scope.actorId,
    });
    await tx.table('form').where('form.id', id).update({
      name: form.name,
      slug: form.slug,
      version: form.version,
      keyword: form.definition.keyword,
      updated_at: new Date(),
    });
  }

  async open(tx: Scoped, id: number, open: boolean): Promise<void> {
    await tx.table('form').where('form.id', id).update({ is_open: open });
  }

  async count(db: Scoped, formId: number, kind: keyof FormCounts): Promise<void> {
    await db.execute(
      `INSERT INTO form_count (organization_id, form_id, day, kind, n) VALUES (:org, :formId, :day, :kind, 1)
        ON DUPLICATE KEY UPDATE n = n + 1`,
      { formId, day: Math.floor(Date.now() / 86_400_000), kind },
    );
  }

  async counts(db: Scoped): Promise<Map<number, FormCounts>> {
    const rows = await db.sql<{ form_id: number; kind: keyof FormCounts; n: number | string }>(
      'SELECT form_id, kind, SUM(n) AS n FROM form_count WHERE organization_id = :org GROUP BY form_id, kind',
    );
    const out = new Map<number, FormCounts>();
    for (const row of rows) {
      const counts = out.get(row.form_id) ?? { seen: 0, begun: 0, joined: 0, confirmed: 0 };
      counts[row.kind] = Number(row.n);
      out.set(row.form_id, counts);
    }
    return out;
  }

  async waiting(db: Scoped): Promise<Map<number, number>> {
    const rows = await db.sql<{ form_id: number; n: number }>(
      `SELECT form_id, COUNT(DISTINCT supporter_id) AS n
        FROM confirmation
        WHERE organization_id = :org AND kind = 'join' AND state IN ('waiting', 'in-flight', 'sent')
          AND expires_at > UTC_TIMESTAMP(3)
        GROUP BY form_id`,
    );
    return new Map(rows.map((row) => [row.form_id, row.n]));
  }
}
