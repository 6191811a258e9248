import type { MessageResults } from '@goodword/core/contract';
import { houseDay, openTestHouse, type TestHouse } from '../testing/harness';
import { agreed, bringIn, draftEmail, letterOf, NOTHING } from '../testing/steps';
import { personBy } from '../testing/supporter';

/*
 * A test goes to oneself, or to those on a list who agreed to that list; as anybody. It says that it is one,
 * and nobody of the group gets it or is counted.
 */
let house: TestHouse;
let listId: number;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  listId = (
    await house.client.post<{ id: number }>('/api/lists', {
      ...{ name: 'Testers', isPublic: true, description: '', why: 'You look at our mails first.' },
      ...{ onPreferences: true, byForm: true, folder: '' },
    })
  ).id;
  const csv = [
    'Email,First,Last,Mobile',
    'ann@example.org,Ann,Li,',
    'bo@example.org,Bo,Lin,',
    'cy@example.org,Cy,Wu,',
    '',
  ].join('\n');
  const permission = { email: agreed(`list:${listId}`), text: NOTHING };
  await bringIn(house.client, csv, { listIds: [listId], permission });
  // Cy is still on it, and said no since.
  const cy = await personBy(house.client, 'cy@example.org');
  await house.client.post(`/api/supporters/${cy.id}/permission`, {
    ...{ contactPointId: cy.contactPoints[0]!.id, channel: 'email', scope: `list:${listId}`, state: 'no' },
    ...{ how: 'phone', on: houseDay(-1), words: 'No more tests' },
  });
});
afterAll(() => house.close());

const subjects = (to: string) =>
  house.sink.mails
    .filter((mail) => mail.to === to)
    .map(({ raw }) => /^Subject: (.*)$/m.exec(raw)?.[1]?.trim());

test('to those who agreed to the list, as somebody in particular; not to who said no since', async () => {
  const group = {
    from: [{ kind: 'person' as const, id: (await personBy(house.client, 'cy@example.org')).id }],
  };
  const id = await draftEmail(house.client, group, {
    subject: 'Hull for {First name, or "you"}',
    letter: letterOf('Words'),
  });
  const bo = await personBy(house.client, 'bo@example.org');
  const answer = await house.client.post<{ to: string }>(`/api/messages/${id}/test`, { asId: bo.id, listId });
  expect(answer.to).toBe('2 people on the list');
  expect([subjects('ann@example.org'), subjects('bo@example.org'), subjects('cy@example.org')]).toEqual([
    ['Test: Hull for Bo'],
    ['Test: Hull for Bo'],
    [],
  ]);
  const { raw } = house.sink.mails.find(({ to }) => to === 'ann@example.org')!;
  expect(raw).toMatch(/^List-Id: /im);
  expect(raw).toMatch(/^List-Unsubscribe: <[^>]*\/leave\/example>/im);
  // Nobody of the team has read it yet.
  const { testedAt } = await house.client.get<{ testedAt: string | null }>(`/api/messages/${id}`);
  expect(testedAt).toBeNull();
  expect((await house.client.get<MessageResults>(`/api/messages/${id}/results`)).counts.sent).toBe(0);
});

test('to oneself as the first of the group; a list of nobody, or somebody who is not here, is told', async () => {
  const id = await draftEmail(house.client, {}, { subject: 'To me', letter: letterOf('Words') });
  expect((await house.client.post<{ to: string }>(`/api/messages/${id}/test`)).to).toContain('@');
  const empty = await house.client.post<{ id: number }>('/api/lists', {
    ...{ name: 'Nobody', isPublic: true, description: '', why: 'Nobody' },
    ...{ onPreferences: true, byForm: true, folder: '' },
  });
  const test = (body: object) =>
    house.client.call<{ detail: string }>('POST', `/api/messages/${id}/test`, body);
  const nobody = await test({ asId: null, listId: empty.id });
  expect([nobody.status, nobody.body.detail]).toEqual([409, expect.stringContaining('agreed to get it')]);
  expect((await test({ asId: 99_999, listId: null })).status).toBe(404);
});
