/**
 * Which tables each part of the API reads and writes, by what its paths begin with. A call that touches
 * another fails its test, and what the pages read again after a change (`AFFECTED` of the contract) is held
 * against this.
 */
import { AsyncLocalStorage } from 'node:async_hooks';
import type { Knex } from 'knex';

const words = (text: string): readonly string[] => text.trim().split(/\s+/);

/** Read by every call, or written by it, or told by their own pages. */
const OF_EVERY_CALL = new Set(words('audit change_log session sign_in_failure job id_block house_key'));

/** What a change in a part of the API writes, at once or by the work that it begins. */
export const WRITES: Record<string, readonly string[]> = {
  automations: words(`
    automation automation_step automation_visit message message_link
  `),
  batches: words(`
    batch batch_decision batch_gift batch_more batch_row batch_value contact_point field_value gift
    list permission_entry permission_state roster supporter supporter_list supporter_tag tag
  `),
  beginning: words('chapter organization teammate'),
  bulk: words(`
    bulk call_list call_list_member field_value permission_entry permission_state roster supporter
    supporter_list supporter_tag
  `),
  calls: words(`
    call_list call_list_member delivery delivery_event message note permission_entry permission_state roster
  `),
  campaigns: words(`
    automation campaign campaign_off campaign_step look_group message roster segment segment_version
  `),
  chapters: words('chapter'),
  deliveries: words('delivery delivery_event'),
  'do-not-contact': words('contact_point do_not_contact'),
  'feed-sources': words('feed_source'),
  feeds: words(`
    batch batch_decision batch_gift batch_more batch_row batch_value contact_point feed feed_hook feed_notice feed_record
    feed_run feed_run_row field_value gift list permission_entry permission_state roster supporter
    supporter_list supporter_tag tag
  `),
  fields: words('field'),
  forms: words('form form_version'),
  house: words('field field_value organization'),
  'house-rules': words('house_rules rules_waiting'),
  images: words('image image_size'),
  layouts: words('layout'),
  lists: words('list supporter_list'),
  me: words('teammate teammate_link'),
  messages: words(`
    campaign_step comparison delivery delivery_event letter_file look_group message message_group
    message_letter message_letters
    message_link message_note message_proof words_version
  `),
  'messages-to': words('message'),
  organization: words('organization'),
  'own-html': words('image'),
  password: words('teammate teammate_link'),
  'people-views': words('people_view'),
  replies: words('contact_point permission_entry permission_state reply'),
  segments: words('bulk list segment segment_size segment_version'),
  sender: words('organization sender_check'),
  session: words('teammate'),
  supporters: words(`
    address_hold automation_visit batch batch_before batch_row batch_value call_list_member campaign_off
    confirmation
    confirmation_sent contact_point delivery delivery_event do_not_contact evidence field_file
    field_value gift household letter_file merging message note permission_entry permission_state
    place_before
    reply reply_file roster supporter supporter_contact supporter_list supporter_tag task
  `),
  tags: words('automation campaign_step message segment segment_version supporter_tag tag'),
  tasks: words('address_hold contact_point permission_entry permission_state task'),
  team: words('batch call_list message reply teammate teammate_link template'),
  templates: words('template words_version'),
  'text-answers': words('organization'),
};

/** What the pages read from a part of the API; of groups also what the columns in memory are made of. */
export const READS: Record<string, readonly string[]> = {
  'ask-amounts': words('gift organization supporter'),
  automations: words(`
    address_hold automation automation_step automation_visit batch batch_row campaign chapter contact_point
    delivery delivery_event do_not_contact field field_value form gift house_rules household image list
    message
    message_link organization permission_entry permission_state place_before reply roster segment supporter
    supporter_contact supporter_list supporter_tag tag teammate template
  `),
  batches: words(`
    batch batch_before batch_gift batch_more batch_row batch_value chapter contact_point delivery
    field field_value gift house_rules list organization permission_entry reply supporter
    supporter_contact tag teammate
  `),
  beginning: words('organization'),
  bulk: words('bulk teammate'),
  calls: words(`
    batch_row call_list call_list_member campaign campaign_off campaign_step chapter contact_point delivery
    delivery_event field field_value form gift house_rules
    household image list message note organization permission_state place_before reply roster segment supporter
    supporter_contact supporter_list supporter_tag tag teammate template
  `),
  campaigns: words(`
    automation automation_step address_hold batch batch_row campaign campaign_off campaign_step chapter
    contact_point delivery
    delivery_event do_not_contact field field_value form gift house_rules household image letter_file
    list look_group message organization permission_entry permission_state place_before reply roster
    segment supporter supporter_contact supporter_list supporter_tag tag teammate template words_version
  `),
  'do-not-contact': words('do_not_contact teammate'),
  'feed-sources': words('feed feed_source'),
  feeds: words(
    'campaign chapter feed feed_notice feed_record feed_run feed_source field list organization tag teammate',
  ),
  fields: words('field'),
  find: words(`
    campaign chapter contact_point list message organization segment supporter supporter_contact tag
  `),
  forms: words('confirmation field form form_count form_version list organization'),
  house: words(`
    automation campaign_step field field_value form form_version layout message organization segment
    supporter
  `),
  'house-rules': words('house_rules list rules_waiting supporter teammate'),
  images: words('image message organization teammate template'),
  jobs: words('batch bulk message teammate'),
  layouts: words('layout teammate'),
  lists: words('automation automation_step form form_version list message segment supporter supporter_list'),
  me: words('teammate'),
  'merge-fields': words('field form segment'),
  messages: words(`
    automation automation_step address_hold batch_row call_list call_list_member campaign campaign_off
    campaign_step chapter
    comparison contact_point
    delivery delivery_event do_not_contact field field_value gift house_rules household image letter_file
    look_group message message_letter
    message_letters message_link message_note message_proof organization
    permission_entry permission_state place_before reply roster supporter supporter_contact
    supporter_list supporter_tag teammate template words_version
  `),
  organization: words('chapter organization supporter'),
  password: words('organization teammate teammate_link'),
  'people-views': words('people_view teammate'),
  permission: words(`
    automation automation_visit address_change confirmation contact_point delivery list organization
    permission_entry reply
    supporter supporter_contact task teammate
  `),
  replies: words('contact_point delivery message note reply reply_file supporter task teammate'),
  segments: words(`
    automation automation_step address_hold batch batch_row campaign chapter contact_point delivery
    delivery_event
    do_not_contact field field_value form form_version gift house_rules household list message
    organization permission_entry permission_state place_before reply roster segment segment_size
    segment_version supporter supporter_contact supporter_list supporter_tag tag teammate
  `),
  sender: words('delivery delivery_event message organization sender_check'),
  session: words('chapter organization teammate'),
  supporters: words(`
    automation automation_visit address_change address_hold batch batch_row bulk bulk_member call_list
    call_list_member campaign
    chapter confirmation confirmation_sent contact_point delivery delivery_event evidence field
    field_file field_value form form_version gift house_rules household list merging message note
    organization permission_entry permission_state place_before reply roster segment supporter
    supporter_contact supporter_list supporter_tag tag task teammate
  `),
  tags: words(
    'automation automation_step chapter form form_version message segment supporter supporter_tag tag',
  ),
  team: words('batch call_list call_list_member message reply teammate teammate_link'),
  templates: words(`
    chapter contact_point field field_value gift house_rules household image list message organization
    permission_entry permission_state supporter supporter_contact teammate template words_version
  `),
  'text-answers': words('organization'),
  today: words(`
    automation automation_visit batch batch_row contact_point delivery delivery_event feed feed_run gift
    house_rules look_group message
    organization permission_entry reply sender_check supporter supporter_contact task teammate
  `),
};

/** Calls that change nothing, with more to say than fits in an address. */
const READING_POSTS = /^post \/api\/(segments\/(count|people)|house-rules\/weigh|ask-amounts)$/;

/** For each part that changes something, the other parts that read what it writes. */
export const affectedParts = (): Record<string, string[]> =>
  Object.fromEntries(
    Object.entries(WRITES).map(([changed, tables]) => [
      changed,
      Object.keys(READS).filter(
        (part) => part !== changed && tables.some((table) => READS[part]!.includes(table)),
      ),
    ]),
  );

interface Call {
  part: string;
  reads: boolean;
}

const STATEMENT = /\b(insert(?: ignore)? into|update|delete from|replace into|from|join)\s+`?(\w+)`?/gi;

/** Watches which tables calls touch, and keeps what was not declared. */
export class TableWatch {
  readonly faults = new Set<string>();
  private readonly calls = new AsyncLocalStorage<Call>();

  private constructor(private readonly known: ReadonlySet<string>) {}

  static async on(pool: Knex): Promise<TableWatch> {
    const [rows] = (await pool.raw(
      'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()',
    )) as [{ name: string }[]];
    const watch = new TableWatch(new Set(rows.map(({ name }) => name)));
    pool.on('query', ({ sql }: { sql: string }) => watch.saw(sql));
    return watch;
  }

  /** Runs what a call does, and holds its statements against what its part declares. */
  during<T>(method: string, path: string, work: () => T): T {
    const part = /^\/api\/([\w-]+)/.exec(path)?.[1];
    if (!part) return work();
    const reads = method === 'GET' || READING_POSTS.test(`${method.toLowerCase()} ${path}`);
    return this.calls.run({ part, reads }, work);
  }

  private saw(sql: string): void {
    const call = this.calls.getStore();
    if (!call) return;
    for (const [, verb, table] of sql.matchAll(STATEMENT)) {
      const isRead = /^(from|join)$/i.test(verb!);
      if (isRead !== call.reads || !this.known.has(table!) || OF_EVERY_CALL.has(table!)) continue;
      if (!(call.reads ? READS : WRITES)[call.part]?.includes(table!))
        this.faults.add(`${call.part} ${call.reads ? 'reads' : 'writes'} ${table}`);
    }
  }
}
