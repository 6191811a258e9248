import fc from 'fast-check';
import type { Page, RecordView, SupporterRow } from '@goodword/core/contract';
import { TestDesk, type DeskRecord } from '../testing/desk';
import { feeding, membersOnto } from '../testing/feeding';
import { eventually, openTestHouse, type TestHouse } from '../testing/harness';

/*
 * Random histories of both sides: records come, change, go and say yes or no over there, people say no here,
 * runs of either kind read everything or what changed and are cut off in the middle. Then one quiet run; the
 * model is the promise of the product, in as few lines as it can be said.
 */

let house: TestHouse;
let desk: TestDesk;
let sourceId: number;
const { feed, list, run, show, source } = feeding(() => house);

beforeAll(async () => {
  desk = await new TestDesk().listen();
  desk.pageSize = 2;
  house = await openTestHouse({ env: { FEED_PRIVATE: desk.host } });
  house.startWorker();
  ({ id: sourceId } = await source(desk.url, desk.token));
});
afterAll(async () => {
  await house.close();
  await desk.close();
});

type Act =
  | { do: 'put'; who: number; news: 'yes' | 'no' | ''; name: number }
  | { do: 'gone'; who: number }
  | { do: 'no here'; who: number }
  | { do: 'run'; cutAfter: number | null; told: boolean };

const who = fc.integer({ min: 0, max: 4 });
const act: fc.Arbitrary<Act> = fc.oneof(
  {
    weight: 5,
    arbitrary: fc.record({
      do: fc.constant('put' as const),
      who,
      news: fc.constantFrom('yes' as const, 'no' as const, '' as const),
      name: fc.integer({ min: 0, max: 3 }),
    }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('gone' as const), who }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('no here' as const), who }) },
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant('run' as const),
      cutAfter: fc.option(fc.integer({ min: 0, max: 3 }), { nil: null }),
      told: fc.boolean(),
    }),
  },
);

const recordOf = async (email: string): Promise<RecordView | null> => {
  const { rows } = await house.client.get<Page<SupporterRow>>(
    `/api/supporters?search=${encodeURIComponent(email)}`,
  );
  return rows[0] ? house.client.get<RecordView>(`/api/supporters/${rows[0].id}`) : null;
};

let n = 0;

async function history(acts: readonly Act[]): Promise<void> {
  desk.records.clear();
  const prefix = `h${++n}`;
  const listId = await list();
  const id = await feed(sourceId, membersOnto(listId, { gone: { do: 'leave' } }));
  const record = (at: number, name: number, news: string): DeskRecord => ({
    ...{ id: `${prefix}-${at}`, first: `Name${name}`, last: `Of${prefix}x${at}` },
    ...{ email: `${prefix}.${at}@members.lanternferry.test`, news },
  });
  /** Who ever came in, and who ever said no, as somebody who watched both sides would have it. */
  const [came, noes] = [new Set<number>(), new Set<number>()];
  const taken = () =>
    [0, 1, 2, 3, 4].forEach((at) => {
      const one = desk.records.get(`${prefix}-${at}`);
      if (!one || one.gone) return;
      came.add(at);
      if (one.news === 'no') noes.add(at);
    });
  for (const one of acts) {
    if (one.do === 'put') desk.put(record(one.who, one.name, one.news));
    if (one.do === 'gone' && desk.records.has(`${prefix}-${one.who}`)) desk.remove(`${prefix}-${one.who}`);
    if (one.do === 'no here') {
      const person = await recordOf(`${prefix}.${one.who}@`);
      if (!person) continue;
      noes.add(one.who);
      await house.client.post(`/api/supporters/${person.id}/permission`, {
        ...{ contactPointId: person.contactPoints[0]!.id, channel: 'email', scope: `list:${listId}` },
        ...{ state: 'no', how: 'phone', on: '2026-01-05', words: 'Said so on the telephone to June.' },
      });
    }
    if (one.do === 'run') {
      let left = one.cutAfter ?? Infinity;
      desk.instead = (request, response) => {
        if (!request.url!.startsWith('/v1/records') || left-- > 0) return false;
        response.socket!.destroy();
        return true;
      };
      const { state } = await runAs(id, one.told);
      desk.instead = null;
      if (state === 'done' || state === 'nothing') taken();
    }
  }
  await run(id, { anyway: true });
  taken();
  for (const at of [0, 1, 2, 3, 4]) {
    const there = desk.records.get(`${prefix}-${at}`);
    const here = await recordOf(`${prefix}.${at}@`);
    expect([at, here !== null]).toEqual([at, came.has(at)]);
    if (!here) continue;
    // Both sides are equal: what it says there, it says here; who is gone there is off the list.
    const isThere = there !== undefined && !there.gone;
    if (isThere) expect([at, here.firstName]).toEqual([at, there.first]);
    expect([at, here.lists.map((one) => one.id)]).toEqual([at, isThere ? [listId] : []]);
    // No no is lost: whoever said one on either side stands at no, whatever came from there since.
    const state = here.consent.find(({ scope }) => scope === `list:${listId}`)?.state ?? 'never';
    expect([at, state === 'no']).toEqual([at, noes.has(at)]);
  }
  expect((await show(id)).records).toBe([...desk.records.values()].filter(({ gone }) => !gone).length);
}

/** A run that reads everything, or one that was told of changes and asks for those. */
async function runAs(id: number, told: boolean) {
  if (!told) return run(id, { anyway: true });
  const known = (await show(id)).runs.length;
  const feeds = house.database.unscoped()('feed').where({ id });
  await house.database
    .unscoped()('feed_hook')
    .insert({
      ...{ organization_id: house.scope.organizationId, feed_id: id, hook_id: `msg_${++n}` },
    });
  await feeds.clone().update({ is_on: 1, next_run_at: null });
  const runs = await eventually(
    'a run that was told of something',
    async () => (await show(id)).runs,
    (all) => all.length > known && !['reading', 'checking', 'bringing'].includes(all[0]!.state),
  );
  await feeds.clone().update({ is_on: 0, next_run_at: null });
  return runs[0]!;
}

test('whatever happens in between, both sides end equal and no no is lost', async () => {
  await fc.assert(fc.asyncProperty(fc.array(act, { minLength: 6, maxLength: 14 }), history), {
    numRuns: Number(process.env.FEED_HISTORIES ?? 4),
    endOnFailure: true,
  });
});
