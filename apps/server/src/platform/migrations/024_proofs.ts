import type { Knex } from 'knex';

/** Which readers of a message are worth a look before it leaves, as they were found last. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `CREATE TABLE message_proof (
      organization_id INT UNSIGNED NOT NULL,
      message_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
      version INT UNSIGNED NOT NULL,
      group_version INT UNSIGNED NOT NULL,
      state ENUM('waiting','running','done','failed') NOT NULL,
      done INT UNSIGNED NOT NULL DEFAULT 0,
      total INT UNSIGNED NOT NULL DEFAULT 0,
      found JSON NULL,
      began_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      ended_at DATETIME(3) NULL
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE message_proof');
}
