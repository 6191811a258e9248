import { Injectable } from '@nestjs/common';
import type { Channel, Purpose } from '@goodword/core/permission';
import { NotFound } from '../platform/errors';
import type { Bound, Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface TemplateRow extends Pick<
  Tables['template'],
  | 'id'
  | 'chapter_id'
  | 'name'
  | 'folder'
  | 'list_id'
  | 'note'
  | 'subject'
  | 'preheader'
  | 'letter'
  | 'body'
  | 'owner_id'
  | 'archived_at'
  | 'updated_at'
  | 'locale'
  | 'ask'
  | 'plainly'
> {
  channel: Channel;
  purpose: Purpose | null;
  is_team: 0 | 1;
  /** Goes up with every change. */
  version: number;
  changed_by: number | null;
  /** Whose it is; null where they are gone. */
  owner: string | null;
}

const COLUMNS = `template.id, template.chapter_id, template.name, template.folder, template.channel,
          template.purpose, template.list_id, template.note, template.subject, template.preheader,
          template.letter, template.body, template.owner_id, template.is_team, template.archived_at,
          template.version, template.changed_by, template.updated_at, template.locale,
          template.ask, template.plainly,
          (SELECT t.name FROM teammate t
          WHERE t.organization_id = :org AND t.id = template.owner_id AND t.left_at IS NULL) AS owner`;

/** Words that are kept and used again. Owns `template`. */
@Injectable()
export class TemplatesRepository {
  /** At most a thousand, last changed first. */
  async all(db: Scoped): Promise<TemplateRow[]> {
    return db.sql<TemplateRow>(
      `SELECT ${COLUMNS}
        FROM template
        WHERE organization_id = :org AND (:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter)
        ORDER BY updated_at DESC, id DESC
        LIMIT 1000`,
    );
  }

  /** The template; throws for one that is not there. */
  async need(db: Scoped, id: number): Promise<TemplateRow> {
    const [row] = await db.sql<TemplateRow>(
      `SELECT ${COLUMNS}
        FROM template
        WHERE organization_id = :org AND (:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter)
          AND id = :id`,
      { id },
    );
    if (!row) throw new NotFound('template');
    return row;
  }

  /** What each is called. */
  async names(db: Scoped): Promise<Map<number, string>> {
    const rows = await db.sql<{ id: number; name: string }>(
      'SELECT id, name FROM template WHERE organization_id = :org',
    );
    return new Map(rows.map(({ id, name }) => [id, name]));
  }

  /** As `need`, and locked, so that of two who save the second is told. */
  async lock(tx: Scoped, id: number): Promise<TemplateRow> {
    await tx.sql('SELECT id FROM template WHERE organization_id = :org AND id = :id FOR UPDATE', { id });
    return this.need(tx, id);
  }

  async make(tx: Scoped, values: Record<string, Bound>): Promise<number> {
    return tx.insert('template', {
      ...values,
      chapter_id: tx.scope.chapterId,
      owner_id: tx.scope.actorId,
      changed_by: tx.scope.actorId,
    });
  }

  async revise(tx: Scoped, template: TemplateRow, values: Record<string, Bound>): Promise<number> {
    const version = template.version + 1;
    await tx
      .table('template')
      .where('template.id', template.id)
      .update({ ...values, version, changed_by: tx.scope.actorId, updated_at: new Date() });
    return version;
  }

  /** Whether it is the team's, and whether it is put away: no change of its words. */
  async stand(tx: Scoped, id: number, values: { is_team: boolean; archived_at: Date | null }): Promise<void> {
    await tx.table('template').where('template.id', id).update(values);
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    await tx.table('template').where('template.id', id).delete();
  }

  /** Somebody goes, and what they wrote for themselves is somebody else's. */
  async handOn(tx: Scoped, from: number, to: number): Promise<void> {
    await tx.execute('UPDATE template SET owner_id = :to WHERE organization_id = :org AND owner_id = :from', {
      from,
      to,
    });
  }

  /** How many messages came from each, those to one person among them. */
  async uses(db: Scoped): Promise<Map<number, number>> {
    const rows = await db.sql<{ template_id: number; n: number }>(
      `SELECT template_id, COUNT(*) AS n
        FROM message
        WHERE organization_id = :org AND template_id IS NOT NULL
        GROUP BY template_id`,
    );
    return new Map(rows.map((row) => [row.template_id, Number(row.n)]));
  }

  /** Messages that came from one and have not left, by name, and how many have. */
  async usesOf(db: Scoped, id: number): Promise<{ open: { id: number; name: string }[]; gone: number }> {
    const rows = await db.sql<{ id: number; name: string; is_open: 0 | 1; n: number }>(
      `SELECT MIN(id) AS id, MIN(name) AS name, state IN ('draft','scheduled') AS is_open, COUNT(*) AS n
        FROM message
        WHERE organization_id = :org AND template_id = :id
        GROUP BY is_open, IF(state IN ('draft','scheduled'), id, 0)
        ORDER BY id`,
      { id },
    );
    const open = rows.filter((row) => Number(row.is_open) === 1);
    const gone = rows.find((row) => Number(row.is_open) === 0);
    return { open: open.map(({ id, name }) => ({ id, name })), gone: Number(gone?.n ?? 0) };
  }
}
