import { execFileSync } from 'node:child_process';
import type { LettersView, MessageView, Page, RecordView, SupporterRow } from '@goodword/core/contract';
import { startingRules } from '@goodword/core/permission';
import { LETTER_SHEETS, paperOf } from '@goodword/core/print';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { eventually, houseDay, openTestHouse, type TestHouse } from '../testing/harness';
import {
  bringIn,
  draftLetter,
  lastLook,
  letterOf,
  messageAt,
  NOTHING,
  resultsOf,
  send,
} from '../testing/steps';

/*
 * A letter is a message by post: those who may be written to get one, a household one together, who said no
 * gets none, and it has gone when somebody says that it was posted.
 */
let house: TestHouse;
let ids: Record<string, number>;

const PEOPLE = [
  ['Marisol', 'Castellan', '14 Slip Lane', '98002'],
  ['Jun', 'Castellan', '14 Slip Lane', '98002'],
  ['Bo', 'Lin', '14 Slip Lane', '98002'],
  ['Zoë', 'Núñez-Ōta', '21 Anchor Street', '98001'],
  ['Nobody', 'Written', '8 Anchor Street', '98001'],
  ['Tove', 'Berg', '', '98003'],
] as const;

beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  // As a house in the United States starts, where post needs no agreement.
  await house.database.write(house.scope, (tx) =>
    new HouseRulesRepository().keep(tx, { rules: startingRules('US'), words: 'For tests', effects: [] }),
  );
  const rows = PEOPLE.map(
    ([first, last, street, postcode], i) =>
      `p${i}@example.org,${first},${last},"${street}",Port Alder,${postcode}`,
  );
  await bringIn(house.client, ['Email,First,Last,Street,City,Postcode', ...rows].join('\n'), {
    columns: [
      ...[{ to: 'email' as const }, { to: 'firstName' as const }, { to: 'lastName' as const }],
      ...[{ to: 'street' as const }, { to: 'city' as const }, { to: 'postcode' as const }],
    ],
    permission: { email: NOTHING, text: NOTHING },
  });
  const all = (await house.client.get<Page<SupporterRow>>('/api/supporters')).rows;
  ids = Object.fromEntries(all.map((row) => [row.firstName, row.id]));
  await house.client.put(`/api/supporters/${ids.Marisol}/household`, { withId: ids.Jun });
  await saysNo('Nobody');
});
afterAll(() => house.close());

async function saysNo(who: string): Promise<void> {
  const record = await house.client.get<RecordView>(`/api/supporters/${ids[who]}`);
  await house.client.post(`/api/supporters/${ids[who]}/permission`, {
    contactPointId: record.contactPoints.find(({ kind }) => kind === 'post')!.id,
    ...{ channel: 'post', scope: 'appeals', state: 'no', how: 'paper', on: houseDay(-1) },
    words: 'No letters, please',
  });
}

const everybody = () => ({ from: Object.values(ids).map((id) => ({ kind: 'person' as const, id })) });
const letters = (id: number) => house.client.get<LettersView>(`/api/messages/${id}/letters`);
const made = (id: number) =>
  eventually(
    'the letters',
    () => letters(id),
    (view) => view.made || !!view.problem,
  );
async function fileOf(path: string): Promise<Buffer> {
  const response = await fetch(`${house.config.PUBLIC_URL}${path}`, {
    headers: { cookie: house.client.cookies },
  });
  expect(response.status).toBe(200);
  return Buffer.from(await response.arrayBuffer());
}
const pagesOf = (bytes: Buffer) =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes }).toString().split('\f').slice(0, -1);
const linesOf = (page: string) =>
  page
    .split('\n')
    .map((line) => line.replace(/\s+/g, ' ').trim())
    .filter(Boolean);
async function pdfOf(id: number): Promise<Buffer> {
  const { files } = await letters(id);
  return fileOf(`/api/messages/${id}/letters/${files.find(({ kind }) => kind === 'pdf')!.id}/file`);
}
/** Where a word lies on the first page that has it, in points from the upper left corner (poppler). */
function placeOf(bytes: Buffer, word: string): { x: number; y: number; right: number; bottom: number } {
  const html = execFileSync('pdftotext', ['-bbox', '-', '-'], { input: bytes }).toString();
  const found = new RegExp(
    `xMin="([\\d.]+)" yMin="([\\d.]+)" xMax="([\\d.]+)" yMax="([\\d.]+)">${word}<`,
  ).exec(html)!;
  const [x, y, right, bottom] = found.slice(1).map(Number) as [number, number, number, number];
  return { x, y, right, bottom };
}

test('one for each household, by postcode, none for who said no or has no street; posted on a day', async () => {
  const id = await draftLetter(house.client, everybody(), letterOf('Dear {Greeting}, the planks are in.'));
  const look = await lastLook(house.client, id);
  expect(look).toMatchObject({
    group: 6,
    // A town alone is an address of the ledger; that it takes no letter shows when they are laid out.
    reached: 4,
    suppressed: [
      { reason: 'said-no', people: 1 },
      { reason: 'shared-address', people: 1 },
    ],
  });
  await send(house.client, id);
  await messageAt(house.client, id, 'posting');
  const view = await made(id);
  expect(view).toMatchObject({
    form: 'us-10',
    total: 3,
    done: 3,
    problem: null,
    refused: [],
    postedOn: null,
  });
  const pages = pagesOf(await pdfOf(id));
  expect(pages).toHaveLength(3);
  expect(pages.map((page) => linesOf(page).find((line) => /^Dear/.test(line)))).toEqual([
    'Dear Zoë, the planks are in.',
    'Dear Bo, the planks are in.',
    'Dear Marisol and Jun, the planks are in.',
  ]);
  expect(linesOf(pages[2]!)).toEqual(
    expect.arrayContaining(['Marisol and Jun Castellan', '14 Slip Lane', 'Letter 3']),
  );
  const csv = view.files.find(({ kind }) => kind === 'csv')!;
  expect((await fileOf(`/api/messages/${id}/letters/${csv.id}/file`)).toString().split('\r\n')[3]).toMatch(
    /^3,Marisol and Jun Castellan,14 Slip Lane,.*98002/,
  );
  // Said on another day than it is said.
  await house.client.post(`/api/messages/${id}/posted`, { on: houseDay(-2) });
  expect((await messageAt(house.client, id, 'done')).state).toBe('done');
  expect((await letters(id)).postedOn).toBe(houseDay(-2));
  const { counts } = await resultsOf(house.client, id);
  expect(counts).toMatchObject({ sent: 3, door: 1 });
  const again = await house.client.call('POST', `/api/messages/${id}/posted`, { on: houseDay(-2) });
  expect(again.status).toBe(409);
  const timeline = await house.client.get<object>(`/api/supporters/${ids.Bo}/timeline`);
  expect(JSON.stringify(timeline)).toContain('Planks by post');
});

test('who says no between printing and posting is named, taken out, and not counted as written to', async () => {
  const id = await draftLetter(house.client, everybody(), letterOf('Dear {Greeting}'));
  await send(house.client, id);
  await messageAt(house.client, id, 'posting');
  await made(id);
  await saysNo('Zoë');
  const before = await letters(id);
  expect(before.refused).toEqual([
    { number: 1, supporterId: ids.Zoë, name: 'Zoë Núñez-Ōta', reason: 'said-no' },
  ]);
  await house.client.post(`/api/messages/${id}/posted`, { on: houseDay() });
  expect((await resultsOf(house.client, id)).counts).toMatchObject({ sent: 2, door: 2 });
});

test('where the one of a household who had the letter says no, the letter is the other’s', async () => {
  const id = await draftLetter(house.client, everybody(), letterOf('Dear {Greeting}'));
  await send(house.client, id);
  await messageAt(house.client, id, 'posting');
  await made(id);
  await saysNo('Marisol');
  expect((await letters(id)).refused.map(({ name }) => name)).toEqual(['Marisol Castellan']);
  await house.client.post(`/api/messages/${id}/letters`, { form: 'din-b' });
  const view = await made(id);
  expect(view).toMatchObject({ form: 'din-b', refused: [], total: 2 });
  const words = pagesOf(await pdfOf(id)).join('\n');
  expect(words).toContain('Dear Jun');
  expect(words).not.toContain('Marisol');
  await house.client.post(`/api/messages/${id}/posted`, { on: houseDay() });
});

test('one each where it is wanted so; stopped, none is posted', async () => {
  await house.client.put(`/api/supporters/${ids.Bo}/household`, { withId: ids.Jun });
  const both = { from: [ids.Jun!, ids.Bo!].map((one) => ({ kind: 'person' as const, id: one })) };
  const together = await draftLetter(house.client, both, letterOf('Dear {Greeting}'));
  expect((await lastLook(house.client, together)).reached).toBe(1);
  const apart = await draftLetter(house.client, { ...both, apart: true }, letterOf('Dear {Greeting}'));
  expect((await lastLook(house.client, apart)).reached).toBe(2);
  await send(house.client, apart);
  await messageAt(house.client, apart, 'posting');
  expect((await made(apart)).total).toBe(2);
  await house.client.post(`/api/messages/${apart}/stop`);
  const posted = await house.client.call('POST', `/api/messages/${apart}/posted`, { on: houseDay() });
  expect(posted.status).toBe(409);
  expect((await house.client.get<MessageView>(`/api/messages/${apart}`)).state).toBe('stopped');
});

test('a letter of several pages says so on each, and the next one begins to count anew', async () => {
  const long = Array.from({ length: 60 }, (_none, i) => `Line ${i} of a long letter.`);
  const doc = {
    ...{ type: 'doc', version: 2 },
    content: long.map((text) => ({ type: 'paragraph', content: [{ type: 'text', text }] })),
  };
  const some = {
    from: [ids.Jun!, ids.Bo!].map((one) => ({ kind: 'person' as const, id: one })),
    apart: true,
  };
  const id = await draftLetter(house.client, some, doc);
  await send(house.client, id);
  await messageAt(house.client, id, 'posting');
  await made(id);
  const pages = pagesOf(await pdfOf(id)).map((page) => linesOf(page).at(-1));
  expect(pages).toEqual([
    ...['Letter 1 Page 1 of 3', 'Letter 1 Page 2 of 3', 'Letter 1 Page 3 of 3'],
    ...['Letter 2 Page 1 of 3', 'Letter 2 Page 2 of 3', 'Letter 2 Page 3 of 3'],
  ]);
});

test('a link of one’s own can’t stand on paper, and that is told before anything is laid out', async () => {
  const id = await draftLetter(house.client, everybody(), letterOf('Choose at {Link: preferences}'));
  const { faults } = await lastLook(house.client, id);
  expect(faults.map(({ message }) => message)).toEqual([
    expect.stringContaining('On paper nobody has a link'),
  ]);
});

describe('the address lies in the window of its envelope', () => {
  const mm = (points: number) => (points / 72) * 25.4;
  let id: number;
  beforeAll(async () => {
    id = await draftLetter(house.client, everybody(), letterOf('Bodywords begin here'));
  });
  const page = (form: string) => fileOf(`/api/messages/${id}/letter-page?supporterId=${ids.Bo}&form=${form}`);

  // DIN 5008:2020, form B (from memory): the field of the address is 20 to 105 mm from the left and 45 to 90
  // mm from the top, its upper 17.7 mm for the sender; words begin 25 mm from the left and below the field.
  test('DIN 5008 form B', async () => {
    const bytes = await page('din-b');
    const [name, town, body] = ['Lin', '98002', 'Bodywords'].map((word) => placeOf(bytes, word));
    expect(mm(name!.y)).toBeGreaterThan(45 + 17.7 - 0.5);
    expect(mm(name!.x)).toBeGreaterThan(25);
    expect(mm(town!.bottom)).toBeLessThan(90);
    expect(mm(town!.right)).toBeLessThan(105);
    expect(mm(body!.y)).toBeGreaterThan(98.46);
    expect(mm(body!.x)).toBeCloseTo(25, 0);
    const sender = placeOf(bytes, 'Trust,');
    expect(mm(sender.y)).toBeGreaterThan(45);
    expect(mm(sender.bottom)).toBeLessThan(45 + 17.7);
    expect(LETTER_SHEETS['din-b'].folds.map(mm).map(Math.round)).toEqual([105, 210]);
    expect([paperOf('din-b').width, paperOf('din-b').height].map(mm).map(Math.round)).toEqual([210, 297]);
  });

  // A no. 10 envelope is 9 1/2 by 4 1/8 in; its usual window is 4 1/2 by 1 1/8 in, 7/8 in from the left and
  // 1/2 in from the bottom (common practice; the measures are from memory).
  test('US no. 10, whichever way the folded paper lies in it', async () => {
    const bytes = await page('us-10');
    const inch = (points: number) => points / 72;
    const places = ['Bo', 'Lin', '14', '98002'].map((word) => placeOf(bytes, word));
    const panel = 11 / 3;
    for (const aside of [0, 9.5 - 8.5])
      for (const up of [0, 4.125 - panel])
        for (const { x, right, y, bottom } of places) {
          // From the envelope's left and bottom edges.
          expect(inch(x) + aside).toBeGreaterThan(0.875);
          expect(inch(right) + aside).toBeLessThan(0.875 + 4.5);
          expect(panel - inch(bottom) + up).toBeGreaterThan(0.5);
          expect(panel - inch(y) + up).toBeLessThan(0.5 + 1.125 + 0.05);
        }
    expect(inch(placeOf(bytes, 'Bodywords').y)).toBeGreaterThan(panel);
  });
});
