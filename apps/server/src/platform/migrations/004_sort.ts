import type { Knex } from 'knex';

/* Sorting in full: what changed is logged with whom it changed, and every column can be read from an index alone. */
const CHANGES = [
  // What a transaction changed, and whom: ids with commas between, or null for everybody.
  "change_log ADD what VARCHAR(20) NOT NULL DEFAULT 'all', ADD ref BIGINT NOT NULL DEFAULT 0, ADD ids MEDIUMTEXT CHARACTER SET ascii NULL",
  'organization ADD fiscal_month TINYINT UNSIGNED NOT NULL DEFAULT 1',
  'supporter DROP KEY by_chapter, ADD KEY by_chapter (organization_id, erased_at, chapter_id, country, region)',
  'field_value DROP KEY by_text, ADD KEY by_text (organization_id, field_id, text_value, supporter_id)',
  'delivery_event ADD KEY by_deed (organization_id, kind, supporter_id, message_id, at)',
  'delivery ADD KEY by_sent (organization_id, channel, sent_at, supporter_id)',
  // Likely doubles are found by the loose form of an address, and what was found is told from the exact one.
  'contact_point DROP KEY by_loose, ADD KEY by_loose (organization_id, loose, kind, normal), ADD KEY by_health (organization_id, kind, line, on_hold, do_not_contact)',
];

const BACK = [
  'contact_point DROP KEY by_health, DROP KEY by_loose, ADD KEY by_loose (organization_id, loose)',
  'delivery DROP KEY by_sent',
  'delivery_event DROP KEY by_deed',
  'field_value DROP KEY by_text, ADD KEY by_text (organization_id, field_id, text_value(60), supporter_id)',
  'supporter DROP KEY by_chapter, ADD KEY by_chapter (organization_id, chapter_id)',
  'organization DROP COLUMN fiscal_month',
  'change_log DROP COLUMN what, DROP COLUMN ref, DROP COLUMN ids',
];

export async function up(knex: Knex): Promise<void> {
  for (const change of CHANGES) await knex.raw(`ALTER TABLE ${change}`);
}

export async function down(knex: Knex): Promise<void> {
  for (const change of BACK) await knex.raw(`ALTER TABLE ${change}`);
}
