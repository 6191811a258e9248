import type { Knex } from 'knex';

/** To which group, and to how many, a second person agreed. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `ALTER TABLE message
      ADD COLUMN seconded_group INT UNSIGNED NULL,
      ADD COLUMN seconded_reached INT UNSIGNED NOT NULL DEFAULT 0`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE message DROP seconded_group, DROP seconded_reached');
}
