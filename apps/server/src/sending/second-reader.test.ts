import type { MessageView } from '@goodword/core/contract';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { openTestHouse, rulesOfTests, type Client, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, lastLook, letterOf, send } from '../testing/steps';
import { personBy } from '../testing/supporter';

/*
 * A service message reaches people who said no to appeals: what asks in it is read by a second person, or
 * does not leave.
 */
let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  await bringIn(house.client, 'Email,First,Last,Mobile\nobjector@example.org,Ola,Lin,\n');
  const { id } = await personBy(house.client, 'objector@example.org');
  await house.client.post(`/api/supporters/${id}/objection`, {
    how: 'phone',
    on: new Date().toISOString().slice(0, 10),
    words: 'No more',
  });
});
afterAll(() => house.close());

const everyone = async () => ({
  from: [{ kind: 'person' as const, id: (await personBy(house.client, 'objector@example.org')).id }],
});
const service = async (words: string) =>
  draftEmail(house.client, await everyone(), { purpose: 'service', letter: letterOf(words) });
/** Agrees to what one sees. */
const agree = async (client: Client, id: number) =>
  client.post(`/api/messages/${id}/second`, { digest: (await lastLook(client, id)).digest });
const sendAs = async (id: number, digest: string) =>
  house.client.call<{ detail: string }>('POST', `/api/messages/${id}/send`, { at: null, digest });

test('one that asks waits for a second reader, and for nobody who sends it', async () => {
  const id = await service('Your seat is kept. Give again today!');
  await house.client.post(`/api/messages/${id}/test`);
  const look = await lastLook(house.client, id);
  expect(look).toMatchObject({
    reached: 1,
    asks: ['give again'],
    second: { why: 'asks', by: null, holds: false },
  });
  expect((await sendAs(id, look.digest)).body.detail).toContain('“give again”');

  await agree(house.client, id);
  expect((await sendAs(id, look.digest)).status).toBe(409);
  const other = await house.as('organizer');
  await agree(other, id);
  expect((await lastLook(house.client, id)).second).toMatchObject({ own: false, holds: true });
  expect((await sendAs(id, look.digest)).status).toBeLessThan(300);
});

test('words changed after the reading are read again', async () => {
  const id = await service('Please give.');
  await agree(await house.as('organizer'), id);
  const body = {
    name: 'A letter',
    purpose: 'service',
    listId: null,
    subject: 'Hi',
    preheader: '',
    letter: letterOf('Please give. Donate.'),
    text: '',
    basedOn: 1,
  };
  await house.client.put(`/api/messages/${id}`, body);
  await house.client.post(`/api/messages/${id}/test`);
  expect((await sendAs(id, (await lastLook(house.client, id)).digest)).body.detail).toContain('“donate”');
});

test('a receipt leaves as ever', async () => {
  const id = await service('Thank you for your donation of $40. This is your receipt.');
  await send(house.client, id);
});

describe('to more than a number of House rules', () => {
  const keep = (secondAbove: number) =>
    house.database.write(house.scope, (tx) =>
      new HouseRulesRepository().keep(tx, {
        rules: { ...rulesOfTests(), secondAbove },
        words: 'For tests',
        effects: [],
      }),
    );
  afterAll(() => keep(0));
  const people = async (...names: string[]) => {
    const rows = names.map((name) => `${name}@many.example.org,${name},Lee,`);
    const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
    return { kind: 'batch' as const, id: batch.id };
  };

  test('somebody else agrees, to the group and the number that they saw', async () => {
    await keep(2);
    const three = await people('ann', 'bo', 'cy');
    const id = await draftEmail(house.client, { from: [three] });
    await house.client.post(`/api/messages/${id}/test`);
    const look = await lastLook(house.client, id);
    expect(look).toMatchObject({ reached: 3, second: { why: 'many', above: 2, by: null, holds: false } });
    expect((await sendAs(id, look.digest)).body.detail).toContain('It goes to 3 people');

    // One's own agreement is none.
    await agree(house.client, id);
    expect((await sendAs(id, look.digest)).status).toBe(409);
    const other = await house.as('organizer');
    await agree(other, id);
    expect(await lastLook(house.client, id)).toMatchObject({ second: { reached: 3, holds: true } });

    // Another group is another thing.
    const { groupVersion } = await house.client.get<MessageView>(`/api/messages/${id}`);
    await house.client.put(`/api/messages/${id}/recipients`, {
      ...{ from: [three, await people('di', 'ed')], minus: [], without: [], basedOn: groupVersion },
    });
    const larger = await lastLook(house.client, id);
    expect(larger).toMatchObject({ reached: 5, second: { reached: 3, holds: false } });
    expect((await sendAs(id, larger.digest)).body.detail).toContain('3 were agreed to, and it goes to 5');
    await agree(other, id);
    expect((await sendAs(id, larger.digest)).status).toBeLessThan(300);
  });

  test('nobody agrees to what they have not seen', async () => {
    await keep(1);
    const two = await people('hal', 'ida');
    const id = await draftEmail(house.client, { from: [two] });
    const other = await house.as('organizer');
    const { digest } = await lastLook(other, id);
    const { groupVersion } = await house.client.get<MessageView>(`/api/messages/${id}`);
    await house.client.put(`/api/messages/${id}/recipients`, {
      ...{ from: [two, await people('jo')], minus: [], without: [], basedOn: groupVersion },
    });
    // The sender has looked at three meanwhile; what the other one saw were two.
    await lastLook(house.client, id);
    expect((await other.call('POST', `/api/messages/${id}/second`, { digest })).status).toBe(409);
    expect((await lastLook(other, id)).second).toMatchObject({ by: null, holds: false });
    await keep(2);
  });

  test('to fewer it leaves as ever', async () => {
    await keep(2);
    const id = await draftEmail(house.client, { from: [await people('flo', 'gus')] });
    await send(house.client, id);
  });
});
