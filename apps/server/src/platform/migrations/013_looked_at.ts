import type { Knex } from 'knex';

/*
 * A message knows which version of its words and of its group it is at, so that of two who save from one
 * version the second is told, and so that what leaves is what was looked at. `leaves_at` is the end of the
 * time in which a message that was sent "now" is taken back without a trace.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`ALTER TABLE message ADD version INT UNSIGNED NOT NULL DEFAULT 0, ADD group_version INT UNSIGNED NOT NULL DEFAULT 0, ADD changed_by BIGINT UNSIGNED NULL,
    ADD leaves_at DATETIME(3) NULL`);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(
    'ALTER TABLE message DROP COLUMN version, DROP COLUMN group_version, DROP COLUMN changed_by, DROP COLUMN leaves_at',
  );
}
