import type { BatchView, DoubleView } from '@goodword/core/contract';
import type { ColumnChoice } from '@goodword/core/intake';
import { gathering, HEAD, noPermission } from '../../testing/gathering';
import { openTestHouse, eventually, type TestHouse } from '../../testing/harness';
import { batchAt, bringIn, planFor } from '../../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { find, record, rowsOf, checked, allIn } = gathering(() => house);

describe('likely doubles', () => {
  beforeAll(() =>
    bringIn(
      house.client,
      `${HEAD}robert@example.org,Robert,Abara,206 555 0120\nmarisol@example.org,Marisol,Castellan,\n`,
    ),
  );

  test('are seen side by side with their reasons, and nothing comes in of them by itself', async () => {
    const batch = await checked(
      `${HEAD}robert@example.org,Bob,Abara,\nmarisol@example.org,Marisol,Castelan,\nma.risol+x@example.org,Marisol,Castellan,\n`,
    );
    expect(batch.counts).toEqual({ look: 3 });
    expect(batch.looks).toEqual({ 'short-form': 1, alike: 1, 'loose-email': 1 });
    const look = await house.client.get<DoubleView>(`/api/batches/${batch.id}/rows/1`);
    expect(look.people).toMatchObject([
      { name: 'Robert Abara', score: 83, reasons: ['the same email', 'a short form of the name'] },
    ]);
    expect(look.fields.find((field) => field.key === 'mobile')).toMatchObject({
      row: '',
      theirs: { [look.people[0]!.id]: '+1 206 555 0120' },
    });
    expect((await allIn(batch.id)).counts).toEqual({ look: 3 });
    expect((await find('robert@')).length).toBe(1);
  });

  test('merge with each field choosable, keep both, skip; a decision can be undone, and stands when the batch is checked anew', async () => {
    const csv = `${HEAD}robert@example.org,Bob,Abara,206 555 0121\nmarisol@example.org,Marisol,Castelan,\nmari.sol@example.org,Marisol,Castellan,\n`;
    const { id } = await checked(csv);
    const decide = (body: object) =>
      house.client.post<{ rows: number }>(`/api/batches/${id}/decisions`, body);
    await decide({ rows: [1], as: 'merge', keep: ['firstName'] });
    await decide({ why: 'alike', as: 'new' });
    await decide({ rows: [3], as: 'skip' });
    expect((await house.client.get<BatchView>(`/api/batches/${id}`)).counts).toEqual({
      update: 1,
      shares: 1,
      skipped: 1,
    });
    await house.client.call('DELETE', `/api/batches/${id}/rows/3/decision`);
    expect((await house.client.get<BatchView>(`/api/batches/${id}`)).counts).toEqual({
      update: 1,
      shares: 1,
      look: 1,
    });
    await house.client.put(`/api/batches/${id}/plan`, planFor());
    expect((await batchAt(house.client, id, 'checked')).counts).toEqual({ update: 1, shares: 1, look: 1 });
    await allIn(id);
    expect(await record('robert@')).toMatchObject({
      firstName: 'Robert',
      contactPoints: expect.arrayContaining([
        expect.objectContaining({ shown: '+1 206 555 0121' }),
      ]) as unknown,
    });
    expect((await find('marisol@')).map((one) => one.lastName).sort()).toEqual(['Castelan', 'Castellan']);
    expect(
      (await house.client.call('POST', `/api/batches/${id}/decisions`, { rows: [3], as: 'skip' })).status,
    ).toBe(409);
  });

  test('own ids find people too, in the order that is chosen; a name with its postcode is only likely', async () => {
    const columns: ColumnChoice[] = [
      { to: 'email' },
      { to: 'firstName' },
      { to: 'lastName' },
      { to: 'externalId' },
      { to: 'postcode' },
    ];
    await bringIn(house.client, 'Email,First,Last,Id,Zip\nkwame@example.org,Kwame,Osei,M-77,98101\n', {
      columns,
    });
    const again = await checked(
      'Email,First,Last,Id,Zip\nkwame.new@example.org,Kwame,Osei,M-77,\nkwame2@example.org,Kwame,Osei,,98101-1234\nkwame3@example.org,Osei,Kwame,,98101\n',
      { columns },
    );
    expect(again.counts).toEqual({ update: 1, look: 2 });
    expect((await rowsOf(again.id, '?verdict=look')).rows.map(({ row, why }) => [row, why])).toEqual([
      [2, 'same-name'],
      [3, 'transposed'],
    ]);
    const other = await checked('Email,First,Last,Id,Zip\nzed@example.org,Zed,Quill,M-77,\n', { columns });
    expect(other.looks).toEqual({ 'other-name-same-id': 1 });
    expect(
      (
        await checked('Email,First,Last,Id,Zip\nkwame9@example.org,Kwame,Osei,M-77,\n', {
          columns,
          matching: ['email'],
        })
      ).counts,
    ).toEqual({
      new: 1,
    });
  });

  test('two people of one name in one postcode stay two until somebody says otherwise, in a file and with who is here', async () => {
    const columns: ColumnChoice[] = [
      { to: 'email' },
      { to: 'firstName' },
      { to: 'lastName' },
      { to: 'postcode' },
    ];
    // A plan of before may still name the key that decided this once; it decides no longer.
    const matching = ['email', 'mobile', 'externalId', 'namePostcode'] as never;
    const first = await checked(
      'Email,First,Last,Zip\nmaria.a@example.org,Maria,Garcia,98107\nmaria.b@example.org,Maria,Garcia,98107\n',
      {
        columns,
        matching,
      },
    );
    expect([first.counts, first.looks]).toEqual([{ new: 1, look: 1 }, { 'same-name': 1 }]);
    await allIn(first.id);
    const second = await checked('Email,First,Last,Zip\nmaria.c@example.org,Maria,Garcia,98107\n', {
      columns,
      matching,
    });
    expect([second.counts, second.looks]).toEqual([{ look: 1 }, { 'same-name': 1 }]);
    const look = await house.client.get<DoubleView>(`/api/batches/${second.id}/rows/1`);
    expect(look.people).toMatchObject([
      { name: 'Maria Garcia', reasons: ['the same postcode', 'the same name'] },
    ]);
    await house.client.post(`/api/batches/${second.id}/decisions`, { rows: [1], as: 'new' });
    await allIn(second.id);
    expect((await find('maria.')).map(({ firstName, lastName }) => `${firstName} ${lastName}`)).toEqual([
      'Maria Garcia',
      'Maria Garcia',
    ]);
  });

  test('what will be written is counted anew when rows are settled, and is what is written', async () => {
    await bringIn(house.client, `${HEAD}elizabeth@example.org,Elizabeth,Stray,206 555 0134\n`, {
      permission: noPermission,
    });
    const batch = await checked(
      `${HEAD}elizabeth@example.org,Liz,Stray,\nnew.stray@example.org,Nell,Stray,\n`,
    );
    const yes = (view: BatchView) => view.will?.entries.email?.yes;
    expect([batch.counts, yes(batch)]).toEqual([{ look: 1, new: 1 }, 2]);
    await house.client.post(`/api/batches/${batch.id}/decisions`, { rows: [1], as: 'merge' });
    const now = () => house.client.get<BatchView>(`/api/batches/${batch.id}`);
    const counted = await eventually('the count', now, ({ will }) => will !== null);
    expect([counted.counts, yes(counted)]).toEqual([{ update: 1, new: 1 }, 4]);
    await house.client.call('DELETE', `/api/batches/${batch.id}/rows/1/decision`);
    expect(yes(await eventually('the count', now, ({ will }) => will !== null))).toBe(2);
    await house.client.post(`/api/batches/${batch.id}/decisions`, { rows: [1], as: 'merge' });
    // Brought in while it is being counted: nothing is lost by that.
    expect(yes(await allIn(batch.id))).toBe(4);
    const [{ n }] = (await house.database
      .unscoped()('permission_entry')
      .where({ batch_id: batch.id, channel: 'email', state: 'yes' })
      .count('* as n')) as [{ n: number }];
    expect(Number(n)).toBe(4);
  });
});
