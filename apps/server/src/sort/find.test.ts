import type { FinderHit, SegmentCount } from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import type { Explanation } from '@goodword/core/words';
import { openTestHouse, type TestHouse } from '../testing/harness';
import { agreed, bringIn, STEP_COLUMNS, draftEmail, messageAt, NOTHING, send } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  const rows = [
    'zoe@example.org,Zoé,Castellan-Núñez,206 555 0141',
    'nunzia@example.org,Nunzia,Berg,206 555 0142',
    'ann.castle@example.net,Ann,Castle,',
    'percent%sign@example.org,Under_score,Lin,',
  ];
  await bringIn(house.client, ['Email,First,Last,Mobile', ...rows].join('\n'), {
    columns: STEP_COLUMNS,
    newTags: ['castle keepers'],
    permission: { email: agreed('appeals'), text: NOTHING },
  });
});
afterAll(() => house.close());

const find = async (text: string) =>
  (await house.client.get<FinderHit[]>(`/api/find?text=${encodeURIComponent(text)}`)).map(({ kind, name }) =>
    kind === 'supporter' ? name : `${kind} ${name}`,
  );

test.each([
  ['nun zo', ['Zoé Castellan-Núñez']],
  ['zoe nunez', ['Zoé Castellan-Núñez']],
  ['cast', ['Zoé Castellan-Núñez', 'Ann Castle', 'tag castle keepers']],
  ['nunzia@ex', ['Nunzia Berg']],
  ['ann.', ['Ann Castle']],
  ['0142', ['Nunzia Berg']],
  ['555-0141', ['Zoé Castellan-Núñez']],
  ['percent%s', ['Under_score Lin']],
  ['%%', []],
  ['__', []],
])('%s finds %j', async (text, expected) => expect(await find(text)).toEqual(expected));

test('one letter is too few, and is told so', async () => {
  expect((await house.client.call('GET', '/api/find?text=a')).status).toBe(422);
});

describe('segments', () => {
  const keep = (name: string, tree: Rule) =>
    house.client.post<{ id: number }>('/api/segments', { name, tree });
  const count = (tree: Rule, reach = false) =>
    house.client.post<SegmentCount>('/api/segments/count', { tree, reach });
  const begins = (value: string): Rule => ({ kind: 'field', field: 'lastName', op: 'begins', value });

  test('stand inside others, are explained as one line, and can’t be taken away from under them', async () => {
    const inner = await keep('Cast', begins('cast'));
    const tree: Rule = {
      kind: 'all',
      rules: [
        { kind: 'segment', segmentId: inner.id, in: true },
        { kind: 'none', rules: [begins('castle')] },
      ],
    };
    const outer = await keep('Cast, not Castle', tree);
    const counted = await count(tree, true);
    expect(counted).toMatchObject({ total: 1, reach: { email: 1, text: 0, neither: 0 } });
    expect(
      counted.steps.map(({ words, alone, left, inner: lines }) => [words, alone, left, lines.length]),
    ).toEqual([
      ['are in the segment Cast', 2, 2, 0],
      ['none of: have Last name beginning castle', 3, 1, 1],
    ]);
    const [zoe] = await house.client.get<FinderHit[]>('/api/find?text=zoe');
    const why = await house.client.get<Explanation>(`/api/segments/${outer.id}/why/${zoe!.id}`);
    expect([why.holds, why.inner.map(({ holds }) => holds)]).toEqual([true, [true, true]]);
    const cycle = await house.client.call<{ detail: string }>('PUT', `/api/segments/${inner.id}`, {
      name: 'Cast',
      tree: { kind: 'segment', segmentId: outer.id, in: false },
      basedOn: 0,
    });
    expect([cycle.status, cycle.body.detail]).toEqual([422, expect.stringContaining('would hold itself')]);
    const gone = await house.client.call<{ detail: string }>('DELETE', `/api/segments/${inner.id}`);
    expect([gone.status, gone.body.detail]).toEqual([409, expect.stringContaining('Cast, not Castle')]);
  });

  test('put inside each other by two people at the same time, one of them is told', async () => {
    const empty: Rule = { kind: 'all', rules: [] };
    const [one, other] = [await keep('Ring, one half', empty), await keep('Ring, other half', empty)];
    const put = (into: { id: number }, name: string, inner: { id: number }) =>
      house.client.call('PUT', `/api/segments/${into.id}`, {
        name,
        tree: { kind: 'segment', segmentId: inner.id, in: true },
        basedOn: 0,
      });
    const answers = await Promise.all([
      put(one, 'Ring, one half', other),
      put(other, 'Ring, other half', one),
    ]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 422]);
    // Both can still be counted.
    for (const { id } of [one, other])
      expect((await count({ kind: 'segment', segmentId: id, in: true })).total).toBeGreaterThan(0);
  });

  test('a question that a field can’t be asked is told', async () => {
    const answer = await house.client.call<{ detail: string }>('POST', '/api/segments/count', {
      tree: { kind: 'field', field: 'lastName', op: 'at-least', value: 3 },
    });
    expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining('Last name')]);
  });

  test('who got a message is known in the next count', async () => {
    const got: Rule = {
      kind: 'message',
      event: 'got',
      did: true,
      messageId: null,
      atLeast: 1,
      window: { over: 'last-days', days: 2 },
    };
    expect((await count(got)).total).toBe(0);
    const id = await draftEmail(house.client, {
      from: [{ kind: 'tag', id: (await house.client.get<{ id: number }[]>('/api/tags'))[0]!.id }],
    });
    await send(house.client, id);
    await messageAt(house.client, id, 'done');
    expect([(await count(got)).total, (await count({ ...got, messageId: id } as Rule)).total]).toEqual([
      4, 4,
    ]);
  });
});
