import type { MessageView } from '@goodword/core/contract';
import { startingRules } from '@goodword/core/permission';
import { openTestHouse, rulesOfTests, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, lastLook, letterOf, messageAt, resultsOf } from '../testing/steps';
import { personBy } from '../testing/supporter';

let house: TestHouse;
let tag: number;
let few: number;

const rows = (name: string, n: number) => [
  'Email,First,Last,Mobile',
  ...Array.from({ length: n }, (_v, i) => `${name}${i}@example.org,N${i},Seo,`),
];

beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  few = (await house.client.post<{ id: number }>('/api/tags', { name: 'few' })).id;
  tag = (await house.client.post<{ id: number }>('/api/tags', { name: 'many' })).id;
  await bringIn(house.client, rows('few', 2).join('\n'), { tagIds: [few] });
  await bringIn(house.client, rows('many', 40).join('\n'), { tagIds: [tag] });
});
afterAll(() => house.close());

const toFew = () => ({ from: [{ kind: 'tag' as const, id: few }] });
const ready = async () => {
  const id = await draftEmail(house.client, toFew(), { subject: 'For the few' });
  await house.client.post(`/api/messages/${id}/test`);
  return { id, look: await lastLook(house.client, id) };
};
const send = (id: number, digest: string, at: string | null = null) =>
  house.client.call<{ detail: string }>('POST', `/api/messages/${id}/send`, { at, digest });
const view = (id: number) => house.client.get<MessageView>(`/api/messages/${id}`);
const setRules = async (rules: object) => {
  const { version } = await house.client.get<{ version: number }>('/api/house-rules');
  await house.client.put('/api/house-rules', { rules, basedOn: version });
};
const putWords = (id: number, values: object) => {
  const words = {
    name: 'A letter',
    purpose: 'appeals',
    listId: null,
    subject: 'S',
    preheader: '',
    letter: letterOf('New'),
    text: '',
  };
  return house.client.call<{ newer?: boolean; detail: string; version: number }>(
    'PUT',
    `/api/messages/${id}`,
    { ...words, ...values },
  );
};

describe('what was looked at, and nothing else, leaves', () => {
  const refused = async (id: number, digest: string) => {
    expect(await send(id, digest)).toMatchObject({
      status: 409,
      body: { detail: expect.stringContaining('Take the last look again') },
    });
    expect((await view(id)).state).toBe('draft');
  };

  test('a group that grew since', async () => {
    const { id, look } = await ready();
    expect(look.reached).toBe(2);
    const group = {
      from: [...toFew().from, { kind: 'tag', id: tag }],
      minus: [],
      without: [],
      basedOn: (await view(id)).groupVersion,
    };
    await house.client.put(`/api/messages/${id}/recipients`, group);
    await refused(id, look.digest);
    // Counted anew, the old number is still refused and the new one goes.
    const again = await lastLook(house.client, id);
    expect(again.reached).toBe(42);
    await refused(id, look.digest);
    expect((await send(id, again.digest)).status).toBe(202);
    await messageAt(house.client, id, 'done');
  });

  test('words that were changed since', async () => {
    const { id, look } = await ready();
    await putWords(id, { preheader: 'New', basedOn: (await view(id)).version });
    await house.client.post(`/api/messages/${id}/test`);
    await refused(id, look.digest);
  });

  test('a rule of the house that was changed since', async () => {
    const { id, look } = await ready();
    const rules = rulesOfTests();
    await setRules({ ...rules, textEndDays: 12 });
    await refused(id, look.digest);
    await setRules(rules);
  });

  test('a segment that means others now', async () => {
    const tree = (tagId: number) => ({ kind: 'all', rules: [{ kind: 'tag', tagId, has: true }] });
    const segment = await house.client.post<{ id: number }>('/api/segments', {
      name: 'Some',
      tree: tree(few),
    });
    const id = await draftEmail(house.client, { from: [{ kind: 'segment', id: segment.id }] });
    await house.client.post(`/api/messages/${id}/test`);
    const look = await lastLook(house.client, id);
    await house.client.put(`/api/segments/${segment.id}`, { name: 'Some', tree: tree(tag), basedOn: 0 });
    await refused(id, look.digest);
  });

  test('who came into the group between the look and the leaving does not get it', async () => {
    const { id, look } = await ready();
    await bringIn(house.client, rows('late', 1).join('\n'), { tagIds: [few] });
    expect((await send(id, look.digest)).status).toBe(202);
    await messageAt(house.client, id, 'done');
    expect((await resultsOf(house.client, id)).counts.sent).toBe(2);
    const late = (await personBy(house.client, 'late0@example.org')).id;
    await house.client.call('DELETE', `/api/supporters/${late}/tags/${few}`);
  });

  test('twice at once goes once', async () => {
    const { id, look } = await ready();
    const answers = await Promise.all([send(id, look.digest), send(id, look.digest)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([202, 409]);
    await messageAt(house.client, id, 'done');
    expect((await resultsOf(house.client, id)).counts.sent).toBe(2);
  });

  test('a time that is over is refused, and not sent at once', async () => {
    const { id, look } = await ready();
    expect(await send(id, look.digest, new Date(Date.now() - 60_000).toISOString())).toMatchObject({
      status: 422,
    });
    expect((await view(id)).state).toBe('draft');
  });

  test('what has left is not counted anew', async () => {
    const { id, look } = await ready();
    await send(id, look.digest);
    expect((await house.client.call('POST', `/api/messages/${id}/last-look`)).status).toBe(409);
  });
});

test('sent now it waits as long as the house says, and is taken back without a trace', async () => {
  await setRules({ ...rulesOfTests(), undoSeconds: 3 });
  const { id, look } = await ready();
  await send(id, look.digest);
  expect(await view(id)).toMatchObject({
    state: 'scheduled',
    scheduledAt: null,
    leavesAt: expect.any(String),
  });
  await house.client.post(`/api/messages/${id}/unschedule`);
  expect(await view(id)).toMatchObject({ state: 'draft', leavesAt: null });
  await new Promise((done) => setTimeout(done, 3500));
  expect((await resultsOf(house.client, id)).counts).toMatchObject({ sent: 0, waiting: 0, suppressed: 0 });
  // Not taken back, it leaves by itself, to those who were counted.
  const again = await lastLook(house.client, id);
  await send(id, again.digest);
  await messageAt(house.client, id, 'done');
  expect((await resultsOf(house.client, id)).counts.sent).toBe(2);
  expect(startingRules('US').undoSeconds ?? 60).toBe(60);
  await setRules(rulesOfTests());
});

describe('two who save from one version', () => {
  test('of words, the second is told whose are newer, and nothing is overwritten', async () => {
    const { id } = await ready();
    const { version } = await view(id);
    const other = await house.as('writer');
    const theirs = {
      name: 'A letter',
      purpose: 'appeals',
      listId: null,
      subject: 'Theirs',
      preheader: '',
      letter: letterOf('T'),
      text: '',
    };
    await other.put(`/api/messages/${id}`, { ...theirs, basedOn: version });
    const mine = await putWords(id, { subject: 'Mine', basedOn: version });
    expect(mine).toMatchObject({
      status: 409,
      body: { newer: true, detail: expect.stringContaining('The writer changed these words meanwhile') },
    });
    expect((await view(id)).subject).toBe('Theirs');
    expect((await putWords(id, { subject: 'Mine', basedOn: version + 1 })).body.version).toBe(version + 2);
  });

  test('at once, exactly one of them wins', async () => {
    const { id } = await ready();
    const { version } = await view(id);
    const answers = await Promise.all(
      ['A', 'B', 'C', 'D'].map((subject) => putWords(id, { subject, basedOn: version })),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409]);
  });

  test('of the group likewise', async () => {
    const { id } = await ready();
    const { groupVersion: basedOn } = await view(id);
    const save = () =>
      house.client.call('PUT', `/api/messages/${id}/recipients`, {
        from: [],
        minus: [],
        without: [],
        basedOn,
      });
    expect((await Promise.all([save(), save()])).map(({ status }) => status).sort()).toEqual([200, 409]);
  });
});

test('a draft that was looked at is deleted whole', async () => {
  const { id } = await ready();
  expect((await house.client.call('DELETE', `/api/messages/${id}`)).status).toBe(204);
  expect(await house.database.unscoped()('look_group').where('message_id', id)).toEqual([]);
});
