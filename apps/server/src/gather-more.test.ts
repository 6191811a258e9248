import fc from 'fast-check';
import type {
  BatchPreview,
  BatchRowView,
  BatchView,
  CampaignView,
  DncRow,
  JobView,
  LayoutView,
  LookView,
  Page,
  RecordView,
  SupporterRow,
} from '@goodword/core/contract';
import type { ColumnChoice, IntakePlan } from '@goodword/core/intake';
import { RetentionService } from './intake/retention.service';
import { openHouse, until, type House } from './testing/harness';
import { agreed, batchAt, bringIn, COLUMNS, draftEmail, lastLook, messageAt, NOTHING, planFor, takeFile } from './testing/steps';

let house: House;
beforeAll(async () => {
  house = await openHouse();
  house.startWorker();
});
afterAll(() => house.close());

const HEAD = 'Email,First,Last,Mobile\n';
const find = async (search: string) => (await house.client.get<Page<SupporterRow>>(`/api/supporters?search=${encodeURIComponent(search)}`)).rows;
const record = async (search: string) => house.client.get<RecordView>(`/api/supporters/${(await find(search))[0]!.id}`);
const rowsOf = (id: number, query = '') => house.client.get<Page<BatchRowView>>(`/api/batches/${id}/rows${query}`);
const checked = async (csv: string, plan: Partial<IntakePlan> = {}): Promise<BatchView> => {
  const id = await takeFile(house.client, csv);
  await house.client.put(`/api/batches/${id}/plan`, planFor(plan));
  return batchAt(house.client, id, 'checked');
};
const allIn = async (id: number) => {
  await house.client.post(`/api/batches/${id}/bring-in`);
  return batchAt(house.client, id, 'done');
};
const noPermission = { email: NOTHING, text: NOTHING };

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

describe('a file brought in twice, and taken back out', () => {
  const columns: ColumnChoice[] = [
    { to: 'email' },
    { to: 'firstName' },
    { to: 'lastName' },
    { to: 'mobile' },
    { to: 'externalId' },
    { to: 'street' },
    { to: 'postcode' },
    { to: 'tags' },
    { to: 'newField', name: 'Boat', type: 'choice', section: 'On the water', choices: ['punt', 'skiff'] },
    { to: 'signedOn', order: 'day-first' },
    { to: 'consent', channel: 'email' },
  ];
  const header = 'Email,First,Last,Mobile,Id,Street,Zip,Tags,Boat,Signed,OK';

  /** Everything that is derived about people: what they are, how they are reached, where they are, what may be sent. */
  const derived = async () => {
    const db = house.database.read(house.scope);
    const queries = {
      people:
        'SELECT s.first_name, s.last_name, s.external_id, s.postcode, s.country, COALESCE(b.name, 0) AS b FROM supporter s LEFT JOIN batch b ON b.id = 0 WHERE s.organization_id = :org ORDER BY s.id',
      points:
        'SELECT cp.kind, cp.normal, cp.on_hold, cp.do_not_contact, sc.supporter_id FROM contact_point cp JOIN supporter_contact sc ON sc.contact_point_id = cp.id WHERE cp.organization_id = :org ORDER BY cp.id, sc.supporter_id',
      values:
        'SELECT supporter_id, field_id, text_value, number_value, date_value FROM field_value WHERE organization_id = :org ORDER BY supporter_id, field_id',
      tags: 'SELECT supporter_id, tag_id FROM supporter_tag WHERE organization_id = :org ORDER BY supporter_id, tag_id',
      lists: 'SELECT supporter_id, list_id FROM supporter_list WHERE organization_id = :org ORDER BY supporter_id, list_id',
      rosters: 'SELECT supporter_id, campaign_id, standing FROM roster WHERE organization_id = :org ORDER BY supporter_id, campaign_id',
      gifts: 'SELECT supporter_id, amount, given_on FROM gift WHERE organization_id = :org ORDER BY id',
      states:
        'SELECT contact_point_id, supporter_id, channel, scope, no_at, yes_at, asked_at, gift_at FROM permission_state WHERE organization_id = :org ORDER BY contact_point_id, supporter_id, channel, scope',
    };
    const out: Record<string, unknown> = {};
    for (const [name, sql] of Object.entries(queries)) out[name] = await db.sql(sql);
    return out;
  };
  const grown = async () => {
    const [row] = await house.database
      .read(house.scope)
      .sql<{ entries: number; audit: number }>(
        'SELECT (SELECT COUNT(*) FROM permission_entry WHERE organization_id = :org) AS entries, (SELECT COUNT(*) FROM audit WHERE organization_id = :org) AS audit',
      );
    return row!;
  };

  // Who a row is about; two of them share an address. Rows that disagree about who somebody is are likely doubles or
  // households, and which they are depends on who is here: for those, twice need not be the same as once.
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
      tags: fc.constantFrom('', 'rowers', 'rowers; bakers'),
      boat: fc.constantFrom('', 'punt', 'skiff'),
      signed: fc.constantFrom('', '14/02/2026', 'someday'),
      ok: fc.constantFrom('yes', 'no', ''),
    })
    .map(({ who, street, zip, ...rest }) => ({ ...who, street, zip, ...rest }));

  test('whatever the file: every row has one outcome, the second time changes nothing, taking out leaves all as it was', async () => {
    const campaign = await house.client.post<{ id: number }>('/api/campaigns', {
      name: 'Hull',
      kind: 'appeal',
      appealCode: null,
      standings: ['asked', 'gave'],
    });
    const plan = planFor({
      columns,
      newTags: ['origin'],
      newLists: [{ name: 'Crew', folder: 'Boats' }],
      roster: { campaignId: campaign.id, standing: 'asked' },
      permission: { email: { ...agreed('appeals', 'news'), from: 'column' } as never, text: agreed('appeals') },
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
        // Rows of one person that say different things follow each other in both runs, so the last of them stands.
        expect(twice).toEqual(between);
        for (const id of [second.id, first.id]) {
          await house.client.post(`/api/batches/${id}/take-out`);
          await batchAt(house.client, id, 'taken-out');
        }
        const { states: statesBefore, ...rest } = before;
        const { states: statesAfter, ...after } = await derived();
        expect(after).toEqual(rest);
        // A no is never forgotten; every other state goes.
        const noes = (states: unknown) => (states as { no_at: Date | null }[]).filter((state) => state.no_at === null);
        expect(noes(statesAfter)).toEqual(noes(statesBefore));
        expect((await grown()).entries).toBeGreaterThanOrEqual(log.entries);
        expect((await grown()).audit).toBeGreaterThan(log.audit);
      }),
      { numRuns: 8, interruptAfterTimeLimit: 150_000 },
    );
  }, 240_000);

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
    await house.client.post(`/api/messages/${message}/send`, { at: null, expected: (await lastLook(house.client, message)).reached });
    await messageAt(house.client, message, 'done');
    await house.client.post(`/api/supporters/${(await find('stay2@'))[0]!.id}/gifts`, { amount: 2500, on: '2026-11-01', note: '' });
    await house.client.call('PATCH', `/api/supporters/${(await find('stay3@'))[0]!.id}`, { firstName: 'Edith', lastName: 'Lin' });
    expect(await house.client.get(`/api/batches/${batch.id}/take-out`)).toEqual({ staying: 3 });
    await house.client.post(`/api/batches/${batch.id}/take-out`);
    expect(await batchAt(house.client, batch.id, 'taken-out')).toMatchObject({ stayed: 3 });
    expect(await Promise.all(['stay1@', 'stay2@', 'stay3@', 'go@'].map(async (search) => (await find(search)).length))).toEqual([1, 1, 1, 0]);
    expect((await record('stay1@')).entries.filter((entry) => entry.state === 'back').length).toBeGreaterThan(0);
  });
});

describe('people who said no', () => {
  test('statuses become entries and holds, new addresses go on do-not-contact, nobody is brought in', async () => {
    await bringIn(house.client, `${HEAD}left@example.org,Le,Ft,\nbounced@example.org,Bo,Unced,\nspam@example.org,Sp,Am,\nfine@example.org,Fi,Ne,\n`);
    const before = (await house.client.get<Page<SupporterRow>>('/api/supporters?limit=1')).total;
    const plan: Partial<IntakePlan> = { what: 'refusals', columns: [{ to: 'email' }, { to: 'status' }], permission: noPermission };
    const csv =
      'Email,Status\nleft@example.org,Unsubscribed\nbounced@example.org,Hard bounce\nspam@example.org,Marked as spam\nfine@example.org,Subscribed\nnever.here@example.org,opted out\nhuh@example.org,maybe\n';
    const batch = await bringIn(house.client, csv, plan);
    expect(batch.counts).toEqual({ no: 3, hold: 1, aside: 1, failed: 1 });
    expect((await house.client.get<Page<SupporterRow>>('/api/supporters?limit=1')).total).toBe(before);
    expect((await find('left@'))[0]!.may.email).toBe('no');
    expect((await record('bounced@')).contactPoints[0]).toMatchObject({
      onHold: true,
      holdReason: expect.stringContaining('another system') as string,
    });
    expect(await record('spam@')).toMatchObject({
      contactPoints: [{ onHold: true }],
      entries: expect.arrayContaining([expect.objectContaining({ state: 'no', how: 'complaint' })]) as unknown,
    });
    expect((await find('fine@'))[0]!.may.email).toBe('yes');
    expect((await house.client.get<Page<DncRow>>('/api/do-not-contact?search=never.here@')).rows).toMatchObject([
      { shown: 'never.here@example.org', how: 'file' },
    ]);
    const later = await bringIn(house.client, `${HEAD}never.here@example.org,Ne,Ver,\n`);
    expect((await lastLook(house.client, await draftEmail(house.client, { from: [{ kind: 'batch', id: later.id }] }))).held).toEqual([
      { reason: 'do-not-contact', people: 1 },
    ]);
    await house.client.post(`/api/batches/${batch.id}/take-out`);
    await batchAt(house.client, batch.id, 'taken-out');
    expect((await record('bounced@')).contactPoints[0]!.onHold).toBe(false);
    expect((await find('left@'))[0]!.may.email).toBe('no');
  });

  test('without a column of statuses, what they did is asked', async () => {
    const id = await takeFile(house.client, 'Email\nwho@example.org\n');
    const plan = planFor({ what: 'refusals', columns: [{ to: 'email' }], permission: noPermission });
    expect((await house.client.call<{ detail: string }>('PUT', `/api/batches/${id}/plan`, plan)).body.detail).toMatch(/Say what these people did/);
    expect((await house.client.call('PUT', `/api/batches/${id}/plan`, { ...plan, refusal: 'left' })).status).toBe(202);
  });
});

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

describe('people already here', () => {
  test('a list of addresses or own ids goes on lists, tags and a roster, and strangers are told', async () => {
    await bringIn(house.client, `${HEAD}here1@example.org,He,Re,\nhere2@example.org,Hi,Re,\n`);
    const campaign = await house.client.post<{ id: number }>('/api/campaigns', {
      name: 'Callers',
      kind: 'update',
      appealCode: null,
      standings: ['to call', 'called'],
    });
    const plan: Partial<IntakePlan> = {
      what: 'here',
      columns: [{ to: 'email' }, { to: 'standing' }],
      permission: noPermission,
      newTags: ['phoned'],
      roster: { campaignId: campaign.id, standing: 'to call' },
    };
    const batch = await bringIn(
      house.client,
      'Email,Where\nhere1@example.org,Called\nhere2@example.org,\nhere2@example.org,gone fishing\nnobody@example.org,\n',
      plan,
    );
    expect(batch.counts).toEqual({ update: 3, failed: 1 });
    expect(await house.client.get<CampaignView>(`/api/campaigns/${campaign.id}`)).toMatchObject({ people: 2, counts: { called: 1, 'to call': 1 } });
    expect((await record('here1@')).tags.map((tag) => tag.name)).toContain('phoned');
    expect((await rowsOf(batch.id, '?only=faults')).rows[0]!.reason).toMatch(
      /expected a standing of the campaign \(to call, called\), got "gone fishing"/,
    );
    await house.client.post(`/api/batches/${batch.id}/take-out`);
    await batchAt(house.client, batch.id, 'taken-out');
    expect((await house.client.get<CampaignView>(`/api/campaigns/${campaign.id}`)).people).toBe(0);
  });
});

describe('permission of a batch', () => {
  test('dates and words come from columns, row by row', async () => {
    const columns: ColumnChoice[] = [{ to: 'email' }, { to: 'signedOn', order: 'day-first' }, { to: 'signedWords' }];
    await bringIn(house.client, 'Email,Signed,Words\ndated@example.org,14/02/2026,Write to me please\nundated@example.org,,\n', {
      columns,
      permission: { email: agreed('news'), text: NOTHING },
    });
    const entry = async (search: string) => (await record(search)).entries.find((one) => one.scope === 'news')!;
    expect(await entry('dated@')).toMatchObject({ at: '2026-02-14T12:00:00.000Z', words: 'Write to me please (vouched for by Idris Vale)' });
    expect(await entry('undated@')).toMatchObject({ at: '2026-01-15T12:00:00.000Z', words: expect.stringContaining('about the ferry') as string });
  });

  test('who signed lately is asked once to confirm and stands as asked until then; who said yes or no before is not asked', async () => {
    await bringIn(house.client, `${HEAD}yes.before@example.org,Ye,Lin,\n`);
    const today = new Date().toISOString().slice(0, 10);
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
    expect([await state('ask.me@'), await state('yes.before@'), await state('long.ago@')]).toEqual(['asked', 'yes', 'yes']);
    const mails = () => house.sink.mails.filter((mail) => mail.raw.includes('Subject: Was it you?'));
    await until('the mail', mails, (some) => some.length > 0);
    expect(mails().map((mail) => mail.to)).toEqual(['ask.me@example.org']);
    const link = /\/confirm\/[a-z0-9]+/.exec(mails()[0]!.raw.replace(/=\r?\n/g, ''))![0];
    await house.client.call('POST', link, new URLSearchParams());
    expect(await state('ask.me@')).toBe('yes');
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
      house.client.call<{ detail: string }>('PUT', `/api/batches/${id}/plan`, planFor({ listIds: [list.id], permission }));
    expect((await put({ email: agreed('news'), text: NOTHING })).body.detail).toMatch(/a list that supporters see/);
    expect((await put({ email: agreed(`list:${list.id}`), text: NOTHING })).status).toBe(202);
  });
});

describe('reading and settling over the API', () => {
  test('what was found is told with its confidence, can be changed, and every row is read before anything is written', async () => {
    const id = await takeFile(
      house.client,
      'Members 2026;;\nCorreo electrónico;Nombre;Apellidos\nana@example.org;Ana;Núñez\nTotal;1;\n',
      'miembros.csv',
    );
    const preview = await house.client.get<BatchPreview>(`/api/batches/${id}/preview`);
    expect(preview.found).toMatchObject({ delimiter: ';', headerLine: 1, titles: ['Members 2026'], rows: 2, asides: { total: 1 } });
    expect(preview.guesses.map(({ choice, confidence }) => [choice.to, confidence > 0.8])).toEqual([
      ['email', true],
      ['firstName', true],
      ['lastName', true],
    ]);
    await house.client.put(`/api/batches/${id}/reading`, { reading: { headerLine: 0 } });
    await until(
      'the file to be read anew',
      () => house.client.get<BatchView>(`/api/batches/${id}`),
      (batch) => batch.state === 'draft',
    );
    expect((await house.client.get<BatchPreview>(`/api/batches/${id}/preview`)).found.header).toEqual(['Members 2026']);
    await house.client.put(`/api/batches/${id}/reading`, { reading: { headerLine: 1, keepAside: false } });
    await batchAt(house.client, id, 'draft');
    await house.client.put(`/api/batches/${id}/plan`, planFor({ columns: [{ to: 'email' }, { to: 'firstName' }, { to: 'lastName' }] }));
    await batchAt(house.client, id, 'checked');
    expect((await rowsOf(id)).rows).toMatchObject([
      { row: 1, verdict: 'new', email: 'ana@example.org', firstName: 'Ana', lastName: 'Núñez', reason: '' },
      { row: 2, verdict: 'aside', reason: 'a line that sums up the others' },
    ]);
    expect(await find('ana@')).toEqual([]);
  });

  test('mends are made before cells are read: an edit, swapped cells, spellings, a piece of text', async () => {
    const columns: ColumnChoice[] = [{ to: 'email' }, { to: 'mobile' }, { to: 'firstName' }, { to: 'newField', name: 'Shirt', type: 'choice' }];
    const mends: IntakePlan['mends'] = [
      { kind: 'swap', a: 0, b: 1 },
      { kind: 'write', column: 3, from: ['medium', 'Med'], to: 'M' },
      { kind: 'strip', column: 2, text: ' (guest)' },
      { kind: 'edit', row: 1, column: 0, value: 'mended@example.org' },
    ];
    const batch = await bringIn(house.client, 'Email,Mobile,First,Shirt\n206 555 0141,swapped@example.org,Una (guest),medium\nbroken@,,Vic,Med\n', {
      columns,
      mends,
    });
    expect(batch.counts).toEqual({ new: 2 });
    expect(await record('swapped@')).toMatchObject({
      firstName: 'Una',
      fields: expect.arrayContaining([expect.objectContaining({ name: 'Shirt', shown: 'M' })]) as unknown,
    });
    expect((await find('mended@')).length).toBe(1);
  });

  test('constants, several addresses in one cell, whole names, and a country of its own for numbers', async () => {
    const columns: ColumnChoice[] = [{ to: 'nameEmail' }, { to: 'mobile' }, { to: 'email' }];
    const constants: IntakePlan['constants'] = [{ choice: { to: 'newField', name: 'Came by', type: 'text' }, value: 'ferry' }];
    await bringIn(house.client, 'Who,Phone,More\n"Ruth van der Abara <ruth.v@example.org>",020 7946 0018,"one@example.org; two@example.org"\n', {
      columns,
      constants,
      phoneCountry: 'GB',
    });
    expect(await record('ruth.v@')).toMatchObject({
      firstName: 'Ruth',
      lastName: 'van der Abara',
      contactPoints: expect.arrayContaining(
        ['ruth.v@example.org', '+44 20 7946 0018', 'one@example.org', 'two@example.org'].map(
          (shown) => expect.objectContaining({ shown }) as unknown,
        ),
      ) as unknown,
      fields: expect.arrayContaining([expect.objectContaining({ name: 'Came by', shown: 'ferry' })]) as unknown,
    });
  });

  test('a half-done batch is kept for the team, found again, and can be thrown away', async () => {
    const id = await takeFile(house.client, `${HEAD}half@example.org,Ha,Lf,\n`);
    await house.client.put(`/api/batches/${id}/draft`, { step: 'Permission', name: 'Half done', plan: { columns: COLUMNS } });
    const other = await house.as('organizer');
    expect(await other.get<BatchView>(`/api/batches/${id}`)).toMatchObject({
      name: 'Half done',
      state: 'draft',
      draft: { step: 'Permission', plan: { columns: COLUMNS } },
    });
    expect((await other.get<BatchView[]>('/api/batches?state=open&source=half')).map((batch) => batch.id)).toEqual([id]);
    expect((await other.get<BatchView[]>('/api/batches?state=done&source=half')).length).toBe(0);
    expect((await (await house.as('viewer')).call('DELETE', `/api/batches/${id}`)).status).toBe(403);
    expect((await other.call('DELETE', `/api/batches/${id}`)).status).toBe(204);
    expect((await other.call('GET', `/api/batches/${id}`)).status).toBe(404);
  });

  test('rows that came in and rows to mend are downloaded, as CSV and as a workbook that comes in again', async () => {
    const batch = await bringIn(house.client, `${HEAD}down@example.org,Do,Wn,\nwrong,Wr,Ong,\n`);
    const came = await house.client.call('GET', `/api/batches/${batch.id}/brought-in.csv`);
    expect(came.text).toContain(`down@example.org,Do,Wn,,${(await find('down@'))[0]!.id},new`);
    const form = new FormData();
    const sheet = await fetch(`${house.config.PUBLIC_URL}/api/batches/${batch.id}/rows-to-mend.xlsx`, { headers: { cookie: house.client.cookies } });
    expect(sheet.headers.get('content-type')).toContain('spreadsheetml');
    form.append('file', new Blob([await sheet.arrayBuffer()]), 'mended.xlsx');
    const { id } = await house.client.post<{ id: number }>('/api/batches', form);
    expect((await batchAt(house.client, id, 'draft')).found).toMatchObject({
      kind: 'workbook',
      header: ['Email', 'First', 'Last', 'Mobile', 'Why'],
      rows: 1,
    });
    const blank = await house.client.call('GET', '/api/batches/prepared.csv');
    expect(blank.text).toMatch(/Email,First name,Last name,Mobile,.*Shirt/);
    expect(blank.text).toContain('Delete this line.');
  });

  test('layouts are remembered by their headers, renamed and forgotten; work and batches are listed', async () => {
    await bringIn(house.client, 'E-mail;Vorname;Schuhgröße\nlay@example.org;Lay;42\n', {
      columns: [{ to: 'email' }, { to: 'firstName' }, { to: 'newField', name: 'Shoe', type: 'number' }],
    });
    const layout = async () => (await house.client.get<LayoutView[]>('/api/layouts')).find((one) => one.header.includes('Schuhgröße'));
    expect((await layout())!.columns).toMatchObject([{ to: 'email' }, { to: 'firstName' }, { to: 'field', type: 'number' }]);
    await house.client.put(`/api/layouts/${(await layout())!.id}`, { name: 'Shoes' });
    expect((await layout())!.name).toBe('Shoes');
    await house.client.call('DELETE', `/api/layouts/${(await layout())!.id}`);
    expect(await layout()).toBeUndefined();
    const jobs = await house.client.get<JobView[]>('/api/jobs');
    expect(jobs[0]).toMatchObject({ kind: 'batch-bring-in', subject: 'people', state: 'done', by: 'The owner' });
    expect((await house.client.get<{ arrived: { name: string }[] }>('/api/today')).arrived.length).toBeGreaterThan(0);
  });
});

describe('the file of a batch', () => {
  test('is deleted after the days set in House rules; what came of it stays', async () => {
    const batch = await bringIn(house.client, `${HEAD}kept.a.while@example.org,Ke,Pt,\n`);
    const retention = house.app.get(RetentionService);
    await house.client.put('/api/house/files', { days: 30 });
    expect(await house.client.get('/api/house/files')).toEqual({ days: 30 });
    await retention.round(Date.now() + 10_000_000);
    expect((await house.client.get<BatchView>(`/api/batches/${batch.id}`)).fileKept).toBe(true);
    await house.database
      .unscoped()('batch')
      .where({ id: batch.id })
      .update({ created_at: new Date(Date.now() - 31 * 86_400_000) });
    await retention.round(Date.now() + 20_000_000);
    expect(await house.client.get<BatchView>(`/api/batches/${batch.id}`)).toMatchObject({ fileKept: false, counts: { new: 1 } });
    expect((await house.client.call('GET', `/api/batches/${batch.id}/brought-in.csv`)).status).toBe(409);
    expect((await find('kept.a.while@')).length).toBe(1);
    expect((await (await house.as('organizer')).call('PUT', '/api/house/files', { days: 1 })).status).toBe(403);
  });

  test('is deleted at once when somebody in it is erased', async () => {
    const batch = await bringIn(house.client, `${HEAD}erase.me@example.org,Er,Ase,\n`);
    expect((await house.client.call('DELETE', `/api/supporters/${(await find('erase.me@'))[0]!.id}`)).status).toBeLessThan(300);
    expect((await house.client.get<BatchView>(`/api/batches/${batch.id}`)).fileKept).toBe(false);
  });
});
