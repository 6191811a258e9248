import { execFileSync } from 'node:child_process';
import type { BulkView, CallListView, Page, PrintAct, SupporterRow } from '@goodword/core/contract';
import { startingRules } from '@goodword/core/permission';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { houseDay, openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { bringIn, NOTHING } from '../testing/steps';
import { addressLines } from './printed-people.service';

let house: TestHouse;
let ids: Record<string, number>;

const PEOPLE = [
  ['Marisol', 'Castellan', '14 Slip Lane', '206 555 0140'],
  ['Jun', 'Castellan', '14 Slip Lane', '206 555 0141'],
  ['Bo', 'Lin', '3B Slip Lane', '206 555 0142'],
  ['Zoë', 'Núñez-Ōta', '21 Slip Lane', '206 555 0143'],
  ['Ида', 'Петрова', '2 Anchor Street', '206 555 0144'],
  ['Nobody', 'Written', '8 Anchor Street', '206 555 0145'],
] as const;

beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  // As a house in the United States starts, where post needs no agreement.
  await house.database.write(house.scope, (tx) =>
    new HouseRulesRepository().keep(tx, { rules: startingRules('US'), words: 'For tests', effects: [] }),
  );
  const rows = PEOPLE.map(
    ([first, last, street, mobile], i) =>
      `p${i}@example.org,${first},${last},${mobile},"${street}",Port Alder`,
  );
  await bringIn(house.client, ['Email,First,Last,Mobile,Street,City', ...rows].join('\n'), {
    columns: [
      { to: 'email' },
      { to: 'firstName' },
      { to: 'lastName' },
      { to: 'mobile' },
      { to: 'street' },
      { to: 'city' },
    ],
    permission: { email: NOTHING, text: NOTHING },
  });
  const all = (await house.client.get<Page<SupporterRow>>('/api/supporters')).rows;
  ids = Object.fromEntries(all.map((row) => [row.firstName, row.id]));
  await house.client.put(`/api/supporters/${ids.Marisol}/household`, { withId: ids.Jun });
  await says('Nobody', 'post', 'no');
  for (const who of ['Marisol', 'Bo', 'Zoë']) await says(who, 'call', 'yes');
  await house.client.post(`/api/supporters/${ids.Bo}/gifts`, { amount: 4000, on: houseDay(-20) });
});
afterAll(() => house.close());

async function says(who: string, channel: 'post' | 'call', state: 'yes' | 'no'): Promise<void> {
  const record = await house.client.get<{ contactPoints: { id: number; kind: string }[] }>(
    `/api/supporters/${ids[who]}`,
  );
  const point = record.contactPoints.find((one) => one.kind === (channel === 'post' ? 'post' : 'mobile'))!;
  await house.client.post(`/api/supporters/${ids[who]}/permission`, {
    contactPointId: point.id,
    channel,
    scope: 'appeals',
    state,
    how: 'paper',
    on: houseDay(-10),
    words: 'As I said on paper',
  });
}

const print = async (act: Partial<PrintAct>) => {
  const begun = await house.client.call<{ id: number; detail: string }>('POST', '/api/bulk', {
    group: { tree: { kind: 'all', rules: [] } },
    act: { do: 'print', ...act },
  });
  if (begun.status !== 202) return { refused: begun.body.detail, bulk: null, bytes: Buffer.alloc(0) };
  const bulk = await eventually(
    'the sheet',
    () => house.client.get<BulkView>(`/api/bulk/${begun.body.id}`),
    (one) => one.state !== 'waiting' && one.state !== 'running',
  );
  if (bulk.problem) throw new Error(bulk.problem);
  const response = await fetch(`${house.config.PUBLIC_URL}/api/bulk/${bulk.id}/file`, {
    headers: { cookie: house.client.cookies },
  });
  return { refused: null, bulk, bytes: Buffer.from(await response.arrayBuffer()) };
};

/** The words of a PDF as poppler reads them, page by page, as they lie on the paper. */
const pagesOf = (bytes: Buffer) =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes }).toString().split('\f').slice(0, -1);
const linesOf = (text: string) =>
  text
    .split('\n')
    .map((line) => line.replace(/\s+/g, ' ').trim())
    .filter(Boolean);

describe('labels', () => {
  test('one for each household, and none for who said no to post', async () => {
    const { bulk, bytes } = await print({ form: 'labels', labels: 'letter-30' });
    expect(bulk).toMatchObject({ words: 'Print labels: 6 people', changed: 5, file: 'Labels.pdf' });
    const text = pagesOf(bytes).join('\n');
    expect(text).toContain('Marisol and Jun Castellan');
    expect(text.match(/14 Slip Lane/g)).toHaveLength(1);
    expect(text).not.toContain('Nobody');
    for (const name of ['Zoë Núñez-Ōta', 'Ида Петрова']) expect(text).toContain(name);
  });

  test('each lies on its label: by its measures on the paper', async () => {
    const { bytes } = await print({ form: 'labels', labels: 'a4-21', together: false, used: 4 });
    const html = execFileSync('pdftotext', ['-bbox', '-', '-'], { input: bytes }).toString();
    expect(html).toMatch(/<page width="595\.27\d+" height="841\.88\d+"/);
    const at = (word: string) => {
      const found = new RegExp(`xMin="([\\d.]+)" yMin="([\\d.]+)"[^>]*>${word}<`).exec(html)!;
      return [Number(found[1]), Number(found[2])];
    };
    const mm = (length: number) => (length / 25.4) * 72;
    // The fifth label: second row, second column of 63.5 × 38.1 mm labels with 2.5 mm between.
    const [x, y] = at('Bo');
    expect(x).toBeGreaterThan(mm(7.25 + 63.5 + 2.5));
    expect(x).toBeLessThan(mm(7.25 + 63.5 + 2.5 + 8));
    expect(y).toBeGreaterThan(mm(15.15 + 38.1));
    expect(y).toBeLessThan(mm(15.15 + 38.1 + 12));
  });

  test('an address is written as its country writes it, and the country is named abroad alone', () => {
    const at = (post: object) =>
      [{ person: { first_name: 'Ana', last_name: 'Ruiz' }, householdId: null, points: [], post }] as never;
    const from = { locale: 'en-US', country: 'US' };
    // The order of town and postcode: Universal Postal Union, S42 templates of the countries (from memory).
    expect(
      addressLines(
        at({ street: '14 Slip Lane', city: 'Port Alder', region: 'WA', postcode: '98000', country: 'US' }),
        from,
      ),
    ).toEqual(['Ana Ruiz', '14 Slip Lane', 'Port Alder, WA 98000']);
    expect(
      addressLines(at({ street: 'Am Hafen 3', city: 'Kiel', postcode: '24103', country: 'DE' }), from),
    ).toEqual(['Ana Ruiz', 'Am Hafen 3', '24103 Kiel', 'Germany']);
  });
});

test('a door sheet goes up the odd side and up the even side of each street', async () => {
  const { bytes } = await print({
    form: 'door',
    columns: ['last-gift'],
    noteLines: 2,
    title: 'Spring walk',
    paper: 'A4',
  });
  const lines = linesOf(pagesOf(bytes).join('\n'));
  const order = lines.filter((line) =>
    /side, Port Alder|^\d+ (Castellan|Lin|Núñez|Bo|Zoë|Ида|Marisol|Jun)/.test(line),
  );
  expect(
    order.map((line) =>
      line
        .replace(/^\d+ /, '')
        .split(/ \d|side/)[0]!
        .trim(),
    ),
  ).toEqual([
    'Anchor Street, even',
    'Ида Петрова',
    'Slip Lane, odd',
    'Bo Lin',
    'Zoë Núñez-Ōta',
    'Slip Lane, even',
    'Jun Castellan',
    'Marisol Castellan',
  ]);
  expect(lines).toEqual(expect.arrayContaining(['Spring walk', '1 person is not on it: opted out (1).']));
  expect(lines.find((line) => line.includes('Bo Lin'))).toContain('$40');
});

test('a call sheet is numbered as the list of calls that its answers are entered by', async () => {
  const { bulk, bytes } = await print({
    form: 'call',
    columns: ['phone', 'last-gift'],
    title: 'Spring calls',
  });
  expect(bulk).toMatchObject({ changed: 3, people: 6 });
  const [list] = await house.client.get<CallListView[]>('/api/calls');
  expect(list).toMatchObject({ name: 'Spring calls', people: 6, suppressed: 3 });
  const lines = linesOf(pagesOf(bytes).join('\n'));
  expect(lines.join('\n')).toContain('3 people are not on it: never opted in to this (3).');
  expect(lines.filter((line) => /\+1 206/.test(line)).map((line) => line.replace(/ \+1.*/, ''))).toEqual([
    '2 Marisol Castellan',
    '3 Bo Lin',
    '4 Zoë Núñez-Ōta',
  ]);
  expect(lines.join('\n')).toContain('no answer');
});

test('who has a town and no street is on none, and that is said', async () => {
  await bringIn(house.client, 'Email,Name,City\ntown@example.org,Tove Berg,Port Alder\n', {
    columns: [{ to: 'email' }, { to: 'fullName' }, { to: 'city' }],
    permission: { email: NOTHING, text: NOTHING },
  });
  const { bulk, bytes } = await print({ form: 'labels', labels: 'letter-30' });
  expect(bulk).toMatchObject({
    people: 7,
    changed: 5,
    told: '2 people are not on it: opted out (1), no street on file (1).',
  });
  expect(pagesOf(bytes).join('\n')).not.toContain('Tove');
});

test('long sheets are paginated, with the head on every page and nobody cut in two', async () => {
  const many = Array.from(
    { length: 120 },
    (_none, i) =>
      `q${i}@example.org,Walker,Number${String(i).padStart(3, '0')},,"${i + 1} Long Street",Port Alder`,
  );
  await bringIn(house.client, ['Email,First,Last,Mobile,Street,City', ...many].join('\n'), {
    columns: [
      { to: 'email' },
      { to: 'firstName' },
      { to: 'lastName' },
      { to: 'mobile' },
      { to: 'street' },
      { to: 'city' },
    ],
    permission: { email: NOTHING, text: NOTHING },
  });
  const pages = pagesOf((await print({ form: 'door', columns: ['email'], noteLines: 2 })).bytes);
  expect(pages.length).toBeGreaterThan(5);
  pages.forEach((page, i) => expect(page).toContain(`${i + 1} of ${pages.length}`));
  for (const page of pages.slice(1)) expect(page).toMatch(/Who\s+Door\s+Email/);
  const seen = pages.join('\n').match(/Number\d{3}/g)!;
  expect(new Set(seen).size).toBe(120);
  expect(seen).toHaveLength(120);
});
