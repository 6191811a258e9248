import { simpleParser } from 'mailparser';
import type { LastLook, OrganizationView, Preview } from '@goodword/core/contract';
import { eventually, openTestHouse, type TestHouse } from '../testing/harness';
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
import { personBy } from '../testing/supporter';

/*
 * Links of the house (where one gives, a form, one's own page to choose on) are merge fields in every
 * channel; in texts links are short, and followed ones are counted as in mails.
 */
let house: TestHouse;
let batch: { from: { kind: 'batch'; id: number }[] };
beforeAll(async () => {
  house = await openTestHouse({ env: { TEXT_SHIFT_TABLES: 'es' } });
  house.startWorker();
  const csv =
    'Email,First,Last,Mobile\nann@example.org,Ann,Li,206 555 0101\nbo@example.org,Bo,Lin,206 555 0102\n';
  batch = { from: [{ kind: 'batch', id: (await bringIn(house.client, csv)).id }] };
});
afterAll(() => house.close());

const follow = (url: string) => {
  const { pathname } = new URL(url);
  return fetch(`${house.config.PUBLIC_URL}${pathname}`, { redirect: 'manual' });
};
/** The HTML of the mail of a subject to somebody. */
async function htmlOf(to: string, subject: string): Promise<string> {
  const { raw } = await eventually(
    `${subject} to ${to}`,
    () => house.sink.mails.find((mail) => mail.to === to && mail.raw.includes(`Subject: ${subject}`))!,
    (mail) => mail !== undefined,
  );
  return String((await simpleParser(raw)).html);
}
async function setUp(part: Partial<OrganizationView>): Promise<void> {
  const { version, logo, chapters, missing, ...own } =
    await house.client.get<OrganizationView>('/api/organization');
  expect([typeof logo, typeof chapters, typeof missing]).not.toContain('undefined');
  await house.client.put('/api/organization', { ...own, ...part, basedOn: version });
}

test('a link in a text goes out short and of one’s own, leads where it was written to, and is counted', async () => {
  await setUp({ linkUrl: 'https://go.example' });
  const id = await draftText(
    house.client,
    batch,
    'Planks: https://planks.example/a/rather/long/address?who={First name, or "you"}. Thanks!',
  );
  const preview = await house.client.get<Preview>(`/api/messages/${id}/preview`);
  expect(preview.text).toMatch(/Planks: https:\/\/go\.example\/-.{10}\. Thanks!/);
  expect((await lastLook(house.client, id)).texts).toMatchObject({ byParts: [{ parts: 1, people: 2 }] });
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  const links = house.gateway.texts
    .filter(({ text }) => text.includes('go.example'))
    .map(({ to, text }) => [to, /https:\/\/go\.example\/\S{11}(?=\.)/.exec(text)![0]] as const);
  expect(new Set(links.map(([, link]) => link)).size).toBe(2);
  const [, anns] = links.find(([to]) => to.endsWith('0101'))!;
  expect(new URL(anns).pathname).toHaveLength(12);
  const answer = await follow(anns);
  expect([answer.status, answer.headers.get('location')]).toEqual([
    302,
    'https://planks.example/a/rather/long/address?who=Ann',
  ]);
  expect((await resultsOf(house.client, id)).counts).toMatchObject({ sent: 2, clicked: 1 });
  expect((await follow('https://go.example/-AAAAAAAAAA')).status).toBe(404);
});

test('where one gives is said once for all messages; without it nothing leaves that needs it', async () => {
  const words = letterOf('Give here', '{Link: giving page}?campaign=hull');
  const id = await draftEmail(house.client, batch, { subject: 'Giving', letter: words });
  const faults = async () => (await lastLook(house.client, id)).faults.map(({ message }) => message);
  expect(await faults()).toEqual([expect.stringContaining('giving page')]);
  await setUp({ givingPage: 'https://give.example/?via=ferry' });
  expect(await faults()).toEqual([]);
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  const link = /href="([^"]*\/f\/[^"]*)"/.exec(await htmlOf('ann@example.org', 'Giving'))![1]!;
  expect((await follow(link)).headers.get('location')).toBe('https://give.example/?via=ferry&campaign=hull');
});

test('one’s own page to choose on is one’s own, in mails and texts, and nobody is counted on it', async () => {
  const id = await draftEmail(house.client, batch, {
    subject: 'Choosing',
    letter: letterOf('Choose here', '{Link: preferences}'),
  });
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  const pages = await Promise.all(
    ['ann@example.org', 'bo@example.org'].map(async (to) => {
      return /href="([^"]*\/leave\/[^"]*)"[^>]*>Choose here/.exec(await htmlOf(to, 'Choosing'))![1]!;
    }),
  );
  expect(new Set(pages).size).toBe(2);
  expect((await follow(pages[0]!)).status).toBe(200);
  const text = await draftText(house.client, batch, 'Choose: {Link: preferences}');
  await send(house.client, text);
  await messageAt(house.client, text, 'done');
  const sent = house.gateway.texts.filter(({ text: one }) => one.includes('Choose: https://go.'));
  const own = await Promise.all(
    sent.map(async (one) => (await follow(/https:\S+/.exec(one.text)![0])).headers.get('location')!),
  );
  expect(new Set(own).size).toBe(2);
  expect(await (await follow(own[0]!)).text()).toContain('Lantern Ferry Trust');
  expect((await resultsOf(house.client, text)).counts).toMatchObject({ sent: 2, clicked: 0 });
});

test('a form of the house is found by its name, and its field is told from the fields of people', async () => {
  const names = await house.client.get<{ name: string; group: string }[]>('/api/merge-fields');
  expect(names.filter(({ group }) => group === 'Link').map(({ name }) => name)).toEqual(
    expect.arrayContaining(['Link: giving page', 'Link: preferences']),
  );
  const refused = await house.client.call('POST', '/api/fields', {
    ...{ name: 'Link: mine', type: 'text', fallback: null },
  });
  expect(refused.status).toBe(422);
});

test('the gateway’s own tables of letters are used in the count, and named to the gateway', async () => {
  const id = await draftText(house.client, batch, `${'Los tablones llegan el sábado. '.repeat(3)} STOP`);
  const look: LastLook = await lastLook(house.client, id);
  // In UCS-2 it would be two.
  expect(look.texts).toMatchObject({ byParts: [{ parts: 1, people: 2 }] });
});

test('gifts in words: first, largest, this year and in all', async () => {
  const ann = await personBy(house.client, 'ann@example.org');
  const year = new Date().getUTCFullYear();
  for (const [amount, on] of [
    [5000, `${year - 2}-03-01`],
    [9000, `${year - 1}-03-01`],
    [2000, `${year}-01-15`],
  ] as const)
    await house.client.post(`/api/supporters/${ann.id}/gifts`, { amount, on });
  const id = await draftText(
    house.client,
    batch,
    '{First gift: amount}, {Largest gift: amount}, {Last gift: amount}, {This year: amount, or "none"}, {All gifts: amount} in {All gifts: number}, {Household: names}',
  );
  const { text } = await eventually(
    'the words',
    () => house.client.get<Preview>(`/api/messages/${id}/preview?supporterId=${ann.id}`),
    () => true,
  );
  expect(text).toContain('$50, $90, $20, $20, $160 in 3, Ann Li');
});
