import type { Knex } from 'knex';

/** What a refusal was about, and why a sending paused itself. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `ALTER TABLE delivery
      ADD COLUMN fault ENUM('address','full','policy','provider','message','unknown') NULL`,
  );
  await knex.raw(
    'ALTER TABLE message ADD COLUMN paused_why VARCHAR(400) NULL, ADD COLUMN resumed_at DATETIME(3) NULL',
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE message DROP paused_why, DROP resumed_at');
  await knex.raw('ALTER TABLE delivery DROP fault');
}
