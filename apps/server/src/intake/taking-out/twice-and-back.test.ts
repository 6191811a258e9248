import fc from 'fast-check';
import type { ColumnChoice } from '@goodword/core/intake';
import { gathering, HEAD } from '../../testing/gathering';
import { openTestHouse, type TestHouse } from '../../testing/harness';
import { agreed, batchAt, bringIn, draftEmail, lastLook, messageAt, planFor } from '../../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { find, record, checked, allIn } = gathering(() => house);

describe('a file brought in twice, and taken back out', () => {
  const columns: ColumnChoice[] = [
    { to: 'email' },
    { to: 'firstName' },
    { to: 'lastName' },
    { to: 'mobile' },
    { to: 'externalId' },
    { to: 'street' },
    { to: 'postcode' },
    { to: 'city' },
    { to: 'tags' },
    { to: 'newField', name: 'Boat', type: 'choice', section: 'On the water', choices: ['punt', 'skiff'] },
    { to: 'signedOn', order: 'day-first' },
    { to: 'consent', channel: 'email' },
  ];
  const header = 'Email,First,Last,Mobile,Id,Street,Zip,Town,Tags,Boat,Signed,OK';

  /**
   * Everything that is derived about people: what they are, how they are reached, where they are, what may be
   * sent.
   */
  const derived = async () => {
    const db = house.database.read(house.scope);
    const queries = {
      people: `SELECT s.first_name, s.last_name, s.external_id, s.postcode, s.country,
            COALESCE(b.name, 0) AS b
          FROM supporter s
          LEFT JOIN batch b ON b.id = 0
          WHERE s.organization_id = :org
          ORDER BY s.id`,
      points: `SELECT cp.kind, cp.normal, cp.on_hold, cp.do_not_contact, sc.supporter_id
          FROM contact_point cp
          JOIN supporter_contact sc ON sc.contact_point_id = cp.id
          WHERE cp.organization_id = :org
          ORDER BY cp.id, sc.supporter_id`,
      values: `SELECT supporter_id, field_id, text_value, number_value, date_value
          FROM field_value
          WHERE organization_id = :org
          ORDER BY supporter_id, field_id`,
      tags: `SELECT supporter_id, tag_id
        FROM supporter_tag
        WHERE organization_id = :org
        ORDER BY supporter_id, tag_id`,
      lists: `SELECT supporter_id, list_id
          FROM supporter_list
          WHERE organization_id = :org
          ORDER BY supporter_id, list_id`,
      rosters: `SELECT supporter_id, campaign_id, stage
          FROM roster
          WHERE organization_id = :org
          ORDER BY supporter_id, campaign_id`,
      gifts: 'SELECT supporter_id, amount, given_on FROM gift WHERE organization_id = :org ORDER BY id',
      states: `SELECT contact_point_id, supporter_id, channel, scope, no_at, yes_at, asked_at, gift_at
          FROM permission_state
          WHERE organization_id = :org
          ORDER BY contact_point_id, supporter_id, channel, scope`,
    };
    const out: Record<string, unknown> = {};
    for (const [name, sql] of Object.entries(queries)) out[name] = await db.sql(sql);
    return out;
  };
  /**
   * What is kept for good, or of the work itself (as all that is called a batch's): not what a batch is to
   * leave as it was.
   */
  const KEPT = new Set([
    ...['layout', 'field', 'job', 'change_log', 'audit', 'evidence', 'session'],
    // A no is never forgotten, and what is derived of it stays with it: looked at by itself.
    ...['permission_entry', 'permission_state', 'do_not_contact', 'closed_mailbox', 'mailbox_no'],
  ]);
  /** Every row of every other table, whatever bringing in is ever taught to write. */
  const everything = async () => {
    const db = house.database.read(house.scope);
    const tables = await db.sql<{ name: string }>(
      `SELECT DISTINCT table_name AS name
        FROM information_schema.columns
        WHERE table_schema = DATABASE() AND column_name = 'organization_id' AND :org > 0`,
    );
    const out: Record<string, string[]> = {};
    for (const { name } of tables) {
      if (KEPT.has(name) || name.startsWith('batch')) continue;
      const rows = await db.sql<object>(`SELECT * FROM \`${name}\` WHERE organization_id = :org`);
      out[name] = rows.map((one) => JSON.stringify(one)).sort();
    }
    return out;
  };
  const noPoints = async () => {
    const rows = await house.database
      .read(house.scope)
      .sql<{ id: number }>(
        "SELECT contact_point_id AS id FROM permission_entry WHERE organization_id = :org AND state = 'no'",
      );
    return new Set(rows.map(({ id }) => id));
  };
  const grown = async () => {
    const [row] = await house.database.read(house.scope).sql<{ entries: number; audit: number }>(
      `SELECT (SELECT COUNT(*) FROM permission_entry WHERE organization_id = :org) AS entries,
          (SELECT COUNT(*) FROM audit WHERE organization_id = :org) AS audit`,
    );
    return row!;
  };

  // Who a row is about; two of them share an address. Rows that disagree about who somebody is are likely
  // doubles or households, and which they are depends on who is here: for those, twice need not be the same
  // as once.
  const WHO = [
    { email: 'a1@example.org', first: 'Ann', last: 'Lin', mobile: '206 555 0131', id: 'X-1' },
    { email: 'a1@example.org', first: 'Jun', last: 'Lin', mobile: '', id: '' },
    { email: 'a2@example.org; a5@example.org', first: 'Bo', last: 'Berg', mobile: '2065550132', id: 'X-2' },
    { email: '', first: 'Cy', last: 'Quill', mobile: '206-555-0133', id: 'X-3' },
    { email: 'nonsense', first: 'Di', last: 'Moss', mobile: '12', id: '' },
    { email: '', first: '', last: '', mobile: '', id: '' },
  ];
  const row = fc
    .record({
      who: fc.constantFrom(...WHO),
      street: fc.constantFrom('', '1 Slip Lane'),
      zip: fc.constantFrom('', '98101'),
      town: fc.constantFrom('', 'Port Alder'),
      tags: fc.constantFrom('', 'rowers', 'rowers; bakers'),
      boat: fc.constantFrom('', 'punt', 'skiff'),
      signed: fc.constantFrom('', '14/02/2026', 'someday'),
      ok: fc.constantFrom('yes', 'no', ''),
    })
    .map(({ who, ...rest }) => ({ ...who, ...rest }));

  test('whatever the file: every row has one outcome, the second time changes nothing, taking out leaves all as it was', async () => {
    const campaign = await house.client.post<{ id: number }>('/api/campaigns', {
      name: 'Hull',
      kind: 'appeal',
      appealCode: null,
      stages: ['asked', 'gave'],
    });
    const plan = planFor({
      columns,
      newTags: ['origin'],
      newLists: [{ name: 'Crew', folder: 'Boats' }],
      roster: { campaignId: campaign.id, stage: 'asked' },
      permission: {
        email: { ...agreed('appeals', 'news'), from: 'column' } as never,
        text: agreed('appeals'),
      },
    });
    await fc.assert(
      fc.asyncProperty(fc.array(row, { minLength: 1, maxLength: 12 }), async (rows) => {
        const csv = [
          header,
          ...rows.map((one) =>
            Object.values(one)
              .map((cell) => `"${cell}"`)
              .join(','),
          ),
        ].join('\n');
        const before = await derived();
        const wholeBefore = await everything();
        const log = await grown();
        const first = await checked(csv, plan);
        if (first.problem) throw new Error(first.problem);
        const outcomes = Object.values(first.counts).reduce((sum, n) => sum + n, 0);
        expect(outcomes).toBe(first.rows);
        await allIn(first.id);
        const between = await derived();
        const second = await checked(csv, plan);
        await allIn(second.id);
        const twice = await derived();
        // Rows of one person that say different things follow each other in both runs, so the last of them
        // stands.
        expect(twice).toEqual(between);
        for (const id of [second.id, first.id]) {
          await house.client.post(`/api/batches/${id}/take-out`);
          expect((await batchAt(house.client, id, 'taken-out')).problem).toBeNull();
        }
        const { states: statesBefore, ...rest } = before;
        const { states: statesAfter, ...after } = await derived();
        expect(after).toEqual(rest);
        // An address stays with the no that it said.
        const wholeAfter = await everything();
        const saidNo = await noPoints();
        for (const whole of [wholeBefore, wholeAfter])
          whole.contact_point = whole.contact_point!.filter(
            (one) => !saidNo.has((JSON.parse(one) as { id: number }).id),
          );
        expect(wholeAfter).toEqual(wholeBefore);
        // A no is never forgotten; every other state goes.
        const noes = (states: unknown) =>
          (states as { no_at: Date | null }[]).filter((state) => state.no_at === null);
        expect(noes(statesAfter)).toEqual(noes(statesBefore));
        expect((await grown()).entries).toBeGreaterThanOrEqual(log.entries);
        expect((await grown()).audit).toBeGreaterThan(log.audit);
      }),
      { numRuns: 8, interruptAfterTimeLimit: 150_000 },
    );
  }, 300_000);

  test('whoever got a message, gave or was edited since stays and is told; the others go', async () => {
    const batch = await bringIn(
      house.client,
      `${HEAD}stay1@example.org,Mail,Lin,\nstay2@example.org,Gift,Lin,\nstay3@example.org,Edit,Lin,\ngo@example.org,Gone,Lin,\n`,
    );
    const one = (await find('stay1@'))[0]!.id;
    const list = await house.client.post<{ id: number }>('/api/lists', { name: 'Only one' });
    await house.client.put(`/api/supporters/${one}/lists/${list.id}`);
    const message = await draftEmail(house.client, { from: [{ kind: 'list', id: list.id }] });
    await house.client.post(`/api/messages/${message}/test`);
    await house.client.post(`/api/messages/${message}/send`, {
      at: null,
      digest: (await lastLook(house.client, message)).digest,
    });
    await messageAt(house.client, message, 'done');
    await house.client.post(`/api/supporters/${(await find('stay2@'))[0]!.id}/gifts`, {
      amount: 2500,
      on: '2026-11-01',
      note: '',
    });
    await house.client.call('PATCH', `/api/supporters/${(await find('stay3@'))[0]!.id}`, {
      firstName: 'Edith',
      lastName: 'Lin',
    });
    expect(await house.client.get(`/api/batches/${batch.id}/take-out`)).toEqual({ staying: 3 });
    await house.client.post(`/api/batches/${batch.id}/take-out`);
    expect(await batchAt(house.client, batch.id, 'taken-out')).toMatchObject({ stayed: 3 });
    expect(
      await Promise.all(
        ['stay1@', 'stay2@', 'stay3@', 'go@'].map(async (search) => (await find(search)).length),
      ),
    ).toEqual([1, 1, 1, 0]);
    expect((await record('stay1@')).entries.filter((entry) => entry.state === 'back').length).toBeGreaterThan(
      0,
    );
  });
});
