import type { Knex } from 'knex';

/*
 * What kind of address a person has is written beside whose it is: who is reached by email is then read from
 * one index, without reading every address of the organization, and telephone numbers and streets on the way.
 * An address never becomes one of another kind.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    "ALTER TABLE supporter_contact ADD kind ENUM('email', 'mobile', 'post') NULL AFTER contact_point_id",
  );
  await knex.raw(
    'UPDATE supporter_contact sc JOIN contact_point cp ON cp.id = sc.contact_point_id SET sc.kind = cp.kind',
  );
  // An address that is no longer there reaches nobody.
  await knex.raw('DELETE FROM supporter_contact WHERE kind IS NULL');
  await writeIntoMergings(knex);
  await knex.raw(
    "ALTER TABLE supporter_contact MODIFY kind ENUM('email', 'mobile', 'post') NOT NULL, ADD KEY by_kind (organization_id, kind, supporter_id, contact_point_id, position)",
  );
}

/** Records that were brought together before can still be parted: what they had is kept as it stood then. */
async function writeIntoMergings(knex: Knex): Promise<void> {
  const mergings = (await knex('merging').whereNull('undone_at').select('id', 'was')) as {
    id: number;
    was: unknown;
  }[];
  for (const { id, was } of mergings) {
    const kept = (typeof was === 'string' ? JSON.parse(was) : was) as {
      rows?: { supporter_contact?: { contact_point_id: number; kind?: string }[] };
    };
    const links = kept.rows?.supporter_contact ?? [];
    if (links.length === 0) continue;
    const points = (await knex('contact_point')
      .whereIn(
        'id',
        links.map((link) => link.contact_point_id),
      )
      .select('id', 'kind')) as { id: number; kind: string }[];
    for (const link of links)
      link.kind = points.find((point) => point.id === Number(link.contact_point_id))?.kind ?? 'email';
    await knex('merging')
      .where('id', id)
      .update({ was: JSON.stringify(kept) });
  }
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE supporter_contact DROP KEY by_kind, DROP COLUMN kind');
}
