import type { Knex } from 'knex';

/**
 * Where the people of a chapter live, as somebody wrote it; and of a staged row the chapter that it says,
 * where it says one.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw("ALTER TABLE chapter ADD places VARCHAR(1000) NOT NULL DEFAULT ''");
  await knex.raw('ALTER TABLE batch_row ADD chapter_id INT UNSIGNED NULL');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE batch_row DROP COLUMN chapter_id');
  await knex.raw('ALTER TABLE chapter DROP COLUMN places');
}
