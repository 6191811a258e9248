import type { ColumnChoice, IntakePlan } from '@goodword/core/intake';
import { HouseRulesRepository } from '../../permission/house-rules.repository';
import { gathering, HEAD } from '../../testing/gathering';
import { houseDay, openTestHouse, rulesOfTests, eventually, type TestHouse } from '../../testing/harness';
import { agreed, bringIn, NOTHING, planFor, takeFile } from '../../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { find, record } = gathering(() => house);

describe('permission of a batch', () => {
  test('dates and words come from columns, row by row', async () => {
    const columns: ColumnChoice[] = [
      { to: 'email' },
      { to: 'signedOn', order: 'day-first' },
      { to: 'signedWords' },
    ];
    await bringIn(
      house.client,
      'Email,Signed,Words\ndated@example.org,14/02/2026,Write to me please\nundated@example.org,,\n',
      {
        columns,
        permission: { email: agreed('news'), text: NOTHING },
      },
    );
    const entry = async (search: string) =>
      (await record(search)).entries.find((one) => one.scope === 'news')!;
    expect(await entry('dated@')).toMatchObject({
      at: '2026-02-14T12:00:00.000Z',
      words: 'Write to me please (vouched for by Idris Vale)',
    });
    expect(await entry('undated@')).toMatchObject({
      at: '2026-01-15T12:00:00.000Z',
      words: expect.stringContaining('about the ferry') as string,
    });
  });

  test('who signed lately is asked once to confirm and stands as asked until then; who said yes or no before is not asked', async () => {
    await bringIn(house.client, `${HEAD}yes.before@example.org,Ye,Lin,\n`);
    const today = houseDay();
    const columns: ColumnChoice[] = [{ to: 'email' }, { to: 'signedOn' }];
    const confirm = { subject: 'Was it you?', body: 'You signed at the fair. Please confirm.' };
    const plan: Partial<IntakePlan> = {
      columns,
      confirm,
      permission: { email: { ...agreed('appeals', 'news'), on: today } as never, text: NOTHING },
    };
    const batch = await bringIn(
      house.client,
      `Email,Signed\nask.me@example.org,${today}\nyes.before@example.org,${today}\nlong.ago@example.org,2024-03-01\n`,
      plan,
    );
    expect(batch.will!.entries.email).toEqual({ yes: 4, no: 0, asked: 2 });
    const state = async (search: string) => (await find(search))[0]!.may.email;
    expect([await state('ask.me@'), await state('yes.before@'), await state('long.ago@')]).toEqual([
      'asked',
      'yes',
      'yes',
    ]);
    const mails = () => house.sink.mails.filter((mail) => mail.raw.includes('Subject: Was it you?'));
    await eventually('the mail', mails, (some) => some.length > 0);
    expect(mails().map((mail) => mail.to)).toEqual(['ask.me@example.org']);
    const link = /\/confirm\/[a-z0-9]+/.exec(mails()[0]!.raw.replace(/=\r?\n/g, ''))![0];
    await house.client.call('POST', link, new URLSearchParams());
    expect(await state('ask.me@')).toBe('yes');
  });

  test('within how many days somebody may be asked is the rule of their own place', async () => {
    const rules = rulesOfTests();
    const canada = { ...rules.places.CA!, confirm: { ...rules.places.CA!.confirm, withinDays: 5 } };
    await house.database.write(house.scope, (tx) =>
      new HouseRulesRepository().keep(tx, {
        rules: { ...rules, places: { ...rules.places, CA: canada } },
        words: 'For this test',
        effects: [],
      }),
    );
    const tenDaysAgo = houseDay(-10);
    const batch = await bringIn(
      house.client,
      `Email,First,Last,Mobile\nhalifax@example.org,Ha,Lifax,+1 902 555 0133\nseattle@example.org,Se,Attle,+1 206 555 0133\n`,
      {
        confirm: { subject: 'Again?', body: 'Please confirm.' },
        permission: { email: { ...agreed('news'), on: tenDaysAgo } as never, text: NOTHING },
      },
    );
    expect(batch.will!.entries.email).toEqual({ yes: 1, no: 0, asked: 1 });
    const states = await Promise.all(
      ['halifax@', 'seattle@'].map(async (search) =>
        (await record(search)).entries.map(({ state }) => state),
      ),
    );
    expect(states).toEqual([['yes'], ['asked']]);
  });

  test('a public list needs agreement to that list', async () => {
    const list = await house.client.post<{ id: number }>('/api/lists', {
      name: 'Shown to all',
      isPublic: true,
      description: 'News',
      why: 'You asked',
    });
    const id = await takeFile(house.client, `${HEAD}pub@example.org,Pu,Blic,\n`);
    const put = (permission: IntakePlan['permission']) =>
      house.client.call<{ detail: string }>(
        'PUT',
        `/api/batches/${id}/plan`,
        planFor({ listIds: [list.id], permission }),
      );
    expect((await put({ email: agreed('news'), text: NOTHING })).body.detail).toMatch(
      /a list that supporters see/,
    );
    expect((await put({ email: agreed(`list:${list.id}`), text: NOTHING })).status).toBe(202);
  });
});
