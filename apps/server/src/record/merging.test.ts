import type { MergePreview } from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import { FoldingRepository } from '../permission/ledger/folding.repository';
import { houseDay, openTestHouse, type TestHouse } from '../testing/harness';
import { recording } from '../testing/recording';
import { agreed, bringIn, STEP_COLUMNS, NOTHING } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { idOf, record, timeline, undo, countOf, field } = recording(() => house);

describe('two records of one person', () => {
  const states = () =>
    house.database.write(house.scope, (tx) => (tx.unchanged(), new FoldingRepository().differences(tx)));
  /** All that is derived or told of the two, so that before and after can be held against each other. */
  const told = async (ids: number[]) =>
    Promise.all(
      ids.map(async (id) => {
        const { segments: _segments, mergedFrom: _mergedFrom, ...rest } = await record(id);
        return rest;
      }),
    );
  let kept: number;
  let gone: number;

  beforeAll(async () => {
    const rows = ['n.berg@example.org,Nunzia,Berg,206 555 0150', 'nunzia@example.net,Nunzia,,206 555 0151'];
    await bringIn(house.client, ['Email,First,Last,Mobile', ...rows].join('\n'), {
      columns: STEP_COLUMNS,
      permission: { email: agreed('news'), text: NOTHING },
    });
    [kept, gone] = [await idOf('n.berg@example.org'), await idOf('nunzia@example.net')];
    const [shirt, crossing] = [await field('Shirt size'), await field('Favourite crossing')];
    await house.client.put(`/api/supporters/${kept}/fields/${shirt}`, { text: 'S' });
    await house.client.put(`/api/supporters/${gone}/fields/${shirt}`, { text: 'M' });
    await house.client.put(`/api/supporters/${gone}/fields/${crossing}`, { text: 'Dawn' });
    await house.client.post(`/api/supporters/${gone}/gifts`, { amount: 2500, on: houseDay(-3) });
    await house.client.post(`/api/supporters/${gone}/notes`, { body: 'Met at the fair' });
    const point = (await record(gone)).contactPoints.find((one) => one.kind === 'email')!;
    await house.client.post(`/api/supporters/${gone}/permission`, {
      contactPointId: point.id,
      channel: 'email',
      scope: 'appeals',
      state: 'no',
      how: 'phone',
      on: houseDay(),
      words: 'No more appeals',
    });
  });

  test('are shown side by side, the one with a value before the one without', async () => {
    const preview = await house.client.get<MergePreview>(`/api/supporters/${kept}/merging?withId=${gone}`);
    const lines = Object.fromEntries(
      preview.lines.map((line) => [line.label, [line.kept, line.gone, line.usual]]),
    );
    expect(lines).toMatchObject({
      'Shirt size': ['S', 'M', 'kept'],
      'Favourite crossing': ['', 'Dawn', 'gone'],
      Name: ['Nunzia Berg', 'Nunzia', 'kept'],
    });
    expect(preview.comesOver).toEqual(expect.arrayContaining(['2 addresses', '1 gift', '1 note']));
    expect((await house.client.call('GET', `/api/supporters/${kept}/merging?withId=${kept}`)).status).toBe(
      409,
    );
  });

  test('become one with everything of both, are counted as one, and part again as they were', async () => {
    const before = await told([kept, gone]);
    const everybody = await countOf({ kind: 'all', rules: [] });
    const gaveAndBerg: Rule = {
      kind: 'all',
      rules: [
        { kind: 'gave', did: true, atLeast: 2500, window: { over: 'ever' } },
        { kind: 'field', field: 'lastName', op: 'is', value: 'Berg' },
      ],
    };
    expect(await countOf(gaveAndBerg)).toBe(0);
    const shirt = await field('Shirt size');
    await house.client.post(`/api/supporters/${kept}/merging`, {
      goneId: gone,
      keep: { [`field:${shirt}`]: 'gone' },
    });

    const one = await record(kept);
    expect(one.contactPoints.map((point) => point.shown).sort()).toEqual([
      '+1 206 555 0150',
      '+1 206 555 0151',
      'n.berg@example.org',
      'nunzia@example.net',
    ]);
    expect(
      one.fields.filter(({ shown }) => shown !== '').map(({ name, shown }) => `${name}: ${shown}`),
    ).toEqual(['Shirt size: M', 'Favourite crossing: Dawn']);
    expect([one.firstName, one.lastName, one.gifts.length, one.mergedFrom[0]!.name]).toEqual([
      'Nunzia',
      'Berg',
      1,
      'Nunzia',
    ]);
    // Whoever still has the address of the other one is told which record stands in its place.
    const old = await house.client.call<{ instead: number; detail: string }>(
      'GET',
      `/api/supporters/${gone}`,
    );
    expect([old.status, old.body.instead, old.body.detail]).toEqual([
      404,
      kept,
      expect.stringContaining('into that of Nunzia Berg'),
    ]);
    expect(await countOf({ kind: 'all', rules: [] })).toBe(everybody - 1);
    expect(await countOf(gaveAndBerg)).toBe(1);
    expect((await timeline(kept)).map(({ title }) => title)).toEqual(
      expect.arrayContaining(['Note', 'Gave $25', 'Said no: email']),
    );
    expect((await states()).differing).toBe(0);
    // The no is the address's: the other address of the same person may still be written to.
    expect(
      await house.client.get(`/api/supporters/${kept}/may-write?channel=email&purpose=news`),
    ).toMatchObject({
      verdict: 'send',
      to: 'n.berg@example.org',
    });

    await house.client.call('DELETE', `/api/supporters/${kept}/merging/${one.mergedFrom[0]!.mergingId}`);
    expect(await told([kept, gone])).toEqual(before);
    expect((await states()).differing).toBe(0);
    expect(await countOf({ kind: 'all', rules: [] })).toBe(everybody);
    expect(
      (await house.client.call('DELETE', `/api/supporters/${kept}/merging/${one.mergedFrom[0]!.mergingId}`))
        .status,
    ).toBe(409);
  });

  test('are brought together once, however often and by however many that is asked at the same time', async () => {
    const before = await told([kept, gone]);
    const shirt = await field('Shirt size');
    const ask = (into: number, from: number) =>
      house.client.call('POST', `/api/supporters/${into}/merging`, {
        goneId: from,
        keep: { [`field:${shirt}`]: 'gone' },
      });
    // Twice by an impatient hand, and once the other way round by somebody else.
    const answers = await Promise.all([ask(kept, gone), ask(kept, gone), ask(gone, kept)]);
    expect(answers.map(({ status }) => status).filter((status) => status < 300)).toHaveLength(1);
    expect(answers.filter(({ status }) => status >= 300).map(({ status }) => status)).toEqual([404, 404]);
    const [id, other] =
      (await house.client.call('GET', `/api/supporters/${kept}`)).status === 200
        ? [kept, gone]
        : [gone, kept];
    const one = await record(id);
    expect(one.mergedFrom).toHaveLength(1);
    expect(one.fields.find(({ name }) => name === 'Shirt size')!.shown).toBe(id === kept ? 'M' : 'S');
    const part = () =>
      house.client.call('DELETE', `/api/supporters/${id}/merging/${one.mergedFrom[0]!.mergingId}`);
    expect((await Promise.all([part(), part()])).map(({ status }) => status).sort()).toEqual([204, 409]);
    expect(await told([kept, gone])).toEqual(before);
    expect((await record(other)).mergedFrom).toEqual([]);
    expect((await states()).differing).toBe(0);
  });

  test('what was edited after bringing them together stays where it was edited', async () => {
    const [shirt, crossing] = [await field('Shirt size'), await field('Favourite crossing')];
    await house.client.post(`/api/supporters/${kept}/merging`, { goneId: gone, keep: {} });
    await house.client.put(`/api/supporters/${kept}/fields/${crossing}`, { text: 'Dusk' });
    await house.client.post(`/api/supporters/${kept}/gifts`, { amount: 700, on: houseDay() });
    const merged = (await timeline(kept, 'edit')).find((one) => one.title.startsWith('The record of'))!;
    expect((await undo(kept, merged.undo)).status).toBe(204);
    const shown = async (id: number, fieldId: number) =>
      (await record(id)).fields.find((one) => one.id === fieldId)!.shown;
    expect([
      await shown(kept, crossing),
      await shown(gone, crossing),
      await shown(kept, shirt),
      await shown(gone, shirt),
    ]).toEqual(['Dusk', 'Dawn', 'S', 'M']);
    expect([(await record(kept)).gifts.length, (await record(gone)).gifts.length]).toEqual([1, 1]);
  });

  test('whoever was taken off a campaign by hand stays off it as the one that was kept', async () => {
    const off = () =>
      house.database.unscoped()('campaign_off').where({ campaign_id: 77, supporter_id: kept }).first();
    await house.database
      .unscoped()('campaign_off')
      .insert({
        ...{ organization_id: house.scope.organizationId, campaign_id: 77, supporter_id: gone },
      });
    expect(await off()).toBeUndefined();
    await house.client.post(`/api/supporters/${kept}/merging`, { goneId: gone, keep: {} });
    expect(await off()).toBeDefined();
    const [merged] = (await record(kept)).mergedFrom;
    await house.client.call('DELETE', `/api/supporters/${kept}/merging/${merged!.mergingId}`);
  });

  test('erasing the one that was kept erases what came from the other', async () => {
    await house.client.post(`/api/supporters/${kept}/merging`, { goneId: gone, keep: {} });
    await house.client.call('DELETE', `/api/supporters/${kept}`);
    const [people] = (await house.database
      .unscoped()
      .raw('SELECT GROUP_CONCAT(CONCAT(first_name, last_name)) AS names FROM supporter WHERE id IN (?, ?)', [
        kept,
        gone,
      ])) as [{ names: string }[]];
    const [kinds] = (await house.database
      .unscoped()
      .raw('SELECT was FROM merging WHERE kept_id = ?', [kept])) as [{ was: object }[]];
    expect([people[0]!.names, kinds.map(({ was }) => was)]).toEqual([',', kinds.map(() => ({}))]);
  });

  test('no edit is lost on the one that goes at that moment', async () => {
    const rows = ['o.berg@example.org,Oona,Berg,', 'oona@example.net,Oona,,'];
    await bringIn(house.client, ['Email,First,Last,Mobile', ...rows].join('\n'), {
      columns: STEP_COLUMNS,
      permission: { email: NOTHING, text: NOTHING },
    });
    const [stays, goes] = [await idOf('o.berg@example.org'), await idOf('oona@example.net')];
    const crossing = await field('Favourite crossing');
    const edits = [
      () => house.client.call('PUT', `/api/supporters/${goes}/fields/${crossing}`, { text: 'Dusk' }),
      () => house.client.call('POST', `/api/supporters/${goes}/notes`, { body: 'Rang about the keys' }),
      () => house.client.call('POST', `/api/supporters/${goes}/gifts`, { amount: 900, on: houseDay() }),
    ];
    const [merged, ...done] = await Promise.all([
      house.client.call('POST', `/api/supporters/${stays}/merging`, {
        goneId: goes,
        keep: { [`field:${crossing}`]: 'gone' },
      }),
      ...edits.map((edit) => edit()),
    ]);
    expect(merged.status).toBe(204);
    // Each came before, and came over, or is told that nobody is there any more.
    const one = await record(stays);
    const notes = (await timeline(stays)).filter(({ title }) => title === 'Note').length;
    expect(done.map(({ status }) => (status < 300 ? 'over' : status))).toEqual([
      one.fields.find(({ name }) => name === 'Favourite crossing')!.shown === 'Dusk' ? 'over' : 404,
      notes === 1 ? 'over' : 404,
      one.gifts.length === 1 ? 'over' : 404,
    ]);
    const [left] = (await house.database.unscoped().raw(
      `SELECT COUNT(*) AS n
          FROM (SELECT id FROM gift WHERE supporter_id = ? UNION ALL SELECT id FROM note
            WHERE supporter_id = ?) l`,
      [goes, goes],
    )) as [{ n: number }[]];
    expect(left[0]!.n).toBe(0);
  });
});
