import type { ComparisonView, MessageView } from '@goodword/core/contract';
import { drawnFor, REST } from '@goodword/core/wordings';
import { eventually, openTestHouse, pause, type TestHouse } from '../testing/harness';
import {
  bringIn,
  draftEmail,
  draftText,
  lastLook,
  letterOf,
  messageAt,
  resultsOf,
  send,
} from '../testing/steps';
import { WordingsRepository } from '../wordings/wordings.repository';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const HREF = 'https://give.lanternferry.test/hull';
let made = 0;

/** So many people of one batch, and a draft to them with another wording beside it. */
async function twoWordings(people: number) {
  const domain = `w${++made}.example.org`;
  const rows = Array.from({ length: people }, (_none, i) => `p${i}@${domain},Person${made}x${i},Lee,`);
  const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
  const first = await draftEmail(
    house.client,
    { from: [{ kind: 'batch', id: batch.id }] },
    { subject: `One of ${made}` },
  );
  const second = await another(first, `Two of ${made}`);
  const mails = () => house.sink.mails.filter(({ to }) => to.endsWith(`@${domain}`));
  const got = (subject: string) =>
    mails()
      .filter(({ raw }) => raw.includes(`Subject: ${subject}`))
      .map(({ to }) => to);
  return { first, second, mails, one: () => got(`One of ${made}`), two: () => got(`Two of ${made}`) };
}

async function another(first: number, subject: string): Promise<number> {
  const { id } = await house.client.post<{ id: number }>(`/api/messages/${first}/wordings`);
  const { name, version } = await house.client.get<MessageView>(`/api/messages/${id}`);
  await house.client.put(`/api/messages/${id}`, {
    ...{ name, purpose: 'news', listId: null, subject, preheader: '', text: '', basedOn: version },
    letter: letterOf('Give here', HREF),
  });
  await house.client.post(`/api/messages/${id}/test`);
  return id;
}

const show = (id: number) => house.client.get<ComparisonView>(`/api/messages/${id}/comparison`);
const say = async (id: number, said: Partial<Pick<ComparisonView, 'share' | 'measure' | 'hours'>>) => {
  const { version, share, measure, hours } = await show(id);
  await house.client.put(`/api/messages/${id}/comparison`, {
    ...{ share, measure, hours, ...said, basedOn: version },
  });
};
const tried = (id: number) =>
  eventually(
    'all who were drawn to have got it',
    () => show(id),
    ({ leaving, wordings }) => leaving === 0 && wordings.some(({ came }) => came > 0),
  );
/** As if so many hours had gone by since the mails left. */
async function hoursLater(ids: readonly number[], hours: number): Promise<void> {
  const db = house.database.unscoped();
  const back = db.raw('sent_at - INTERVAL ? HOUR', [hours]);
  await db('delivery').whereIn('message_id', ids).whereNotNull('sent_at').update({ sent_at: back });
  await db('job')
    .where({ kind: 'message-decide', ref_id: ids[0]!, state: 'waiting' })
    .update({
      run_at: new Date(0),
    });
}
const click = async (raw: string) => {
  const plain = raw.replace(/=\r\n/g, '').replace(/=3D/g, '=');
  await house.client.call('GET', /\/f\/[a-z2-7]+/.exec(plain)![0]);
};

test('some get one, some the other; the rest the one that more clicked; nobody two, and nobody none', async () => {
  const { first, second, mails, one, two } = await twoWordings(120);
  await say(first, { share: 50, hours: 3 });
  await send(house.client, first);
  const before = await tried(first);
  // Both draws are kept with the seed: who got which is what the core says of it.
  expect(before.rest).toBe(120 - one().length - two().length);
  expect([one().length, two().length, before.rest].every((n) => n > 10)).toBe(true);
  const { seed } = (await house.database
    .unscoped()('comparison')
    .where({ message_id: first })
    .first('seed')) as { seed: number };
  const rows = (await house.database
    .unscoped()('delivery')
    .whereIn('message_id', [first, second])
    .select('supporter_id', 'message_id', 'state')) as {
    supporter_id: number;
    message_id: number;
    state: string;
  }[];
  for (const row of rows) {
    const which = drawnFor(row.supporter_id, { seed, share: 50, wordings: 2 });
    expect([row.message_id, row.state === 'undecided']).toEqual([
      which === 1 ? second : first,
      which === REST,
    ]);
  }
  // Not before its hours are over, however often it is looked at.
  await hoursLater([first, second], 2);
  await pause(600);
  expect((await show(first)).rest).toBe(before.rest);
  const waiting = (await resultsOf(house.client, first)).counts.waiting;
  expect(waiting).toBe(before.rest);
  for (const { raw } of mails().filter(({ raw }) => raw.includes('Subject: Two of'))) await click(raw);
  await hoursLater([first, second], 2);
  await messageAt(house.client, first, 'done');
  await messageAt(house.client, second, 'done');
  const after = await show(second);
  expect(after).toMatchObject({ messageId: first, rest: 0, better: { id: second, differs: true } });
  expect(after.decided).toMatchObject({ id: second, by: null });
  expect(mails()).toHaveLength(120);
  expect(new Set(mails().map(({ to }) => to)).size).toBe(120);
  expect(one()).toHaveLength(before.wordings[0]!.came);
  expect(two()).toHaveLength(120 - one().length);
  expect(after.wordings.reduce((sum, { gone }) => sum + gone, 0)).toBe(120);
  // The rest got it for being the better one: what they do says nothing of that.
  expect(after.wordings.map(({ came }) => came)).toEqual(before.wordings.map(({ came }) => came));
  // Whoever asks for those who clicked the message finds those of every wording.
  const tree = {
    ...{ kind: 'message', event: 'clicked', did: true, messageId: first, atLeast: 1 },
    window: { over: 'ever' },
  };
  const count = await house.client.post<{ total: number }>('/api/segments/count', { tree, reach: false });
  expect(count.total).toBe(before.wordings[1]!.came);
});

test('where no difference is seen the rest gets the first', async () => {
  const { first, second, mails, one } = await twoWordings(40);
  await say(first, { share: 40, hours: 1 });
  await send(house.client, first);
  const before = await tried(first);
  await hoursLater([first, second], 2);
  await messageAt(house.client, first, 'done');
  const after = await show(first);
  expect(after.decided).toMatchObject({ id: first, by: null });
  expect(after.better).toEqual({ id: first, differs: false });
  expect(one()).toHaveLength(before.wordings[0]!.came + before.rest);
  expect(new Set(mails().map(({ to }) => to)).size).toBe(40);
});

test('a wording that was stopped for good is not chosen, by anybody: the rest gets the first', async () => {
  const { first, second, mails, two } = await twoWordings(40);
  await say(first, { share: 40, hours: 1 });
  await send(house.client, first);
  const before = await tried(first);
  for (const { raw } of mails().filter((one) => one.raw.includes('Subject: Two of'))) await click(raw);
  await house.database.unscoped()('message').where({ id: second }).update({ state: 'paused' });
  await house.client.post(`/api/messages/${second}/stop`);
  const choice = await house.client.call<{ detail: string }>(
    'POST',
    `/api/messages/${first}/comparison/choose`,
    { wordingId: second },
  );
  expect([choice.status, choice.body.detail]).toEqual([
    409,
    'That wording was stopped for good and goes to nobody more. Choose another.',
  ]);
  await hoursLater([first, second], 2);
  await messageAt(house.client, first, 'done');
  expect((await show(first)).decided).toMatchObject({ id: first });
  expect(mails()).toHaveLength(40);
  expect(two()).toHaveLength(before.wordings[1]!.came);
});

test('of two who share an address one gets one wording, whichever', async () => {
  const domain = `shared${++made}.example.org`;
  const rows = Array.from({ length: 30 }, (_none, i) => `p${i >> 1}@${domain},Twin${made}x${i},Moor,`);
  const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
  const first = await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] });
  await another(first, 'The other');
  await say(first, { share: 100 });
  const look = await send(house.client, first);
  await messageAt(house.client, first, 'done');
  const all = await eventually(
    'all',
    () => house.sink.mails.filter(({ to }) => to.endsWith(domain)).map(({ to }) => to),
    (found) => found.length >= look.reached,
  );
  expect(new Set(all).size).toBe(all.length);
  expect(all).toHaveLength(look.reached);
});

test('of two who choose one does; a message that is stopped writes to nobody more', async () => {
  const { first, second, mails, two } = await twoWordings(40);
  await say(first, { share: 40 });
  await send(house.client, first);
  const before = await tried(first);
  await house.client.post(`/api/messages/${first}/pause`);
  const choose = (wordingId: number) =>
    house.client.call<{ detail: string }>('POST', `/api/messages/${first}/comparison/choose`, { wordingId });
  expect((await choose(999_999)).status).toBe(422);
  // One who was drawn has not got it yet: what is known is not all that was asked for.
  const [one] = (await house.database
    .unscoped()('delivery')
    .where({ message_id: second, state: 'sent' })
    .limit(1)
    .select('id')) as { id: number }[];
  const make = (state: string) =>
    house.database.unscoped()('delivery').where({ id: one!.id }).update({ state });
  await make('ready');
  expect((await choose(second)).body.detail).toBe(
    'One who was drawn for one of them has not got it yet. Choose once they have.',
  );
  await make('sent');
  const both = await Promise.all([choose(second), choose(first)]);
  expect(both.map(({ status }) => status).sort()).toEqual([204, 409]);
  const { decided } = await eventually(
    'the rest to be let go',
    () => show(first),
    ({ rest }) => rest === 0,
  );
  expect(decided!.by).toBe('The owner');
  await pause(500);
  expect(mails()).toHaveLength(40 - before.rest);
  await house.client.post(`/api/messages/${first}/stop`);
  await pause(500);
  expect(mails()).toHaveLength(40 - before.rest);
  expect((await resultsOf(house.client, first)).counts.waiting).toBe(0);
  expect((await resultsOf(house.client, second)).counts.waiting).toBe(0);
  expect(two()).toHaveLength(before.wordings[1]!.came);
});

test('all of them are in order before any leaves, and a look holds for all of them', async () => {
  const { first, second } = await twoWordings(4);
  const third = (await house.client.post<{ id: number }>(`/api/messages/${first}/wordings`)).id;
  const { name } = await house.client.get<MessageView>(`/api/messages/${third}`);
  expect(name).toMatch(/, wording 3$/);
  expect((await lastLook(house.client, first)).faults.map(({ message }) => message)).toEqual([
    `In “${name}”: Send yourself a test first, and read it as they will.`,
  ]);
  await house.client.post(`/api/messages/${third}/test`);
  // Another wording is no message of its own.
  const mine = await house.client.get<MessageView[]>('/api/messages');
  expect(mine.map(({ id }) => id).filter((id) => [second, third].includes(id))).toEqual([]);
  const answers = await Promise.all([
    house.client.call('POST', `/api/messages/${second}/last-look`),
    house.client.call('POST', `/api/messages/${second}/wordings`),
    house.client.call('PUT', `/api/messages/${second}/recipients`, {
      ...{ from: [], minus: [], without: [], basedOn: 0 },
    }),
  ]);
  expect(answers.map(({ status }) => status)).toEqual([409, 409, 409]);
  const { version } = await house.client.get<MessageView>(`/api/messages/${second}`);
  await house.client.post(`/api/messages/${first}/test`);
  const { digest } = await lastLook(house.client, first);
  await house.client.put(`/api/messages/${second}`, {
    ...{ name: 'Changed', purpose: 'appeals', listId: null, subject: 'Changed', preheader: '', text: '' },
    ...{ letter: letterOf('Other words'), basedOn: version },
  });
  await house.client.post(`/api/messages/${second}/test`);
  const gone = await house.client.call('POST', `/api/messages/${first}/send`, { at: null, digest });
  expect(gone.status).toBe(409);
  // A fourth is the last; one that is taken away leaves the comparison, and with the last of them it ends.
  const fourth = (await house.client.post<{ id: number }>(`/api/messages/${first}/wordings`)).id;
  expect((await house.client.call('POST', `/api/messages/${first}/wordings`)).status).toBe(409);
  for (const id of [second, third, fourth]) await house.client.call('DELETE', `/api/messages/${id}`);
  expect((await show(first)).wordings).toEqual([]);
  const put = await house.client.call('PUT', `/api/messages/${first}/comparison`, {
    ...{ share: 10, measure: 'gave', hours: 5, basedOn: 0 },
  });
  expect(put.status).toBe(409);
});

test('of a text nobody can tell who opened it, so that it is not compared by that', async () => {
  const first = await draftText(house.client, { from: [] });
  await house.client.post(`/api/messages/${first}/wordings`);
  const put = (measure: string, basedOn: number) =>
    house.client.call<{ detail: string }>('PUT', `/api/messages/${first}/comparison`, {
      ...{ share: 10, measure, hours: 5, basedOn },
    });
  expect([(await put('opened', 0)).status, (await put('gave', 0)).status]).toEqual([422, 200]);
});

test('drawn once more after a kill, it comes out the same', async () => {
  const { first, second } = await twoWordings(50);
  await say(first, { share: 60 });
  await send(house.client, first);
  await tried(first);
  const db = house.database;
  const all = async () =>
    (await db
      .unscoped()('delivery')
      .whereIn('message_id', [first, second])
      .orderBy('supporter_id')
      .select('supporter_id', 'message_id')) as object[];
  const before = await all();
  await db.unscoped()('delivery').where({ message_id: first }).update({ state: 'ready' });
  await db.unscoped()('message').where({ id: first }).update({ state: 'preparing' });
  const { seed, share } = (await db.unscoped()('comparison').where({ message_id: first }).first()) as {
    seed: number;
    share: number;
  };
  await db.write(house.scope, (tx) => {
    tx.changed('nothing', 0, []);
    return house.app.get(WordingsRepository).drawSlice(tx, first, { seed, share }, [second], 0);
  });
  expect(await all()).toEqual(before);
});
