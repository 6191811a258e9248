import type { Knex } from 'knex';

/** Calls as a step of a campaign: their deliveries, and the lists that they are made by. */
export async function up(knex: Knex): Promise<void> {
  for (const table of ['message', 'delivery'])
    await knex.raw(`ALTER TABLE ${table} MODIFY channel ENUM('email','text','post','call') NOT NULL`);
  await knex.raw(
    `ALTER TABLE call_list ADD message_id BIGINT UNSIGNED NULL,
      ADD KEY by_message (organization_id, message_id)`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE call_list DROP KEY by_message, DROP message_id');
  for (const table of ['delivery', 'message']) {
    await knex.raw(`DELETE FROM ${table} WHERE channel = 'call'`);
    await knex.raw(`ALTER TABLE ${table} MODIFY channel ENUM('email','text','post') NOT NULL`);
  }
}
