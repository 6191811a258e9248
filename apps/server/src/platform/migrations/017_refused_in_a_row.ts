import type { Knex } from 'knex';

/** A row of a file may say no to a channel on which nothing is sent from it: calls, post. */
const KINDS = "'email','mobile','tag','post','standing','signed','words','status'";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`ALTER TABLE batch_more MODIFY kind ENUM(${KINDS},'refused') NOT NULL`);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw("DELETE FROM batch_more WHERE kind = 'refused'");
  await knex.raw(`ALTER TABLE batch_more MODIFY kind ENUM(${KINDS}) NOT NULL`);
}
