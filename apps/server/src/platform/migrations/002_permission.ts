import type { Knex } from 'knex';

/*
 * The permission ledger in full: pauses, relationships, places, rules of the house, forms and what follows
 * them.
 */
const ORG = 'organization_id INT UNSIGNED NOT NULL';
const ID = 'id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY';
const AT = 'DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)';
const MARKS = ['gift', 'membership', 'volunteering', 'inquiry'];

const TABLES = [
  `house_rules (${ID}, ${ORG}, rules JSON NOT NULL, words VARCHAR(600) NOT NULL, effects JSON NOT NULL, made_by BIGINT UNSIGNED NULL, made_at ${AT}, KEY (organization_id, id))`,
  `evidence (${ID}, ${ORG}, supporter_id BIGINT UNSIGNED NOT NULL, name VARCHAR(200) NOT NULL, mime VARCHAR(60) NOT NULL, bytes INT UNSIGNED NOT NULL, sha256 CHAR(64) NOT NULL,
    storage_key VARCHAR(80) NULL, added_by BIGINT UNSIGNED NULL, added_at ${AT}, KEY (organization_id, supporter_id))`,
  `form (${ID}, ${ORG}, chapter_id INT UNSIGNED NULL, name VARCHAR(120) NOT NULL, slug VARCHAR(60) COLLATE utf8mb4_bin NOT NULL, is_open TINYINT NOT NULL DEFAULT 0, version INT UNSIGNED NOT NULL DEFAULT 1,
    keyword VARCHAR(20) NULL, updated_at ${AT}, UNIQUE KEY by_slug (slug), UNIQUE KEY by_keyword (organization_id, keyword))`,
  `form_version (${ORG}, form_id BIGINT UNSIGNED NOT NULL, version INT UNSIGNED NOT NULL, definition JSON NOT NULL, made_by BIGINT UNSIGNED NULL, made_at ${AT}, PRIMARY KEY (form_id, version))`,
  `form_count (${ORG}, form_id BIGINT UNSIGNED NOT NULL, day INT NOT NULL, kind ENUM('seen','begun','joined','confirmed') NOT NULL, n INT UNSIGNED NOT NULL DEFAULT 0, PRIMARY KEY (form_id, day, kind))`,
  `confirmation (${ID}, ${ORG}, kind ENUM('join','address') NOT NULL, form_id BIGINT UNSIGNED NULL, version INT UNSIGNED NULL, supporter_id BIGINT UNSIGNED NOT NULL, contact_point_id BIGINT UNSIGNED NOT NULL,
    channel ENUM('email','text') NOT NULL, asks JSON NOT NULL, state ENUM('waiting','handing','sent','confirmed','dropped') NOT NULL DEFAULT 'waiting', sent SMALLINT UNSIGNED NOT NULL DEFAULT 0,
    asked_at ${AT}, due_at DATETIME(3) NULL, expires_at DATETIME(3) NOT NULL, confirmed_at DATETIME(3) NULL, detail VARCHAR(300) NULL,
    KEY by_due (state, due_at), KEY by_point (organization_id, contact_point_id, asked_at), KEY by_supporter (organization_id, supporter_id))`,
  `task (${ID}, ${ORG}, kind ENUM('erasure','stop') NOT NULL, supporter_id BIGINT UNSIGNED NULL, contact_point_id BIGINT UNSIGNED NULL, reply_id BIGINT UNSIGNED NULL, words VARCHAR(600) NOT NULL DEFAULT '',
    asked_at ${AT}, done_at DATETIME(3) NULL, done_by BIGINT UNSIGNED NULL, outcome VARCHAR(60) NULL, KEY (organization_id, kind, done_at))`,
];

const CHANGES = [
  `supporter ADD country CHAR(2) NULL, ADD region VARCHAR(3) NULL, ADD language VARCHAR(5) NULL, ADD erased_at DATETIME(3) NULL`,
  `permission_entry MODIFY state ENUM('yes','implied','asked','no','pause') NOT NULL, ADD evidence_id BIGINT UNSIGNED NULL`,
  `permission_state CHANGE implied_until stated_at DATETIME(3) NULL, CHANGE implied_entry stated_entry BIGINT UNSIGNED NULL,
    ${MARKS.map((kind) => `ADD ${kind}_at DATETIME(3) NULL, ADD ${kind}_entry BIGINT UNSIGNED NULL`).join(', ')},
    ADD pause_at DATETIME(3) NULL, ADD pause_entry BIGINT UNSIGNED NULL, ADD pause_until DATETIME(3) NULL`,
  `organization DROP COLUMN rules, ADD text_answers JSON NULL, ADD language VARCHAR(5) NOT NULL DEFAULT 'en'`,
  `do_not_contact MODIFY kind ENUM('email','mobile','domain','range') NOT NULL, ADD shown VARCHAR(300) NULL, ADD range_from VARCHAR(20) COLLATE utf8mb4_bin NULL,
    ADD range_to VARCHAR(20) COLLATE utf8mb4_bin NULL, ADD how VARCHAR(20) NOT NULL DEFAULT 'hand', ADD added_by BIGINT UNSIGNED NULL`,
  `list ADD on_preferences TINYINT NOT NULL DEFAULT 0, ADD by_form TINYINT NOT NULL DEFAULT 0, ADD why VARCHAR(600) NOT NULL DEFAULT '', ADD position INT NOT NULL DEFAULT 0`,
  `delivery ADD counts TINYINT NOT NULL DEFAULT 1, ADD KEY by_recent (organization_id, supporter_id, channel, counts, sent_at)`,
  `batch_row ADD country CHAR(2) NULL`,
];

export async function up(knex: Knex): Promise<void> {
  for (const table of TABLES)
    await knex.raw(`CREATE TABLE ${table} ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`);
  for (const change of CHANGES) await knex.raw(`ALTER TABLE ${change}`);
  await knex('list').where('is_public', 1).update({ on_preferences: 1, by_form: 1 });
  await knex.raw(
    "UPDATE delivery d JOIN message m ON m.id = d.message_id SET d.counts = 0 WHERE m.purpose = 'service'",
  );
}

const BACK = [
  'batch_row DROP COLUMN country',
  'delivery DROP KEY by_recent, DROP COLUMN counts',
  'list DROP COLUMN on_preferences, DROP COLUMN by_form, DROP COLUMN why, DROP COLUMN position',
  'do_not_contact DROP COLUMN shown, DROP COLUMN range_from, DROP COLUMN range_to, DROP COLUMN how, DROP COLUMN added_by',
  'organization ADD rules JSON NULL, DROP COLUMN text_answers, DROP COLUMN language',
  `permission_state CHANGE stated_at implied_until DATETIME(3) NULL, CHANGE stated_entry implied_entry BIGINT UNSIGNED NULL,
    ${[...MARKS, 'pause'].map((kind) => `DROP COLUMN ${kind}_at, DROP COLUMN ${kind}_entry`).join(', ')}, DROP COLUMN pause_until`,
  'permission_entry DROP COLUMN evidence_id',
  'supporter DROP COLUMN country, DROP COLUMN region, DROP COLUMN language, DROP COLUMN erased_at',
];

export async function down(knex: Knex): Promise<void> {
  for (const change of BACK) await knex.raw(`ALTER TABLE ${change}`);
  for (const table of [...TABLES].reverse()) await knex.schema.dropTable(/^\w+/.exec(table)![0]);
}
