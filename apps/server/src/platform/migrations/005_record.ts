import type { Knex } from 'knex';

/*
 * The record in full: notes, households, records brought together, edits that can be undone, calling, and
 * segments over time.
 */
const ORG = 'organization_id INT UNSIGNED NOT NULL';
const ID = 'id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY';
const AT = 'DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)';

const TABLES = [
  `note (${ID}, ${ORG}, supporter_id BIGINT UNSIGNED NOT NULL, kind ENUM('note','call') NOT NULL DEFAULT 'note', body VARCHAR(4000) NOT NULL, made_by BIGINT UNSIGNED NULL, made_at ${AT},
    changed_at DATETIME(3) NULL, KEY by_supporter (organization_id, supporter_id, made_at))`,
  `household (${ID}, ${ORG}, greeting VARCHAR(200) NULL, made_at ${AT}, KEY (organization_id))`,
  // What the record that went held, so that both can be as they were.
  `merging (${ID}, ${ORG}, kept_id BIGINT UNSIGNED NOT NULL, gone_id BIGINT UNSIGNED NOT NULL, was JSON NOT NULL, made_by BIGINT UNSIGNED NULL, made_at ${AT}, undone_at DATETIME(3) NULL,
    KEY by_kept (organization_id, kept_id), KEY by_gone (organization_id, gone_id))`,
  // People to be called one after the other, or on paper: frozen in their order, each with what was answered.
  `call_list (${ID}, ${ORG}, chapter_id INT UNSIGNED NULL, name VARCHAR(120) NOT NULL, campaign_id BIGINT UNSIGNED NULL, script VARCHAR(4000) NOT NULL DEFAULT '', purpose VARCHAR(20) NOT NULL,
    made_by BIGINT UNSIGNED NULL, made_at ${AT}, KEY (organization_id, id))`,
  `call_list_member (${ORG}, call_list_id BIGINT UNSIGNED NOT NULL, position INT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL, held VARCHAR(20) NULL, outcome VARCHAR(60) NULL,
    note_id BIGINT UNSIGNED NULL, answered_by BIGINT UNSIGNED NULL, answered_at DATETIME(3) NULL, PRIMARY KEY (call_list_id, position), UNIQUE KEY once (call_list_id, supporter_id),
    KEY by_supporter (organization_id, supporter_id))`,
  `segment_version (${ID}, ${ORG}, segment_id BIGINT UNSIGNED NOT NULL, name VARCHAR(120) NOT NULL, tree JSON NOT NULL, people INT UNSIGNED NULL, saved_by BIGINT UNSIGNED NULL, saved_at ${AT},
    KEY by_segment (organization_id, segment_id, id))`,
  // One number a day and chapter; 0 stands for all chapters.
  `segment_size (${ORG}, segment_id BIGINT UNSIGNED NOT NULL, chapter_id INT UNSIGNED NOT NULL DEFAULT 0, day INT NOT NULL, people INT UNSIGNED NOT NULL, PRIMARY KEY (segment_id, chapter_id, day))`,
  `field_file (${ID}, ${ORG}, supporter_id BIGINT UNSIGNED NOT NULL, field_id BIGINT UNSIGNED NOT NULL, name VARCHAR(200) NOT NULL, mime VARCHAR(60) NOT NULL, bytes INT UNSIGNED NOT NULL,
    storage_key VARCHAR(80) NULL, added_by BIGINT UNSIGNED NULL, added_at ${AT}, KEY by_supporter (organization_id, supporter_id, field_id))`,
];

const CHANGES = [
  'supporter ADD household_id BIGINT UNSIGNED NULL, ADD merged_into BIGINT UNSIGNED NULL, ADD KEY by_household (organization_id, household_id, erased_at)',
  'audit ADD back JSON NULL, ADD undone_at DATETIME(3) NULL',
  'message ADD personal_to BIGINT UNSIGNED NULL',
  'tag ADD handed_down TINYINT NOT NULL DEFAULT 1',
  'field ADD is_required TINYINT NOT NULL DEFAULT 0',
  // Long text has room; of values that are shorter than the prefix the index still holds all, so that a
  // column is read from it alone (InnoDB's prefix index optimization, on since MariaDB 10.10).
  'field_value MODIFY text_value VARCHAR(4000) NULL, DROP KEY by_text, ADD KEY by_text (organization_id, field_id, text_value(500), supporter_id)',
  'batch_value MODIFY text_value VARCHAR(4000) NULL',
  'batch_before MODIFY text_value VARCHAR(4000) NULL',
  'bulk_member MODIFY was TEXT NULL',
  'list ADD KEY by_folder (organization_id, folder)',
];

const BACK = [
  'list DROP KEY by_folder',
  'bulk_member MODIFY was VARCHAR(600) NULL',
  'batch_before MODIFY text_value VARCHAR(500) NULL',
  'batch_value MODIFY text_value VARCHAR(500) NULL',
  'field_value DROP KEY by_text, MODIFY text_value VARCHAR(500) NULL, ADD KEY by_text (organization_id, field_id, text_value, supporter_id)',
  'field DROP COLUMN is_required',
  'tag DROP COLUMN handed_down',
  'message DROP COLUMN personal_to',
  'audit DROP COLUMN back, DROP COLUMN undone_at',
  'supporter DROP KEY by_household, DROP COLUMN household_id, DROP COLUMN merged_into',
];

export async function up(knex: Knex): Promise<void> {
  for (const table of TABLES)
    await knex.raw(`CREATE TABLE ${table} ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`);
  for (const change of CHANGES) await knex.raw(`ALTER TABLE ${change}`);
  // Who made a segment before its versions were kept is not known; what it says is.
  await knex.raw(
    'INSERT INTO segment_version (organization_id, segment_id, name, tree, saved_at) SELECT organization_id, id, name, tree, updated_at FROM segment',
  );
}

export async function down(knex: Knex): Promise<void> {
  for (const change of BACK) await knex.raw(`ALTER TABLE ${change}`);
  for (const table of [...TABLES].reverse()) await knex.schema.dropTable(/^\w+/.exec(table)![0]);
}
