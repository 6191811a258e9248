import type { Knex } from 'knex';

/** What messages and templates said before: who wrote it, and when. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `CREATE TABLE words_version (
      id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
      organization_id INT UNSIGNED NOT NULL,
      of ENUM('message','template') NOT NULL,
      of_id BIGINT UNSIGNED NOT NULL,
      version INT UNSIGNED NOT NULL,
      words JSON NOT NULL,
      changed_by BIGINT UNSIGNED NULL,
      changed_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      KEY by_thing (organization_id, of, of_id, id)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE words_version');
}
