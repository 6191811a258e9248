import type { BatchView, LookView } from '@goodword/core/contract';
import type { ColumnChoice } from '@goodword/core/intake';
import { gathering, HEAD } from '../testing/gathering';
import { openHouse, type House } from '../testing/harness';
import { batchAt, bringIn, planFor } from '../testing/steps';

let house: House;
beforeAll(async () => {
  house = await openHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { find, record, rowsOf, checked, allIn } = gathering(() => house);

describe('likely doubles', () => {
  beforeAll(() => bringIn(house.client, `${HEAD}robert@example.org,Robert,Abara,206 555 0120\nmarisol@example.org,Marisol,Castellan,\n`));

  test('are seen side by side with their reasons, and nothing comes in of them by itself', async () => {
    const batch = await checked(
      `${HEAD}robert@example.org,Bob,Abara,\nmarisol@example.org,Marisol,Castelan,\nma.risol+x@example.org,Marisol,Castellan,\n`,
    );
    expect(batch.counts).toEqual({ look: 3 });
    expect(batch.looks).toEqual({ 'short-form': 1, alike: 1, 'loose-email': 1 });
    const look = await house.client.get<LookView>(`/api/batches/${batch.id}/rows/1`);
    expect(look.people).toMatchObject([{ name: 'Robert Abara', score: 83, reasons: ['the same email', 'a short form of the name'] }]);
    expect(look.fields.find((field) => field.key === 'mobile')).toMatchObject({ row: '', theirs: { [look.people[0]!.id]: '+1 206 555 0120' } });
    expect((await allIn(batch.id)).counts).toEqual({ look: 3 });
    expect((await find('robert@')).length).toBe(1);
  });

  test('merge with each field choosable, keep both, skip; a decision can be undone, and stands when the batch is checked anew', async () => {
    const csv = `${HEAD}robert@example.org,Bob,Abara,206 555 0121\nmarisol@example.org,Marisol,Castelan,\nmari.sol@example.org,Marisol,Castellan,\n`;
    const { id } = await checked(csv);
    const decide = (body: object) => house.client.post<{ rows: number }>(`/api/batches/${id}/decisions`, body);
    await decide({ rows: [1], as: 'merge', keep: ['firstName'] });
    await decide({ why: 'alike', as: 'new' });
    await decide({ rows: [3], as: 'skip' });
    expect((await house.client.get<BatchView>(`/api/batches/${id}`)).counts).toEqual({ update: 1, shares: 1, skipped: 1 });
    await house.client.call('DELETE', `/api/batches/${id}/rows/3/decision`);
    expect((await house.client.get<BatchView>(`/api/batches/${id}`)).counts).toEqual({ update: 1, shares: 1, look: 1 });
    await house.client.put(`/api/batches/${id}/plan`, planFor());
    expect((await batchAt(house.client, id, 'checked')).counts).toEqual({ update: 1, shares: 1, look: 1 });
    await allIn(id);
    expect(await record('robert@')).toMatchObject({
      firstName: 'Robert',
      contactPoints: expect.arrayContaining([expect.objectContaining({ shown: '+1 206 555 0121' })]) as unknown,
    });
    expect((await find('marisol@')).map((one) => one.lastName).sort()).toEqual(['Castelan', 'Castellan']);
    expect((await house.client.call('POST', `/api/batches/${id}/decisions`, { rows: [3], as: 'skip' })).status).toBe(409);
  });

  test('own ids and name with postcode find people too, in the order that is chosen', async () => {
    const columns: ColumnChoice[] = [{ to: 'email' }, { to: 'firstName' }, { to: 'lastName' }, { to: 'externalId' }, { to: 'postcode' }];
    await bringIn(house.client, 'Email,First,Last,Id,Zip\nkwame@example.org,Kwame,Osei,M-77,98101\n', { columns });
    const again = await checked(
      'Email,First,Last,Id,Zip\nkwame.new@example.org,Kwame,Osei,M-77,\nkwame2@example.org,Kwame,Osei,,98101-1234\nkwame3@example.org,Osei,Kwame,,98101\n',
      { columns },
    );
    expect(again.counts).toEqual({ update: 2, look: 1 });
    expect((await rowsOf(again.id, '?verdict=look')).rows[0]).toMatchObject({ row: 3, why: 'transposed' });
    const other = await checked('Email,First,Last,Id,Zip\nzed@example.org,Zed,Quill,M-77,\n', { columns });
    expect(other.looks).toEqual({ 'other-name-same-id': 1 });
    expect((await checked('Email,First,Last,Id,Zip\nkwame9@example.org,Kwame,Osei,M-77,\n', { columns, matching: ['email'] })).counts).toEqual({
      new: 1,
    });
  });
});
