import type { Knex } from 'knex';

/*
 * A teammate is bound to as many chapters as an owner says, or to none and works in all. And the mail of a
 * one-time link is never "being handed over": what was waiting still waits when a hand-over ended unseen.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE teammate ADD chapter_ids JSON NULL AFTER chapter_id');
  await knex.raw('UPDATE teammate SET chapter_ids = JSON_ARRAY(chapter_id) WHERE chapter_id IS NOT NULL');
  await knex.raw('ALTER TABLE teammate DROP COLUMN chapter_id');
  await knex.raw("UPDATE teammate_link SET mail = 'waiting' WHERE mail = 'handing'");
  await knex.raw(
    "ALTER TABLE teammate_link MODIFY mail ENUM('waiting','sent','failed') NOT NULL DEFAULT 'waiting'",
  );
}

/** Who is bound to several is bound to the first of them afterwards: never to more than an owner opened. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw(
    "ALTER TABLE teammate_link MODIFY mail ENUM('waiting','handing','sent','failed') NOT NULL DEFAULT 'waiting'",
  );
  await knex.raw('ALTER TABLE teammate ADD chapter_id INT UNSIGNED NULL AFTER chapter_ids');
  await knex.raw(
    "UPDATE teammate SET chapter_id = JSON_VALUE(chapter_ids, '$[0]') WHERE chapter_ids IS NOT NULL",
  );
  await knex.raw('ALTER TABLE teammate DROP COLUMN chapter_ids');
}
