import type { ColumnChoice, IntakePlan } from '@goodword/core/intake';
import { gathering, HEAD, noPermission } from '../testing/gathering';
import { openHouse, type House } from '../testing/harness';
import { batchAt, bringIn } from '../testing/steps';

let house: House;
beforeAll(async () => {
  house = await openHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { record } = gathering(() => house);

describe('gifts', () => {
  const columns: ColumnChoice[] = [
    { to: 'email' },
    { to: 'firstName' },
    { to: 'lastName' },
    { to: 'amount' },
    { to: 'givenOn', order: 'day-first' },
    { to: 'giftId' },
    { to: 'appeal' },
    { to: 'rhythm' },
  ];
  const header = 'Email,First,Last,Amount,Date,Id,Appeal,Type\n';
  const plan: Partial<IntakePlan> = { what: 'gifts', columns, permission: noPermission };

  test('are matched to people, doubles by own id are told, refunds and currencies are read, strangers are left or brought in', async () => {
    await bringIn(house.client, `${HEAD}giver@example.org,Gia,Lin,\n`, { permission: noPermission });
    const csv = `${header}giver@example.org,Gia,Lin,"$1,250.50",14/02/2026,G1,HULL26,single\ngiver@example.org,Gia,Lin,(25.00),15/02/2026,G2,,refund\ngiver@example.org,Gia,Lin,€ 30,16/02/2026,G3,,monthly\ngiver@example.org,Gia,Lin,30,17/02/2026,G3,,\nstranger@example.org,Stu,Ranger,10,18/02/2026,G4,,\ngiver@example.org,Gia,Lin,nothing,19/02/2026,G5,,\n`;
    const batch = await bringIn(house.client, csv, plan);
    expect(batch.counts).toEqual({ gift: 3, doubled: 1, failed: 2 });
    expect(batch.will?.giftsTotal).toEqual([
      { currency: 'USD', minor: 122_550 },
      { currency: 'EUR', minor: 3000 },
    ]);
    expect((await record('giver@')).gifts.map((gift) => [gift.amount, gift.on])).toEqual([
      [3000, '2026-02-16'],
      [-2500, '2026-02-15'],
      [125_050, '2026-02-14'],
    ]);
    expect((await record('giver@')).entries.find((entry) => entry.how === 'gift')).toMatchObject({ state: 'implied', scope: 'marketing' });
    expect((await bringIn(house.client, csv, plan)).counts).toEqual({ doubled: 4, failed: 2 });
    const again = await bringIn(house.client, `${header}stranger@example.org,Stu,Ranger,10,18/02/2026,G4,,\n`, { ...plan, strangers: 'bring-in' });
    expect(again.counts).toEqual({ new: 1 });
    expect((await record('stranger@')).standings.filter((one) => one.state === 'yes')).toEqual([]);
    await house.client.post(`/api/batches/${batch.id}/take-out`);
    await batchAt(house.client, batch.id, 'taken-out');
    expect((await record('giver@')).gifts).toEqual([]);
  });
});
