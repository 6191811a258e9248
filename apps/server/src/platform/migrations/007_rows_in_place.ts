import type { Knex } from 'knex';

/*
 * Whom a staged row is about is known when it is brought in. A number that is there from the start is written
 * over where it stands; a null that becomes one makes the row longer, and pages that were filled one row
 * after the other split.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('UPDATE batch_row SET supporter_id = 0 WHERE supporter_id IS NULL');
  await knex.raw('ALTER TABLE batch_row MODIFY supporter_id BIGINT UNSIGNED NOT NULL DEFAULT 0');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE batch_row MODIFY supporter_id BIGINT UNSIGNED NULL');
  await knex.raw('UPDATE batch_row SET supporter_id = NULL WHERE supporter_id = 0');
}
