import type { Knex } from 'knex';

/*
 * A hold that waits for somebody to say what was meant is told from one of a bounce, so that the answer
 * releases the first and leaves the second.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE address_hold ADD asks TINYINT(1) NOT NULL DEFAULT 0');
  await knex.raw(`UPDATE address_hold SET asks = 1
    WHERE released_at IS NULL AND reason LIKE '%: waits for a person to say what is meant'`);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE address_hold DROP COLUMN asks');
}
