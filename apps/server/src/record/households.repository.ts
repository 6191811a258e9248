import { Injectable } from '@nestjs/common';
import { addressee, greetingOf } from '@goodword/core/household';
import type { HouseholdView } from '@goodword/core/contract';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

interface MemberRow extends Pick<Tables['supporter'], 'id' | 'first_name' | 'last_name'> {
  household_id: number;
  mine: number;
  greeting: string | null;
}

/**
 * Who lives with whom. A household has two people at the least: with the last but one, it goes. Owns
 * `household`.
 */
@Injectable()
export class HouseholdsRepository {
  /** The household of one person, with those members that the caller may see; all of them are greeted. */
  async of(db: Scoped, supporterId: number, locale: string): Promise<HouseholdView | null> {
    const rows = await db.sql<MemberRow>(
      `SELECT h.id AS household_id, h.greeting, m.id, m.first_name, m.last_name,
        (:chapter IS NULL OR m.chapter_id = :chapter) AS mine
        FROM supporter s
        JOIN household h ON h.id = s.household_id
        JOIN supporter m ON m.organization_id = :org AND m.household_id = h.id AND m.erased_at IS NULL
        WHERE s.organization_id = :org AND s.id = :supporterId ORDER BY m.id`,
      { supporterId },
    );
    const [first] = rows;
    // Whoever is left alone by an erasure lives with nobody.
    if (!first || rows.length < 2) return null;
    return {
      id: first.household_id,
      own: first.greeting,
      greeting: greetingOf(rows.map(nameOf), first.greeting, locale),
      members: rows
        .filter(({ mine }) => mine === 1)
        .map((row) => ({ id: row.id, name: `${row.first_name} ${row.last_name}`.trim() })),
    };
  }

  /**
   * How each of these people is greeted and named together with whom they live with; nobody who lives alone.
   * Of those who live with them, `leftOut` names who does not want to be written to: a greeting that a
   * teammate made up could name them too.
   */
  async greetings(
    db: Scoped,
    supporterIds: readonly number[],
    locale: string,
    leftOut: (others: number[]) => Promise<ReadonlySet<number>>,
  ): Promise<Map<number, { greeting: string; names: string }>> {
    if (supporterIds.length === 0) return new Map();
    const rows = await db.sql<MemberRow & { of: number }>(
      `SELECT s.id AS \`of\`, h.id AS household_id, h.greeting, m.id, m.first_name, m.last_name, 1 AS mine
        FROM supporter s
        JOIN household h ON h.id = s.household_id
        JOIN supporter m ON m.organization_id = :org AND m.household_id = h.id AND m.erased_at IS NULL
        WHERE s.organization_id = :org AND s.id IN (:supporterIds) ORDER BY s.id, m.id`,
      { supporterIds },
    );
    const members = new Map<number, typeof rows>();
    for (const row of rows) members.set(row.of, [...(members.get(row.of) ?? []), row]);
    const others = new Set(rows.filter((row) => row.id !== row.of).map((row) => row.id));
    const out = others.size > 0 ? await leftOut([...others]) : new Set<number>();
    return new Map(
      [...members].map(([id, all]) => {
        const greeted = all.filter((row) => row.id === id || !out.has(row.id));
        const own = greeted.length < all.length ? null : all[0]!.greeting;
        const names = greeted.map(nameOf);
        return [id, { greeting: greetingOf(names, own, locale), names: addressee(names, locale) }];
      }),
    );
  }

  async idsOf(db: Scoped, supporterIds: readonly number[]): Promise<Map<number, number>> {
    if (supporterIds.length === 0) return new Map();
    const rows = await db.sql<{ id: number; household_id: number }>(
      `SELECT id, household_id
        FROM supporter
        WHERE organization_id = :org AND household_id IS NOT NULL AND id IN (:supporterIds)`,
      { supporterIds },
    );
    return new Map(rows.map((row) => [row.id, row.household_id]));
  }

  async idOf(db: Scoped, supporterId: number): Promise<number | null> {
    const [row] = await db.sql<{ household_id: number | null }>(
      'SELECT household_id FROM supporter WHERE organization_id = :org AND id = :supporterId',
      {
        supporterId,
      },
    );
    return row?.household_id ?? null;
  }

  async make(tx: Scoped): Promise<number> {
    return tx.insert('household', { greeting: null });
  }

  /**
   * Moves a person into a household, or out of any. The one that is left goes where nobody would be together
   * in it any more.
   */
  async move(tx: Scoped, supporterId: number, to: number | null): Promise<void> {
    const from = await this.idOf(tx, supporterId);
    if (from === to) return;
    const concerned = [supporterId, ...(await this.memberIds(tx, from)), ...(await this.memberIds(tx, to))];
    tx.changed('own', 0, [...new Set(concerned)]);
    await tx.execute(
      'UPDATE supporter SET household_id = :to WHERE organization_id = :org AND id = :supporterId',
      { supporterId, to },
    );
    const left = await this.memberIds(tx, from);
    if (from === null || left.length > 1) return;
    await tx.execute(
      'UPDATE supporter SET household_id = NULL WHERE organization_id = :org AND household_id = :from',
      { from },
    );
    await tx.execute('DELETE FROM household WHERE organization_id = :org AND id = :from', { from });
  }

  /** Words kept for the greeting, and nobody else changes them until the transaction ends. */
  async holdGreeting(tx: Scoped, householdId: number): Promise<string> {
    const [row] = await tx.sql<{ greeting: string | null }>(
      'SELECT greeting FROM household WHERE organization_id = :org AND id = :householdId FOR UPDATE',
      { householdId },
    );
    return row?.greeting ?? '';
  }

  async greet(tx: Scoped, householdId: number, greeting: string | null): Promise<void> {
    await tx.execute(
      'UPDATE household SET greeting = :greeting WHERE organization_id = :org AND id = :householdId',
      { householdId, greeting },
    );
  }

  async exists(db: Scoped, householdId: number): Promise<boolean> {
    return (
      (
        await db.sql('SELECT 1 FROM household WHERE organization_id = :org AND id = :householdId', {
          householdId,
        })
      ).length > 0
    );
  }

  private async memberIds(db: Scoped, householdId: number | null): Promise<number[]> {
    if (householdId === null) return [];
    const rows = await db.sql<{ id: number }>(
      `SELECT id
        FROM supporter
        WHERE organization_id = :org AND household_id = :householdId AND erased_at IS NULL`,
      {
        householdId,
      },
    );
    return rows.map(({ id }) => id);
  }
}

function nameOf(row: MemberRow): { firstName: string; lastName: string } {
  return { firstName: row.first_name, lastName: row.last_name };
}
