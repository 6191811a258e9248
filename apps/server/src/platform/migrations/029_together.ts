import type { Knex } from 'knex';

/** A draft that is handed over for a go, and notes to places in its words. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `ALTER TABLE message
      ADD COLUMN go_state ENUM('asked','back','agreed') NULL,
      ADD COLUMN go_version INT UNSIGNED NULL,
      ADD COLUMN go_asked_by BIGINT UNSIGNED NULL,
      ADD COLUMN go_by BIGINT UNSIGNED NULL,
      ADD COLUMN go_at DATETIME(3) NULL,
      ADD COLUMN go_note VARCHAR(500) NOT NULL DEFAULT ''`,
  );
  await knex.raw(
    `CREATE TABLE message_note (
      id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
      organization_id INT UNSIGNED NOT NULL,
      message_id BIGINT UNSIGNED NOT NULL,
      answers_id BIGINT UNSIGNED NULL,
      quote VARCHAR(300) NOT NULL DEFAULT '',
      body VARCHAR(2000) NOT NULL,
      written_by BIGINT UNSIGNED NULL,
      written_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      settled_by BIGINT UNSIGNED NULL,
      settled_at DATETIME(3) NULL,
      KEY by_message (organization_id, message_id, id)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE message_note');
  await knex.raw(
    `ALTER TABLE message DROP go_state, DROP go_version, DROP go_asked_by, DROP go_by, DROP go_at, DROP go_note`,
  );
}
