import { Injectable } from '@nestjs/common';
import { normalPostcode } from '@goodword/core/intake';
import type { Scoped } from '../platform/scoped';
import type { LineType } from '../platform/lookups';
import type { Tables } from '../platform/tables/generated';

export interface PointRow extends Pick<
  Tables['contact_point'],
  'id' | 'normal' | 'shown' | 'on_hold' | 'do_not_contact' | 'hold_reason'
> {
  kind: 'email' | 'mobile' | 'post';
  supporter_id: number;
  position: number;
}

/** An address that is to be found or made. */
export interface NewPoint {
  kind: 'email' | 'mobile' | 'post';
  normal: string;
  shown: string;
  /** Of a telephone number, where anybody knows. */
  line?: LineType | null;
  /** Of a postal address. */
  parts?: PostalParts;
}

/** A postal address in its parts, as it was typed or came in. */
export type PostalParts = Partial<Record<'street' | 'city' | 'postcode' | 'region' | 'country', string>>;

/** With what a postal address is made of, and what line a number is. */
export interface FullPoint extends PointRow {
  parts: PostalParts | null;
  line: LineType | null;
}

/**
 * Addresses, numbers and postal addresses of people: read, added, changed and put in order. Owns
 * `contact_point`, `supporter_contact`.
 */
@Injectable()
export class ContactPointsRepository {
  async points(db: Scoped, supporterIds: readonly number[]): Promise<PointRow[]> {
    if (supporterIds.length === 0) return [];
    return db.sql<PointRow>(
      `SELECT cp.id, sc.supporter_id, cp.kind, cp.normal, cp.shown, cp.on_hold, cp.do_not_contact,
          cp.hold_reason, sc.position
        FROM supporter_contact sc
        JOIN contact_point cp ON cp.id = sc.contact_point_id
        WHERE sc.organization_id = :org AND sc.supporter_id IN (:supporterIds)
        ORDER BY sc.supporter_id, sc.position, cp.id`,
      { supporterIds },
    );
  }

  /** As `points`, with the parts of postal addresses and the lines of numbers. */
  async pointsWithParts(db: Scoped, supporterIds: readonly number[]): Promise<FullPoint[]> {
    if (supporterIds.length === 0) return [];
    return db.sql<FullPoint>(
      `SELECT cp.id, sc.supporter_id, cp.kind, cp.normal, cp.shown, cp.on_hold, cp.do_not_contact,
          cp.hold_reason, sc.position, cp.line, cp.parts
        FROM supporter_contact sc
        JOIN contact_point cp ON cp.id = sc.contact_point_id
        WHERE sc.organization_id = :org AND sc.supporter_id IN (:supporterIds)
        ORDER BY sc.supporter_id, sc.position, cp.id`,
      { supporterIds },
    );
  }

  async sharers(
    db: Scoped,
    supporterId: number,
  ): Promise<{ contact_point_id: number; id: number; name: string }[]> {
    return db.sql(
      `SELECT o.contact_point_id, s.id, CONCAT_WS(' ', s.first_name, s.last_name) AS name
        FROM supporter_contact m
        JOIN supporter_contact o ON o.contact_point_id = m.contact_point_id
        AND o.supporter_id <> m.supporter_id
        JOIN supporter s ON s.id = o.supporter_id AND (:chapter IS NULL OR s.chapter_id = :chapter)
        WHERE m.organization_id = :org AND m.supporter_id = :supporterId`,
      { supporterId },
    );
  }

  /**
   * Finds or makes an address, which may be nobody's yet, and holds it until the transaction ends. What is
   * there keeps its writing; a line that nobody knew is learned. Returns its id.
   */
  async ensurePoint(
    tx: Scoped,
    { line = null, parts, ...point }: NewPoint & { doNotContact: boolean },
  ): Promise<number> {
    await tx.execute(
      `INSERT IGNORE INTO contact_point (organization_id, kind, normal, shown, do_not_contact, line, parts)
        VALUES (:org, :kind, :normal, :shown, :doNotContact, :line, :parts)`,
      { ...point, line, parts: parts ? JSON.stringify(parts) : null },
    );
    const [row] = await tx.sql<{ id: number; line: LineType | null }>(
      `SELECT id, line
        FROM contact_point
        WHERE organization_id = :org AND kind = :kind AND normal = :normal FOR UPDATE`,
      { kind: point.kind, normal: point.normal },
    );
    if (line !== null && row!.line === null) {
      tx.reached.add(row!.id);
      await tx.execute('UPDATE contact_point SET line = :line WHERE organization_id = :org AND id = :id', {
        line,
        id: row!.id,
      });
    }
    return row!.id;
  }

  /** Finds or makes an address and hangs it on the person. Returns its id. */
  async addPoint(
    tx: Scoped,
    supporterId: number,
    point: NewPoint & { doNotContact: boolean },
  ): Promise<number> {
    const pointId = await this.ensurePoint(tx, point);
    await this.hangPoint(tx, supporterId, pointId);
    return pointId;
  }

  /** The same address in a better writing; what line it is where that is said. */
  async rewritePoint(tx: Scoped, pointId: number, { shown, parts, line = null }: NewPoint): Promise<void> {
    tx.reached.add(pointId);
    await tx.execute(
      `UPDATE contact_point SET shown = :shown, parts = COALESCE(:parts, parts), line = COALESCE(:line, line)
        WHERE organization_id = :org AND id = :pointId`,
      { pointId, shown, parts: parts ? JSON.stringify(parts) : null, line },
    );
  }

  /**
   * The postcode of the postal address that is written to, by which likely doubles are found; where there is
   * none it stays.
   */
  async keepPostcode(tx: Scoped, id: number): Promise<void> {
    const first = (await this.pointsWithParts(tx, [id])).find((point) => point.kind === 'post');
    const postcode = normalPostcode(first?.parts?.postcode ?? '');
    if (postcode === '') return;
    tx.changed('own', 0, [id]);
    await tx.execute('UPDATE supporter SET postcode = :postcode WHERE organization_id = :org AND id = :id', {
      id,
      postcode,
    });
  }

  /** Puts one address in the place of another, which comes off the person. */
  async replacePoint(tx: Scoped, supporterId: number, oldId: number, newId: number): Promise<void> {
    tx.changed('reach', 0, [supporterId]);
    await tx.execute(
      `UPDATE supporter_contact n
        JOIN supporter_contact o ON o.supporter_id = n.supporter_id AND o.contact_point_id = :oldId
        SET n.position = o.position
        WHERE n.organization_id = :org AND n.supporter_id = :supporterId AND n.contact_point_id = :newId`,
      { supporterId, oldId, newId },
    );
    await tx.execute(
      `DELETE
        FROM supporter_contact
        WHERE organization_id = :org AND supporter_id = :supporterId AND contact_point_id = :oldId`,
      {
        supporterId,
        oldId,
      },
    );
  }

  async dropPoint(tx: Scoped, supporterId: number, pointId: number): Promise<void> {
    tx.changed('reach', 0, [supporterId]);
    await tx.execute(
      `DELETE
        FROM supporter_contact
        WHERE organization_id = :org AND supporter_id = :supporterId AND contact_point_id = :pointId`,
      {
        supporterId,
        pointId,
      },
    );
  }

  /** Hangs an address that there is on the person again, behind the others. */
  async hangPoint(tx: Scoped, supporterId: number, pointId: number): Promise<void> {
    tx.changed('reach', 0, [supporterId]);
    await tx.execute(
      `INSERT IGNORE INTO supporter_contact (organization_id, supporter_id, contact_point_id, kind, position)
        SELECT :org, :supporterId, cp.id, cp.kind, (SELECT COUNT(*) FROM supporter_contact
          WHERE supporter_id = :supporterId)
        FROM contact_point cp
        WHERE cp.organization_id = :org AND cp.id = :pointId`,
      { supporterId, pointId },
    );
  }

  async orderPoints(tx: Scoped, supporterId: number, pointIds: readonly number[]): Promise<void> {
    tx.changed('reach', 0, [supporterId]);
    await tx.execute(
      `UPDATE supporter_contact
        SET position = FIND_IN_SET(contact_point_id, :order) - 1
        WHERE organization_id = :org AND supporter_id = :supporterId`,
      { supporterId, order: pointIds.join(',') },
    );
  }

  /** Everybody whose address it is. */
  async ownersOf(db: Scoped, contactPointId: number): Promise<number[]> {
    const rows = await db.sql<{ supporter_id: number }>(
      `SELECT supporter_id
        FROM supporter_contact
        WHERE organization_id = :org AND contact_point_id = :contactPointId
        ORDER BY supporter_id`,
      { contactPointId },
    );
    return rows.map((row) => row.supporter_id);
  }

  /** Whether a question of what somebody meant is open at an address. */
  async isAsked(db: Scoped, pointId: number): Promise<boolean> {
    const open = `SELECT 1
        FROM task
        WHERE organization_id = :org AND kind = 'stop' AND contact_point_id = :pointId AND done_at IS NULL
        LIMIT 1`;
    return (await db.sql(open, { pointId })).length > 0;
  }
}
