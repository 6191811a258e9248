import type { Knex } from 'knex';

/* Tags that a message puts on whoever follows a link in it or answers it, and which message put them on. */
const CHANGES = ['message ADD tag_deeds JSON NULL', 'supporter_tag ADD message_id BIGINT UNSIGNED NULL'];
const BACK = ['supporter_tag DROP COLUMN message_id', 'message DROP COLUMN tag_deeds'];

export async function up(knex: Knex): Promise<void> {
  for (const change of CHANGES) await knex.raw(`ALTER TABLE ${change}`);
}

export async function down(knex: Knex): Promise<void> {
  for (const change of BACK) await knex.raw(`ALTER TABLE ${change}`);
}
