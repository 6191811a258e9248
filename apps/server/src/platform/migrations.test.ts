import type { Knex } from 'knex';
import { HoldsRepository } from '../permission/holds.repository';
import type { Database } from './database';
import type { Scoped } from './scoped';
import * as rowsInPlace from './migrations/007_rows_in_place';
import * as kindsOfLinks from './migrations/008_kinds_of_links';
import * as rulesOfPlaces from './migrations/010_rules_of_places';
import * as evidenceWhole from './migrations/011_evidence_whole';
import * as holdsThatAsk from './migrations/012_holds_that_ask';
import * as severalChapters from './migrations/016_several_chapters';
import type { AccessScope } from './scope';
import * as whatIsTold from './migrations/018_what_is_told_of_rows';
import * as wordsOfTheTrade from './migrations/020_words_of_the_trade';
import { makeTestOrganization, openTestDatabase } from './test-database';

/*
 * What changes tables that hold something already is tried on such tables: the newest schema is taken back by
 * one, filled as the program before would have filled it, and brought forward again.
 */
let knex: Knex;
let organizationId: number;
let database: Database;
let scope: AccessScope;
let close: () => Promise<void>;
beforeAll(async () => {
  const opened = await openTestDatabase();
  database = opened.database;
  knex = opened.database.unscoped();
  close = opened.close;
  scope = (await makeTestOrganization(opened.database)).scope;
  organizationId = scope.organizationId;
});
afterAll(() => close());

const insert = async (table: string, row: object): Promise<number> =>
  ((await knex(table).insert({ organization_id: organizationId, ...row })) as [number])[0];
const shapeOf = async (table: string) =>
  ((await knex.raw(`SHOW CREATE TABLE ${table}`)) as [{ 'Create Table': string }[]])[0][0]![
    'Create Table'
  ].replace(/ AUTO_INCREMENT=\d+/, '');

test('links get the kind of their address, those of no address go, and records brought together before can be parted', async () => {
  const newest = await shapeOf('supporter_contact');
  await kindsOfLinks.down(knex);
  expect(await shapeOf('supporter_contact')).not.toContain('by_kind');
  const email = await insert('contact_point', {
    kind: 'email',
    normal: 'ada@example.org',
    shown: 'ada@example.org',
  });
  const mobile = await insert('contact_point', {
    kind: 'mobile',
    normal: '+12065550101',
    shown: '+1 206 555 0101',
  });
  for (const id of [email, mobile, 999_999])
    await insert('supporter_contact', { supporter_id: 1, contact_point_id: id });
  const links = [email, mobile].map((id) => ({
    organization_id: organizationId,
    supporter_id: 2,
    contact_point_id: id,
    position: 0,
    batch_id: null,
  }));
  const was = (rows: object) => JSON.stringify({ facts: {}, rows, gained: {} });
  const merging = (rows: object, undone: Date | null = null) =>
    insert('merging', { kept_id: 1, gone_id: 2, was: was(rows), made_by: null, undone_at: undone });
  const [open, parted, bare] = [
    await merging({ supporter_contact: links }),
    await merging({ supporter_contact: links }, new Date()),
    await merging({}),
  ];

  await kindsOfLinks.up(knex);
  expect(await shapeOf('supporter_contact')).toBe(newest);
  const kinds = (await knex('supporter_contact')
    .orderBy('contact_point_id')
    .select('contact_point_id', 'kind')) as object[];
  expect(kinds).toEqual([
    { contact_point_id: email, kind: 'email' },
    { contact_point_id: mobile, kind: 'mobile' },
  ]);
  const kindsIn = async (id: number) => {
    const kept = (await knex('merging').where('id', id).first('was')) as { was: unknown };
    const { rows } = (typeof kept.was === 'string' ? JSON.parse(kept.was) : kept.was) as {
      rows: { supporter_contact?: { kind?: string }[] };
    };
    return rows.supporter_contact?.map(({ kind }) => kind);
  };
  expect([await kindsIn(open), await kindsIn(parted), await kindsIn(bare)]).toEqual([
    ['email', 'mobile'],
    [undefined, undefined],
    undefined,
  ]);
});

test('whom a staged row is about is nobody where it was not known, and not known again the other way', async () => {
  const newest = await shapeOf('batch_row');
  await rowsInPlace.down(knex);
  const batch = { batch_id: 1, verdict: 'new', first_name: 'Ada', last_name: 'Lin' };
  await insert('batch_row', { ...batch, row_no: 1, supporter_id: null });
  await insert('batch_row', { ...batch, row_no: 2, supporter_id: 7 });
  const about = async () =>
    (
      (await knex('batch_row').orderBy('row_no').select('supporter_id')) as { supporter_id: number | null }[]
    ).map((row) => row.supporter_id);
  await rowsInPlace.up(knex);
  expect([await about(), await shapeOf('batch_row')]).toEqual([[0, 7], newest]);
  await rowsInPlace.down(knex);
  expect(await about()).toEqual([null, 7]);
  await rowsInPlace.up(knex);
});

test('a region that only stood in the postal address becomes the place, and rules kept before take the careful side', async () => {
  await rulesOfPlaces.down(knex);
  const chapter = (await knex('chapter').where({ organization_id: organizationId }).first('id')) as {
    id: number;
  };
  const someone = async (country: string | null, region: string | null, parts: object) => {
    const id = await insert('supporter', {
      chapter_id: chapter.id,
      first_name: 'Ada',
      last_name: 'Lin',
      country,
      region,
    });
    const street = `${id} slip lane`;
    const point = await insert('contact_point', {
      kind: 'post',
      normal: street,
      shown: street,
      parts: JSON.stringify(parts),
    });
    await insert('supporter_contact', { supporter_id: id, contact_point_id: point, kind: 'post' });
    return id;
  };
  const ids = [
    await someone(null, null, { street: '1 Slip Lane', region: 'FL' }),
    await someone('US', null, { street: '2 Slip Lane', region: 'Oklahoma', country: 'US' }),
    await someone('US', 'WA', { street: '3 Slip Lane', region: 'FL', country: 'US' }),
    await someone('GB', null, { street: '4 Slip Lane', region: 'FL', country: 'US' }),
    await someone('US', null, { street: '5 Slip Lane', region: 'Nowhere' }),
  ];
  const old = {
    home: 'US',
    places: { CA: { preset: 'canada', confirm: { email: false, text: true, withinDays: 30 } } },
  };
  await insert('house_rules', { rules: JSON.stringify(old), words: 'Ours', effects: '[]' });

  await rulesOfPlaces.up(knex);
  const places = (await knex('supporter')
    .whereIn('id', ids)
    .orderBy('id')
    .select('country', 'region')) as object[];
  expect(places).toEqual([
    { country: 'US', region: 'FL' },
    { country: 'US', region: 'OK' },
    { country: 'US', region: 'WA' },
    { country: 'GB', region: null },
    { country: 'US', region: null },
  ]);
  const newest = (await knex('house_rules')
    .where({ organization_id: organizationId })
    .orderBy('id', 'desc')
    .first('rules')) as { rules: unknown };
  const rules = (typeof newest.rules === 'string' ? JSON.parse(newest.rules) : newest.rules) as typeof old;
  expect(rules.places.CA).toEqual({
    preset: 'canada',
    charityOnly: ['gift', 'volunteering'],
    confirm: { email: true, text: true, call: true, withinDays: 30 },
  });
});

test('holds of before are kept with what ends them: a batch taken back out, an answer, or a person', async () => {
  await knex('house_rules').delete();
  await holdsThatAsk.down(knex);
  await evidenceWhole.down(knex);
  const reasons = {
    batch: 'Bounced or complained in another system: old list.csv',
    question: 'Texted “please stop”: waits for a person to say what is meant',
    bounce: 'No such mailbox',
  };
  const ids: number[] = [];
  for (const [kind, reason] of Object.entries(reasons)) {
    const normal = `${kind}@held.example.org`;
    ids.push(
      await insert('contact_point', {
        kind: 'email',
        normal,
        shown: normal,
        on_hold: 1,
        hold_reason: reason,
        hold_at: new Date(),
      }),
    );
  }
  // The batch also named the one that bounced here before: that hold is not the batch's.
  for (const id of [ids[0]!, ids[2]!]) await insert('batch_hold', { batch_id: 77, contact_point_id: id });

  await evidenceWhole.up(knex);
  await holdsThatAsk.up(knex);
  const onHold = async () =>
    (
      (await knex('contact_point').whereIn('id', ids).orderBy('id').select('on_hold')) as {
        on_hold: number;
      }[]
    ).map((row) => row.on_hold);
  const holds = new HoldsRepository();
  const does = (act: (tx: Scoped) => Promise<void>) =>
    database.write(scope, async (tx) => {
      tx.unchanged();
      for (const id of ids) tx.reached.add(id);
      await act(tx);
    });
  await does((tx) => holds.releaseOfBatch(tx, 77));
  expect(await onHold()).toEqual([0, 1, 1]);
  // What an address shows is a reason that still holds it.
  const shown = (await knex('contact_point').whereIn('id', ids).orderBy('id').select('hold_reason')) as {
    hold_reason: string | null;
  }[];
  expect(shown.map((row) => row.hold_reason)).toEqual([null, reasons.question, reasons.bounce]);
  await does(async (tx) => {
    for (const id of ids) await holds.releaseAnswered(tx, id, 'They did not mean stop');
  });
  expect(await onHold()).toEqual([0, 0, 1]);
  await does((tx) => holds.release(tx, ids[2]!, 'Looked at, and good'));
  expect(await onHold()).toEqual([0, 0, 0]);
});

test('who was bound to a chapter is bound to the same one, who was not works in all, and a way back opens no more', async () => {
  const newest = [await shapeOf('teammate'), await shapeOf('teammate_link')];
  await severalChapters.down(knex);
  const mate = (name: string, place: object) =>
    insert('teammate', { name, email: `${name}@x.test`, role: 'viewer', ...place });
  const [bound, free] = [await mate('bound', { chapter_id: 7 }), await mate('free', { chapter_id: null })];
  const link = await insert('teammate_link', {
    teammate_id: bound,
    kind: 'invitation',
    mail: 'handing',
    expires_at: new Date(),
  });
  await severalChapters.up(knex);
  expect([await shapeOf('teammate'), await shapeOf('teammate_link')]).toEqual(newest);
  const chaptersOf = async (id: number) =>
    ((await knex('teammate').where({ id }).first('chapter_ids')) as { chapter_ids: unknown }).chapter_ids;
  expect([await chaptersOf(bound), await chaptersOf(free)]).toEqual([[7], null]);
  expect(await knex('teammate_link').where({ id: link }).first('mail')).toEqual({ mail: 'waiting' });
  await knex('teammate').where({ id: bound }).update({ chapter_ids: '[9, 7]' });
  await severalChapters.down(knex);
  expect(await knex('teammate').where({ id: bound }).first('chapter_id')).toEqual({ chapter_id: 9 });
  await severalChapters.up(knex);
});

test('what is counted of a file is counted from 1, in what is kept of batches too, and from 0 the other way', async () => {
  await whatIsTold.down(knex);
  const from0 = {
    plan: {
      reading: { headerLine: 2 },
      mends: [{ kind: 'edit', row: 0, column: 3, value: 'x' }],
      columns: [],
    },
    draft: {
      step: 'Columns',
      name: '',
      plan: { mends: [{ kind: 'swap', a: 0, b: 1 }], reading: { headerLine: null } },
    },
    reading: { sheet: 0 },
    found: { headerLine: 0, workbook: { sheet: 1, hiddenColumns: [0, 4] } },
  };
  const json = Object.fromEntries(
    Object.entries(from0).map(([column, value]) => [column, JSON.stringify(value)]),
  );
  const id = await insert('batch', {
    name: 'Old',
    file_name: 'old.xlsx',
    storage_key: 'k',
    state: 'draft',
    chapter_id: 1,
    ...json,
  });
  const bare = await insert('batch', {
    name: 'Bare',
    file_name: 'bare.csv',
    storage_key: 'k',
    state: 'reading',
    chapter_id: 1,
  });
  const kept = async (which: number) => {
    const row = (await knex('batch')
      .where('id', which)
      .first(...Object.keys(from0))) as Record<string, unknown>;
    return Object.fromEntries(
      Object.entries(row).map(([column, value]) => [
        column,
        typeof value === 'string' ? (JSON.parse(value) as unknown) : value,
      ]),
    );
  };
  await whatIsTold.up(knex);
  expect(await kept(id)).toEqual({
    plan: {
      reading: { headerLine: 3 },
      mends: [{ kind: 'edit', row: 1, column: 4, value: 'x' }],
      columns: [],
    },
    draft: {
      step: 'Columns',
      name: '',
      plan: { mends: [{ kind: 'swap', a: 1, b: 2 }], reading: { headerLine: null } },
    },
    reading: { sheet: 1 },
    found: { headerLine: 1, workbook: { sheet: 2, hiddenColumns: [1, 5] } },
  });
  expect(await kept(bare)).toEqual({ plan: null, draft: null, reading: null, found: null });
  await whatIsTold.down(knex);
  expect(await kept(id)).toEqual(from0);
  await whatIsTold.up(knex);
});

test('names of before become the words of the trade, in columns, values and what is kept as JSON, and back', async () => {
  const tables = [
    'campaign',
    'roster',
    'batch_roster_before',
    'call_list_member',
    'delivery',
    'delivery_event',
    'message',
    'batch_more',
    'confirmation',
  ];
  const shapes = () => Promise.all(tables.map(shapeOf));
  const newest = await shapes();
  await wordsOfTheTrade.down(knex);
  expect((await shapes()).join()).toMatch(/standings[^]*`held`[^]*'handing'[^]*followed[^]*tag_deeds/);
  // Somebody called a stage and a segment just as the program called its own.
  const campaignId = await insert('campaign', {
    name: 'Hull',
    standings: JSON.stringify(['standing', 'followed']),
  });
  await insert('roster', { campaign_id: campaignId, supporter_id: 5, standing: 'standing' });
  const before = {
    all: { kind: 'all', rules: [{ kind: 'roster', campaignId, standings: ['standing'], on: true }] },
    clicked: {
      kind: 'message',
      deed: 'followed',
      did: false,
      messageId: null,
      atLeast: 1,
      window: { over: 'ever' },
    },
    recipients: { from: [{ kind: 'message', id: 3, did: 'not-followed' }], minus: [] },
    triggers: [{ on: 'followed', tagId: 4 }],
    plan: { columns: [{ to: 'standing' }, { to: 'email' }], roster: { campaignId, standing: 'followed' } },
    act: { do: 'print', columns: ['phone', 'standing'], group: { result: { messageId: 3, kind: 'held' } } },
  };
  const text = (value: unknown) => JSON.stringify(value);
  const sent = (key: string) => ({ supporter_id: 5, channel: 'email', verdict: 'send', provider_key: key });
  const kept = async (table: string, id: number, column: string) => {
    const row = (await knex(table).where({ id }).first(column)) as Record<string, unknown>;
    return typeof row[column] === 'string' ? (JSON.parse(row[column]) as unknown) : row[column];
  };
  const segment = await insert('segment', { name: 'standing', tree: text(before.all) });
  const other = await insert('segment', { name: 'Clickers', tree: text(before.clicked) });
  const messageId = await insert('message', {
    ...{ chapter_id: 1, name: 'Plank', channel: 'email', purpose: 'appeals' },
    ...{ recipients: text(before.recipients), tag_deeds: text(before.triggers) },
  });
  const batch = await insert('batch', {
    name: 'R',
    file_name: 'r.csv',
    storage_key: 'k',
    state: 'draft',
    chapter_id: 1,
    plan: text(before.plan),
  });
  const bulk = await insert('bulk', { act: text(before.act), words: 'Print', people: 0 });
  const delivery = await insert('delivery', {
    ...sent('a'),
    message_id: messageId,
    state: 'held',
    followed: 1,
  });
  const going = await insert('delivery', {
    ...sent('b'),
    message_id: messageId,
    supporter_id: 6,
    state: 'handing',
  });

  await wordsOfTheTrade.up(knex);
  expect(await shapes()).toEqual(newest);
  expect(await kept('campaign', campaignId, 'stages')).toEqual(['standing', 'followed']);
  expect(await knex('roster').where({ campaign_id: campaignId }).first('stage')).toEqual({
    stage: 'standing',
  });
  expect(await kept('segment', segment, 'tree')).toEqual({
    kind: 'all',
    rules: [{ kind: 'roster', campaignId, stages: ['standing'], on: true }],
  });
  expect(await kept('segment', other, 'tree')).toMatchObject({
    kind: 'message',
    event: 'clicked',
    did: false,
  });
  expect(await kept('message', messageId, 'recipients')).toEqual({
    from: [{ kind: 'message', id: 3, did: 'not-clicked' }],
    minus: [],
  });
  expect(await kept('message', messageId, 'tag_triggers')).toEqual([{ on: 'clicked', tagId: 4 }]);
  expect(await kept('batch', batch, 'plan')).toEqual({
    columns: [{ to: 'stage' }, { to: 'email' }],
    roster: { campaignId, stage: 'followed' },
  });
  expect(await kept('bulk', bulk, 'act')).toEqual({
    ...{ do: 'print', columns: ['phone', 'stage'], group: { result: { messageId: 3, kind: 'suppressed' } } },
  });
  expect(
    await knex('delivery').whereIn('id', [delivery, going]).orderBy('id').select('state', 'clicked'),
  ).toEqual([
    { state: 'suppressed', clicked: 1 },
    { state: 'in-flight', clicked: 0 },
  ]);

  await wordsOfTheTrade.down(knex);
  expect(await kept('segment', other, 'tree')).toEqual(before.clicked);
  expect(await kept('batch', batch, 'plan')).toEqual(before.plan);
  expect(await kept('bulk', bulk, 'act')).toEqual(before.act);
  expect(await kept('message', messageId, 'tag_deeds')).toEqual(before.triggers);
  await wordsOfTheTrade.up(knex);
  expect(await shapes()).toEqual(newest);
});
