import type { Knex } from 'knex';

const KINDS = "'email','mobile','tag','post','standing','signed','words','status'";

/**
 * A row of a file may say no to a channel on which nothing is sent from it: calls, post. And a batch of
 * somebody who works in all chapters looks for its people in all of them (`across`); where it found some
 * outside its own it is for those alone who may see them (`mixed`).
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`ALTER TABLE batch_more MODIFY kind ENUM(${KINDS},'refused') NOT NULL`);
  await knex.raw(
    'ALTER TABLE batch ADD across TINYINT NOT NULL DEFAULT 0, ADD mixed TINYINT NOT NULL DEFAULT 0',
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE batch DROP COLUMN across, DROP COLUMN mixed');
  await knex.raw("DELETE FROM batch_more WHERE kind = 'refused'");
  await knex.raw(`ALTER TABLE batch_more MODIFY kind ENUM(${KINDS}) NOT NULL`);
}
