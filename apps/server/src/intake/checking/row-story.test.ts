import fc from 'fast-check';
import type { BatchRowView, RecordView } from '@goodword/core/contract';
import type { ColumnChoice } from '@goodword/core/intake';
import { gathering } from '../../testing/gathering';
import { openTestHouse, type TestHouse } from '../../testing/harness';
import { agreed, bringIn, NOTHING, planFor } from '../../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { rowsOf, record, checked, allIn } = gathering(() => house);

const COLUMNS: ColumnChoice[] = [
  { to: 'email' },
  { to: 'firstName' },
  { to: 'lastName' },
  { to: 'mobile' },
  { to: 'externalId' },
  { to: 'street' },
  { to: 'city' },
  { to: 'tags' },
  { to: 'newField', name: 'Pledge', type: 'money' },
  { to: 'consent', channel: 'email' },
  { to: 'refusal', channel: 'call' },
];
const HEADER = 'Email,First,Last,Mobile,Id,Street,Town,Tags,Pledge,OK to email,No calls';
const fileOf = (rows: readonly (readonly string[])[]) =>
  [HEADER, ...rows.map((row) => row.map((cell) => `"${cell}"`).join(','))].join('\n');

test('of a row that meets somebody it is told whom, by what, and all that changes and is written', async () => {
  await bringIn(house.client, 'Email,First,Last,Mobile\nmara@example.org,Mara,,206 555 0140\n', {
    permission: { email: NOTHING, text: NOTHING },
  });
  const { id: mara } = (await record('mara@')) as { id: number };
  const list = await house.client.post<{ id: number }>('/api/lists', { name: 'Bakers', folder: '' });
  const csv = fileOf([
    [
      'mara@example.org; mara.q@example.org',
      'Mara',
      'Quill',
      '206 555 0140',
      'M-7',
      '3 Slip Lane',
      'Port Alder',
      'menders',
      '$40',
      'yes',
      'x',
    ],
    ['mara@example.org', 'Jun', 'Oyelaran', '', '', '', '', '', '', 'no', ''],
    ['new@example.org', 'Ned', 'Rowe', '', '', '', '', '', '', '', ''],
    ['new@example.org', 'Ned', 'Rowe', '', '', '', '', 'menders', '', 'yes', ''],
  ]);
  const column = { ...agreed('appeals'), from: 'column' } as never;
  const batch = await checked(
    csv,
    planFor({ columns: COLUMNS, listIds: [list.id], permission: { email: column, text: NOTHING } }),
  );
  const [first, second, third, fourth] = (await rowsOf(batch.id)).rows;
  expect(first).toMatchObject({
    verdict: 'update',
    meets: { supporterId: mara, row: null, name: 'Mara', by: 'the same email' },
    writes: {
      emails: ['mara@example.org', 'mara.q@example.org'],
      phones: ['+1 206 555 0140'],
      post: '3 Slip Lane, Port Alder',
      ownId: 'M-7',
      fields: [{ name: 'Pledge', value: '$40' }],
      tags: ['menders'],
      lists: ['Bakers'],
      stage: null,
      gift: null,
    },
  });
  expect(first!.changes).toEqual(
    expect.arrayContaining([
      { what: 'Last name', from: '', to: 'Quill' },
      { what: 'Own id', from: '', to: 'M-7' },
      { what: 'Pledge', from: '', to: '$40' },
      { what: 'Email added', from: '', to: 'mara.q@example.org' },
      { what: 'Postal address added', from: '', to: '3 Slip Lane, Port Alder' },
    ]),
  );
  expect(first!.changes).toHaveLength(5);
  expect(first!.writes!.permission).toEqual([
    expect.objectContaining({ channel: 'email', scope: 'appeals', state: 'yes', at: 'mara.q@example.org' }),
    expect.objectContaining({
      channel: 'email',
      scope: 'appeals',
      state: 'yes',
      at: 'mara@example.org',
      on: '2026-01-15',
    }),
    expect.objectContaining({ channel: 'call', scope: 'all', state: 'no', at: null }),
  ]);
  expect(second).toMatchObject({
    verdict: 'shares',
    meets: { supporterId: mara, name: 'Mara', by: 'shares their email' },
    changes: [],
  });
  expect(third).toMatchObject({ verdict: 'new', meets: null, writes: { permission: [] } });
  expect(fourth).toMatchObject({
    meets: { supporterId: null, row: 3, by: 'the same email' },
    writes: { permission: [{ at: 'new@example.org' }] },
  });
});

describe('what is told of every row is what becomes of it', () => {
  const who = fc.constantFrom(
    ['a1@example.org', 'Ann', 'Lin', '206 555 0131', 'X-1'],
    ['a1@example.org', 'Jun', 'Lin', '', ''],
    ['a2@example.org; a5@example.org', 'Bo', 'Berg', '2065550132', 'X-2'],
    ['', 'Cy', 'Quill', '206-555-0133', 'X-3'],
    ['nonsense', 'Di', 'Moss', '12', ''],
    ['', '', '', '', ''],
  );
  const rest = fc.tuple(
    fc.constantFrom('', '1 Slip Lane'),
    fc.constantFrom('', 'Port Alder'),
    fc.constantFrom('', 'rowers', 'rowers; bakers'),
    fc.constantFrom('', '$40', '1,250', '€3'),
    fc.constantFrom('yes', 'no', ''),
    fc.constantFrom('', 'x'),
  );
  const row = fc.tuple(who, rest).map(([one, more]) => [...one, ...more]);

  async function allRows(id: number): Promise<BatchRowView[]> {
    const rows: BatchRowView[] = [];
    for (let after: string | null = ''; after !== null;) {
      const page = await rowsOf(id, `?limit=5${after ? `&after=${encodeURIComponent(after)}` : ''}`);
      rows.push(...page.rows);
      after = page.next;
    }
    return rows;
  }

  test('whatever the file', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(row, { minLength: 1, maxLength: 14 }), async (rows) => {
        const permission = {
          email: { ...agreed('appeals', 'news'), from: 'column' } as never,
          text: agreed('appeals'),
        };
        const batch = await checked(
          fileOf(rows),
          planFor({ columns: COLUMNS, newTags: ['origin'], permission }),
        );
        if (batch.problem) throw new Error(batch.problem);
        const told = await allRows(batch.id);
        expect(told).toHaveLength(rows.length);
        await allIn(batch.id);
        const came = await allRows(batch.id);
        const sayings = (some: BatchRowView[]) =>
          some.map(({ row, verdict, changes, writes }) => ({ row, verdict, changes, writes }));
        expect(sayings(came)).toEqual(sayings(told));
        // Counted over the whole batch it is the same as row by row.
        const will = batch.will!.entries;
        for (const channel of ['email', 'text', 'call', 'post'] as const) {
          const said = told.flatMap((one) =>
            (one.writes?.permission ?? [])
              .filter((entry) => entry.channel === channel)
              .map(({ state }) => state),
          );
          for (const state of ['yes', 'no', 'asked'] as const)
            expect([channel, state, said.filter((one) => one === state).length]).toEqual([
              channel,
              state,
              will[channel]?.[state] ?? 0,
            ]);
        }
        // And the people are so: of several rows of one person the last that says something stands.
        const last = new Map<string, string>();
        for (const { supporterId, writes } of came)
          for (const { name, value } of writes?.fields ?? []) last.set(`${supporterId}:${name}`, value);
        for (const { supporterId, writes, firstName } of came) {
          if (!writes || supporterId === null) continue;
          const person = await house.client.get<RecordView>(`/api/supporters/${supporterId}`);
          expect(person.firstName).toBe(firstName);
          const points = person.contactPoints.map(({ shown }) => shown);
          expect(points).toEqual(
            expect.arrayContaining([
              ...writes.emails,
              ...writes.phones,
              ...(writes.post ? [writes.post] : []),
            ]),
          );
          expect(person.tags.map(({ name }) => name)).toEqual(expect.arrayContaining(writes.tags));
          for (const { name } of writes.fields)
            expect(person.fields.find((field) => field.name === name)?.shown).toBe(
              last.get(`${supporterId}:${name}`),
            );
        }
      }),
      { numRuns: 12 },
    );
  });
});
