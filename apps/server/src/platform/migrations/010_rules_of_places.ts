import type { Knex } from 'knex';
import { readRegion } from '@goodword/core/fields';

/*
 * Rules that were kept before forms asked to confirm, and before CASL's relationships of charities were told
 * apart, take the careful side, as a version of their own. A change that a second owner must agree to waits
 * in its own table. Whose region stands in the postal address alone gets it as the place.
 */
const SLICE = 5000;
const WORDS =
  'By a new version of the program: forms ask to confirm for email, texts and calls, since anybody can type anybody’s address. ' +
  'In Canada, gifts and volunteering imply permission only for a charity that is registered there; say so at the left.';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`CREATE TABLE rules_waiting (organization_id INT UNSIGNED NOT NULL PRIMARY KEY, rules JSON NOT NULL, based_on BIGINT UNSIGNED NOT NULL,
    words VARCHAR(600) NOT NULL, loosens JSON NOT NULL, made_by BIGINT UNSIGNED NOT NULL, made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3))
    ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`);
  // Who has read a service message that asks, beside whoever sends it.
  await knex.raw('ALTER TABLE message ADD seconded_by BIGINT UNSIGNED NULL');
  await carefulRules(knex);
  for (let from = 0, more = true; more;) ({ from, more } = await placeOfPost(knex, from));
}

interface Kept {
  places: Record<
    string,
    { preset: string; charityOnly?: string[]; confirm: Record<string, boolean | number> }
  >;
}

async function carefulRules(knex: Knex): Promise<void> {
  const newest = knex('house_rules').max('id').groupBy('organization_id');
  const rows = (await knex('house_rules').whereIn('id', newest).select('organization_id', 'rules')) as {
    organization_id: number;
    rules: unknown;
  }[];
  for (const { organization_id, rules: kept } of rows) {
    const rules = (typeof kept === 'string' ? JSON.parse(kept) : kept) as Kept;
    for (const place of Object.values(rules.places)) {
      place.confirm = { ...place.confirm, email: true, text: true, call: true };
      if (place.preset === 'canada') place.charityOnly = ['gift', 'volunteering'];
    }
    await knex('house_rules').insert({
      organization_id,
      rules: JSON.stringify(rules),
      words: WORDS,
      effects: '[]',
      made_by: null,
    });
  }
}

async function placeOfPost(knex: Knex, from: number): Promise<{ from: number; more: boolean }> {
  const [found] = (await knex.raw(
    `SELECT s.id, COALESCE(s.country, o.country) AS country, JSON_VALUE(cp.parts, '$.country') AS said, JSON_VALUE(cp.parts, '$.region') AS region
      FROM supporter s JOIN organization o ON o.id = s.organization_id
      JOIN supporter_contact sc ON sc.supporter_id = s.id JOIN contact_point cp ON cp.id = sc.contact_point_id AND cp.kind = 'post'
      WHERE s.id > ? AND s.region IS NULL AND s.erased_at IS NULL AND JSON_VALUE(cp.parts, '$.region') <> ''
      ORDER BY s.id, sc.position LIMIT ?`,
    [from, SLICE],
  )) as [{ id: number; country: string; said: string | null; region: string }[]];
  for (const { id, country, said, region } of found) {
    const home = said ?? country;
    if (home !== country) continue;
    const code =
      readRegion(`${home}-${region.trim()}`) ??
      readRegion(`${region.trim()}, ${home}`) ??
      readRegion(region.trim());
    if (code?.startsWith(`${home}-`))
      await knex('supporter')
        .where({ id })
        .whereNull('region')
        .update({ country: home, region: code.slice(home.length + 1) });
  }
  return { from: found.at(-1)?.id ?? from, more: found.length === SLICE };
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE message DROP COLUMN seconded_by');
  await knex.schema.dropTable('rules_waiting');
}
