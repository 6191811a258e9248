import { execFileSync } from 'node:child_process';
import type { FieldView, MergePreview, Page, PersonalVerdict, RecordView, SupporterRow, TimelineItem } from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import { LedgerRepository } from '../permission/ledger.repository';
import { houseDay, openHouse, until, type Client, type House } from '../testing/harness';
import { agreed, bringIn, COLUMNS, NOTHING } from '../testing/steps';

let house: House;
beforeAll(async () => {
  house = await openHouse();
  house.startWorker();
  const rows = ['marisol@example.org,Marisol,Castellan,206 555 0141', 'jun@example.org,Jun,Castellan,206 555 0142', 'bo@example.org,Bo,,'];
  await bringIn(house.client, ['Email,First,Last,Mobile', ...rows].join('\n'), {
    columns: COLUMNS,
    newTags: ['plank menders'],
    permission: { email: agreed('appeals'), text: NOTHING },
  });
});
afterAll(() => house.close());

const idOf = async (search: string) =>
  (await house.client.get<Page<SupporterRow>>(`/api/supporters?search=${encodeURIComponent(search)}`)).rows[0]!.id;
const record = (id: number) => house.client.get<RecordView>(`/api/supporters/${id}`);
const timeline = (id: number, kinds = '', client: Client = house.client) =>
  client.get<TimelineItem[]>(`/api/supporters/${id}/timeline${kinds && `?kinds=${kinds}`}`);
const lastEdit = async (id: number) => (await timeline(id, 'edit'))[0]!;
const undo = (id: number, auditId: number | null) => house.client.call<{ detail: string }>('POST', `/api/supporters/${id}/history/${auditId}/undo`);
const countOf = async (tree: Rule) => (await house.client.post<{ total: number }>('/api/segments/count', { tree, reach: false })).total;
const field = async (name: string, type = 'text') =>
  (await house.client.get<FieldView[]>('/api/fields')).find((one) => one.name === name)?.id ??
  (await house.client.post<{ id: number }>('/api/fields', { name, type, fallback: null })).id;

describe('history', () => {
  test('each edit tells who, from what and to what, and is undone where it was done', async () => {
    const id = await idOf('Bo');
    const shirt = await field('Shirt size');
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'M' });
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'L' });
    const edit = await lastEdit(id);
    expect([edit.title, edit.detail]).toEqual(['Shirt size set to L', 'By The owner, before: M']);
    expect((await undo(id, edit.undo)).status).toBe(204);
    expect((await record(id)).fields.find((one) => one.id === shirt)!.shown).toBe('M');
    expect((await lastEdit(id)).title).toBe('Undone: Shirt size set to L');
    expect((await undo(id, edit.undo)).body.detail).toBe('This was undone already.');
  });

  test('an edit that was edited over is not undone: the later value would be lost', async () => {
    const id = await idOf('Bo');
    const shirt = await field('Shirt size');
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'S' });
    const edit = await lastEdit(id);
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'XL' });
    const refused = await undo(id, edit.undo);
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('changed again since')]);
    expect((await record(id)).fields.find((one) => one.id === shirt)!.shown).toBe('XL');
  });

  test.each<[string, (id: number) => Promise<unknown>, (of: RecordView) => unknown]>([
    [
      'a name',
      (id) => house.client.call('PATCH', `/api/supporters/${id}`, { firstName: 'Beau', lastName: 'Lin' }),
      (of) => [of.firstName, of.lastName],
    ],
    ['a place', (id) => house.client.put(`/api/supporters/${id}/place`, { country: 'CA', region: 'QC' }), (of) => of.place],
    [
      'an address',
      (id) => house.client.post(`/api/supporters/${id}/contact-points`, { kind: 'mobile', text: '206 555 0177' }),
      (of) => of.contactPoints.map((one) => one.shown),
    ],
    [
      'an address taken off',
      async (id) => house.client.call('DELETE', `/api/supporters/${id}/contact-points/${(await record(id)).contactPoints[0]!.id}`),
      (of) => of.contactPoints.map((one) => one.shown),
    ],
    [
      'a tag',
      async (id) => house.client.call('DELETE', `/api/supporters/${id}/tags/${(await record(id)).tags[0]!.id}`),
      (of) => of.tags.map((one) => one.name),
    ],
  ])('%s goes back to what it was', async (_what, change, read) => {
    const id = await idOf('bo@example.org').catch(() => idOf('Bo'));
    const before = read(await record(id));
    await change(id);
    expect(read(await record(id))).not.toEqual(before);
    expect((await undo(id, (await lastEdit(id)).undo)).status).toBe(204);
    expect(read(await record(id))).toEqual(before);
  });

  test('a value set to what it is already leaves no trace', async () => {
    const id = await idOf('Bo');
    const shirt = await field('Shirt size');
    const before = (await timeline(id, 'edit')).length;
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'XL' });
    expect(await timeline(id, 'edit')).toHaveLength(before);
  });

  test('edits of a sensitive field are told to nobody who may not see it', async () => {
    const id = await idOf('Bo');
    const secret = await field('Health');
    await house.client.put(`/api/supporters/${id}/fields/${secret}`, { text: 'asthma' });
    await house.client.put(`/api/house/fields/${secret}`, {
      name: 'Health',
      section: 'More',
      fallback: null,
      help: '',
      sensitive: true,
      choices: null,
    });
    const words = async (client: Client) => JSON.stringify(await timeline(id, '', client));
    expect(await words(house.client)).toContain('asthma');
    expect(await words(await house.as('viewer'))).not.toContain('asthma');
    expect((await (await house.as('viewer')).call('POST', `/api/supporters/${id}/history/1/undo`)).status).toBe(403);
  });
});

test('the timeline is narrowed to what one looks for; a kind that is none is told', async () => {
  const id = await idOf('Marisol');
  await house.client.post(`/api/supporters/${id}/gifts`, { amount: 4000, on: houseDay() });
  expect(new Set((await timeline(id, 'gift,batch')).map(({ kind }) => kind))).toEqual(new Set(['gift', 'batch']));
  expect((await house.client.call('GET', `/api/supporters/${id}/timeline?kinds=gossip`)).status).toBe(422);
});

test('an address put first is the one that is written to', async () => {
  const id = await idOf('Jun');
  await house.client.post(`/api/supporters/${id}/contact-points`, { kind: 'email', text: 'jun.c@example.net' });
  const second = (await record(id)).contactPoints.find((one) => one.shown === 'jun.c@example.net')!;
  await house.client.post(`/api/supporters/${id}/contact-points/${second.id}/first`);
  expect((await record(id)).contactPoints[0]!.shown).toBe('jun.c@example.net');
  expect((await house.client.call('POST', `/api/supporters/${id}/contact-points`, { kind: 'email', text: 'JUN.C@example.net' })).status).toBe(409);
  await house.client.call('DELETE', `/api/supporters/${id}/contact-points/${second.id}`);
});

test('notes are the team’s own: written, changed and deleted by who wrote them', async () => {
  const id = await idOf('Jun');
  const writer = await house.as('writer');
  const { id: noteId } = await writer.post<{ id: number }>(`/api/supporters/${id}/notes`, { body: 'Prefers to be called after six' });
  const noted = async () => (await timeline(id, 'note')).map(({ note }) => note!.body);
  expect(await noted()).toEqual(['Prefers to be called after six']);
  const other = await house.as('organizer');
  expect((await other.call('PUT', `/api/supporters/${id}/notes/${noteId}`, { body: 'No' })).status).toBe(403);
  await writer.put(`/api/supporters/${id}/notes/${noteId}`, { body: 'After seven' });
  expect(await noted()).toEqual(['After seven']);
  expect((await writer.call('POST', `/api/supporters/${id}/notes`, { body: '  ' })).status).toBe(422);
  await writer.call('DELETE', `/api/supporters/${id}/notes/${noteId}`);
  expect(await noted()).toEqual([]);
});

describe('households', () => {
  const household = async (search: string) => (await record(await idOf(search))).household;

  test('two people live together, are greeted by their first names, and can be told apart by size', async () => {
    const [marisol, jun] = [await idOf('Marisol'), await idOf('Jun')];
    await house.client.put(`/api/supporters/${marisol}/household`, { withId: jun });
    expect(await household('Marisol')).toMatchObject({
      greeting: 'Marisol and Jun',
      own: null,
      members: [{ name: 'Marisol Castellan' }, { name: 'Jun Castellan' }],
    });
    expect((await record(jun)).greeting).toBe('Marisol and Jun');
    expect(await countOf({ kind: 'field', field: 'household', op: 'at-least', value: 2 })).toBe(2);
    expect((await house.client.call('PUT', `/api/supporters/${marisol}/household`, { withId: jun })).status).toBe(409);
    expect((await house.client.call('PUT', `/api/supporters/${marisol}/household`, { withId: marisol })).status).toBe(409);
  });

  test('a greeting of their own is kept, and the household follows who joins and who leaves', async () => {
    const [jun, bo] = [await idOf('Jun'), await idOf('Bo')];
    await house.client.put(`/api/supporters/${jun}/household/greeting`, { greeting: 'the Castellans' });
    await house.client.put(`/api/supporters/${bo}/household`, { withId: jun });
    expect(await household('Bo')).toMatchObject({ greeting: 'the Castellans', members: [{}, {}, {}] });
    await house.client.put(`/api/supporters/${jun}/household/greeting`, { greeting: '' });
    expect((await household('Bo'))!.greeting).toBe('Marisol, Jun, and Bo');
    await house.client.call('DELETE', `/api/supporters/${bo}/household`);
    expect([await household('Bo'), (await household('Jun'))!.members.length]).toEqual([null, 2]);
    expect(await countOf({ kind: 'field', field: 'household', op: 'equals', value: 2 })).toBe(2);
    expect((await house.client.call('DELETE', `/api/supporters/${bo}/household`)).status).toBe(409);
    expect((await undo(bo, (await timeline(bo, 'edit')).find((one) => one.title === 'Left the household')!.undo)).status).toBe(204);
    expect((await household('Bo'))!.members).toHaveLength(3);
    await house.client.call('DELETE', `/api/supporters/${bo}/household`);
  });

  test('with the last but one the household goes', async () => {
    const [marisol, jun] = [await idOf('Marisol'), await idOf('Jun')];
    await house.client.call('DELETE', `/api/supporters/${jun}/household`);
    expect(await household('Marisol')).toBeNull();
    expect(await countOf({ kind: 'field', field: 'household', op: 'filled' })).toBe(0);
    await house.client.put(`/api/supporters/${marisol}/household`, { withId: jun });
  });
});

describe('writing to one person', () => {
  const doc = (text: string) => ({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] });
  const write = (id: number, rest: object = {}) =>
    house.client.call<{ id: number; detail: string; faults?: { message: string }[] }>('POST', `/api/supporters/${id}/messages`, {
      channel: 'email',
      purpose: 'appeals',
      subject: 'For {Greeting}',
      letter: doc('Dear {Greeting}, thank you.'),
      text: '',
      ...rest,
    });

  test('it leaves by the same road, greeted with the household, and is kept on the record alone', async () => {
    const id = await idOf('Marisol');
    expect(await house.client.get<PersonalVerdict>(`/api/supporters/${id}/may-write?channel=email&purpose=appeals`)).toEqual({
      verdict: 'send',
      words: 'Will get it',
      to: 'marisol@example.org',
    });
    expect((await write(id)).status).toBe(202);
    const mail = await until('the letter', () => house.sink.mails.find((one) => one.to.includes('marisol@example.org')), Boolean);
    expect(mail!.raw).toContain('Marisol and Jun');
    await until(
      'it on the record',
      () => timeline(id, 'delivery'),
      (items) => items.some((one) => one.title === 'Got “To Marisol Castellan”'),
    );
    expect(await house.client.get<unknown[]>('/api/messages')).toEqual([]);
  });

  test('who never agreed to it does not get it, and why is said; holes in the words are told', async () => {
    const id = await idOf('Jun');
    const refused = await write(id, { channel: 'text', text: 'Hello', letter: null });
    expect([refused.status, refused.body.detail]).toEqual([409, 'It can’t go to Jun Castellan: never said yes to this.']);
    const faulty = await write(id, { subject: '', letter: doc('Dear {Frist name}') });
    expect([faulty.status, faulty.body.faults!.map((one) => one.message)]).toEqual([
      422,
      [expect.stringContaining('no subject'), expect.stringContaining('Frist name')],
    ]);
    expect((await (await house.as('writer')).call('POST', `/api/supporters/${id}/messages`, {})).status).toBe(403);
  });
});

describe('two records of one person', () => {
  const states = () => house.database.write(house.scope, (tx) => (tx.unchanged(), new LedgerRepository().differences(tx)));
  /** All that is derived or told of the two, so that before and after can be held against each other. */
  const told = async (ids: number[]) =>
    Promise.all(
      ids.map(async (id) => {
        const { segments: _segments, mergedFrom: _mergedFrom, ...rest } = await record(id);
        return rest;
      }),
    );
  let kept: number;
  let gone: number;

  beforeAll(async () => {
    const rows = ['n.berg@example.org,Nunzia,Berg,206 555 0150', 'nunzia@example.net,Nunzia,,206 555 0151'];
    await bringIn(house.client, ['Email,First,Last,Mobile', ...rows].join('\n'), {
      columns: COLUMNS,
      permission: { email: agreed('news'), text: NOTHING },
    });
    [kept, gone] = [await idOf('n.berg@example.org'), await idOf('nunzia@example.net')];
    const [shirt, crossing] = [await field('Shirt size'), await field('Favourite crossing')];
    await house.client.put(`/api/supporters/${kept}/fields/${shirt}`, { text: 'S' });
    await house.client.put(`/api/supporters/${gone}/fields/${shirt}`, { text: 'M' });
    await house.client.put(`/api/supporters/${gone}/fields/${crossing}`, { text: 'Dawn' });
    await house.client.post(`/api/supporters/${gone}/gifts`, { amount: 2500, on: houseDay(-3) });
    await house.client.post(`/api/supporters/${gone}/notes`, { body: 'Met at the fair' });
    const point = (await record(gone)).contactPoints.find((one) => one.kind === 'email')!;
    await house.client.post(`/api/supporters/${gone}/permission`, {
      contactPointId: point.id,
      channel: 'email',
      scope: 'appeals',
      state: 'no',
      how: 'phone',
      on: houseDay(),
      words: 'No more appeals',
    });
  });

  test('are shown side by side, the one with a value before the one without', async () => {
    const preview = await house.client.get<MergePreview>(`/api/supporters/${kept}/merging?withId=${gone}`);
    const lines = Object.fromEntries(preview.lines.map((line) => [line.label, [line.kept, line.gone, line.usual]]));
    expect(lines).toMatchObject({
      'Shirt size': ['S', 'M', 'kept'],
      'Favourite crossing': ['', 'Dawn', 'gone'],
      Name: ['Nunzia Berg', 'Nunzia', 'kept'],
    });
    expect(preview.comesOver).toEqual(expect.arrayContaining(['2 addresses', '1 gift', '1 note']));
    expect((await house.client.call('GET', `/api/supporters/${kept}/merging?withId=${kept}`)).status).toBe(409);
  });

  test('become one with everything of both, are counted as one, and part again as they were', async () => {
    const before = await told([kept, gone]);
    const everybody = await countOf({ kind: 'all', rules: [] });
    const gaveAndBerg: Rule = {
      kind: 'all',
      rules: [
        { kind: 'gave', did: true, atLeast: 2500, window: { over: 'ever' } },
        { kind: 'field', field: 'lastName', op: 'is', value: 'Berg' },
      ],
    };
    expect(await countOf(gaveAndBerg)).toBe(0);
    const shirt = await field('Shirt size');
    await house.client.post(`/api/supporters/${kept}/merging`, { goneId: gone, keep: { [`field:${shirt}`]: 'gone' } });

    const one = await record(kept);
    expect(one.contactPoints.map((point) => point.shown).sort()).toEqual([
      '+1 206 555 0150',
      '+1 206 555 0151',
      'n.berg@example.org',
      'nunzia@example.net',
    ]);
    expect(one.fields.filter(({ shown }) => shown !== '').map(({ name, shown }) => `${name}: ${shown}`)).toEqual([
      'Shirt size: M',
      'Favourite crossing: Dawn',
    ]);
    expect([one.firstName, one.lastName, one.gifts.length, one.mergedFrom[0]!.name]).toEqual(['Nunzia', 'Berg', 1, 'Nunzia']);
    // Whoever still has the address of the other one is told which record stands in its place.
    const old = await house.client.call<{ instead: number; detail: string }>('GET', `/api/supporters/${gone}`);
    expect([old.status, old.body.instead, old.body.detail]).toEqual([404, kept, expect.stringContaining('into that of Nunzia Berg')]);
    expect(await countOf({ kind: 'all', rules: [] })).toBe(everybody - 1);
    expect(await countOf(gaveAndBerg)).toBe(1);
    expect((await timeline(kept)).map(({ title }) => title)).toEqual(expect.arrayContaining(['Note', 'Gave $25', 'Said no: email']));
    expect((await states()).differing).toBe(0);
    // The no is the address's: the other address of the same person may still be written to.
    expect(await house.client.get(`/api/supporters/${kept}/may-write?channel=email&purpose=news`)).toMatchObject({
      verdict: 'send',
      to: 'n.berg@example.org',
    });

    await house.client.call('DELETE', `/api/supporters/${kept}/merging/${one.mergedFrom[0]!.mergingId}`);
    expect(await told([kept, gone])).toEqual(before);
    expect((await states()).differing).toBe(0);
    expect(await countOf({ kind: 'all', rules: [] })).toBe(everybody);
    expect((await house.client.call('DELETE', `/api/supporters/${kept}/merging/${one.mergedFrom[0]!.mergingId}`)).status).toBe(409);
  });

  test('are brought together once, however often and by however many that is asked at the same time', async () => {
    const before = await told([kept, gone]);
    const shirt = await field('Shirt size');
    const ask = (into: number, from: number) =>
      house.client.call('POST', `/api/supporters/${into}/merging`, { goneId: from, keep: { [`field:${shirt}`]: 'gone' } });
    // Twice by an impatient hand, and once the other way round by somebody else.
    const answers = await Promise.all([ask(kept, gone), ask(kept, gone), ask(gone, kept)]);
    expect(answers.map(({ status }) => status).filter((status) => status < 300)).toHaveLength(1);
    expect(answers.filter(({ status }) => status >= 300).map(({ status }) => status)).toEqual([404, 404]);
    const [id, other] = (await house.client.call('GET', `/api/supporters/${kept}`)).status === 200 ? [kept, gone] : [gone, kept];
    const one = await record(id);
    expect(one.mergedFrom).toHaveLength(1);
    expect(one.fields.find(({ name }) => name === 'Shirt size')!.shown).toBe(id === kept ? 'M' : 'S');
    const part = () => house.client.call('DELETE', `/api/supporters/${id}/merging/${one.mergedFrom[0]!.mergingId}`);
    expect((await Promise.all([part(), part()])).map(({ status }) => status).sort()).toEqual([204, 409]);
    expect(await told([kept, gone])).toEqual(before);
    expect((await record(other)).mergedFrom).toEqual([]);
    expect((await states()).differing).toBe(0);
  });

  test('what was edited after bringing them together stays where it was edited', async () => {
    const [shirt, crossing] = [await field('Shirt size'), await field('Favourite crossing')];
    await house.client.post(`/api/supporters/${kept}/merging`, { goneId: gone, keep: {} });
    await house.client.put(`/api/supporters/${kept}/fields/${crossing}`, { text: 'Dusk' });
    await house.client.post(`/api/supporters/${kept}/gifts`, { amount: 700, on: houseDay() });
    const merged = (await timeline(kept, 'edit')).find((one) => one.title.startsWith('The record of'))!;
    expect((await undo(kept, merged.undo)).status).toBe(204);
    const shown = async (id: number, fieldId: number) => (await record(id)).fields.find((one) => one.id === fieldId)!.shown;
    expect([await shown(kept, crossing), await shown(gone, crossing), await shown(kept, shirt), await shown(gone, shirt)]).toEqual([
      'Dusk',
      'Dawn',
      'S',
      'M',
    ]);
    expect([(await record(kept)).gifts.length, (await record(gone)).gifts.length]).toEqual([1, 1]);
  });

  test('erasing the one that was kept erases what came from the other', async () => {
    await house.client.post(`/api/supporters/${kept}/merging`, { goneId: gone, keep: {} });
    await house.client.call('DELETE', `/api/supporters/${kept}`);
    const [people] = (await house.database
      .unscoped()
      .raw('SELECT GROUP_CONCAT(CONCAT(first_name, last_name)) AS names FROM supporter WHERE id IN (?, ?)', [kept, gone])) as [{ names: string }[]];
    const [kinds] = (await house.database.unscoped().raw('SELECT was FROM merging WHERE kept_id = ?', [kept])) as [{ was: object }[]];
    expect([people[0]!.names, kinds.map(({ was }) => was)]).toEqual([',', kinds.map(() => ({}))]);
  });

  test('no edit is lost on the one that goes at that moment', async () => {
    const rows = ['o.berg@example.org,Oona,Berg,', 'oona@example.net,Oona,,'];
    await bringIn(house.client, ['Email,First,Last,Mobile', ...rows].join('\n'), { columns: COLUMNS, permission: { email: NOTHING, text: NOTHING } });
    const [stays, goes] = [await idOf('o.berg@example.org'), await idOf('oona@example.net')];
    const crossing = await field('Favourite crossing');
    const edits = [
      () => house.client.call('PUT', `/api/supporters/${goes}/fields/${crossing}`, { text: 'Dusk' }),
      () => house.client.call('POST', `/api/supporters/${goes}/notes`, { body: 'Rang about the keys' }),
      () => house.client.call('POST', `/api/supporters/${goes}/gifts`, { amount: 900, on: houseDay() }),
    ];
    const [merged, ...done] = await Promise.all([
      house.client.call('POST', `/api/supporters/${stays}/merging`, { goneId: goes, keep: { [`field:${crossing}`]: 'gone' } }),
      ...edits.map((edit) => edit()),
    ]);
    expect(merged.status).toBe(204);
    // Each came before, and came over, or is told that nobody is there any more.
    const one = await record(stays);
    const notes = (await timeline(stays)).filter(({ title }) => title === 'Note').length;
    expect(done.map(({ status }) => (status < 300 ? 'over' : status))).toEqual([
      one.fields.find(({ name }) => name === 'Favourite crossing')!.shown === 'Dusk' ? 'over' : 404,
      notes === 1 ? 'over' : 404,
      one.gifts.length === 1 ? 'over' : 404,
    ]);
    const [left] = (await house.database
      .unscoped()
      .raw('SELECT COUNT(*) AS n FROM (SELECT id FROM gift WHERE supporter_id = ? UNION ALL SELECT id FROM note WHERE supporter_id = ?) l', [
        goes,
        goes,
      ])) as [{ n: number }[]];
    expect(left[0]!.n).toBe(0);
  });
});

describe('everything about one person', () => {
  const file = async (id: number, as: string) => (await house.client.call<unknown>('GET', `/api/supporters/${id}/everything?as=${as}`)).text;

  test('as JSON, with permission, notes and what passed', async () => {
    const id = await idOf('Marisol');
    const all = JSON.parse(await file(id, 'json')) as Record<string, unknown>;
    expect(all).toMatchObject({
      firstName: 'Marisol',
      greeting: 'Marisol and Jun',
      household: { members: [{}, {}] },
      permission: { organization: expect.any(String) },
    });
    expect(JSON.stringify(all.timeline)).toContain('Gave $40');
  });

  test('as CSV that Python reads, a row for each thing known', async () => {
    const rows = JSON.parse(
      execFileSync(
        'python3',
        ['-c', 'import csv,io,json,sys; print(json.dumps(list(csv.reader(io.StringIO(sys.stdin.buffer.read().decode("utf-8-sig"))))))'],
        {
          input: await file(await idOf('Marisol'), 'csv'),
        },
      ).toString(),
    ) as string[][];
    expect(rows[0]).toEqual(['What', 'Value', 'When', 'More']);
    expect(rows.every((row) => row.length === 4)).toBe(true);
    expect(rows).toContainEqual(['Name', 'Marisol Castellan', '', '']);
    expect(rows).toContainEqual(['Gift', '40.00', houseDay(), '']);
  });

  test('as a vCard with name, addresses and tags', async () => {
    const card = await file(await idOf('Marisol'), 'vcf');
    expect(card.split('\r\n')).toEqual(expect.arrayContaining(['BEGIN:VCARD', 'VERSION:4.0', 'N:Castellan;Marisol;;;', 'CATEGORIES:plank menders']));
  });
});

test('a chapter sees, joins and merges only its own people', async () => {
  const [one, other] = house.chapters;
  const away = await house.as('organizer', other);
  const id = await idOf('Marisol');
  expect((await record(id)).chapter.id).toBe(one);
  for (const [method, path, body] of [
    ['GET', 'timeline', undefined],
    ['GET', 'everything', undefined],
    ['POST', 'notes', { body: 'x' }],
    ['PUT', 'household', { withId: id + 1 }],
    ['POST', 'merging', { goneId: id + 1 }],
    ['POST', 'messages', { channel: 'email', purpose: 'news', subject: 'x', letter: null, text: '' }],
  ] as const)
    expect([path, (await away.call(method, `/api/supporters/${id}/${path}`, body)).status]).toEqual([path, 404]);
});
