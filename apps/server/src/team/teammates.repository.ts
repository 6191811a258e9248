import { Injectable } from '@nestjs/common';
import type { Role } from '@goodword/core/contract';
import { type Database } from '../platform/database';
import { type Scoped, rowsOf } from '../platform/scoped';
import type { TeammateRow } from './team.repository';
import type { Tables } from '../platform/tables/generated';

export interface TeammateLine extends TeammateRow {
  sessions: number;
  link_mail: LinkRow['mail'] | null;
  link_detail: string | null;
  link_expires_at: Date | null;
}

export interface LinkRow extends Pick<
  Tables['teammate_link'],
  | 'id'
  | 'organization_id'
  | 'teammate_id'
  | 'made_by'
  | 'made_at'
  | 'expires_at'
  | 'used_at'
  | 'tries'
  | 'detail'
> {
  kind: 'invitation' | 'password';
  mail: 'waiting' | 'sent' | 'failed';
}

const LINK_HOURS = { invitation: 7 * 24, password: 1 } as const;

/** As it stands in the row. */
export function jsonOf(chapterIds: readonly number[] | null): string | null {
  return chapterIds === null ? null : JSON.stringify(chapterIds);
}

/** For `due`: an invitation or a link for a new password is to be mailed. */
export const LINKS_DUE = `SELECT 'links' AS due FROM DUAL WHERE EXISTS
  (SELECT 1 FROM teammate_link WHERE mail = 'waiting' AND due_at <= UTC_TIMESTAMP(3))`;

/**
 * Teammates as whoever lets them in sees them, and the one-time links that they are let in by. Owns
 * `teammate`, `teammate_link`.
 */
@Injectable()
export class TeammatesRepository {
  async all(db: Scoped): Promise<TeammateLine[]> {
    return db.sql(
      `SELECT t.id, t.organization_id, t.chapter_ids, t.name, t.email, t.role, t.password_hash, t.mobile,
          t.signature, t.title, t.answers_to, t.left_at, t.signed_in_at, t.picture_id,
          (SELECT COUNT(*) FROM session s
        WHERE s.organization_id = :org AND s.teammate_id = t.id AND s.expires_at > UTC_TIMESTAMP(3)) AS
        sessions,
          l.mail AS link_mail, l.detail AS link_detail, l.expires_at AS link_expires_at
        FROM teammate t LEFT JOIN teammate_link l ON l.id =
          (SELECT MAX(m.id) FROM teammate_link m
          WHERE m.organization_id = :org AND m.teammate_id = t.id AND m.used_at IS NULL)
        WHERE t.organization_id = :org ORDER BY t.left_at IS NOT NULL, t.name, t.id`,
    );
  }

  async lockForUpdate(tx: Scoped, id: number): Promise<TeammateRow | undefined> {
    const [row] = await tx.sql<TeammateRow>(
      `SELECT id, organization_id, chapter_ids, name, email, role, password_hash, mobile, signature, title,
          answers_to, left_at, signed_in_at, picture_id
        FROM teammate
        WHERE organization_id = :org AND id = :id FOR UPDATE`,
      { id },
    );
    return row;
  }

  /**
   * Owners who are here and may work in everything; the rows are locked, so that two can't take each other
   * out at once.
   */
  async holdOwners(tx: Scoped): Promise<number[]> {
    const rows = await tx.sql<{ id: number }>(
      `SELECT id
        FROM teammate
        WHERE organization_id = :org AND role = 'owner' AND chapter_ids IS NULL AND left_at IS NULL
          AND password_hash IS NOT NULL
        ORDER BY id FOR UPDATE`,
    );
    return rows.map(({ id }) => id);
  }

  async byEmail(
    db: Scoped,
    email: string,
  ): Promise<{ id: number; organization_id: number; left_at: Date | null } | undefined> {
    // An address signs in to one organization; whether another one has it is all that is told.
    const [row] = await db.sql<Pick<Tables['teammate'], 'id' | 'organization_id' | 'left_at'>>(
      'SELECT id, organization_id, left_at FROM teammate WHERE email = :email AND :org > 0 FOR UPDATE',
      { email },
    );
    return row;
  }

  async add(
    tx: Scoped,
    mate: { name: string; email: string; role: Role; chapterIds: number[] | null },
  ): Promise<number> {
    const { name, email, role, chapterIds } = mate;
    return tx.insert('teammate', { name, email, role, chapter_ids: jsonOf(chapterIds), password_hash: null });
  }

  async change(
    tx: Scoped,
    id: number,
    values: Partial<Record<keyof TeammateRow, string | number | Date | null>>,
  ): Promise<void> {
    await rowsOf(tx.knex, 'teammate').where({ organization_id: tx.scope.organizationId, id }).update(values);
  }

  /** A new link; those before it open nothing any more. Its mail waits for the worker. */
  async makeLink(tx: Scoped, teammateId: number, kind: LinkRow['kind']): Promise<number> {
    await this.spendLinks(tx, teammateId);
    return tx.insert('teammate_link', {
      teammate_id: teammateId,
      kind,
      made_by: tx.scope.actorId,
      expires_at: new Date(Date.now() + LINK_HOURS[kind] * 3_600_000),
      due_at: new Date(),
    });
  }

  async spendLinks(tx: Scoped, teammateId: number): Promise<void> {
    await tx.execute(
      `UPDATE teammate_link
        SET used_at = UTC_TIMESTAMP(3), mail = IF(mail = 'waiting', 'failed', mail)
        WHERE organization_id = :org AND teammate_id = :teammateId AND used_at IS NULL`,
      { teammateId },
    );
  }

  /** How many links were asked for within the hour by whoever forgot a password. */
  async askedLately(tx: Scoped, teammateId: number): Promise<number> {
    const [row] = await tx.sql<{ n: number }>(
      `SELECT COUNT(*) AS n
        FROM teammate_link
        WHERE organization_id = :org AND teammate_id = :teammateId
          AND kind = 'password' AND made_at > :since`,
      { teammateId, since: new Date(Date.now() - 3_600_000) },
    );
    return row?.n ?? 0;
  }

  /** A token gives the scope. */
  async link(database: Database, id: number): Promise<LinkRow | undefined> {
    return await rowsOf(database.unscoped(), 'teammate_link').where('id', id).first();
  }

  async holdLink(tx: Scoped, id: number): Promise<LinkRow | undefined> {
    const [row] = await tx.sql<LinkRow>(
      `SELECT id, organization_id, teammate_id, kind, made_by, made_at, expires_at, used_at, mail, tries,
          detail
        FROM teammate_link
        WHERE organization_id = :org AND id = :id FOR UPDATE`,
      { id },
    );
    return row;
  }

  /** The next link whose mail is due, of whatever organization. */
  async dueLink(database: Database): Promise<{ id: number; organization_id: number } | undefined> {
    return await rowsOf(database.unscoped(), 'teammate_link')
      .where('mail', 'waiting')
      .where('due_at', '<=', new Date())
      .orderBy('due_at')
      .first('id', 'organization_id');
  }

  async settleLink(
    tx: Scoped,
    id: number,
    values: { mail: LinkRow['mail']; tries?: number; due_at?: Date | null; detail?: string | null },
  ): Promise<void> {
    await rowsOf(tx.knex, 'teammate_link')
      .where({ organization_id: tx.scope.organizationId, id })
      .update(values);
  }

  /** The newest link of a teammate came back: whoever invited them reads why. */
  async linkReturned(tx: Scoped, teammateId: number, detail: string): Promise<void> {
    await tx.execute(
      `UPDATE teammate_link
        SET mail = 'failed', detail = :detail
        WHERE organization_id = :org AND teammate_id = :teammateId AND used_at IS NULL AND mail = 'sent'
        ORDER BY id DESC
        LIMIT 1`,
      { teammateId, detail: detail.slice(0, 300) },
    );
  }
}
