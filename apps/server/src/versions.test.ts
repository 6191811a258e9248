import type {
  BatchView,
  CallRow,
  CampaignView,
  FieldAdminView,
  FormView,
  LayoutView,
  ListView,
  MessageView,
  Page,
  PeopleView,
  RecordView,
  RulesView,
  SegmentView,
  TagView,
} from '@goodword/core/contract';
import { openTestHouse, type Client, type TestHouse } from './testing/harness';
import { bringIn, takeFile } from './testing/steps';

let house: TestHouse;
let other: Client;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  other = await house.as('owner', null, 'other');
});
afterAll(() => house.close());

const TREE = { kind: 'all', rules: [] };
const idOf = async (made: Promise<{ id: number }>) => (await made).id;

/** A thing that is saved as a whole: how one is made, the save with another text in it, and what is there. */
interface Saved {
  make(): Promise<number>;
  save(id: number, text: string, basedOn: number): [method: string, path: string, body: object];
  now(id: number): Promise<{ text: string; version: number }>;
}

const found = async <T extends { id: number }>(path: string, id: number) =>
  (await house.client.get<T[]>(path)).find((one) => one.id === id)!;

const SAVED: Record<string, Saved> = {
  segment: {
    make: () => idOf(house.client.post('/api/segments', { name: 'First', tree: TREE })),
    save: (id, name, basedOn) => ['PUT', `/api/segments/${id}`, { name, tree: TREE, basedOn }],
    now: async (id) =>
      found<SegmentView>('/api/segments', id).then(({ name, version }) => ({ text: name, version })),
  },
  campaign: {
    make: () =>
      idOf(
        house.client.post('/api/campaigns', {
          name: 'First',
          kind: 'appeal',
          appealCode: null,
          stages: ['asked'],
        }),
      ),
    save: (id, name, basedOn) => [
      'PUT',
      `/api/campaigns/${id}`,
      { name, kind: 'appeal', appealCode: null, stages: ['asked'], isOpen: true, basedOn },
    ],
    now: async (id) =>
      found<CampaignView>('/api/campaigns', id).then(({ name, version }) => ({ text: name, version })),
  },
  list: {
    make: () => idOf(house.client.post('/api/lists', { name: 'First' })),
    save: (id, name, basedOn) => ['PUT', `/api/lists/${id}`, { name, basedOn }],
    now: async (id) =>
      found<ListView>('/api/lists', id).then(({ name, version }) => ({ text: name, version })),
  },
  layout: {
    make: async () =>
      (
        (await house.database
          .unscoped()('layout')
          .insert({
            organization_id: house.scope.organizationId,
            name: 'First',
            what: 'people',
            header_key: 'x'.repeat(64),
            header: '["Email"]',
            columns: '[{"to":"email"}]',
          })) as [number]
      )[0],
    save: (id, name, basedOn) => ['PUT', `/api/layouts/${id}`, { name, basedOn }],
    now: async (id) =>
      found<LayoutView>('/api/layouts', id).then(({ name, version }) => ({ text: name, version })),
  },
  view: {
    make: async () => {
      await house.client.put('/api/people-views', {
        name: 'Ours',
        tree: TREE,
        by: 'name',
        descending: false,
        fields: [],
        basedOn: null,
      });
      return (await house.client.get<PeopleView[]>('/api/people-views'))[0]!.id;
    },
    // The text is in its order, since a view is found by its name.
    save: (_id, by, basedOn) => [
      'PUT',
      '/api/people-views',
      { name: 'Ours', tree: TREE, by, descending: false, fields: [], basedOn },
    ],
    now: async (id) =>
      found<PeopleView>('/api/people-views', id).then(({ by, version }) => ({ text: String(by), version })),
  },
  batch: {
    make: () => takeFile(house.client, 'Email\nada@x.test\n'),
    save: (id, name, basedOn) => [
      'PUT',
      `/api/batches/${id}/draft`,
      { step: 'Columns', name, plan: {}, basedOn },
    ],
    now: async (id) =>
      house.client
        .get<BatchView>(`/api/batches/${id}`)
        .then(({ name, draftVersion }) => ({ text: name, version: draftVersion })),
  },
  organization: {
    make: () => Promise.resolve(house.scope.organizationId),
    save: (_id, name, basedOn) => ['PUT', '/api/organization', { ...ORGANIZATION, name, basedOn }],
    now: async () =>
      house.client
        .get<{ name: string; version: number }>('/api/organization')
        .then(({ name, version }) => ({ text: name, version })),
  },
  form: {
    make: () => idOf(house.client.post('/api/forms', { name: 'First', listId: null })),
    save: (id, name, basedOn) => [
      'PUT',
      `/api/forms/${id}`,
      { name, slug: 'first', version: basedOn, definition: FORMS.get(id) },
    ],
    now: async (id) => {
      const form = await house.client.get<FormView>(`/api/forms/${id}`);
      FORMS.set(id, form.definition);
      return { text: form.name, version: form.version };
    },
  },
  rules: {
    make: () => Promise.resolve(0),
    save: (_id, text, basedOn) => [
      'PUT',
      '/api/house-rules',
      { rules: { ...RULES.now!, undoSeconds: SECONDS[text as 'name'] }, basedOn },
    ],
    now: async () => {
      const { rules, version } = await house.client.get<RulesView>('/api/house-rules');
      RULES.now = rules;
      return {
        text: Object.entries(SECONDS).find(([, seconds]) => seconds === rules.undoSeconds)?.[0] ?? '',
        version,
      };
    },
  },
};
const ORGANIZATION = {
  legalName: '',
  postalAddress: '1 Slip Lane, Port Alder',
  country: 'US',
  timeZone: 'America/Los_Angeles',
  locale: 'en-US',
  currency: 'USD',
  fiscalMonth: 1,
  languages: ['en'],
  fromEmail: 'hello@lanternferry.test',
  bounceDomain: 'lists.lanternferry.test',
  textFrom: '+12065550100',
};
const FORMS = new Map<number, FormView['definition']>();
const RULES: { now: RulesView['rules'] | null } = { now: null };
/** Texts that every kind of thing takes: names, and orders of a view. */
const SECONDS = { name: 11, created: 12, country: 13 } as const;

test.each(Object.keys(SAVED))(
  'of two saves of a %s from one version never both win, and the second is told whose is newer',
  async (kind) => {
    const { make, save, now } = SAVED[kind]!;
    const id = await make();
    const { version } = await now(id);
    const call = (client: Client, text: string, basedOn: number) =>
      client.call<{ newer?: boolean; detail: string }>(
        ...(save(id, text, basedOn) as [string, string, object]),
      );
    const both = await Promise.all([call(house.client, 'name', version), call(other, 'created', version)]);
    expect([kind, both.map(({ status }) => (status < 300 ? 'saved' : status)).sort()]).toEqual([
      kind,
      [409, 'saved'],
    ]);
    const second = both.find(({ status }) => status === 409)!;
    expect(second.body).toMatchObject({ newer: true });
    const won = both[0]!.status < 300 ? 'name' : 'created';
    const after = await now(id);
    expect([after.text, after.version > version]).toEqual([won, true]);
    // Whoever has seen it saves over it; whoever has not, never.
    expect((await call(other, 'country', version)).status).toBe(409);
    expect((await call(other, 'country', after.version)).status).toBeLessThan(300);
    expect((await now(id)).text).toBe('country');
  },
);

/** What is small enough to be its own version: the save names what it was begun from. */
interface Small<T> {
  texts: [begun: T, one: T, other: T];
  save(id: number, value: T, was: T): [path: string, body: object];
  make(): Promise<number>;
  now(id: number): Promise<T>;
}

const ANSWERS = ['one', 'other'].map((word) => ({
  stop: `Gone, ${word}. START returns.`,
  help: `STOP leaves, ${word}.`,
  start: `STOP leaves, ${word}!`,
}));
const personId = async (search: string) =>
  (await house.client.get<{ rows: { id: number }[] }>(`/api/supporters?search=${search}`)).rows[0]!.id;
const together = async () => {
  await bringIn(house.client, 'Email,First,Last,Mobile\nuna@x.test,Una,,\nolle@x.test,Olle,,\n');
  const [una, olle] = [await personId('Una'), await personId('Olle')];
  await house.client.put(`/api/supporters/${una}/household`, { withId: olle });
  return una;
};
const NOTE = { id: 0 };
const FIELD = (name: string) => ({
  name,
  section: 'More',
  fallback: null,
  help: '',
  sensitive: false,
  required: false,
  choices: ['oak', 'ash'],
});

const SMALL: Record<string, Small<unknown>> = {
  'the name of a tag': {
    texts: [
      { name: 'Begun', handedDown: true },
      { name: 'One', handedDown: true },
      { name: 'Other', handedDown: false },
    ],
    make: () => idOf(house.client.post('/api/tags', { name: 'Begun' })),
    save: (id, value, was) => [`/api/tags/${id}`, { ...(value as object), was }],
    now: async (id) => found<TagView>('/api/tags', id).then(({ name, handedDown }) => ({ name, handedDown })),
  },
  'answers to texts': {
    texts: [null, ANSWERS[0], ANSWERS[1]],
    make: () => Promise.resolve(0),
    save: (_id, value, was) => ['/api/text-answers', { ...(value as object), was }],
    now: () => house.client.get('/api/text-answers'),
  },
  'days of files': {
    texts: [180, 30, 60],
    make: () => Promise.resolve(0),
    save: (_id, days, was) => ['/api/house/files', { days, was }],
    now: () => house.client.get<{ days: number }>('/api/house/files').then(({ days }) => days),
  },
  'the greeting of a household': {
    texts: ['', 'all of the pier', 'the two of the pier'],
    make: together,
    save: (id, greeting, was) => [`/api/supporters/${id}/household/greeting`, { greeting, was }],
    now: (id) =>
      house.client.get<RecordView>(`/api/supporters/${id}`).then(({ household }) => household!.own ?? ''),
  },
  'a note': {
    texts: ['Call after six', 'Call after seven', 'Never call'],
    make: async () => {
      const id = await personId('Una');
      NOTE.id = await idOf(house.client.post(`/api/supporters/${id}/notes`, { body: 'Call after six' }));
      return id;
    },
    save: (id, body, was) => [`/api/supporters/${id}/notes/${NOTE.id}`, { body, was }],
    now: (id) =>
      house.client
        .get<{ note?: { body: string } }[]>(`/api/supporters/${id}/timeline?kinds=note`)
        .then(([item]) => item!.note!.body),
  },
};

Object.assign(SMALL, {
  'a chapter': {
    texts: ['Begun', 'One', 'Other'].map((name) => ({ name, postalAddress: '' })) as [object, object, object],
    make: () => idOf(house.client.post('/api/chapters', { name: 'Begun', postalAddress: '' })),
    save: (id, value, was) => [`/api/chapters/${id}`, { ...(value as object), was }],
    now: async (id) => {
      const { chapters } = await house.client.get<{
        chapters: { id: number; name: string; postalAddress: string }[];
      }>('/api/organization');
      const { name, postalAddress } = chapters.find((one) => one.id === id)!;
      return { name, postalAddress };
    },
  },
  'a field': {
    texts: ['Begun', 'One', 'Other'].map(FIELD) as [object, object, object],
    make: () =>
      idOf(
        house.client.post('/api/fields', {
          name: 'Begun',
          type: 'choice',
          section: 'More',
          choices: ['oak', 'ash'],
          fallback: null,
        }),
      ),
    save: (id, value, was) => [`/api/house/fields/${id}`, { ...(value as object), was }],
    now: async (id) => {
      const { name, section, fallback, help, sensitive, required, choices } = await found<FieldAdminView>(
        '/api/house/fields',
        id,
      );
      return { name, section, fallback, help, sensitive, required, choices };
    },
  },
  'where somebody is': {
    texts: [null, { country: 'US', region: 'OR' }, { country: 'CA', region: null }],
    make: () => personId('Olle'),
    save: (id, value, was) => [`/api/supporters/${id}/place`, { ...(value as object), was }],
    now: async (id) => {
      const { country, region } = (await house.client.get<RecordView>(`/api/supporters/${id}`)).place;
      return { country, region };
    },
  },
  'what a message tags': {
    texts: [[], null, null],
    make: async () => {
      for (const [at, name] of ['One trigger', 'Other trigger'].entries())
        SMALL['what a message tags']!.texts[at + 1] = [
          { on: 'replied', tagId: await idOf(house.client.post('/api/tags', { name })) },
        ];
      return idOf(house.client.post('/api/messages', { name: 'Tagging', channel: 'email', purpose: 'news' }));
    },
    save: (id, tagTriggers, was) => [`/api/messages/${id}/tag-triggers`, { tagTriggers, was }],
    now: (id) => house.client.get<MessageView>(`/api/messages/${id}`).then(({ tagTriggers }) => tagTriggers),
  },
  'what came of a call': {
    texts: [
      { outcome: null, note: '' },
      { outcome: 'no answer', note: 'Rang for long' },
      { outcome: 'call again', note: 'After six' },
    ],
    make: async () => {
      const group = { tree: TREE, without: [] };
      return idOf(
        house.client.post('/api/calls', {
          name: 'Round',
          group,
          campaignId: null,
          script: 'Hello',
          purpose: 'news',
        }),
      );
    },
    save: (id, value, was) => [`/api/calls/${id}/people/1`, { ...(value as object), was }],
    now: async (id) => {
      const [row] = (await house.client.get<Page<CallRow>>(`/api/calls/${id}/people`)).rows;
      return { outcome: row!.outcome, note: row!.note };
    },
  },
} satisfies Record<string, Small<unknown>>);

test.each(Object.keys(SMALL))(
  'of two who change %s from the same the second is told, and overwrites nothing',
  async (what) => {
    const { texts, make, save, now } = SMALL[what]!;
    const id = await make();
    const [begun, one, another] = texts;
    const was = await now(id);
    if (begun !== null) expect(was).toEqual(begun);
    const call = (client: Client, value: unknown, from: unknown) =>
      client.call<{ newer?: boolean }>('PUT', ...save(id, value, from));
    const both = await Promise.all([call(house.client, one, was), call(other, another, was)]);
    expect(both.map(({ status }) => (status < 300 ? 'saved' : status)).sort()).toEqual([409, 'saved']);
    expect(both.find(({ status }) => status === 409)!.body).toMatchObject({ newer: true });
    const won = both[0]!.status < 300 ? one : another;
    const lost = both[0]!.status < 300 ? another : one;
    expect(await now(id)).toEqual(won);
    expect((await call(other, lost, was)).status).toBe(409);
    expect((await call(other, lost, won)).status).toBeLessThan(300);
    expect(await now(id)).toEqual(lost);
  },
);

test('what a file or an earlier day wrote otherwise than it is seen can still be changed', async () => {
  const id = await idOf(house.client.post('/api/tags', { name: 'Pier' }));
  await house.database.unscoped()('tag').where({ id }).update({ name: ' Pier\u200B walkers ' });
  const { name, handedDown } = await found<TagView>('/api/tags', id);
  await house.client.put(`/api/tags/${id}`, { name: 'Pier walkers', was: { name, handedDown } });
  expect((await found<TagView>('/api/tags', id)).name).toBe('Pier walkers');
});
