import type { Knex } from 'knex';

/*
 * What evidence was missing: when an address was on hold and why, the form and the page that an entry came
 * by, the reply that it was said in, and when a reply reached us. And a refusal of a part, though it came in
 * an answer, is no STOP: START does not lift it.
 */
const ORG = 'organization_id INT UNSIGNED NOT NULL';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`CREATE TABLE address_hold (id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY, ${ORG}, contact_point_id BIGINT UNSIGNED NOT NULL,
    held_at DATETIME(3) NOT NULL, reason VARCHAR(300) NOT NULL DEFAULT '', batch_id BIGINT UNSIGNED NULL, released_at DATETIME(3) NULL,
    released_by BIGINT UNSIGNED NULL, released_why VARCHAR(300) NULL, KEY by_point (organization_id, contact_point_id, id))
    ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`);
  // A hold that a batch brought keeps its batch, so that taking the batch out still releases it.
  await knex.raw(`INSERT INTO address_hold (organization_id, contact_point_id, held_at, reason, batch_id)
    SELECT cp.organization_id, cp.id, COALESCE(cp.hold_at, UTC_TIMESTAMP(3)), COALESCE(cp.hold_reason, ''),
      IF(cp.hold_reason LIKE 'Bounced or complained in another system%',
        (SELECT MIN(h.batch_id) FROM batch_hold h WHERE h.contact_point_id = cp.id), NULL)
    FROM contact_point cp WHERE cp.on_hold = 1`);
  await knex.raw(`ALTER TABLE permission_entry ADD form_id BIGINT UNSIGNED NULL, ADD form_version INT UNSIGNED NULL,
    ADD page VARCHAR(300) NULL, ADD reply_id BIGINT UNSIGNED NULL`);
  await knex.raw('ALTER TABLE reply ADD received_at DATETIME(3) NULL');
  await knex.raw('ALTER TABLE bulk_member ADD KEY by_supporter (organization_id, supporter_id)');
  // Until now the form stood in the source of an entry alone, as “name”, version n.
  await knex.raw(`UPDATE permission_entry e JOIN form f ON f.organization_id = e.organization_id
      AND e.source LIKE 'Form “%' AND LOCATE(CONCAT('Form “', f.name, '”, version '), e.source) = 1
    SET e.form_id = f.id, e.form_version = CAST(SUBSTRING(e.source, CHAR_LENGTH(f.name) + 18) AS UNSIGNED)
    WHERE e.how = 'form'`);
  // The moment is set last, because each assignment sees the ones before it.
  const newer = 'no_at IS NULL OR stop_at > no_at OR (stop_at = no_at AND stop_entry > no_entry)';
  await knex.raw(`UPDATE permission_state SET no_entry = IF(${newer}, stop_entry, no_entry), no_at = IF(${newer}, stop_at, no_at),
    stop_entry = NULL, stop_at = NULL WHERE scope <> 'all' AND stop_at IS NOT NULL`);
  await carefulRules(knex);
}

const WORDS =
  'By a new version of the program: in the United Kingdom, relationships imply permission only where a way to refuse was ' +
  'offered as the address was taken; say at the left since when all your forms and gift pages do.';

interface Kept {
  places: Record<string, { options: string[]; offerNeeded?: boolean }>;
}

/**
 * Houses that use the soft opt-in of charities take the careful side until they say since when a refusal was
 * offered.
 */
async function carefulRules(knex: Knex): Promise<void> {
  const newest = knex('house_rules').max('id').groupBy('organization_id');
  const rows = (await knex('house_rules').whereIn('id', newest).select('organization_id', 'rules')) as {
    organization_id: number;
    rules: unknown;
  }[];
  for (const { organization_id, rules: kept } of rows) {
    const rules = (typeof kept === 'string' ? JSON.parse(kept) : kept) as Kept;
    const using = Object.values(rules.places).filter((place) =>
      place.options.includes('charity-soft-opt-in'),
    );
    if (using.length === 0) continue;
    for (const place of using) place.offerNeeded = true;
    await knex('house_rules').insert({
      organization_id,
      rules: JSON.stringify(rules),
      words: WORDS,
      effects: '[]',
      made_by: null,
    });
  }
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE bulk_member DROP KEY by_supporter');
  await knex.raw('ALTER TABLE reply DROP COLUMN received_at');
  await knex.raw(
    'ALTER TABLE permission_entry DROP COLUMN form_id, DROP COLUMN form_version, DROP COLUMN page, DROP COLUMN reply_id',
  );
  await knex.schema.dropTable('address_hold');
}
