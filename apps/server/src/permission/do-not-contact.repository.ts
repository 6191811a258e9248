import { likeWords } from '../platform/search';
import { Injectable } from '@nestjs/common';
import type { DncRow } from '@goodword/core/contract';
import type { Bound, Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface NewDnc {
  kind: DncRow['kind'];
  hash: string;
  shown: string;
  from: string | null;
  to: string | null;
}

/**
 * Addresses, domains and number ranges that are never written to, and the mark on the addresses on file that
 * they close. Owns `do_not_contact`.
 */
@Injectable()
export class DoNotContactRepository {
  async page(
    db: Scoped,
    search: string,
    after: number | null,
    limit: number,
  ): Promise<{ rows: DncRow[]; total: number }> {
    const like = likeWords(search);
    const where = "d.organization_id = :org AND (:search = '' OR d.shown LIKE :like OR d.note LIKE :like)";
    const rows = await db.sql<Omit<DncRow, 'at'> & { at: Date }>(
      `SELECT d.id, d.kind, d.shown, d.how, d.note, t.name AS \`by\`, d.created_at AS at
        FROM do_not_contact d
        LEFT JOIN teammate t ON t.id = d.added_by
        WHERE ${where} AND (:after IS NULL OR d.id < :after) ORDER BY d.id DESC LIMIT :limit`,
      { search, like, after, limit },
    );
    const [count] = await db.sql<{ n: number }>(`SELECT COUNT(*) AS n FROM do_not_contact d WHERE ${where}`, {
      search,
      like,
    });
    return { rows: rows.map((row) => ({ ...row, at: row.at.toISOString() })), total: count?.n ?? 0 };
  }

  /** Adds what is not there yet; returns how many were new. */
  async add(tx: Scoped, entries: readonly NewDnc[], how: string, note: string): Promise<number> {
    const [before] = await tx.sql<{ n: number }>(
      'SELECT COUNT(*) AS n FROM do_not_contact WHERE organization_id = :org',
    );
    await tx.insertAll(
      'do_not_contact',
      ['kind', 'key_hash', 'shown', 'range_from', 'range_to', 'how', 'note', 'added_by'],
      entries.map((one) => [one.kind, one.hash, one.shown, one.from, one.to, how, note, tx.scope.actorId]),
      true,
    );
    const [after] = await tx.sql<{ n: number }>(
      'SELECT COUNT(*) AS n FROM do_not_contact WHERE organization_id = :org',
    );
    return after!.n - before!.n;
  }

  async find(
    db: Scoped,
    id: number,
  ): Promise<
    | { kind: DncRow['kind']; shown: string | null; range_from: string | null; range_to: string | null }
    | undefined
  > {
    const [row] = await db.sql<
      Pick<Tables['do_not_contact'], 'shown' | 'range_from' | 'range_to'> & {
        kind: DncRow['kind'];
      }
    >(
      `SELECT kind, shown, range_from, range_to
        FROM do_not_contact
        WHERE organization_id = :org AND id = :id`,
      { id },
    );
    return row;
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    await tx.execute('DELETE FROM do_not_contact WHERE organization_id = :org AND id = :id', { id });
  }

  /** Marks addresses on file; returns how many were open before. */
  async close(tx: Scoped, entries: readonly NewDnc[]): Promise<number> {
    tx.unchanged();
    let closed = 0;
    const set = async (where: string, bindings: Record<string, Bound>) => {
      const open = `organization_id = :org AND do_not_contact = 0 AND ${where}`;
      for (const { id } of await tx.sql<{ id: number }>(
        `SELECT id FROM contact_point WHERE ${open} FOR UPDATE`,
        bindings,
      ))
        tx.reached.add(id);
      closed += await tx.execute(`UPDATE contact_point SET do_not_contact = 1 WHERE ${open}`, bindings);
    };
    for (const kind of ['email', 'mobile'] as const) {
      const all = entries.filter((one) => one.kind === kind).map((one) => one.shown);
      for (let at = 0; at < all.length; at += 2000)
        await set('kind = :kind AND normal IN (:normals)', { kind, normals: all.slice(at, at + 2000) });
    }
    for (const one of entries) {
      if (one.kind === 'domain') {
        const domain = one.shown.replace(/[\\%_]/g, '\\$&');
        await set(DOMAIN, { suffix: `%@${domain}`, below: `%@%.${domain}` });
      }
      if (one.kind === 'range') await set(RANGE, { from: one.from, to: one.to });
    }
    return closed;
  }

  /** Opens the addresses that an entry had closed and no other entry closes still. */
  async reopen(tx: Scoped, candidates: readonly { id: number }[]): Promise<void> {
    if (candidates.length === 0) return;
    for (const { id } of candidates) tx.reached.add(id);
    await tx.execute(
      'UPDATE contact_point SET do_not_contact = 0 WHERE organization_id = :org AND id IN (:ids)',
      {
        ids: candidates.map((one) => one.id),
      },
    );
  }

  async isEmpty(db: Scoped): Promise<boolean> {
    return (await db.sql('SELECT 1 FROM do_not_contact WHERE organization_id = :org LIMIT 1')).length === 0;
  }

  async everything(db: Scoped): Promise<{ hashes: Set<string>; ranges: { from: string; to: string }[] }> {
    const rows = await db.sql<
      Pick<Tables['do_not_contact'], 'key_hash' | 'range_from' | 'range_to'> & {
        kind: string;
      }
    >('SELECT kind, key_hash, range_from, range_to FROM do_not_contact WHERE organization_id = :org');
    const ranges = rows.flatMap((row) =>
      row.range_from && row.range_to ? [{ from: row.range_from, to: row.range_to }] : [],
    );
    return { hashes: new Set(rows.map((row) => row.key_hash)), ranges };
  }

  async mark(tx: Scoped, points: readonly { id: number }[]): Promise<void> {
    for (let at = 0; at < points.length; at += 5000) {
      const ids = points.slice(at, at + 5000).map((point) => point.id);
      for (const id of ids) tx.reached.add(id);
      await tx.execute(
        'UPDATE contact_point SET do_not_contact = 1 WHERE organization_id = :org AND id IN (:ids)',
        { ids },
      );
    }
  }

  async marked(db: Scoped): Promise<{ id: number; kind: 'email' | 'mobile' | 'post'; normal: string }[]> {
    return db.sql(
      'SELECT id, kind, normal FROM contact_point WHERE organization_id = :org AND do_not_contact = 1',
    );
  }

  /** Whether any entry closes an address: its own keyed hash, its domain's, or a range that it lies in. */
  async isClosed(
    db: Scoped,
    kind: 'email' | 'mobile',
    normal: string,
    hashes: { own: string; domains: string[] },
  ): Promise<boolean> {
    const rows = await db.sql(
      `SELECT 1
        FROM do_not_contact
        WHERE organization_id = :org
          AND ((kind = :kind AND key_hash = :own)
          OR (:kind = 'email' AND kind = 'domain' AND key_hash IN (:domains))
        OR (:kind = 'mobile' AND kind = 'range' AND :normal BETWEEN range_from AND range_to
        AND CHAR_LENGTH(:normal) = CHAR_LENGTH(range_from))) LIMIT 1`,
      { kind, normal, ...hashes },
    );
    return rows.length > 0;
  }
}

const DOMAIN = "kind = 'email' AND (normal LIKE :suffix OR normal LIKE :below)";
const RANGE = "kind = 'mobile' AND normal BETWEEN :from AND :to AND CHAR_LENGTH(normal) = CHAR_LENGTH(:from)";
