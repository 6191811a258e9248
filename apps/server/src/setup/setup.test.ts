import { BeginningRepository } from './beginning.repository';
import { wordHash } from './beginning.service';
import { Client, openTestHouse, eventually, type TestHouse } from '../testing/harness';

const GOOD = 'seven otters under the slipway';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

interface Organization {
  version: number;
  missing: string[];
  chapters: { id: number; name: string; postalAddress: string; people: number }[];
  [part: string]: unknown;
}
const organization = (client = house.client) => client.get<Organization>('/api/organization');
const save = async (change: object, client = house.client, basedOn?: number) => {
  const { version, missing: _missing, chapters: _chapters, logo: _logo, ...rest } = await organization();
  return client.call<{ detail: string; newer?: boolean }>('PUT', '/api/organization', {
    ...rest,
    ...change,
    basedOn: basedOn ?? version,
  });
};
const mailTo = (to: string) =>
  eventually(`a mail to ${to}`, () => house.sink.mails.filter((one) => one.to === to).at(-1), Boolean);
const tokenIn = (raw: string) => /\/password\/([a-z2-7]+)/.exec(raw.replace(/=\r?\n/g, ''))![1]!;
const team = () =>
  house.client.get<
    { id: number; name: string; email: string; role: string; state: string; sessions: number }[]
  >('/api/team');

/** A change of the chapter that is opened at Weir Road. */
const chapter = (name: string, postalAddress = '') => ({
  name,
  postalAddress,
  was: { name: 'Upriver', postalAddress: '3 Weir Road' },
});
const VIEWER = { role: 'viewer', chapterIds: null };

describe('the organization', () => {
  test('is changed whole, and of two who save from one version the second is told', async () => {
    const { version } = await organization();
    expect((await save({ legalName: 'Lantern Ferry Trust, Inc.' })).status).toBe(200);
    const second = await save({ legalName: 'Another' }, await house.as('owner', null, 'second'), version);
    expect([second.status, second.body.newer]).toEqual([409, true]);
    expect(await organization()).toMatchObject({
      legalName: 'Lantern Ferry Trust, Inc.',
      version: version + 1,
    });
    const both = await Promise.all([save({ name: 'A' }), save({ name: 'B' })]);
    expect(both.map((one) => one.status).sort()).toEqual([200, 409]);
    await save({ name: 'Lantern Ferry Trust' });
  });

  test.each([
    ['timeZone', 'Mars/Olympus'],
    ['timeZone', '+02:00'],
    ['currency', 'DOLLARS'],
    ['locale', 'en'],
    ['country', 'us'],
    ['languages', []],
    ['languages', ['en', 'xx']],
    ['fromEmail', 'not an address'],
    ['bounceDomain', 'not a domain'],
    ['textFrom', '555 0100'],
    ['fiscalMonth', 13],
    ['name', ''],
  ])('%s can not be %j', async (part, value) => {
    const answer = await save({ [part]: value });
    expect([answer.status, JSON.stringify(answer.body)]).toEqual([
      422,
      expect.stringContaining(part) as string,
    ]);
  });

  test('the currency stays while there are gifts: a yen is no cent', async () => {
    const knex = house.database.unscoped();
    const [supporterId] = (await knex('supporter').insert({
      organization_id: house.scope.organizationId,
      chapter_id: house.chapters[0],
    })) as [number];
    await knex('gift').insert({
      organization_id: house.scope.organizationId,
      supporter_id: supporterId,
      amount: 100,
      given_on: 20_000,
    });
    const answer = await save({ currency: 'JPY' });
    expect([answer.status, answer.body.detail]).toEqual([409, expect.stringContaining('USD') as string]);
  });

  test('a missing address, domain or number is told before the first message', async () => {
    await save({ postalAddress: '', fromEmail: '', bounceDomain: '', textFrom: '' });
    expect((await organization()).missing.join(' ')).toMatch(
      /No postal address.*No address that mail comes from.*No domain.*No number/,
    );
    await save({
      postalAddress: '1 Slip Lane, Port Alder',
      fromEmail: 'hello@lanternferry.test',
      bounceDomain: 'lists.lanternferry.test',
      textFrom: '+12065550100',
    });
    expect((await organization()).missing).toEqual([]);
  });

  test('who may not work in all chapters changes nothing of it, owner or not', async () => {
    const bound = await house.as('owner', house.chapters[0]!);
    expect((await save({ name: 'Mine' }, bound)).status).toBe(403);
    expect((await bound.call('POST', '/api/chapters', { name: 'Mine', postalAddress: '' })).status).toBe(403);
    expect((await bound.call('PUT', `/api/chapters/${house.chapters[0]}`, chapter('Mine'))).status).toBe(403);
    expect((await bound.call('GET', '/api/team')).status).toBe(403);
    expect(
      (
        await bound.call('POST', '/api/team', {
          name: 'X',
          email: 'x@lanternferry.test',
          role: 'owner',
          chapterIds: null,
        })
      ).status,
    ).toBe(403);
    expect((await organization(bound)).chapters.map(({ id }) => id)).toEqual([house.chapters[0]]);
  });

  test('a chapter is opened once, renamed, and has an address of its own', async () => {
    const made = await house.client.post<{ id: number }>('/api/chapters', {
      name: 'Upriver',
      postalAddress: '3 Weir Road',
    });
    expect(
      (await house.client.call('POST', '/api/chapters', { name: 'upriver', postalAddress: '' })).status,
    ).toBe(422);
    expect((await house.client.call('PUT', `/api/chapters/${made.id}`, chapter('East Landing'))).status).toBe(
      422,
    );
    expect((await house.client.call('PUT', '/api/chapters/999999', chapter('None'))).status).toBe(404);
    expect(
      (await house.client.call('PUT', `/api/chapters/${made.id}`, chapter('Up the river', '4 Weir Road')))
        .status,
    ).toBe(204);
    expect((await organization()).chapters.at(-1)).toMatchObject({
      name: 'Up the river',
      postalAddress: '4 Weir Road',
    });
  });
});

describe('a teammate', () => {
  test('is invited by mail, comes by the link, once, and is then here', async () => {
    const email = 'ines@lanternferry.test';
    const body = { name: 'Ines Calder', email, role: 'organizer', chapterIds: [house.chapters[0]] };
    const { id } = await house.client.post<{ id: number }>('/api/team', body);
    expect((await house.client.call('POST', '/api/team', body)).status).toBe(422);
    expect(
      (await new Client(house.config.PUBLIC_URL).call('POST', '/api/session', { email, password: '' }))
        .status,
    ).not.toBe(204);
    const mail = await mailTo(email);
    expect(mail!.raw).toContain('invites you');
    const token = tokenIn(mail!.raw);
    const come = () =>
      new Client(house.config.PUBLIC_URL).call('POST', `/api/password/${token}`, {
        password: GOOD,
        name: 'Ines M. Calder',
      });
    expect((await come()).status).toBe(204);
    expect((await come()).status).toBe(409);
    const view = await (
      await new Client(house.config.PUBLIC_URL).signIn(email, GOOD)
    ).get<{ teammate: object; chapters: object[] }>('/api/session');
    expect(view).toMatchObject({
      teammate: { name: 'Ines M. Calder', role: 'organizer', chapterIds: [house.chapters[0]] },
      chapters: [{ id: house.chapters[0] }],
    });
    expect((await team()).find((one) => one.id === id)).toMatchObject({ state: 'here' });
    expect((await house.client.call('POST', `/api/team/${id}/invitation`)).status).toBe(409);
  });

  test('an invitation that is sent again closes the one before; one whose mail is refused says so', async () => {
    const email = 'again@lanternferry.test';
    const { id } = await house.client.post<{ id: number }>('/api/team', {
      name: 'Ada',
      email,
      role: 'viewer',
      chapterIds: null,
    });
    const first = tokenIn((await mailTo(email))!.raw);
    await house.client.post(`/api/team/${id}/invitation`);
    await eventually(
      'the second mail',
      () => house.sink.mails.filter((one) => one.to === email).length,
      (n) => n === 2,
    );
    expect((await new Client(house.config.PUBLIC_URL).call('GET', `/api/password/${first}`)).status).toBe(
      409,
    );
    house.sink.options.answer = (to) => (to.startsWith('refused@') ? 550 : null);
    const { id: refused } = await house.client.post<{ id: number }>('/api/team', {
      name: 'Bo',
      email: 'refused@lanternferry.test',
      role: 'viewer',
      chapterIds: null,
    });
    const state = async () =>
      (await house.client.get<{ id: number; invitation: { state: string } | null }[]>('/api/team')).find(
        (one) => one.id === refused,
      );
    await eventually('the refusal to be told', state, (one) => one?.invitation?.state === 'failed');
  });

  test('is changed and taken out: sessions end at once, what waits is handed on, what they did stays theirs', async () => {
    const leaving = await house.as('organizer', null, 'leaving');
    const mate = (await team()).find((one) => one.email === 'organizer.allleaving@lanternferry.test')!;
    const heir = (await team()).find((one) => one.email === 'owner.all@lanternferry.test')!;
    const { id } = await leaving.post<{ id: number }>('/api/messages', {
      name: 'Half written',
      channel: 'email',
      purpose: 'news',
    });
    expect(await house.client.get(`/api/team/${mate.id}/waiting`)).toEqual({
      messages: 1,
      batches: 0,
      callLists: 0,
      replies: 0,
    });
    expect(
      (
        await house.client.call('PUT', `/api/team/${mate.id}`, {
          ...VIEWER,
          was: { ...VIEWER, role: 'organizer' },
        })
      ).status,
    ).toBe(204);
    // Who saw them as an organizer changes nothing unseen.
    expect(
      (
        await house.client.call('PUT', `/api/team/${mate.id}`, {
          ...VIEWER,
          role: 'writer',
          was: { ...VIEWER, role: 'organizer' },
        })
      ).status,
    ).toBe(409);
    expect((await leaving.call('POST', '/api/tags', { name: 'not any more' })).status).toBe(403);
    for (const handTo of [mate.id, 999_999])
      expect((await house.client.call('POST', `/api/team/${mate.id}/take-out`, { handTo })).status).toBe(422);
    expect(
      (await house.client.call('POST', `/api/team/${mate.id}/take-out`, { handTo: heir.id })).status,
    ).toBe(204);
    expect((await leaving.call('GET', '/api/session')).status).toBe(401);
    expect(
      (
        await new Client(house.config.PUBLIC_URL).call('POST', '/api/session', {
          email: mate.email,
          password: 'a password for tests',
        })
      ).status,
    ).toBe(401);
    expect((await house.database.unscoped()('message').where({ id }).first('sender_id')) as object).toEqual({
      sender_id: heir.id,
    });
    expect((await team()).find((one) => one.id === mate.id)).toMatchObject({ state: 'gone', sessions: 0 });
    // Who comes back is invited, and is the same person to the record.
    const back = await house.client.post<{ id: number }>('/api/team', {
      name: 'Back',
      email: mate.email,
      role: 'writer',
      chapterIds: null,
    });
    expect(back.id).toBe(mate.id);
  });

  test('of several chapters works in one at a time, and never beyond them', async () => {
    const [east, west] = house.chapters as [number, number];
    const far = await house.client.post<{ id: number }>('/api/chapters', {
      name: 'Far side',
      postalAddress: '',
    });
    const tag = await house.client.post<{ id: number }>('/api/tags', { name: 'of all', handedDown: true });
    const wren = await house.as('organizer', west, 'wren');
    const { id } = (await team()).find((one) => one.email === `organizer.${west}wren@lanternferry.test`)!;
    const place = (chapterIds: number[] | null) => ({ role: 'organizer', chapterIds });
    const change = async (to: unknown[], was: number[] | null) =>
      (await house.client.call('PUT', `/api/team/${id}`, { ...place(to as number[]), was: place(was) }))
        .status;
    const add = (name: string, chapter_id: number) =>
      house.database
        .unscoped()('supporter')
        .insert({ organization_id: house.scope.organizationId, chapter_id, last_name: name });
    for (const [name, chapter] of [
      ['Eastly', east],
      ['Westly', west],
      ['Farly', far.id],
    ] as const)
      await add(name, chapter);
    const sees = async () =>
      (await wren.get<{ rows: { lastName: string }[] }>('/api/supporters')).rows
        .map(({ lastName }) => lastName)
        .filter((name) => name.endsWith('ly'));
    const choose = async (chapterId: number | null) =>
      (await wren.call('PUT', '/api/session/chapter', { chapterId })).status;

    for (const wrong of [[], [0], [east, east], [999_999]])
      expect([wrong, await change(wrong, [west])]).toEqual([wrong, 422]);
    expect(await change([east, west], [west])).toBe(204);
    // They stay where they were; the order in which chapters are named is nothing that was changed.
    expect(await sees()).toEqual(['Westly']);
    expect(await change([west, east], [west, east])).toBe(204);
    expect(await change([west], [west])).toBe(409);
    expect(
      (await wren.get<{ chapters: { id: number }[] }>('/api/session')).chapters.map((one) => one.id),
    ).toEqual([east, west]);
    expect(await choose(east)).toBe(204);
    expect(await sees()).toEqual(['Eastly']);
    for (const beyond of [null, far.id]) expect([beyond, await choose(beyond)]).toEqual([beyond, 403]);
    // What belongs to all stays as it is, however many chapters they work in.
    expect(
      (
        await wren.call('PUT', `/api/tags/${tag.id}`, {
          name: 'theirs',
          handedDown: true,
          was: { name: 'of all', handedDown: true },
        })
      ).status,
    ).toBe(403);
    // The chapter they work in is taken away, and they are in the next at once.
    expect(await change([west, far.id], [east, west])).toBe(204);
    expect(await sees()).toEqual(['Westly']);
    expect(await choose(east)).toBe(403);
    expect((await wren.get<{ id: number }[]>('/api/session/teammates')).some((one) => one.id === id)).toBe(
      true,
    );
    const audit = (await house.database
      .unscoped()('audit')
      .where({ act: 'role', subject_id: id })
      .orderBy('id', 'desc')
      .first('words')) as {
      words: string;
    };
    expect(audit.words).toBe('The wrenorganizer is organizer now, in West Landing, Far side');
  });

  test('the last owner stays, however two owners act at once', async () => {
    const knex = house.database.unscoped();
    const second = await house.as('owner', null, 'last');
    const all = (await team()).filter((one) => one.role === 'owner' && one.state === 'here');
    const [one, other] = [
      all.find((mate) => mate.email === 'owner.all@lanternferry.test')!,
      all.find((mate) => mate.email === 'owner.alllast@lanternferry.test')!,
    ];
    // Only these two are left.
    await knex('teammate')
      .whereNotIn('id', [one.id, other.id])
      .where('role', 'owner')
      .update({ role: 'viewer' });
    const demote = (client: Client, id: number) =>
      client.call('PUT', `/api/team/${id}`, { ...VIEWER, was: { ...VIEWER, role: 'owner' } });
    const both = await Promise.all([demote(house.client, other.id), demote(second, one.id)]);
    const owners = (await knex('teammate').where('role', 'owner').whereNull('left_at').select('id')) as {
      id: number;
    }[];
    expect([owners.length, both.filter(({ status }) => status === 204).length]).toEqual([1, 1]);
    const last = owners[0]!.id === one.id ? house.client : second;
    const otherId = owners[0]!.id === one.id ? other.id : one.id;
    expect((await demote(last, owners[0]!.id)).status).toBe(409);
    expect((await last.call('POST', `/api/team/${owners[0]!.id}/take-out`, { handTo: otherId })).status).toBe(
      409,
    );
    expect(
      (
        await last.call('PUT', `/api/team/${owners[0]!.id}`, {
          role: 'owner',
          chapterIds: [house.chapters[0]],
          was: { ...VIEWER, role: 'owner' },
        })
      ).status,
    ).toBe(409);
  });
});

describe('an empty house', () => {
  let empty: TestHouse;
  beforeAll(async () => {
    empty = await openTestHouse();
    for (const table of ['organization', 'chapter', 'teammate', 'session'])
      await empty.database.unscoped()(table).delete();
  });
  afterAll(() => empty.close());

  const begin = (more: object = {}) =>
    new Client(empty.config.PUBLIC_URL).call<{ faults?: { field: string }[]; detail: string }>(
      'POST',
      '/api/beginning',
      {
        word: 'tidal-lamp-four',
        organization: {
          name: 'Pier Street Choir',
          legalName: '',
          postalAddress: '',
          country: 'GB',
          timeZone: 'Europe/London',
          locale: 'en-GB',
          currency: 'GBP',
        },
        chapter: 'Everybody',
        name: 'Mabel Quay',
        email: 'mabel@pierstreet.test',
        password: GOOD,
        ...more,
      },
    );

  test('opens to whoever says the word, once, with everything there at once', async () => {
    expect(await new Client(empty.config.PUBLIC_URL).get('/api/beginning')).toEqual({ open: true });
    expect((await begin()).status).toBe(422);
    await new BeginningRepository().keepWord(empty.database, wordHash('tidal-lamp-four'));
    expect((await begin({ word: 'another' })).body.faults![0]!.field).toBe('word');
    expect((await begin({ password: 'password1234' })).body.faults![0]!.field).toBe('password');
    const both = await Promise.all([begin(), begin({ email: 'second@pierstreet.test' })]);
    expect(both.map((one) => one.status).sort()).toEqual([204, 409]);
    expect(await new Client(empty.config.PUBLIC_URL).get('/api/beginning')).toEqual({ open: false });
    const [owner] = (await empty.database.unscoped()('teammate').select('email')) as { email: string }[];
    const client = await new Client(empty.config.PUBLIC_URL).signIn(owner!.email, GOOD);
    expect(await client.get('/api/organization')).toMatchObject({
      name: 'Pier Street Choir',
      chapters: [{ name: 'Everybody', people: 0 }],
    });
    expect((await client.get<{ missing: string[] }>('/api/organization')).missing.join(' ')).toContain(
      'No postal address',
    );
    expect((await begin()).status).toBe(409);
  });
});
