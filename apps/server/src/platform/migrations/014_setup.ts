import type { Knex } from 'knex';

/*
 * What an organization says of itself, its chapters and its teammates; how teammates are let in (one-time
 * links by mail), how guessing is slowed down, and the keys of the house, wrapped by the secret so that the
 * secret can be changed.
 */
const ID = 'id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY';
const AT = 'DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)';

const TABLES = [
  `teammate_link (${ID}, organization_id INT UNSIGNED NOT NULL, teammate_id BIGINT UNSIGNED NOT NULL, kind ENUM('invitation','password') NOT NULL,
    made_by BIGINT UNSIGNED NULL, made_at ${AT}, expires_at DATETIME(3) NOT NULL, used_at DATETIME(3) NULL,
    mail ENUM('waiting','handing','sent','failed') NOT NULL DEFAULT 'waiting', due_at DATETIME(3) NULL, tries SMALLINT UNSIGNED NOT NULL DEFAULT 0, detail VARCHAR(300) NULL,
    KEY by_teammate (organization_id, teammate_id), KEY by_due (mail, due_at))`,
  `sign_in_failure (key_hash CHAR(64) NOT NULL PRIMARY KEY, failures INT UNSIGNED NOT NULL, last_at DATETIME(3) NOT NULL, KEY by_time (last_at))`,
  `house_key (name VARCHAR(30) NOT NULL PRIMARY KEY, wrapped VARCHAR(300) NOT NULL)`,
];

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`ALTER TABLE organization ADD legal_name VARCHAR(200) NOT NULL DEFAULT '', ADD languages JSON NULL, ADD logo_id BIGINT UNSIGNED NULL,
    ADD version INT UNSIGNED NOT NULL DEFAULT 0, ADD changed_by BIGINT UNSIGNED NULL`);
  await knex.raw(`ALTER TABLE chapter ADD postal_address VARCHAR(300) NOT NULL DEFAULT ''`);
  await knex.raw(`ALTER TABLE teammate MODIFY password_hash VARCHAR(200) NULL, ADD title VARCHAR(120) NOT NULL DEFAULT '', ADD answers_to VARCHAR(254) NOT NULL DEFAULT '',
    ADD left_at DATETIME(3) NULL, ADD signed_in_at DATETIME(3) NULL`);
  await knex.raw(`ALTER TABLE session ADD id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT, ADD UNIQUE KEY by_id (id), ADD seen_at ${AT},
    ADD network VARCHAR(45) NOT NULL DEFAULT '', ADD browser VARCHAR(200) NOT NULL DEFAULT '', ADD KEY by_teammate (organization_id, teammate_id)`);
  for (const table of TABLES)
    await knex.raw(`CREATE TABLE ${table} ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`);
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['teammate_link', 'sign_in_failure', 'house_key'])
    await knex.raw(`DROP TABLE ${table}`);
  await knex.raw(
    'ALTER TABLE session DROP KEY by_teammate, DROP COLUMN browser, DROP COLUMN network, DROP COLUMN seen_at, DROP KEY by_id, DROP COLUMN id',
  );
  await knex.raw(
    'ALTER TABLE teammate DROP COLUMN signed_in_at, DROP COLUMN left_at, DROP COLUMN answers_to, DROP COLUMN title',
  );
  await knex.raw('ALTER TABLE chapter DROP COLUMN postal_address');
  await knex.raw(
    'ALTER TABLE organization DROP COLUMN changed_by, DROP COLUMN version, DROP COLUMN logo_id, DROP COLUMN languages, DROP COLUMN legal_name',
  );
}
