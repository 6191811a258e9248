import type {
  BeginToBody,
  GroupRef,
  MessageView,
  Page,
  ReaderView,
  Recipients,
  SupporterRow,
} from '@goodword/core/contract';
import { openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, lastLook, letterOf, messageAt, send } from '../testing/steps';
import { againNamed } from '../messages/messages.service';

let house: TestHouse;
let ids: Record<string, number>;
let campaignId: number;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  const names = ['Ann', 'Bo', 'Cy', 'Di', 'Eva'];
  await bringIn(
    house.client,
    [
      'Email,First,Last,Mobile',
      ...names.map((name) => `${name.toLowerCase()}@example.org,${name},Lin,`),
    ].join('\n'),
  );
  const all = (await house.client.get<Page<SupporterRow>>('/api/supporters')).rows;
  ids = Object.fromEntries(all.map(({ firstName, id }) => [firstName, id]));
  campaignId = (
    await house.client.post<{ id: number }>('/api/campaigns', {
      name: 'Hull',
      kind: 'appeal',
      appealCode: null,
      stages: ['asked', 'gave'],
    })
  ).id;
  await house.client.put(`/api/campaigns/${campaignId}/roster`, {
    group: { ids: [ids.Ann, ids.Bo] },
    stage: 'asked',
  });
  await house.client.put(`/api/campaigns/${campaignId}/roster`, { group: { ids: [ids.Cy] }, stage: 'gave' });
});
afterAll(() => house.close());

/** The first tracked link of a mail, its soft line ends (RFC 2045 §6.7) undone. */
const trackedLink = (raw: string) => /\/f\/[a-z2-7]+/.exec(raw.replace(/=\r?\n/g, ''))![0];

const begin = (to: BeginToBody['to'], client = house.client) =>
  client.call<{ id: number; detail: string }>('POST', '/api/messages-to', {
    name: 'To them',
    channel: 'email',
    purpose: 'appeals',
    to,
  });
/** Writes to a group, and says who would be in it. */
async function reached(
  to: BeginToBody['to'],
  change: (recipients: Recipients) => Recipients = (same) => same,
): Promise<string[]> {
  const { status, body } = await begin(to);
  if (status !== 201) throw new Error(`expected a message, got ${status}: ${body.detail}`);
  const { recipients, groupVersion, version } = await house.client.get<MessageView>(
    `/api/messages/${body.id}`,
  );
  const words = {
    name: 'To them',
    purpose: 'appeals',
    listId: null,
    subject: 'Hello',
    preheader: '',
    letter: letterOf('Hello'),
    text: '',
    basedOn: version,
  };
  await house.client.put(`/api/messages/${body.id}`, words);
  await house.client.put(`/api/messages/${body.id}/recipients`, {
    ...change(recipients),
    basedOn: groupVersion,
  });
  const look = await lastLook(house.client, body.id);
  const people = await house.client.get<Page<SupporterRow>>(
    `/api/messages/${body.id}/last-look/people?verdict=send`,
  );
  expect(look.reached).toBe(people.rows.length);
  return people.rows.map(({ firstName }) => firstName).sort();
}
const campaign = (stage?: string): GroupRef => ({
  kind: 'campaign',
  id: campaignId,
  ...(stage ? { stage } : {}),
});

test('a roster is written to whole or at one stage, and can be left out', async () => {
  expect(await reached({ ref: campaign() })).toEqual(['Ann', 'Bo', 'Cy']);
  expect(await reached({ ref: campaign('asked') })).toEqual(['Ann', 'Bo']);
  expect(await reached({ ref: campaign() }, (all) => ({ ...all, minus: [campaign('gave')] }))).toEqual([
    'Ann',
    'Bo',
  ]);
});

test('people who were ticked are who gets it, less those in a group that is left out and those struck out', async () => {
  const group = { ids: [ids.Ann!, ids.Cy!, ids.Di!] };
  expect(await reached({ group })).toEqual(['Ann', 'Cy', 'Di']);
  expect(await reached({ group }, (all) => ({ ...all, minus: [campaign('gave')] }))).toEqual(['Ann', 'Di']);
  expect(await reached({ group }, (all) => ({ ...all, without: [ids.Di!] }))).toEqual(['Ann', 'Cy']);
  expect(await reached({ group }, (all) => ({ ...all, from: [campaign('asked')] }))).toEqual([
    'Ann',
    'Bo',
    'Cy',
    'Di',
  ]);
  const everybody = { kind: 'all' as const, rules: [] };
  expect(await reached({ group: { tree: everybody, without: [ids.Eva!] } })).toEqual([
    'Ann',
    'Bo',
    'Cy',
    'Di',
  ]);
});

test('who got a message, and who clicked or replied or did not, are groups that go on from it', async () => {
  const id = await draftEmail(house.client, { from: [campaign()] });
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  const did = (what?: GroupRef['did']): BeginToBody['to'] => ({
    ref: { kind: 'message', id, ...(what ? { did: what } : {}) },
  });
  expect(await reached(did())).toEqual(['Ann', 'Bo', 'Cy']);
  expect(await reached(did('clicked'))).toEqual([]);
  expect(await reached(did('not-clicked'))).toEqual(['Ann', 'Bo', 'Cy']);
  const { raw } = house.sink.mails.find(({ to }) => to === 'bo@example.org')!;
  expect((await house.client.call('GET', trackedLink(raw))).status).toBe(302);
  expect(await reached(did('clicked'))).toEqual(['Bo']);
  expect(await reached(did('not-clicked'))).toEqual(['Ann', 'Cy']);
  expect(
    await reached({ ref: campaign() }, (all) => ({
      ...all,
      minus: [{ kind: 'message', id, did: 'clicked' }],
    })),
  ).toEqual(['Ann', 'Cy']);
  // Any number of a result, as those who they are now.
  expect(await reached({ result: { messageId: id, kind: 'delivered' } })).toEqual(['Ann', 'Bo', 'Cy']);
  expect((await begin({ result: { messageId: id, kind: 'bounced' } })).body.detail).toContain(
    'Nobody is in this group',
  );
});

test('a stage that is renamed keeps its people, in messages and segments; a roster that a message or a segment needs stays', async () => {
  const { body } = await begin({ ref: campaign('asked') });
  const { recipients } = await house.client.get<MessageView>(`/api/messages/${body.id}`);
  await house.client.put(`/api/messages/${body.id}/recipients`, {
    ...recipients,
    minus: [campaign('asked')],
    basedOn: 0,
  });
  const tree = { kind: 'all', rules: [{ kind: 'roster', campaignId, stages: ['asked'], on: true }] };
  const segment = await house.client.post<{ id: number }>('/api/segments', { name: 'Asked once', tree });
  const { version } = await house.client.get<{ version: number }>(`/api/campaigns/${campaignId}`);
  await house.client.put(`/api/campaigns/${campaignId}`, {
    ...{ name: 'Hull', kind: 'appeal', appealCode: null, stages: ['written to', 'gave'], isOpen: true },
    renamed: { asked: 'written to' },
    basedOn: version,
  });
  const now = await house.client.get<MessageView>(`/api/messages/${body.id}`);
  expect([now.recipients.from, now.recipients.minus]).toEqual([
    [campaign('written to')],
    [campaign('written to')],
  ]);
  expect(await reached({ ref: { kind: 'segment', id: segment.id } })).toEqual(['Ann', 'Bo']);
  const refused = await house.client.call<{ detail: string }>('DELETE', `/api/campaigns/${campaignId}`);
  expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('Asked once')]);
});

test('a message is used again: the same words, no group, whatever became of it', async () => {
  const sent = (await house.client.get<MessageView[]>('/api/messages')).find(
    ({ state }) => state === 'done',
  )!;
  const { id } = await house.client.post<{ id: number }>(`/api/messages/${sent.id}/copy`);
  const copy = await house.client.get<MessageView>(`/api/messages/${id}`);
  const { subject, letter, purpose, channel } = sent;
  expect(copy).toMatchObject({
    state: 'draft',
    name: `${sent.name}, again`,
    subject,
    letter,
    purpose,
    channel,
  });
  expect(copy.recipients).toEqual({ from: [], minus: [], without: [] });
  expect(['Hull', 'Hull, again', 'Hull, again 2'].map(againNamed)).toEqual([
    'Hull, again',
    'Hull, again 2',
    'Hull, again 3',
  ]);
});

test('a writer sees how many would get it and who, and neither chooses nor sends', async () => {
  const { body } = await begin({ ref: campaign() });
  const writer = await house.as('writer');
  const look = await lastLook(writer, body.id);
  expect(look).toMatchObject({ group: 3, reached: 3 });
  expect(
    (await writer.get<Page<SupporterRow>>(`/api/messages/${body.id}/last-look/people?verdict=send`)).rows,
  ).toHaveLength(3);
  const refused = async (method: string, path: string, what: object) =>
    (await writer.call(method, `/api/messages/${body.id}/${path}`, what)).status;
  expect(await refused('PUT', 'recipients', { from: [], minus: [], without: [], basedOn: 0 })).toBe(403);
  expect(await refused('POST', 'send', { at: null, digest: look.digest })).toBe(403);
});

test('a message is read as those who would get it first, then as who would not, with why', async () => {
  const { body } = await begin({ ref: campaign() });
  const readers = (search = '', client = house.client) =>
    client.get<ReaderView[]>(`/api/messages/${body.id}/readers?search=${search}`);
  expect((await readers()).map(({ name, address, note }) => [name, address, note])).toEqual([
    ['Ann Lin', 'ann@example.org', null],
    ['Bo Lin', 'bo@example.org', null],
    ['Cy Lin', 'cy@example.org', null],
  ]);
  expect((await readers('Lin')).map(({ name, note }) => [name, note]).slice(0, 4)).toEqual([
    ['Ann Lin', null],
    ['Bo Lin', null],
    ['Cy Lin', null],
    ['Di Lin', 'not in the group'],
  ]);
  expect(await readers('Nobody')).toEqual([]);
  expect(await readers('', await house.as('viewer', house.chapters[1]!))).toEqual([]);
});

test('what can not be a group is refused', async () => {
  const refused = async (to: object) => (await begin(to as BeginToBody['to'])).status;
  expect(await refused({ ref: { kind: 'segment', id: 999_999 } })).toBe(404);
  expect(await refused({ ref: { kind: 'list', id: 1, stage: 'asked' } })).toBe(422);
  expect(await refused({ ref: { kind: 'message', id: 1, did: 'opened' } })).toBe(422);
  expect(await refused({ result: { messageId: 999_999, kind: 'sent' } })).toBe(404);
  expect(await refused({ group: { ids: [] } })).toBe(422);
  expect((await begin({ group: { ids: [ids.Ann!] } }, await house.as('writer'))).status).toBe(403);
});
