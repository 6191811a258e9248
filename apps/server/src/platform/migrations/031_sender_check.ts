import type { Knex } from 'knex';

/** What was found of the records of a sender, what became of the mail sent through, and the text number. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `CREATE TABLE sender_check (
      organization_id INT UNSIGNED NOT NULL PRIMARY KEY,
      checked_at DATETIME(3) NULL,
      records JSON NULL,
      through_key CHAR(36) NULL,
      through_at DATETIME(3) NULL,
      through_fault VARCHAR(300) NULL,
      back_at DATETIME(3) NULL,
      back_signatures JSON NULL,
      back_tls TINYINT(1) NULL,
      CONSTRAINT sender_check_organization FOREIGN KEY (organization_id) REFERENCES organization (id)
    )`,
  );
  await knex.raw('ALTER TABLE organization ADD COLUMN text_number JSON NULL');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE organization DROP text_number');
  await knex.raw('DROP TABLE sender_check');
}
