import type { Knex } from 'knex';

/*
 * A no belongs to the address and to the person: what was said without an address has none, refusals by STOP
 * are kept apart from others, and what is needed to undo just one leaving, to weigh a place that changed and
 * to count requests to confirm is written down. States are derived anew, since a no closes more than it did.
 */
const ORG = 'organization_id INT UNSIGNED NOT NULL';
const ID = 'id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY';
const AT = 'DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)';

const TABLES = [
  // Where somebody was until a moment: an implied permission that began there needs the rule of that place
  // too.
  `place_before (${ID}, ${ORG}, supporter_id BIGINT UNSIGNED NOT NULL, country CHAR(2) NULL, region VARCHAR(3) NULL, until_at ${AT},
    changed_by BIGINT UNSIGNED NULL, KEY by_supporter (organization_id, supporter_id, until_at))`,
  // An address that its owner corrected: links in mails to the old one act for the new one.
  `address_change (${ID}, ${ORG}, supporter_id BIGINT UNSIGNED NOT NULL, from_point_id BIGINT UNSIGNED NOT NULL,
    to_point_id BIGINT UNSIGNED NOT NULL, at ${AT}, KEY by_supporter (organization_id, supporter_id, id),
    KEY by_from (organization_id, from_point_id))`,
  // Every request to confirm that left, with its words; the mailbox is the address without what follows a
  // plus.
  `confirmation_sent (${ID}, ${ORG}, confirmation_id BIGINT UNSIGNED NOT NULL, contact_point_id BIGINT UNSIGNED NOT NULL,
    mailbox VARCHAR(254) COLLATE utf8mb4_bin NOT NULL, channel ENUM('email','text','call','post') NOT NULL,
    words VARCHAR(4000) NOT NULL DEFAULT '', at ${AT}, KEY by_mailbox (organization_id, mailbox, at),
    KEY by_confirmation (confirmation_id))`,
  // What a last look came to: for each verdict its people in rising order, four bytes each, the highest
  // first.
  `look_group (${ORG}, message_id BIGINT UNSIGNED NOT NULL, verdict VARCHAR(20) NOT NULL, people INT UNSIGNED NOT NULL,
    ids LONGBLOB NOT NULL, PRIMARY KEY (message_id, verdict))`,
];

const STATES = "ENUM('yes','implied','asked','no','pause','start','back')";
const CHANGES = [
  `permission_entry MODIFY contact_point_id BIGINT UNSIGNED NULL, MODIFY state ${STATES} NOT NULL,
    ADD delivery_id BIGINT UNSIGNED NULL, ADD KEY by_delivery (organization_id, delivery_id)`,
  `permission_state ADD stop_at DATETIME(3) NULL, ADD stop_entry BIGINT UNSIGNED NULL,
    ADD start_at DATETIME(3) NULL, ADD start_entry BIGINT UNSIGNED NULL, ADD KEY by_person (organization_id, contact_point_id, channel, scope)`,
  `confirmation MODIFY channel ENUM('email','text','call','post') NOT NULL, ADD pending JSON NULL, ADD mailbox VARCHAR(254) COLLATE utf8mb4_bin NOT NULL DEFAULT '',
    ADD KEY by_mailbox (organization_id, mailbox, state)`,
  'contact_point ADD never_ask TINYINT NOT NULL DEFAULT 0',
  // What stands at the addresses of a row before it comes in, and the region that it names.
  'batch_row ADD stands TINYINT UNSIGNED NOT NULL DEFAULT 0, ADD region VARCHAR(3) NULL AFTER country, ADD place_said TINYINT NOT NULL DEFAULT 0',
];

const BACK = [
  'batch_row DROP COLUMN stands, DROP COLUMN region, DROP COLUMN place_said',
  'contact_point DROP COLUMN never_ask',
  "confirmation DROP KEY by_mailbox, DROP COLUMN pending, DROP COLUMN mailbox, MODIFY channel ENUM('email','text') NOT NULL",
  'permission_state DROP KEY by_person, DROP COLUMN stop_at, DROP COLUMN stop_entry, DROP COLUMN start_at, DROP COLUMN start_entry',
  `permission_entry DROP KEY by_delivery, DROP COLUMN delivery_id,
    MODIFY state ENUM('yes','implied','asked','no','pause','back') NOT NULL, MODIFY contact_point_id BIGINT UNSIGNED NOT NULL`,
];

export async function up(knex: Knex): Promise<void> {
  for (const table of TABLES)
    await knex.raw(`CREATE TABLE ${table} ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`);
  for (const change of CHANGES) await knex.raw(`ALTER TABLE ${change}`);
  await knex.raw('DROP TABLE last_look');
  await moveEntriesOfMergings(knex);
  await deriveStates(knex);
}

/** Entries that came over when records were brought together are kept apart from the other facts. */
async function moveEntriesOfMergings(knex: Knex): Promise<void> {
  const mergings = (await knex('merging').whereNull('undone_at').select('id', 'was')) as {
    id: number;
    was: unknown;
  }[];
  for (const { id, was } of mergings) {
    const kept = (typeof was === 'string' ? JSON.parse(was) : was) as {
      facts?: Record<string, number[]>;
      entries?: number[];
    };
    if (!kept.facts?.permission_entry) continue;
    const { permission_entry: entries, ...facts } = kept.facts;
    await knex('merging')
      .where('id', id)
      .update({ was: JSON.stringify({ ...kept, facts, entries }) });
  }
}

/**
 * States by the meaning of this version. Written out here and not called from the ledger: what a migration
 * does must stay what it was, whatever the ledger becomes.
 */
async function deriveStates(knex: Knex): Promise<void> {
  const mark = (when: string, at: string, tail = '') =>
    `MAX(IF(${when}, CONCAT(DATE_FORMAT(${at}, '%Y-%m-%d %H:%i:%s.%f'), LPAD(id, 20, '0')${tail}), NULL))`;
  const read = (expression: string) =>
    `CAST(LEFT(${expression}, 26) AS DATETIME(3)), CAST(SUBSTRING(${expression}, 27, 20) AS UNSIGNED)`;
  const stop = "state = 'no' AND how IN ('keyword', 'reply')";
  const fold = (point: string, person: string, where: string, marks: Record<string, string>) =>
    knex.raw(
      `INSERT INTO permission_state (organization_id, contact_point_id, supporter_id, channel, scope, ${Object.keys(marks).join(', ')})
        SELECT organization_id, ${point} AS point, ${person} AS person, channel, scope, ${Object.values(marks).join(', ')}
        FROM permission_entry WHERE taken_back_at IS NULL AND ${where} GROUP BY organization_id, point, person, channel, scope`,
    );
  await knex.raw(
    'UPDATE permission_state SET no_at = NULL, no_entry = NULL, pause_at = NULL, pause_entry = NULL, pause_until = NULL',
  );
  await knex.raw('DELETE FROM permission_state WHERE supporter_id = 0');
  const refusals = {
    'no_at, no_entry': read(mark(`state = 'no' AND NOT (${stop})`, 'said_at')),
    'stop_at, stop_entry': read(mark(stop, 'said_at')),
  };
  const pause = mark(
    "state = 'pause'",
    'said_at',
    ", DATE_FORMAT(COALESCE(until_at, said_at), '%Y-%m-%d %H:%i:%s.%f')",
  );
  await fold('contact_point_id', '0', "state = 'no'", refusals);
  await fold('0', 'supporter_id', "state IN ('no', 'pause') AND supporter_id IS NOT NULL", {
    ...refusals,
    'pause_at, pause_entry, pause_until': `${read(pause)}, CAST(SUBSTRING(${pause}, 47) AS DATETIME(3))`,
  });
  // What held nothing but a pause holds nothing any more.
  const nothing = ['yes', 'own_yes', 'stated', 'gift', 'membership', 'volunteering', 'inquiry', 'asked'].map(
    (kind) => `${kind}_at IS NULL`,
  );
  await knex.raw(
    `DELETE FROM permission_state WHERE contact_point_id > 0 AND supporter_id > 0 AND ${nothing.join(' AND ')}`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DELETE FROM permission_state WHERE contact_point_id = 0');
  await knex.raw("DELETE FROM permission_entry WHERE contact_point_id IS NULL OR state = 'start'");
  for (const change of BACK) await knex.raw(`ALTER TABLE ${change}`);
  for (const table of [...TABLES].reverse()) await knex.schema.dropTable(/^\w+/.exec(table)![0]);
  await knex.raw(`CREATE TABLE last_look (${ORG}, message_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL,
    verdict VARCHAR(20) NOT NULL, contact_point_id BIGINT UNSIGNED NULL, entry_id BIGINT UNSIGNED NULL,
    PRIMARY KEY (message_id, supporter_id), KEY by_verdict (message_id, verdict, supporter_id))
    ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`);
}
