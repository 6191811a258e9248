import { randomUUID } from 'node:crypto';
import type { LetterDoc } from '@goodword/core/letter';
import { Database, type Bound, type Scoped } from '@goodword/server/platform/database';
import { programScope } from '@goodword/server/platform/scope';
import { LedgerRepository } from '@goodword/server/permission/ledger.repository';
import { hashPassword } from '@goodword/server/team/team.service';
import { Chance } from './chance';
import { HULL, LAUNCH_TEXT, PLANKS, THANKS } from './messages';
import { inventPeople, type Agreement, type Person } from './people';

const DAY = 86_400_000;
export const PASSWORD = 'oak-planks-afloat';

export const TEAM = [
  { name: 'Rosa Oduya', email: 'rosa@lanternferry.test', role: 'owner', chapter: null, mobile: '+12065550110' },
  { name: 'Idris Vale', email: 'idris@lanternferry.test', role: 'organizer', chapter: 0, mobile: '+12065550111' },
  { name: 'June Marsh', email: 'june@lanternferry.test', role: 'writer', chapter: null, mobile: '+12065550112' },
  { name: 'Tomás Bell', email: 'tomas@lanternferry.test', role: 'viewer', chapter: null, mobile: '' },
] as const;

const CHAPTERS = ['East Landing', 'West Landing', 'Upriver'];
const TAGS = ['plank menders', 'boat shed key', 'winter fair 2026', 'oar makers', 'crossing guides'];
const LISTS: [string, boolean, string][] = [
  ['Ferry news', true, 'You asked for Ferry news: a letter from the river about once a month.'],
  ['Launch day', true, 'You asked to hear when she floats.'],
  ['Board notes', true, 'You asked for the notes of the board.'],
  ['Deck crew', false, ''],
];
const FIELDS: [string, string, string, string | null][] = [
  ['Membership renews', 'date', 'Membership', null],
  ['Birthday', 'birthday', 'Membership', null],
  ['Favourite crossing', 'choice', 'On the water', 'the evening run'],
  ['Shirt size', 'choice', 'On the water', null],
  ['Boat skill', 'text', 'On the water', null],
  ['Volunteer hours', 'number', 'On the water', null],
];
const WORDS: Record<Agreement['how'], string> = {
  paper: 'Yes, write to me by email about the ferry and how I can help. I can leave at any time.',
  form: 'Please send me what I ticked. I can leave at any time.',
  'in-person': 'Said yes at the landing, and watched it being written down.',
  'one-click': 'No more of this, please',
  keyword: 'FERRY',
  gift: 'A gift; the house rule takes it as leave to write about the next appeal',
  phone: 'Said so on the phone',
};

interface Made {
  db: Scoped;
  people: Person[];
  today: number;
  ids: { chapters: number[]; tags: number[]; lists: number[]; fields: number[]; team: number[] };
}

async function makeOrganization(database: Database): Promise<number> {
  const [id] = (await database.unscoped()('organization').insert({
    name: 'Lantern Ferry Trust',
    country: 'US',
    locale: 'en-US',
    currency: 'USD',
    time_zone: 'America/Los_Angeles',
    postal_address: '14 Slip Lane, Port Alder',
    from_email: 'hello@lanternferry.test',
    list_domain: 'lists.lanternferry.test',
    text_from: '+12065550100',
  })) as [number];
  return id;
}

async function makeHouse(db: Scoped): Promise<Made['ids']> {
  const each = async <T>(list: readonly T[], make: (item: T) => Promise<number>) => {
    const ids: number[] = [];
    for (const item of list) ids.push(await make(item));
    return ids;
  };
  const chapters = await each(CHAPTERS, (name) => db.insert('chapter', { name }));
  const password = await hashPassword(PASSWORD);
  const team = await each(TEAM, (mate) =>
    db.insert('teammate', {
      name: mate.name,
      email: mate.email,
      role: mate.role,
      mobile: mate.mobile,
      chapter_id: mate.chapter === null ? null : chapters[mate.chapter]!,
      password_hash: password,
      signature: `${mate.name.split(' ')[0]}, Lantern Ferry Trust`,
    }),
  );
  const tags = await each(TAGS, (name) => db.insert('tag', { name }));
  const lists = await each(LISTS, ([name, isPublic, description]) => db.insert('list', { name, is_public: isPublic, description }));
  const fields = await each(FIELDS, ([name, type, section, fallback]) => db.insert('field', { name, type, section, fallback }));
  return { chapters, team, tags, lists, fields };
}

/** Writes people with explicit ids, 1 for the first: the database is new. */
async function writePeople({ db, people, ids, today }: Made): Promise<void> {
  const at = (ago: number) => new Date(today * DAY - ago * DAY + 10 * 3_600_000);
  await db.insertAll(
    'supporter',
    ['id', 'chapter_id', 'first_name', 'last_name', 'created_at'],
    people.map((p, i) => [i + 1, ids.chapters[p.chapter]!, p.firstName, p.lastName, at(p.joinedAgo)]),
  );
  const points = new Map<string, number>();
  const pointRows: Bound[][] = [];
  const contactRows: Bound[][] = [];
  people.forEach((p, i) => {
    for (const [kind, normal, position] of [
      ['email', p.email, 0],
      ['mobile', p.mobile, 0],
    ] as const) {
      if (!normal) continue;
      if (!points.has(normal)) {
        points.set(normal, points.size + 1);
        const shown = kind === 'email' ? normal : normal.replace(/^\+1(\d{3})(\d{3})(\d{4})$/, '+1 $1 $2 $3');
        pointRows.push([
          points.size,
          kind,
          normal,
          shown,
          p.onHold && kind === 'email',
          p.onHold && kind === 'email' ? '5.1.1 No such mailbox here' : null,
        ]);
      }
      contactRows.push([i + 1, points.get(normal)!, position]);
    }
  });
  await db.insertAll('contact_point', ['id', 'kind', 'normal', 'shown', 'on_hold', 'hold_reason'], pointRows);
  await db.insertAll('supporter_contact', ['supporter_id', 'contact_point_id', 'position'], contactRows);
  await db.insertAll(
    'supporter_tag',
    ['supporter_id', 'tag_id'],
    people.flatMap((p, i) => p.tags.map((tag) => [i + 1, ids.tags[TAGS.indexOf(tag)]!])),
  );
  await db.insertAll(
    'supporter_list',
    ['supporter_id', 'list_id'],
    people.flatMap((p, i) => p.lists.map((list) => [i + 1, ids.lists[LISTS.findIndex(([name]) => name === list)]!])),
  );
  await db.insertAll(
    'gift',
    ['supporter_id', 'amount', 'given_on', 'note'],
    people.flatMap((p, i) => p.gifts.map((gift) => [i + 1, gift.amount, today - gift.ago, ''])),
  );
  await writeValues({ db, people, ids, today });
  await writeEntries({ db, people, ids, today }, points, at);
}

async function writeValues({ db, people, ids, today }: Pick<Made, 'db' | 'people' | 'ids' | 'today'>): Promise<void> {
  const rows: Bound[][] = [];
  people.forEach((p, i) => {
    const put = (field: number, text: string | null, number: number | null, date: number | null, monthDay: number | null) =>
      rows.push([i + 1, ids.fields[field]!, text, number, date, monthDay]);
    if (p.renewsIn !== null) put(0, null, null, today + p.renewsIn, null);
    if (p.birthday !== null) put(1, null, null, null, p.birthday);
    if (p.crossing) put(2, p.crossing, null, null, null);
    if (p.shirt) put(3, p.shirt, null, null, null);
    if (p.skill) put(4, p.skill, null, null, null);
    if (p.hours !== null) put(5, null, p.hours, null, null);
  });
  await db.insertAll('field_value', ['supporter_id', 'field_id', 'text_value', 'number_value', 'date_value', 'month_day'], rows);
}

async function writeEntries({ db, people, ids }: Made, points: Map<string, number>, at: (ago: number) => Date): Promise<void> {
  const listScope: Partial<Record<Agreement['scope'], string>> = {
    'ferry-news': `list:${ids.lists[0]}`,
    'launch-day': `list:${ids.lists[1]}`,
    'board-notes': `list:${ids.lists[2]}`,
  };
  const rows = people.flatMap((p, i) =>
    p.agreements.map((a): Bound[] => {
      const point = points.get((a.channel === 'email' ? p.email : p.mobile)!)!;
      const own = ['form', 'one-click', 'keyword'].includes(a.how);
      const until = a.state === 'implied' ? at(a.ago - 730) : null;
      return [
        point,
        i + 1,
        a.channel,
        listScope[a.scope] ?? a.scope,
        a.state,
        at(a.ago),
        until,
        own,
        a.how,
        WORDS[a.how],
        own ? 'From before Good Word' : 'Membership drawer',
        own ? null : ids.team[1]!,
        at(a.ago),
      ];
    }),
  );
  await db.insertAll(
    'permission_entry',
    [
      'contact_point_id',
      'supporter_id',
      'channel',
      'scope',
      'state',
      'said_at',
      'until_at',
      'by_person',
      'how',
      'words',
      'source',
      'recorded_by',
      'recorded_at',
    ],
    rows,
  );
  await new LedgerRepository().fold(db, '1 = 1', {});
}

interface Past {
  name: string;
  channel: 'email' | 'text';
  purpose: string | null;
  list: number | null;
  subject: string;
  letter: LetterDoc | null;
  body: string;
  ago: number;
  openShare: number;
  followShare: number;
  to: (p: Person) => boolean;
  links: string[];
}

/** A message of the past with its deliveries, and what came of each. */
async function writePast(made: Made, past: Past, chance: Chance): Promise<void> {
  const { db, people, ids, today } = made;
  const began = new Date((today - past.ago) * DAY + 18 * 3_600_000);
  const messageId = await db.insert('message', {
    name: past.name,
    channel: past.channel,
    purpose: past.purpose,
    list_id: past.list,
    state: 'done',
    subject: past.subject,
    letter: past.letter ? JSON.stringify(past.letter) : null,
    body: past.body,
    recipients: JSON.stringify({ from: [], minus: [], without: [] }),
    started_at: began,
    sender_id: ids.team[0]!,
    tested_at: began,
    updated_at: began,
    created_at: began,
  });
  await db.insertAll(
    'message_link',
    ['message_id', 'position', 'url'],
    past.links.map((url, i) => [messageId, i, url]),
  );
  const pointOf = new Map(
    (await db.sql<{ id: number; normal: string }>('SELECT id, normal FROM contact_point WHERE organization_id = :org')).map((row) => [
      row.normal,
      row.id,
    ]),
  );
  const deliveries: Bound[][] = [];
  const events: [number, string, Date, string][] = [];
  const taken = new Set<string>();
  people.forEach((p, i) => {
    const address = past.channel === 'email' ? p.email : p.mobile;
    if (!address || p.joinedAgo < past.ago || taken.has(address) || !past.to(p)) return;
    taken.add(address);
    const sentAt = new Date(began.getTime() + deliveries.length * 40);
    const bounced = address.startsWith('bounce.') || (p.onHold && past.channel === 'email');
    const opened = past.channel === 'email' && !bounced && chance.is(past.openShare);
    const followed = opened && chance.is(past.followShare);
    deliveries.push([
      messageId,
      i + 1,
      past.channel,
      pointOf.get(address)!,
      'send',
      bounced ? 'bounced' : past.channel === 'text' ? 'delivered' : 'sent',
      randomUUID(),
      sentAt,
      opened,
      followed,
    ]);
    const later = (hours: number) => new Date(sentAt.getTime() + hours * 3_600_000);
    events.push([i + 1, 'sent', sentAt, '']);
    if (bounced) events.push([i + 1, 'bounced', later(0.01), '5.1.1 No such mailbox here']);
    if (opened) events.push([i + 1, 'opened', later(chance.next() ** 3 * 60), '']);
    if (followed) events.push([i + 1, 'followed', later(chance.next() ** 3 * 60), chance.pick(past.links)]);
  });
  await db.insertAll(
    'delivery',
    ['message_id', 'supporter_id', 'channel', 'contact_point_id', 'verdict', 'state', 'provider_key', 'sent_at', 'opened', 'followed'],
    deliveries,
  );
  const idOf = new Map(
    (
      await db.sql<{ id: number; supporter_id: number }>(
        'SELECT id, supporter_id FROM delivery WHERE organization_id = :org AND message_id = :messageId',
        { messageId },
      )
    ).map((row) => [row.supporter_id, row.id]),
  );
  await db.insertAll(
    'delivery_event',
    ['delivery_id', 'message_id', 'supporter_id', 'kind', 'at', 'detail'],
    events.map(([supporter, kind, when, detail]) => [idOf.get(supporter)!, messageId, supporter, kind, when, detail]),
  );
}

async function writeMessages(made: Made): Promise<void> {
  const chance = new Chance(3);
  const yes = (channel: string, scope: string) => (p: Person) =>
    p.agreements.some((a) => a.channel === channel && a.scope === scope && a.state === 'yes');
  const { db, ids } = made;
  await writePast(
    made,
    {
      name: 'Planks are in',
      channel: 'email',
      purpose: null,
      list: ids.lists[0]!,
      subject: 'The planks are in, {First name, or "neighbour"}',
      letter: PLANKS,
      body: '',
      ago: 15,
      openShare: 0.44,
      followShare: 0.3,
      to: yes('email', 'ferry-news'),
      links: ['https://lanternferry.test/planks'],
    },
    chance,
  );
  await writePast(
    made,
    {
      name: 'Autumn hull appeal',
      channel: 'email',
      purpose: 'appeals',
      list: null,
      subject: '{First name, or "Friend"}, the hull won\'t wait for spring',
      letter: HULL,
      body: '',
      ago: 48,
      openShare: 0.37,
      followShare: 0.16,
      to: yes('email', 'appeals'),
      links: ['https://give.lanternferry.test/hull'],
    },
    chance,
  );
  await writePast(
    made,
    {
      name: 'She floats Saturday',
      channel: 'text',
      purpose: null,
      list: ids.lists[1]!,
      subject: '',
      letter: null,
      body: LAUNCH_TEXT,
      ago: 6,
      openShare: 0,
      followShare: 0,
      to: yes('text', 'launch-day'),
      links: [],
    },
    chance,
  );
  const draft = (name: string, values: Record<string, Bound>) =>
    db.insert('message', {
      name,
      channel: 'email',
      purpose: 'appeals',
      recipients: JSON.stringify({ from: [], minus: [], without: [] }),
      sender_id: ids.team[0]!,
      ...values,
    });
  const segment = await db.insert('segment', { name: 'Gave before, not this year', tree: JSON.stringify(GAVE_BEFORE(ids)) });
  await db.insert('segment', {
    name: 'Plank menders with a birthday soon',
    tree: JSON.stringify({
      kind: 'all',
      rules: [
        { kind: 'tag', tagId: ids.tags[0], has: true },
        { kind: 'field', field: ids.fields[1], op: 'within-next', value: 30 },
      ],
    }),
  });
  await draft('Winter hull appeal', {
    subject: '{First name, or "Friend"}, the starboard side is next',
    preheader: 'Two planks in, forty to go',
    letter: JSON.stringify(HULL),
    recipients: JSON.stringify({ from: [{ kind: 'segment', id: segment }], minus: [], without: [] }),
  });
  await draft('Thank you, plank givers', { purpose: 'service', subject: 'Thank you, {First name, or "friend"}', letter: JSON.stringify(THANKS) });
  await writeReplies(made);
}

function GAVE_BEFORE(ids: Made['ids']): object {
  return {
    kind: 'all',
    rules: [
      { kind: 'gave', did: true, atLeast: 1000, window: { over: 'earlier-years' } },
      { kind: 'gave', did: false, atLeast: null, window: { over: 'this-year' } },
      {
        kind: 'any',
        rules: [
          { kind: 'tag', tagId: ids.tags[0], has: true },
          { kind: 'field', field: ids.fields[0], op: 'within-next', value: 120 },
        ],
      },
    ],
  };
}

async function writeReplies({ db, today }: Made): Promise<void> {
  const words = [
    'Is there parking near East Landing?',
    "Wouldn't miss it. Bringing the kids.",
    'Can I still join the caulking crew?',
    'Thank you for the pictures!',
  ];
  const rows = await db.sql<{ id: number; supporter_id: number; contact_point_id: number; normal: string; message_id: number }>(
    "SELECT d.id, d.supporter_id, d.contact_point_id, d.message_id, cp.normal FROM delivery d JOIN contact_point cp ON cp.id = d.contact_point_id WHERE d.organization_id = :org AND d.channel = 'text' ORDER BY d.id LIMIT 4",
  );
  for (const [i, row] of rows.entries()) {
    const at = new Date(today * DAY - (5 - i) * 3_600_000);
    await db.insert('reply', {
      provider_key: `demo-${i}`,
      channel: 'text',
      sender: row.normal,
      contact_point_id: row.contact_point_id,
      supporter_id: row.supporter_id,
      delivery_id: row.id,
      body: words[i]!,
      at,
    });
    await db.execute('UPDATE delivery SET replied = 1 WHERE organization_id = :org AND id = :id', { id: row.id });
    await db.insert('delivery_event', {
      delivery_id: row.id,
      message_id: row.message_id,
      supporter_id: row.supporter_id,
      kind: 'replied',
      at,
      detail: words[i]!,
    });
  }
}

/** Fills a new database with the demo organization; does nothing where there is an organization already. */
export async function fill(database: Database, count = 12_000): Promise<boolean> {
  const [row] = (await database.unscoped()('organization').count('* as n')) as { n: number }[];
  if ((row?.n ?? 0) > 0) return false;
  const organizationId = await makeOrganization(database);
  try {
    await database.write(programScope(organizationId), async (db) => {
      const made: Made = { db, people: inventPeople(count), today: Math.floor(Date.now() / DAY), ids: await makeHouse(db) };
      await writePeople(made);
      await writeMessages(made);
    });
  } catch (error) {
    // Half a demo would look like a whole one at the next start.
    await database.unscoped()('organization').where('id', organizationId).delete();
    throw error;
  }
  return true;
}
