import type { ColumnChoice } from '@goodword/core/intake';
import { gathering, HEAD, noPermission } from '../testing/gathering';
import { openTestHouse, type TestHouse } from '../testing/harness';
import { batchAt, STEP_COLUMNS, planFor, takeFile } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { record } = gathering(() => house);

const made = async (what: string, body: object) =>
  (await house.client.post<{ id: number }>(`/api/${what}`, body)).id;
let files = 0;

/** A batch that was checked by a plan and waits to be brought in. */
async function waiting(plan: object): Promise<{ id: number; email: string }> {
  const email = `day${++files}@example.org`;
  const id = await takeFile(house.client, `${HEAD}${email},Ann,Lin,42\n`);
  await batchAt(house.client, id, 'draft');
  await house.client.put(
    `/api/batches/${id}/plan`,
    planFor({ columns: STEP_COLUMNS, permission: noPermission, ...plan }),
  );
  await batchAt(house.client, id, 'checked');
  return { id, email };
}
const bring = async (id: number) => {
  const answer = await house.client.call<{ detail: string }>('POST', `/api/batches/${id}/bring-in`);
  return [answer.status, answer.status < 300 ? '' : answer.body.detail];
};
const plan = async (id: number, changed: object) => {
  const body = planFor({ columns: STEP_COLUMNS, permission: noPermission, ...changed });
  const answer = await house.client.call<{ detail: string }>('PUT', `/api/batches/${id}/plan`, body);
  return [answer.status, answer.status < 300 ? '' : answer.body.detail];
};
const matched = (choice: ColumnChoice): ColumnChoice[] => [...STEP_COLUMNS.slice(0, 3), choice];

describe('what a batch needs may have gone between its check and the day it is brought in', () => {
  test.each(['tag', 'list'] as const)(
    'a %s: nobody comes in without it unseen; taken off, they do',
    async (kind) => {
      const groupId = await made(`${kind}s`, { name: `of another day: ${kind}` });
      const { id, email } = await waiting({ [`${kind}Ids`]: [groupId] });
      await house.client.call('DELETE', `/api/${kind}s/${groupId}`);
      expect(await bring(id)).toEqual([
        409,
        expect.stringMatching(
          new RegExp(`^Something has changed.* A ${kind} that these people go .* no longer there`),
        ),
      ]);
      expect(await plan(id, { [`${kind}Ids`]: [groupId] })).toEqual([
        422,
        expect.stringContaining('no longer there'),
      ]);
      await house.client.put(
        `/api/batches/${id}/plan`,
        planFor({ columns: STEP_COLUMNS, permission: noPermission }),
      );
      await batchAt(house.client, id, 'checked');
      expect(await bring(id)).toEqual([202, '']);
      await batchAt(house.client, id, 'done');
      expect((await record(email)).lastName).toBe('Lin');
    },
  );

  test('a tag that was made one with another', async () => {
    const [from, into] = [await made('tags', { name: 'rowers' }), await made('tags', { name: 'oarsfolk' })];
    const { id } = await waiting({ tagIds: [from] });
    await house.client.post(`/api/tags/${from}/join`, { intoId: into });
    expect((await bring(id))[0]).toBe(409);
  });

  test('a campaign, or the stage on its roster', async () => {
    const campaign = { name: 'Slip days', kind: 'appeal', appealCode: null };
    const campaignId = await made('campaigns', { ...campaign, stages: ['asked', 'came'] });
    const { id } = await waiting({ roster: { campaignId, stage: 'came' } });
    await house.client.put(`/api/campaigns/${campaignId}`, {
      ...campaign,
      isOpen: true,
      stages: ['asked', 'helped'],
      basedOn: 0,
    });
    expect(await bring(id)).toEqual([
      409,
      expect.stringContaining('“came” is no stage of Slip days. Choose one of asked, helped.'),
    ]);
  });

  test('a field, or its type', async () => {
    const fieldId = await made('fields', { name: 'Oars', type: 'text', fallback: null });
    const columns = matched({ to: 'field', fieldId, type: 'text' });
    const first = await waiting({ columns });
    await house.client.put(`/api/house/fields/${fieldId}/type`, { type: 'number' });
    expect(await bring(first.id)).toEqual([
      409,
      expect.stringContaining('Oars is of the type “number” now.'),
    ]);
    const second = await waiting({ columns: matched({ to: 'field', fieldId, type: 'number' }) });
    await house.client.call('DELETE', `/api/house/fields/${fieldId}`);
    expect(await bring(second.id)).toEqual([
      409,
      expect.stringContaining('A field that a column is matched to is no longer there.'),
    ]);
  });
});

test('a new field is made by a name that can be written, and not beside one that reads the same', async () => {
  const { id } = await waiting({});
  const named = (name: string, type: 'text' | 'number') =>
    plan(id, { columns: matched({ to: 'newField', name, type } as ColumnChoice) });
  expect(await named('Hull {no}', 'text')).toEqual([422, expect.stringContaining("can't hold braces")]);
  expect(await named('first NAME', 'text')).toEqual([
    422,
    expect.stringContaining("can't be named First name"),
  ]);
  await made('fields', { name: 'Hull number', type: 'text', fallback: null });
  expect(await named('hull  NUMBER', 'number')).toEqual([
    422,
    expect.stringContaining('There is a field named Hull number already'),
  ]);
  expect((await named('hull  NUMBER', 'text'))[0]).toBeLessThan(300);
  await batchAt(house.client, id, 'checked');
  expect((await bring(id))[0]).toBe(202);
  await batchAt(house.client, id, 'done');
  const fields = (await house.client.get<{ name: string }[]>('/api/fields')).filter(({ name }) =>
    /hull/i.test(name),
  );
  expect(fields.map(({ name }) => name)).toEqual(['Hull number']);
});

test('a batch of a tag of another chapter is refused', async () => {
  const other = await house.as('organizer', house.chapters[1]);
  const own = (await other.post<{ id: number }>('/api/tags', { name: 'the other chapter’s own' })).id;
  const here = await house.as('organizer', house.chapters[0]);
  const id = await takeFile(here, `${HEAD}far@example.org,Far,Away,\n`);
  await batchAt(here, id, 'draft');
  const answer = await here.call(
    'PUT',
    `/api/batches/${id}/plan`,
    planFor({ columns: STEP_COLUMNS, permission: noPermission, tagIds: [own] }),
  );
  expect(answer.status).toBe(422);
});
