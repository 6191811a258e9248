import { schema } from '@goodword/core/contract';
import { THINGS, thingOf } from './platform/ownership';
import { routesOf, type DeclaredRoute } from './platform/openapi';
import { openTestHouse, eventually, type Client, type TestHouse } from './testing/harness';
import { takeFile } from './testing/steps';

/** Stands in the name of everything of the West; nobody of the East may ever read it. */
const MARK = 'Westmark';

let house: TestHouse;
let east: Client;
let organizer: Client;
/** The id of each kind of thing, of the West and of all. */
const west: Record<string, number> = {};
const all: Record<string, number> = {};

beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  const [eastId, westId] = house.chapters as [number, number];
  east = await house.as('owner', eastId);
  organizer = await house.as('organizer', eastId);
  await furnish(await house.as('owner', westId), westId, west, MARK);
  await furnish(house.client, null, all, 'Of all');
});
afterAll(() => house.close());

const idOf = async (made: Promise<{ id: number }>) => (await made).id;

/** Makes one of everything, for a chapter or for all. */
async function furnish(
  client: Client,
  chapterId: number | null,
  ids: Record<string, number>,
  name: string,
): Promise<void> {
  const knex = house.database.unscoped();
  const org = { organization_id: house.scope.organizationId };
  const insert = async (table: string, row: object) =>
    ((await knex(table).insert({ ...org, ...row })) as [number])[0];
  const supporters = await insert('supporter', {
    chapter_id: chapterId ?? house.chapters[0]!,
    first_name: name,
    last_name: 'Tamsin',
  });
  const tree = { kind: 'all', rules: [{ kind: 'field', field: 'lastName', op: 'is', value: 'Tamsin' }] };
  const tags = await idOf(client.post('/api/tags', { name: `${name} tag` }));
  const lists = await idOf(
    client.post('/api/lists', { name: `${name} list`, isPublic: false, description: '' }),
  );
  const segments = await idOf(client.post('/api/segments', { name: `${name} segment`, tree }));
  const campaigns = await idOf(
    client.post('/api/campaigns', {
      name: `${name} campaign`,
      kind: 'appeal',
      appealCode: null,
      stages: ['asked', 'gave'],
    }),
  );
  const forms = await idOf(client.post('/api/forms', { name: `${name} form`, listId: null }));
  const messages = await idOf(
    client.post('/api/messages', { name: `${name} message`, channel: 'email', purpose: 'news' }),
  );
  const templates = await idOf(
    client.post('/api/templates', {
      ...{ name: `${name} template`, folder: '', channel: 'email', purpose: 'news', listId: null, note: '' },
    }),
  );
  const group = { ids: [supporters] };
  const calls = await idOf(client.post('/api/calls', { name: `${name} calls`, group }));
  await client.put('/api/people-views', {
    name: `${name} view`,
    tree,
    by: 'name',
    descending: false,
    fields: [],
    basedOn: null,
  });
  const view = (await knex('people_view').where('name', `${name} view`).first('id')) as { id: number };
  const layouts = await insert('layout', {
    chapter_id: chapterId,
    name: `${name} layout`,
    what: 'people',
    header_key: `${name}`.padEnd(64, 'x'),
    header: '[]',
    columns: '[]',
  });
  const bulk = await idOf(client.post('/api/bulk', { group, act: { do: 'tag', on: true, tagId: tags } }));
  const delivery = {
    message_id: messages,
    supporter_id: supporters,
    channel: 'email',
    verdict: 'send',
    state: 'unsure',
    provider_key: name.slice(0, 36),
  };
  const columns = Object.keys((await knex('delivery').columnInfo()) as object);
  const known = Object.fromEntries(Object.entries(delivery).filter(([column]) => columns.includes(column)));
  const deliveries = await insert('delivery', known);
  const replies = await insert('reply', {
    provider_key: name,
    channel: 'email',
    sender: `${name}@x.test`,
    supporter_id: supporters,
    body: name,
  });
  const tasks = await insert('task', { kind: 'stop', supporter_id: supporters, words: `${name} words` });
  Object.assign(ids, {
    supporters,
    tags,
    lists,
    segments,
    campaigns,
    forms,
    messages,
    templates,
    calls,
    layouts,
    bulk,
    deliveries,
    replies,
    tasks,
  });
  ids['people-views'] = view.id;
  if (chapterId !== null)
    ids.batches = await takeFile(client, `First name,Email\n${name},${name}@x.test\n`, `${name}.csv`);
  ids.fields = await idOf(
    house.client.post('/api/fields', {
      name: `${name.replace(MARK, 'Shared')} field`,
      type: 'text',
      fallback: null,
    }),
  );
}

/** The address with ids in it; what stands beside the id of the thing is a number that leads nowhere. */
const at = (path: string, id: number) =>
  path
    .replace('/:id', `/${id}`)
    .replace(':form', 'csv')
    .replace(/:[a-zA-Z]+/g, '999999');

const named = (routes: readonly DeclaredRoute[]) =>
  routes.filter(({ path, rule }) => rule && rule.role !== 'anyone' && thingOf(path) !== null);
const statusOf = async (client: Client, { method, path }: DeclaredRoute, id: number) =>
  (await client.call(method.toUpperCase(), at(path, id), method === 'get' ? undefined : {})).status;

describe('every route that names a thing', () => {
  test('names one whose chapter is known', () => {
    const unknown = routesOf(house.app).filter(
      ({ path }) => path.startsWith('/api/') && path.includes('/:id') && !(thingOf(path)! in THINGS),
    );
    expect(unknown.map(({ path }) => path)).toEqual([]);
  });

  test('reads and changes nothing of another chapter, by any role', async () => {
    let tried = 0;
    for (const route of named(routesOf(house.app))) {
      const id = west[thingOf(route.path)!];
      if (id === undefined || thingOf(route.path) === 'fields') continue;
      expect([route.method, route.path, await statusOf(east, route, id)]).toEqual([
        route.method,
        route.path,
        404,
      ]);
      tried += 1;
    }
    expect(tried).toBeGreaterThan(90);
  });

  test('leads somewhere for whoever works in all: it is the chapter that closed it', async () => {
    for (const route of named(routesOf(house.app)).filter(
      ({ method, path }) => method === 'get' && path.endsWith('/:id'),
    )) {
      const id = west[thingOf(route.path)!];
      if (id !== undefined)
        expect([route.path, await statusOf(house.client, route, id)]).toEqual([route.path, 200]);
    }
  });

  test('changes nothing that belongs to all, for whoever works in one chapter; owners too', async () => {
    let tried = 0;
    for (const route of named(routesOf(house.app))) {
      const thing = thingOf(route.path)!;
      // These are of a person or a batch, which always are of a chapter.
      if (
        route.method === 'get' ||
        route.rule!.ownPeople ||
        ['supporters', 'batches', 'deliveries', 'replies', 'tasks', 'sessions'].includes(thing)
      )
        continue;
      expect([route.method, route.path, await statusOf(east, route, all[thing] ?? 1)]).toEqual([
        route.method,
        route.path,
        403,
      ]);
      tried += 1;
    }
    expect(tried).toBeGreaterThan(35);
  });
});

/**
 * Routes that change something and name nothing by an id, and why whoever works in one chapter may call them.
 */
const FOR_EVERYBODY: Record<string, string> = {
  'post /api/automations': 'an automatic message of the chapter',
  'post /api/batches': 'a batch goes into the chapter',
  'post /api/bulk': 'acts on people that the caller sees',
  'post /api/calls': 'a list of people that the caller sees',
  'post /api/campaigns': 'a campaign of the chapter',
  'post /api/sender/check': 'looks, and changes nothing but what was seen',
  'post /api/sender/through': 'a mail to ourselves',
  'post /api/do-not-contact': 'a no is always taken',
  'post /api/do-not-contact/file': 'a no is always taken',
  'post /api/fields': 'a file may bring a column that is new; nothing that is there changes',
  'post /api/feeds': 'a feed brings people into the chapter',
  'post /api/forms': 'a form of the chapter',
  'post /api/images': 'a picture more',
  'post /api/lists': 'a list of the chapter',
  'put /api/lists/folder': 'moves those of the chapter',
  'post /api/messages': 'a message of the chapter',
  'post /api/own-html': 'pictures more, and nothing else',
  'post /api/messages-to': 'a message of the chapter',
  'post /api/templates': 'a template of the chapter',
  'post /api/ask-amounts': 'reads',
  'put /api/me': 'oneself',
  'put /api/me/password': 'oneself',
  'delete /api/me/sessions': 'oneself',
  'put /api/people-views': 'a view of the chapter',
  'post /api/segments': 'a segment of the chapter',
  'post /api/segments/count': 'reads',
  'post /api/segments/people': 'reads',
  'post /api/tags': 'a tag of the chapter',
  'put /api/session/chapter': 'refuses others itself',
  'delete /api/session': 'oneself',
};

test('every other route that changes something belongs to all, or is on this list with its reason', async () => {
  const others = routesOf(house.app).filter(
    ({ method, path, rule }) => method !== 'get' && rule && rule.role !== 'anyone' && thingOf(path) === null,
  );
  const free = others.filter(({ rule }) => !rule!.ofAll).map(({ method, path }) => `${method} ${path}`);
  expect(free.sort()).toEqual(Object.keys(FOR_EVERYBODY).sort());
  for (const route of others.filter(({ rule }) => rule!.ofAll))
    expect([route.path, (await east.call(route.method.toUpperCase(), at(route.path, 1), {})).status]).toEqual(
      [route.path, 403],
    );
});

describe('what is read', () => {
  test('by any route without an id holds nothing of another chapter, and something of one’s own', async () => {
    const reads = routesOf(house.app).filter(
      ({ method, path, rule }) =>
        method === 'get' && rule && rule.role !== 'anyone' && !path.includes(':') && path.startsWith('/api/'),
    );
    const queries: Record<string, string> = {
      '/api/find': `?text=${MARK.slice(0, 6)}`,
      '/api/regions': '?country=US',
      '/api/permission/files': '?address=x@x.test',
    };
    for (const { path } of reads) {
      const answer = await east.call('GET', path + (queries[path] ?? ''));
      expect([path, answer.text.includes(MARK)]).toEqual([path, false]);
      expect([path, [200, 403, 404].includes(answer.status)]).toEqual([path, true]);
    }
    const mine = await Promise.all(
      ['/api/tags', '/api/lists', '/api/campaigns', '/api/messages', '/api/templates'].map((path) =>
        east.call('GET', path),
      ),
    );
    for (const { text } of mine) expect(text).toContain('Of all');
    const everything = await Promise.all(
      ['/api/tags', '/api/people-views', '/api/layouts', '/api/batches'].map((path) =>
        house.client.call('GET', path),
      ),
    );
    for (const { text } of everything) expect(text).toContain(MARK);
  });

  test('of a rule that asks for another chapter’s things has no names in it', async () => {
    const lines = [
      { kind: 'batch', in: true, batchId: west.batches },
      { kind: 'segment', in: true, segmentId: west.segments },
      { kind: 'tag', has: true, tagId: west.tags },
      { kind: 'list', on: true, listId: west.lists },
      { kind: 'roster', on: true, campaignId: west.campaigns, stages: [] },
      {
        kind: 'message',
        event: 'got',
        did: true,
        messageId: west.messages,
        atLeast: 1,
        window: { over: 'ever' },
      },
    ];
    let counted = 0;
    for (const line of lines) {
      const tree = { kind: 'all', rules: [line] };
      if (schema.countSegment.validate({ tree, reach: false }).error) continue;
      const answer = await organizer.call('POST', '/api/segments/count', { tree, reach: false });
      expect([line.kind, answer.text.includes(MARK)]).toEqual([line.kind, false]);
      counted += 1;
    }
    expect(counted).toBeGreaterThan(4);
  });
});

describe('what belongs to all and holds everybody’s people', () => {
  test('shows whoever works in one chapter its own people alone', async () => {
    const knex = house.database.unscoped();
    const org = { organization_id: house.scope.organizationId };
    const [ours, theirs] = [all.supporters!, west.supporters!];
    for (const supporter_id of [ours, theirs]) {
      await knex('supporter_tag')
        .insert({ ...org, supporter_id, tag_id: all.tags })
        .onConflict()
        .ignore();
      await knex('supporter_list')
        .insert({ ...org, supporter_id, list_id: all.lists })
        .onConflict()
        .ignore();
    }
    const [owner, group] = [house.client, { ids: [ours, theirs] }];
    await owner.put(`/api/campaigns/${all.campaigns}/roster`, { group, stage: 'asked' });
    const calls = await idOf(owner.post('/api/calls', { name: 'Everybody', group }));
    const bulk = await idOf(
      owner.post('/api/bulk', { group, act: { do: 'export', form: 'csv', fields: [] } }),
    );
    await eventually(
      'the export',
      () => owner.get<{ state: string }>(`/api/bulk/${bulk}`),
      ({ state }) => state === 'done',
    );
    const { version } = await owner.get<{ version: number }>(`/api/messages/${all.messages}`);
    const recipients = { from: [{ kind: 'tag', id: all.tags }], minus: [], without: [], basedOn: version };
    expect(
      (await owner.call('PUT', `/api/messages/${all.messages}/recipients`, recipients)).status,
    ).toBeLessThan(300);
    expect((await owner.call('POST', `/api/messages/${all.messages}/last-look`)).status).toBeLessThan(300);
    const things: Record<string, number> = { ...all, calls, bulk };
    const queries = [
      '',
      '?verdict=send',
      '?verdict=no-address',
      '?who=all',
      '?kind=unsure',
      '?result=sent',
      '?stage=asked',
      '?verdict=never-asked',
    ];
    let read = 0;
    for (const route of named(routesOf(house.app)).filter(
      ({ method, path }) => method === 'get' && things[thingOf(path)!] !== undefined,
    )) {
      if (['supporters', 'deliveries', 'replies', 'tasks'].includes(thingOf(route.path)!)) continue;
      for (const query of queries) {
        const path = at(route.path, things[thingOf(route.path)!]!) + query;
        const [seen, whole] = [await organizer.call('GET', path), await owner.call('GET', path)];
        expect([path, seen.text.includes(MARK)]).toEqual([path, false]);
        if (whole.text.includes(MARK)) read += 1;
      }
    }
    // Whoever works in all does read them there: it is no empty test.
    expect(read).toBeGreaterThan(2);
  });
});

describe('what is done', () => {
  const chapterOf = async (table: string, id: number) =>
    (await house.database.unscoped()(table).where('id', id).first()) as Record<string, unknown>;

  test('to people of another chapter, by naming them, is done to nobody', async () => {
    const tag = await idOf(house.client.post('/api/tags', { name: 'Named people' }));
    const answer = await organizer.call<{ id: number }>('POST', '/api/bulk', {
      group: { ids: [west.supporters, all.supporters] },
      act: { do: 'tag', on: true, tagId: tag },
    });
    await eventually(
      'the work to be done',
      () => organizer.get<{ state: string }>(`/api/bulk/${answer.body.id}`),
      ({ state }) => state === 'done',
    );
    const on = (await house.database
      .unscoped()('supporter_tag')
      .where('tag_id', tag)
      .select('supporter_id')) as { supporter_id: number }[];
    expect(on.map((one) => one.supporter_id)).toEqual([all.supporters]);
  });

  test('a name that another chapter uses too is the caller’s own: nothing of theirs is replaced', async () => {
    const before = await chapterOf('people_view', west['people-views']!);
    const tree = { kind: 'all', rules: [{ kind: 'field', field: 'firstName', op: 'is', value: 'X' }] };
    await organizer.put('/api/people-views', {
      name: `${MARK} view`,
      tree,
      by: 'name',
      descending: true,
      fields: [],
      basedOn: null,
    });
    expect(await chapterOf('people_view', west['people-views']!)).toEqual(before);
  });

  test('lists are moved only where they are the caller’s', async () => {
    const mine = await idOf(
      organizer.post('/api/lists', { name: 'East list', isPublic: false, description: '' }),
    );
    await organizer.put('/api/lists/folder', { ids: [mine, west.lists, all.lists], folder: 'Moved' });
    const folders = await Promise.all(
      [mine, west.lists!, all.lists!].map(async (id) => (await chapterOf('list', id)).folder),
    );
    expect(folders).toEqual(['Moved', '', '']);
  });

  test('what others still need can’t be deleted, and is told without their names', async () => {
    const tag = await idOf(organizer.post('/api/tags', { name: 'East tag' }));
    const tree = { kind: 'all', rules: [{ kind: 'tag', has: true, tagId: tag }] };
    if (schema.saveSegment.validate({ name: 'x', tree }).error)
      throw new Error('expected a rule that the schema takes');
    // Whoever works in all puts the East’s tag into a segment that is the West’s.
    const segment = await idOf(house.client.post('/api/segments', { name: `${MARK} needs it`, tree }));
    await house.database.unscoped()('segment').where('id', segment).update({ chapter_id: house.chapters[1] });
    const answer = await organizer.call<{ detail: string }>('DELETE', `/api/tags/${tag}`);
    expect([answer.status, answer.body.detail]).toEqual([
      409,
      expect.stringContaining('segment of another chapter') as string,
    ]);
    expect(answer.text).not.toContain(MARK);
  });
});
