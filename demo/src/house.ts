import type { FormDefinition } from '@goodword/core/forms';
import type { Database } from '@goodword/server/platform/database';
import type { Scoped } from '@goodword/server/platform/scoped';
import { addressHash } from '@goodword/server/platform/tokens';
import { hashPassword } from '@goodword/server/team/passwords';
import { ferryNewsForm, launchDayForm } from './forms';
import type { Person } from './people';

export const DAY = 86_400_000;
export const PASSWORD = 'oak-planks-afloat';

export const TEAM = [
  {
    name: 'Rosa Oduya',
    email: 'rosa@lanternferry.test',
    role: 'owner',
    chapters: null,
    mobile: '+12065550110',
  },
  {
    name: 'Idris Vale',
    email: 'idris@lanternferry.test',
    role: 'organizer',
    chapters: [0, 2],
    mobile: '+12065550111',
  },
  {
    name: 'June Marsh',
    email: 'june@lanternferry.test',
    role: 'writer',
    chapters: null,
    mobile: '+12065550112',
  },
  { name: 'Tomás Bell', email: 'tomas@lanternferry.test', role: 'viewer', chapters: null, mobile: '' },
] as const;

const CHAPTERS = ['East Landing', 'West Landing', 'Upriver'];
export const TAGS = ['plank menders', 'boat shed key', 'winter fair 2026', 'oar makers', 'crossing guides'];
/** Name, whether supporters see it, what it is, and why we write to them. */
export const LISTS: [string, boolean, string, string][] = [
  [
    'Ferry news',
    true,
    'A letter from the river about once a month.',
    'You asked for Ferry news, so that you know what the planks you love are up to.',
  ],
  ['Launch day', true, 'One text or mail when she floats.', 'You asked to hear when she floats.'],
  [
    'Board notes',
    true,
    'What the board decided, four times a year.',
    'You asked for the notes of the board.',
  ],
  ['Deck crew', false, '', ''],
];
const FIELDS: [string, string, string, string | null][] = [
  ['Membership renews', 'date', 'Membership', null],
  ['Birthday', 'birthday', 'Membership', null],
  ['Favourite crossing', 'choice', 'On the water', 'the evening run'],
  ['Shirt size', 'choice', 'On the water', null],
  ['Boat skill', 'text', 'On the water', null],
  ['Volunteer hours', 'number', 'On the water', null],
];

/** What the parts of the demo share while it is made. */
export interface Made {
  db: Scoped;
  people: Person[];
  today: number;
  ids: { chapters: number[]; tags: number[]; lists: number[]; fields: number[]; team: number[] };
}

export async function makeDemoOrganization(database: Database): Promise<number> {
  const [id] = (await database
    .unscoped()('organization')
    .insert({
      name: 'Lantern Ferry Trust',
      country: 'US',
      locale: 'en-US',
      currency: 'USD',
      time_zone: 'America/Los_Angeles',
      postal_address: '14 Slip Lane, Port Alder',
      giving_page: 'https://give.lanternferry.test',
      link_url: '',
      from_email: 'hello@lanternferry.test',
      list_domain: 'lists.lanternferry.test',
      text_from: '+12065550100',
      text_number: JSON.stringify({ kind: 'long', registration: 'registered', perSecond: null }),
    })) as [number];
  return id;
}

export async function makeHouse(db: Scoped, secret: string): Promise<Made['ids']> {
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
      chapter_ids: mate.chapters && JSON.stringify(mate.chapters.map((at) => chapters[at]!)),
      password_hash: password,
      signature: `${mate.name.split(' ')[0]}, Lantern Ferry Trust`,
    }),
  );
  const tags = await each(TAGS, (name) => db.insert('tag', { name }));
  const lists = await each(LISTS, ([name, isPublic, description, why]) =>
    db.insert('list', {
      name,
      is_public: isPublic,
      description,
      why,
      on_preferences: isPublic,
      by_form: isPublic,
      folder: isPublic ? '' : 'Working groups',
    }),
  );
  const fields = await each(FIELDS, ([name, type, section, fallback]) =>
    db.insert('field', { name, type, section, fallback }),
  );
  await makeForm(
    db,
    'Ferry news',
    'ferry-news',
    ferryNewsForm({ list: lists[0]!, crossing: fields[2]!, chapter: chapters[0]! }),
  );
  await makeForm(
    db,
    'Launch day',
    'launch-day',
    launchDayForm({ list: lists[1]!, tag: tags[4]!, chapter: chapters[0]! }),
  );
  await makeCampaigns(db, team[0]!);
  await db.insert('do_not_contact', {
    kind: 'domain',
    key_hash: addressHash(secret, 'domain', 'no-mail.example.net'),
    shown: 'no-mail.example.net',
    note: 'Asked us in writing never to write to any of its addresses',
    added_by: team[0]!,
  });
  return { chapters, team, tags, lists, fields };
}

/** A campaign that runs and one that is over, each with its own stages. */
async function makeCampaigns(db: Scoped, owner: number): Promise<void> {
  const campaigns = [
    {
      name: 'Winter hull appeal',
      kind: 'appeal',
      appeal_code: 'HULL26',
      stages: ['asked', 'thinking', 'pledged', 'gave', 'declined'],
      is_open: 1,
    },
    {
      name: 'Oar fund 2024',
      kind: 'appeal',
      appeal_code: 'OARS24',
      stages: ['asked', 'gave', 'declined'],
      is_open: 0,
    },
  ];
  for (const { stages, ...campaign } of campaigns)
    await db.insert('campaign', { ...campaign, stages: JSON.stringify(stages), made_by: owner });
}

async function makeForm(db: Scoped, name: string, slug: string, definition: FormDefinition): Promise<void> {
  const id = await db.insert('form', { name, slug, is_open: 1, keyword: definition.keyword });
  await db.insert('form_version', { form_id: id, version: 1, definition: JSON.stringify(definition) });
}
