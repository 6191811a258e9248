import type { Knex } from 'knex';

/*
 * Times are UTC. Every row names its organization; supporters and what hangs on them also a chapter. Facts
 * (permission entries, delivery events, audit) are only added. Names follow the objects of the product.
 */
const ORG = 'organization_id INT UNSIGNED NOT NULL';
const ID = 'id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY';
const AT = 'DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)';

const TABLES = [
  `organization (id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY, name VARCHAR(120) NOT NULL, country CHAR(2) NOT NULL,
    locale VARCHAR(20) NOT NULL, currency CHAR(3) NOT NULL, time_zone VARCHAR(60) NOT NULL, postal_address VARCHAR(300) NOT NULL,
    from_email VARCHAR(254) NOT NULL, list_domain VARCHAR(200) NOT NULL, text_from VARCHAR(20) NOT NULL, rules JSON NULL)`,
  `chapter (id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY, ${ORG}, name VARCHAR(120) NOT NULL, UNIQUE (organization_id, name))`,
  `teammate (${ID}, ${ORG}, chapter_id INT UNSIGNED NULL, name VARCHAR(120) NOT NULL, email VARCHAR(254) NOT NULL, role VARCHAR(20) NOT NULL,
    password_hash VARCHAR(200) NOT NULL, mobile VARCHAR(20) NOT NULL DEFAULT '', signature VARCHAR(500) NOT NULL DEFAULT '', UNIQUE (email))`,
  `session (token_hash CHAR(64) NOT NULL PRIMARY KEY, ${ORG}, teammate_id BIGINT UNSIGNED NOT NULL, chapter_id INT UNSIGNED NULL,
    csrf CHAR(43) NOT NULL, created_at ${AT}, expires_at DATETIME(3) NOT NULL)`,
  `supporter (${ID}, ${ORG}, chapter_id INT UNSIGNED NOT NULL, first_name VARCHAR(100) NOT NULL DEFAULT '', last_name VARCHAR(100) NOT NULL DEFAULT '',
    batch_id BIGINT UNSIGNED NULL, batch_row INT UNSIGNED NULL, created_at ${AT}, updated_at ${AT},
    KEY by_name (organization_id, last_name, first_name, id), KEY by_first (organization_id, first_name), KEY by_chapter (organization_id, chapter_id), UNIQUE KEY by_origin (batch_id, batch_row))`,
  `contact_point (${ID}, ${ORG}, kind ENUM('email','mobile','post') NOT NULL, normal VARCHAR(254) COLLATE utf8mb4_bin NOT NULL, shown VARCHAR(300) NOT NULL,
    on_hold TINYINT NOT NULL DEFAULT 0, do_not_contact TINYINT NOT NULL DEFAULT 0, hold_reason VARCHAR(300) NULL, hold_at DATETIME(3) NULL, batch_id BIGINT UNSIGNED NULL,
    UNIQUE KEY by_normal (organization_id, kind, normal))`,
  `supporter_contact (${ORG}, supporter_id BIGINT UNSIGNED NOT NULL, contact_point_id BIGINT UNSIGNED NOT NULL, position SMALLINT NOT NULL DEFAULT 0,
    batch_id BIGINT UNSIGNED NULL, PRIMARY KEY (supporter_id, contact_point_id), KEY by_point (contact_point_id, supporter_id), KEY by_batch (organization_id, batch_id))`,
  `field (${ID}, ${ORG}, name VARCHAR(120) NOT NULL, type VARCHAR(20) NOT NULL, section VARCHAR(80) NOT NULL DEFAULT 'More', fallback VARCHAR(200) NULL,
    batch_id BIGINT UNSIGNED NULL, UNIQUE (organization_id, name))`,
  `field_value (${ORG}, supporter_id BIGINT UNSIGNED NOT NULL, field_id BIGINT UNSIGNED NOT NULL, text_value VARCHAR(500) NULL, number_value DOUBLE NULL,
    date_value INT NULL, month_day SMALLINT NULL, PRIMARY KEY (supporter_id, field_id), KEY by_text (organization_id, field_id, text_value(60), supporter_id),
    KEY by_number (organization_id, field_id, number_value, supporter_id), KEY by_date (organization_id, field_id, date_value, supporter_id),
    KEY by_month_day (organization_id, field_id, month_day, supporter_id))`,
  `tag (${ID}, ${ORG}, chapter_id INT UNSIGNED NULL, name VARCHAR(120) NOT NULL, batch_id BIGINT UNSIGNED NULL, UNIQUE (organization_id, name))`,
  `supporter_tag (${ORG}, supporter_id BIGINT UNSIGNED NOT NULL, tag_id BIGINT UNSIGNED NOT NULL, batch_id BIGINT UNSIGNED NULL, added_by BIGINT UNSIGNED NULL, added_at ${AT},
    PRIMARY KEY (supporter_id, tag_id), KEY by_tag (organization_id, tag_id, supporter_id), KEY by_batch (organization_id, batch_id))`,
  `list (${ID}, ${ORG}, chapter_id INT UNSIGNED NULL, name VARCHAR(120) NOT NULL, is_public TINYINT NOT NULL DEFAULT 0, description VARCHAR(500) NOT NULL DEFAULT '',
    batch_id BIGINT UNSIGNED NULL, UNIQUE (organization_id, name))`,
  `supporter_list (${ORG}, supporter_id BIGINT UNSIGNED NOT NULL, list_id BIGINT UNSIGNED NOT NULL, batch_id BIGINT UNSIGNED NULL, added_by BIGINT UNSIGNED NULL, added_at ${AT},
    PRIMARY KEY (supporter_id, list_id), KEY by_list (organization_id, list_id, supporter_id), KEY by_batch (organization_id, batch_id))`,
  `gift (${ID}, ${ORG}, supporter_id BIGINT UNSIGNED NOT NULL, amount BIGINT NOT NULL, given_on INT NOT NULL, note VARCHAR(200) NOT NULL DEFAULT '',
    recorded_by BIGINT UNSIGNED NULL, recorded_at ${AT}, KEY by_supporter (organization_id, supporter_id, given_on, amount))`,
  `batch (${ID}, ${ORG}, chapter_id INT UNSIGNED NOT NULL, name VARCHAR(120) NOT NULL, file_name VARCHAR(200) NOT NULL, storage_key VARCHAR(80) NOT NULL,
    state VARCHAR(20) NOT NULL, row_count INT UNSIGNED NOT NULL DEFAULT 0, plan JSON NULL, resolved JSON NULL, next_row INT UNSIGNED NOT NULL DEFAULT 0,
    stay_no INT UNSIGNED NOT NULL DEFAULT 0, rate DOUBLE NULL, problem VARCHAR(500) NULL, created_by BIGINT UNSIGNED NULL, created_at ${AT}, KEY (organization_id, created_at))`,
  `batch_row (${ORG}, batch_id BIGINT UNSIGNED NOT NULL, row_no INT UNSIGNED NOT NULL, verdict ENUM('new','shares','update','here','look','failed') NOT NULL,
    same_as_row INT UNSIGNED NULL, supporter_id BIGINT UNSIGNED NULL, first_name VARCHAR(100) NOT NULL, last_name VARCHAR(100) NOT NULL,
    email VARCHAR(254) COLLATE utf8mb4_bin NULL, email_shown VARCHAR(300) NULL, mobile VARCHAR(20) COLLATE utf8mb4_bin NULL, mobile_shown VARCHAR(40) NULL,
    email_says TINYINT NULL, text_says TINYINT NULL, reason VARCHAR(500) NOT NULL DEFAULT '', PRIMARY KEY (batch_id, row_no), KEY by_verdict (batch_id, verdict, row_no), KEY by_supporter (organization_id, supporter_id))`,
  `batch_value (${ORG}, batch_id BIGINT UNSIGNED NOT NULL, row_no INT UNSIGNED NOT NULL, field_id BIGINT NOT NULL, text_value VARCHAR(500) NULL,
    number_value DOUBLE NULL, date_value INT NULL, month_day SMALLINT NULL, PRIMARY KEY (batch_id, row_no, field_id))`,
  `batch_before (${ORG}, batch_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL, field_id BIGINT NOT NULL, existed TINYINT NOT NULL,
    text_value VARCHAR(500) NULL, number_value DOUBLE NULL, date_value INT NULL, month_day SMALLINT NULL, PRIMARY KEY (batch_id, supporter_id, field_id))`,
  `permission_entry (${ID}, ${ORG}, contact_point_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NULL, channel ENUM('email','text','call','post') NOT NULL,
    scope VARCHAR(40) NOT NULL, state ENUM('yes','implied','asked','no') NOT NULL, said_at DATETIME(3) NOT NULL, until_at DATETIME(3) NULL, by_person TINYINT NOT NULL,
    how VARCHAR(20) NOT NULL, words VARCHAR(2000) NOT NULL DEFAULT '', source VARCHAR(300) NOT NULL DEFAULT '', batch_id BIGINT UNSIGNED NULL, batch_row INT UNSIGNED NULL,
    origin VARCHAR(60) NULL, recorded_by BIGINT UNSIGNED NULL, recorded_at ${AT}, taken_back_at DATETIME(3) NULL,
    KEY by_point (organization_id, contact_point_id, channel), KEY by_supporter (organization_id, supporter_id), KEY by_batch (organization_id, batch_id, batch_row))`,
  `permission_state (${ORG}, contact_point_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL, channel ENUM('email','text','call','post') NOT NULL,
    scope VARCHAR(40) COLLATE utf8mb4_bin NOT NULL, no_at DATETIME(3) NULL, no_entry BIGINT UNSIGNED NULL, own_yes_at DATETIME(3) NULL, own_yes_entry BIGINT UNSIGNED NULL,
    yes_at DATETIME(3) NULL, yes_entry BIGINT UNSIGNED NULL, implied_until DATETIME(3) NULL, implied_entry BIGINT UNSIGNED NULL, asked_at DATETIME(3) NULL, asked_entry BIGINT UNSIGNED NULL,
    PRIMARY KEY (organization_id, contact_point_id, supporter_id, channel, scope))`,
  `do_not_contact (${ID}, ${ORG}, kind ENUM('email','mobile') NOT NULL, key_hash CHAR(64) NOT NULL, note VARCHAR(300) NOT NULL DEFAULT '', created_at ${AT}, UNIQUE (organization_id, kind, key_hash))`,
  `segment (${ID}, ${ORG}, chapter_id INT UNSIGNED NULL, name VARCHAR(120) NOT NULL, tree JSON NOT NULL, updated_at ${AT}, UNIQUE (organization_id, name))`,
  `image (${ID}, ${ORG}, name VARCHAR(200) NOT NULL, mime VARCHAR(40) NOT NULL, bytes INT UNSIGNED NOT NULL, width INT UNSIGNED NOT NULL, height INT UNSIGNED NOT NULL,
    alt VARCHAR(300) NOT NULL DEFAULT '', storage_key VARCHAR(80) NOT NULL, created_at ${AT}, KEY (organization_id, id))`,
  `message (${ID}, ${ORG}, chapter_id INT UNSIGNED NULL, name VARCHAR(120) NOT NULL, channel ENUM('email','text') NOT NULL, purpose VARCHAR(20) NULL, list_id BIGINT UNSIGNED NULL,
    state VARCHAR(20) NOT NULL DEFAULT 'draft', subject VARCHAR(200) NOT NULL DEFAULT '', preheader VARCHAR(200) NOT NULL DEFAULT '', letter JSON NULL, body VARCHAR(2000) NOT NULL DEFAULT '',
    recipients JSON NOT NULL, scheduled_at DATETIME(3) NULL, started_at DATETIME(3) NULL, sender_id BIGINT UNSIGNED NULL, tested_at DATETIME(3) NULL, prepared_to BIGINT UNSIGNED NOT NULL DEFAULT 0,
    created_at ${AT}, updated_at ${AT}, KEY (organization_id, updated_at), KEY by_state (state))`,
  `last_look (${ORG}, message_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL, verdict VARCHAR(20) NOT NULL, contact_point_id BIGINT UNSIGNED NULL, entry_id BIGINT UNSIGNED NULL,
    PRIMARY KEY (message_id, supporter_id), KEY by_verdict (message_id, verdict, supporter_id))`,
  `message_group (${ORG}, message_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL, PRIMARY KEY (message_id, supporter_id))`,
  `delivery (${ID}, ${ORG}, message_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL, channel ENUM('email','text') NOT NULL, contact_point_id BIGINT UNSIGNED NULL,
    verdict VARCHAR(20) NOT NULL, entry_id BIGINT UNSIGNED NULL, state ENUM('held','ready','leased','handing','sent','delivered','bounced','failed','door','unsure','stopped') NOT NULL,
    door_verdict VARCHAR(20) NULL, provider_key CHAR(36) NOT NULL, attempts SMALLINT UNSIGNED NOT NULL DEFAULT 0, not_before DATETIME(3) NULL, leased_by VARCHAR(60) NULL, lease_until DATETIME(3) NULL,
    sent_at DATETIME(3) NULL, detail VARCHAR(300) NULL, opened TINYINT NOT NULL DEFAULT 0, followed TINYINT NOT NULL DEFAULT 0, replied TINYINT NOT NULL DEFAULT 0, left_it TINYINT NOT NULL DEFAULT 0,
    UNIQUE KEY once (message_id, supporter_id), UNIQUE KEY by_key (provider_key), KEY by_state (state, message_id, id), KEY by_message (message_id, state, id),
    KEY by_supporter (organization_id, supporter_id, id), KEY by_point (organization_id, contact_point_id, sent_at))`,
  `delivery_event (${ID}, ${ORG}, delivery_id BIGINT UNSIGNED NOT NULL, message_id BIGINT UNSIGNED NOT NULL, supporter_id BIGINT UNSIGNED NOT NULL,
    kind ENUM('sent','delivered','bounced','opened','followed','replied','left','door','unsure','failed','complained','settled') NOT NULL, at ${AT}, detail VARCHAR(500) NOT NULL DEFAULT '',
    KEY by_message (organization_id, message_id, kind, at), KEY by_supporter (organization_id, supporter_id, at), KEY by_delivery (delivery_id, kind))`,
  `message_link (${ID}, ${ORG}, message_id BIGINT UNSIGNED NOT NULL, position SMALLINT UNSIGNED NOT NULL, url VARCHAR(2000) NOT NULL, UNIQUE (message_id, position))`,
  `reply (${ID}, ${ORG}, provider_key VARCHAR(100) NOT NULL, channel ENUM('email','text') NOT NULL, sender VARCHAR(254) NOT NULL, contact_point_id BIGINT UNSIGNED NULL, supporter_id BIGINT UNSIGNED NULL,
    delivery_id BIGINT UNSIGNED NULL, body TEXT NOT NULL, keyword VARCHAR(10) NOT NULL DEFAULT 'none', at ${AT}, handled_at DATETIME(3) NULL, UNIQUE (organization_id, provider_key), KEY by_supporter (organization_id, supporter_id))`,
  `audit (${ID}, ${ORG}, actor_id BIGINT UNSIGNED NULL, act VARCHAR(60) NOT NULL, subject VARCHAR(30) NOT NULL, subject_id BIGINT UNSIGNED NOT NULL, words VARCHAR(600) NOT NULL,
    before_value VARCHAR(600) NULL, after_value VARCHAR(600) NULL, at ${AT}, KEY by_subject (organization_id, subject, subject_id, at))`,
  `job (${ID}, ${ORG}, chapter_id INT UNSIGNED NULL, kind VARCHAR(40) NOT NULL, ref_id BIGINT UNSIGNED NOT NULL, state ENUM('waiting','running','done','failed') NOT NULL DEFAULT 'waiting',
    run_at ${AT}, attempts SMALLINT UNSIGNED NOT NULL DEFAULT 0, leased_by VARCHAR(60) NULL, lease_until DATETIME(3) NULL, cancel TINYINT NOT NULL DEFAULT 0, error VARCHAR(500) NULL,
    KEY by_due (state, run_at), KEY by_ref (kind, ref_id))`,
  `change_log (${ID}, ${ORG}, at ${AT}, KEY (organization_id))`,
];

export async function up(knex: Knex): Promise<void> {
  for (const table of TABLES)
    await knex.raw(`CREATE TABLE ${table} ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`);
}

export async function down(knex: Knex): Promise<void> {
  for (const table of [...TABLES].reverse()) await knex.schema.dropTable(/^\w+/.exec(table)![0]);
}
