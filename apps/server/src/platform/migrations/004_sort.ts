import type { Knex } from 'knex';

/*
 * Sorting in full: what changed is logged with whom it changed, and every column can be read from an index
 * alone.
 */
const ORG = 'organization_id INT UNSIGNED NOT NULL';
const ID = 'id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY';
const AT = 'DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)';

const TABLES = [
  // One act on a group of people, frozen when it was asked for; what each was before is kept for undoing it.
  `bulk (${ID}, ${ORG}, chapter_id INT UNSIGNED NULL, act JSON NOT NULL, words VARCHAR(300) NOT NULL, state VARCHAR(10) NOT NULL DEFAULT 'waiting', people INT UNSIGNED NOT NULL,
    done INT UNSIGNED NOT NULL DEFAULT 0, next_id BIGINT UNSIGNED NOT NULL DEFAULT 0, changed INT UNSIGNED NOT NULL DEFAULT 0, made_by BIGINT UNSIGNED NULL, made_at ${AT}, ended_at DATETIME(3) NULL,
    file_key VARCHAR(80) NULL, file_name VARCHAR(140) NULL, problem VARCHAR(500) NULL, KEY by_time (organization_id, id))`,
  `bulk_member (${ORG}, bulk_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL, changed TINYINT NOT NULL DEFAULT 0, was VARCHAR(600) NULL, PRIMARY KEY (bulk_id, supporter_id))`,
  `people_view (${ID}, ${ORG}, name VARCHAR(120) NOT NULL, tree JSON NOT NULL, sort_by VARCHAR(30) NOT NULL, descending TINYINT NOT NULL, fields JSON NOT NULL, made_by BIGINT UNSIGNED NULL, made_at ${AT},
    UNIQUE (organization_id, name))`,
];

const CHANGES = [
  // What a transaction changed, and whom: ids with commas between, or null for everybody.
  "change_log ADD what VARCHAR(20) NOT NULL DEFAULT 'all', ADD ref BIGINT NOT NULL DEFAULT 0, ADD ids MEDIUMTEXT CHARACTER SET ascii NULL",
  "field ADD help VARCHAR(300) NOT NULL DEFAULT '', ADD is_sensitive TINYINT NOT NULL DEFAULT 0, ADD position INT NOT NULL DEFAULT 1000000",
  'organization ADD fiscal_month TINYINT UNSIGNED NOT NULL DEFAULT 1',
  'supporter DROP KEY by_chapter, ADD KEY by_chapter (organization_id, erased_at, chapter_id, country, region)',
  'field_value DROP KEY by_text, ADD KEY by_text (organization_id, field_id, text_value, supporter_id)',
  'delivery_event ADD KEY by_deed (organization_id, kind, supporter_id, message_id, at)',
  'delivery ADD KEY by_sent (organization_id, channel, sent_at, supporter_id)',
  // Likely doubles are found by the loose form of an address, and what was found is told from the exact one.
  'contact_point DROP KEY by_loose, ADD KEY by_loose (organization_id, loose, kind, normal), ADD KEY by_health (organization_id, kind, line, on_hold, do_not_contact)',
  // A number from its end, so that last digits can be looked up.
  "contact_point ADD tail VARCHAR(20) COLLATE utf8mb4_bin AS (IF(kind = 'mobile', REVERSE(LEFT(normal, 20)), NULL)) PERSISTENT, ADD KEY by_tail (organization_id, tail)",
];

const BACK = [
  'contact_point DROP KEY by_tail, DROP COLUMN tail',
  'contact_point DROP KEY by_health, DROP KEY by_loose, ADD KEY by_loose (organization_id, loose)',
  'delivery DROP KEY by_sent',
  'delivery_event DROP KEY by_deed',
  'field_value DROP KEY by_text, ADD KEY by_text (organization_id, field_id, text_value(60), supporter_id)',
  'supporter DROP KEY by_chapter, ADD KEY by_chapter (organization_id, chapter_id)',
  'organization DROP COLUMN fiscal_month',
  'field DROP COLUMN help, DROP COLUMN is_sensitive, DROP COLUMN position',
  'change_log DROP COLUMN what, DROP COLUMN ref, DROP COLUMN ids',
];

export async function up(knex: Knex): Promise<void> {
  for (const table of TABLES)
    await knex.raw(`CREATE TABLE ${table} ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`);
  for (const change of CHANGES) await knex.raw(`ALTER TABLE ${change}`);
}

export async function down(knex: Knex): Promise<void> {
  for (const change of BACK) await knex.raw(`ALTER TABLE ${change}`);
  for (const table of [...TABLES].reverse()) await knex.schema.dropTable(/^\w+/.exec(table)![0]);
}
