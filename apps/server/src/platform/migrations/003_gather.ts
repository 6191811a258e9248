import type { Knex } from 'knex';

/* Gathering in full: any file, what it is for, likely doubles, campaigns with rosters, remembered layouts. */
const ORG = 'organization_id INT UNSIGNED NOT NULL';
const ID = 'id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY';
const AT = 'DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)';
const ROW = 'batch_id BIGINT UNSIGNED NOT NULL, row_no INT UNSIGNED NOT NULL';

const TABLES = [
  `campaign (${ID}, ${ORG}, chapter_id INT UNSIGNED NULL, name VARCHAR(120) NOT NULL, kind ENUM('appeal','thank-you','update') NOT NULL DEFAULT 'appeal', appeal_code VARCHAR(60) NULL,
    standings JSON NOT NULL, is_open TINYINT NOT NULL DEFAULT 1, made_by BIGINT UNSIGNED NULL, made_at ${AT}, UNIQUE (organization_id, name))`,
  `roster (${ORG}, campaign_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL, standing VARCHAR(60) NOT NULL, batch_id BIGINT UNSIGNED NULL, put_by BIGINT UNSIGNED NULL, put_at ${AT},
    PRIMARY KEY (campaign_id, supporter_id), KEY by_standing (organization_id, campaign_id, standing, supporter_id), KEY by_supporter (organization_id, supporter_id), KEY by_batch (organization_id, batch_id))`,
  `layout (${ID}, ${ORG}, name VARCHAR(120) NOT NULL, what VARCHAR(10) NOT NULL, header_key CHAR(64) NOT NULL, header JSON NOT NULL, columns JSON NOT NULL, made_by BIGINT UNSIGNED NULL,
    used_at ${AT}, UNIQUE KEY by_header (organization_id, header_key), KEY by_use (organization_id, used_at))`,
  // Whatever else a row holds: further addresses, tags, own id, postal address, standing, day and words of
  // permission, status.
  `batch_more (${ORG}, ${ROW}, kind ENUM('email','mobile','tag','post','standing','signed','words','status') NOT NULL, n SMALLINT UNSIGNED NOT NULL DEFAULT 0,
    normal VARCHAR(254) COLLATE utf8mb4_bin NOT NULL DEFAULT '', value VARCHAR(2000) NOT NULL DEFAULT '', PRIMARY KEY (batch_id, row_no, kind, n), KEY by_kind (batch_id, kind, row_no))`,
  `batch_gift (${ORG}, ${ROW}, amount BIGINT NOT NULL, currency CHAR(3) NOT NULL, given_on INT NOT NULL, own_id VARCHAR(80) NULL, appeal VARCHAR(60) NULL, recurring TINYINT NOT NULL,
    PRIMARY KEY (batch_id, row_no), KEY by_own_id (organization_id, own_id))`,
  `batch_decision (${ORG}, ${ROW}, outcome ENUM('merge','new','skip') NOT NULL, with_id BIGINT NULL, keep JSON NOT NULL, made_by BIGINT UNSIGNED NULL, made_at ${AT}, PRIMARY KEY (batch_id, row_no))`,
  `batch_roster_before (${ORG}, batch_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL, standing VARCHAR(60) NOT NULL, PRIMARY KEY (batch_id, supporter_id))`,
  `batch_hold (${ORG}, batch_id BIGINT UNSIGNED NOT NULL, contact_point_id BIGINT UNSIGNED NOT NULL, PRIMARY KEY (batch_id, contact_point_id))`,
  `mail_domain (${ORG}, domain VARCHAR(253) COLLATE utf8mb4_bin NOT NULL, takes_mail TINYINT NOT NULL, asked_at ${AT}, PRIMARY KEY (organization_id, domain))`,
];

const VERDICTS = [
  'new',
  'shares',
  'update',
  'same',
  'here',
  'look',
  'skipped',
  'no',
  'hold',
  'gift',
  'doubled',
  'aside',
  'failed',
];
// The twin of `looseEmail` (core/intake): without dots and plus part before the @.
const LOOSE =
  "IF(kind = 'email', CONCAT(REPLACE(SUBSTRING_INDEX(SUBSTRING_INDEX(normal, '@', 1), '+', 1), '.', ''), '@', SUBSTRING_INDEX(normal, '@', -1)), NULL)";

const CHANGES = [
  // A postcode with the start of the last name: the block in which likely doubles are looked for.
  `supporter ADD external_id VARCHAR(80) NULL, ADD postcode VARCHAR(12) NULL,
    ADD block VARCHAR(20) AS (CONCAT(postcode, '|', LEFT(last_name, 3))) PERSISTENT, ADD KEY by_external (organization_id, external_id), ADD KEY by_block (organization_id, block)`,
  `contact_point ADD line ENUM('mobile','landline','voip','other') NULL, ADD parts JSON NULL,
    ADD loose VARCHAR(254) COLLATE utf8mb4_bin AS (${LOOSE}) PERSISTENT, ADD KEY by_loose (organization_id, loose)`,
  `gift ADD currency CHAR(3) NULL, ADD own_id VARCHAR(80) NULL, ADD appeal VARCHAR(60) NULL, ADD recurring TINYINT NOT NULL DEFAULT 0, ADD batch_id BIGINT UNSIGNED NULL, ADD batch_row INT UNSIGNED NULL,
    ADD UNIQUE KEY by_own_id (organization_id, own_id), ADD KEY by_batch (organization_id, batch_id)`,
  `list ADD folder VARCHAR(80) NOT NULL DEFAULT ''`,
  `field ADD choices JSON NULL`,
  `confirmation ADD batch_id BIGINT UNSIGNED NULL, ADD request JSON NULL, ADD KEY by_batch (organization_id, batch_id)`,
  `organization ADD file_days SMALLINT UNSIGNED NOT NULL DEFAULT 180`,
  `job ADD created_by BIGINT UNSIGNED NULL, ADD created_at ${AT}, ADD began_at DATETIME(3) NULL, ADD ended_at DATETIME(3) NULL, ADD KEY by_time (organization_id, id)`,
  `batch ADD what VARCHAR(10) NOT NULL DEFAULT 'people', ADD reading JSON NULL, ADD found JSON NULL, ADD guesses JSON NULL, ADD draft JSON NULL, ADD will JSON NULL, ADD text_key VARCHAR(80) NULL,
    ADD file_gone_at DATETIME(3) NULL, ADD ended_at DATETIME(3) NULL, ADD seen_at DATETIME(3) NULL, ADD stayed INT UNSIGNED NOT NULL DEFAULT 0`,
  `batch_row MODIFY verdict ENUM(${VERDICTS.map((one) => `'${one}'`).join(',')}) NOT NULL, ADD why VARCHAR(20) NULL, ADD candidates JSON NULL, ADD hint VARCHAR(500) NOT NULL DEFAULT '',
    ADD line VARCHAR(10) NULL, DROP KEY by_verdict, ADD stranger TINYINT NOT NULL DEFAULT 0, ADD external_id VARCHAR(80) NULL, ADD postcode VARCHAR(12) NULL, ADD stays TINYINT NOT NULL DEFAULT 0`,
  `permission_entry MODIFY state ENUM('yes','implied','asked','no','pause','back') NOT NULL, ADD takes_back BIGINT UNSIGNED NULL`,
];

export async function up(knex: Knex): Promise<void> {
  for (const table of TABLES)
    await knex.raw(`CREATE TABLE ${table} ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`);
  for (const change of CHANGES) await knex.raw(`ALTER TABLE ${change}`);
  await knex.raw('UPDATE batch SET text_key = storage_key, ended_at = created_at, seen_at = created_at');
}

const BACK = [
  "batch_row MODIFY verdict ENUM('new','shares','update','here','look','failed') NOT NULL, DROP COLUMN why, DROP COLUMN candidates, DROP COLUMN hint, DROP COLUMN line, ADD KEY by_verdict (batch_id, verdict, row_no), DROP COLUMN stranger, DROP COLUMN external_id, DROP COLUMN postcode, DROP COLUMN stays",
  "permission_entry MODIFY state ENUM('yes','implied','asked','no','pause') NOT NULL, DROP COLUMN takes_back",
  'batch DROP COLUMN what, DROP COLUMN reading, DROP COLUMN found, DROP COLUMN guesses, DROP COLUMN draft, DROP COLUMN will, DROP COLUMN text_key, DROP COLUMN file_gone_at, DROP COLUMN ended_at, DROP COLUMN seen_at, DROP COLUMN stayed',
  'job DROP KEY by_time, DROP COLUMN created_by, DROP COLUMN created_at, DROP COLUMN began_at, DROP COLUMN ended_at',
  'organization DROP COLUMN file_days',
  'confirmation DROP KEY by_batch, DROP COLUMN batch_id, DROP COLUMN request',
  'field DROP COLUMN choices',
  'list DROP COLUMN folder',
  'gift DROP KEY by_own_id, DROP KEY by_batch, DROP COLUMN currency, DROP COLUMN own_id, DROP COLUMN appeal, DROP COLUMN recurring, DROP COLUMN batch_id, DROP COLUMN batch_row',
  'contact_point DROP KEY by_loose, DROP COLUMN loose, DROP COLUMN line, DROP COLUMN parts',
  'supporter DROP KEY by_external, DROP KEY by_block, DROP COLUMN block, DROP COLUMN external_id, DROP COLUMN postcode',
];

export async function down(knex: Knex): Promise<void> {
  await knex.raw("DELETE FROM permission_entry WHERE state = 'back'");
  await knex.raw(
    "DELETE FROM batch_row WHERE verdict NOT IN ('new','shares','update','here','look','failed')",
  );
  for (const change of BACK) await knex.raw(`ALTER TABLE ${change}`);
  for (const table of [...TABLES].reverse()) await knex.schema.dropTable(/^\w+/.exec(table)![0]);
}
