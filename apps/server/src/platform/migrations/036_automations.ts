import type { Knex } from 'knex';

const CHARS = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci';

/** By what what happened lately is found. */
const LATELY: readonly [table: string, columns: string][] = [
  ['gift', 'organization_id, recorded_at'],
  ['supporter_tag', 'organization_id, tag_id, added_at'],
  ['supporter_list', 'organization_id, list_id, added_at'],
  ['roster', 'organization_id, campaign_id, put_at'],
  ['permission_entry', 'organization_id, form_id, recorded_at'],
  ['reply', 'organization_id, at'],
];

/**
 * Automatic messages: what sets one going, its messages in a row, and each person for whom it was set going.
 * Somebody can get such a message more than once, for another occasion each time.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `CREATE TABLE automation (
      id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
      organization_id BIGINT UNSIGNED NOT NULL,
      chapter_id INT UNSIGNED NULL,
      name VARCHAR(120) NOT NULL,
      cause JSON NOT NULL,
      again TINYINT(1) NOT NULL DEFAULT 0,
      stops JSON NOT NULL,
      excepted JSON NULL,
      is_on TINYINT(1) NOT NULL DEFAULT 0,
      on_since DATETIME(3) NULL,
      since DATETIME(3) NULL,
      looked_at DATETIME(3) NULL,
      version INT UNSIGNED NOT NULL DEFAULT 0,
      changed_by BIGINT UNSIGNED NULL,
      made_by BIGINT UNSIGNED NULL,
      made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      UNIQUE KEY by_name (organization_id, name),
      KEY by_on (is_on, id)
    ) ${CHARS}`,
  );
  await knex.raw(
    `CREATE TABLE automation_step (
      message_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
      organization_id BIGINT UNSIGNED NOT NULL,
      automation_id BIGINT UNSIGNED NOT NULL,
      position SMALLINT UNSIGNED NOT NULL,
      wait JSON NOT NULL,
      KEY by_automation (organization_id, automation_id, position)
    ) ${CHARS}`,
  );
  await knex.raw(
    `CREATE TABLE automation_visit (
      id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
      organization_id BIGINT UNSIGNED NOT NULL,
      automation_id BIGINT UNSIGNED NOT NULL,
      supporter_id BIGINT UNSIGNED NOT NULL,
      cause_key VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      caused_at DATETIME(3) NOT NULL,
      taken_at DATETIME(3) NOT NULL,
      step SMALLINT UNSIGNED NOT NULL DEFAULT 0,
      due_at DATETIME(3) NULL,
      state ENUM('waiting','held','done','ended') NOT NULL,
      looked TINYINT(1) NOT NULL DEFAULT 0,
      why VARCHAR(20) NULL,
      UNIQUE KEY once (automation_id, supporter_id, cause_key),
      KEY by_due (automation_id, state, due_at),
      KEY by_taken (automation_id, taken_at),
      KEY by_supporter (organization_id, supporter_id)
    ) ${CHARS}`,
  );
  await knex.raw(
    `ALTER TABLE delivery
      ADD COLUMN occasion BIGINT UNSIGNED NOT NULL DEFAULT 0,
      DROP KEY once,
      ADD UNIQUE KEY once (message_id, supporter_id, occasion)`,
  );
  for (const [table, columns] of LATELY) await knex.raw(`ALTER TABLE ${table} ADD KEY lately (${columns})`);
}

export async function down(knex: Knex): Promise<void> {
  for (const [table] of LATELY) await knex.raw(`ALTER TABLE ${table} DROP KEY lately`);
  // Of several mails of one message to one person the first stays.
  await knex.raw(
    `DELETE d FROM delivery d JOIN delivery e
      ON e.message_id = d.message_id AND e.supporter_id = d.supporter_id AND e.id < d.id`,
  );
  await knex.raw(
    `ALTER TABLE delivery DROP KEY once, ADD UNIQUE KEY once (message_id, supporter_id), DROP COLUMN occasion`,
  );
  await knex.raw('DROP TABLE automation_visit');
  await knex.raw('DROP TABLE automation_step');
  await knex.raw('DROP TABLE automation');
}
