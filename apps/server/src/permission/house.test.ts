import type { DncAdded, DncRow, RulesView, RulesWeighed } from '@goodword/core/contract';
import { PRESETS, withOption, type HouseRules, type PlaceRules } from '@goodword/core/permission';
import { openTestHouse, rulesOfTests, eventually, type TestHouse } from '../testing/harness';
import {
  bringIn,
  draftEmail,
  draftText,
  lastLook,
  messageAt,
  moveTo,
  NOTHING,
  resultsOf,
  send,
} from '../testing/steps';
import { mailTo, personBy } from '../testing/supporter';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const BASE = rulesOfTests();
const US = BASE.places.US!;
const having = (places: Record<string, PlaceRules>): HouseRules => ({
  ...BASE,
  places: { ...BASE.places, ...places },
});

const versionNow = async () => (await house.client.get<RulesView>('/api/house-rules')).version;

async function setRules(rules: HouseRules): Promise<RulesWeighed> {
  const { version } = await house.client.get<RulesView>('/api/house-rules');
  return house.client.put<RulesWeighed>('/api/house-rules', { rules, basedOn: version });
}

describe('changing the rules', () => {
  test('says first whom it opens and closes, and keeps the change with who and when', async () => {
    await bringIn(
      house.client,
      'Email,First,Last,Mobile\nr1@example.org,Ada,Lin,\nr2@example.org,Bert,Lin,\nr3@example.org,Cleo,Lin,+33612345678\n',
      {
        permission: { email: NOTHING, text: NOTHING },
      },
    );
    const gift = await personBy(house.client, 'r1@example.org');
    await house.client.post(`/api/supporters/${gift.id}/gifts`, {
      amount: 5000,
      on: new Date(Date.now() - 5 * 86_400_000).toISOString().slice(0, 10),
      note: '',
    });
    const unasked = having({ US: withOption(US, 'email-unasked', true) });
    const weighed = await house.client.post<RulesWeighed>('/api/house-rules/weigh', { rules: unasked });
    // Ada gave, so she may be written to already; Cleo is in France.
    expect(weighed.effects).toContainEqual({ channel: 'email', askedFor: 'appeals', opens: 1, closes: 0 });
    expect((await house.client.get<RulesView>('/api/house-rules')).rules).toEqual(BASE);

    const strict = having({ US: { ...US, lasts: { ...US.lasts, gift: null } } });
    expect(
      (await house.client.post<RulesWeighed>('/api/house-rules/weigh', { rules: strict })).effects,
    ).toContainEqual({
      channel: 'email',
      askedFor: 'appeals',
      opens: 0,
      closes: 1,
    });

    await setRules(unasked);
    const view = await house.client.get<RulesView>('/api/house-rules');
    expect(view.rules).toEqual(unasked);
    expect(view.history[0]).toMatchObject({
      by: 'The owner',
      words: expect.stringContaining('email for appeals needs nothing on record'),
      effects: weighed.effects,
    });
    expect(view.people).toEqual({ US: 2, EU: 1 });
    const message = await draftEmail(house.client, { from: [{ kind: 'segment', id: await everyone() }] });
    expect((await lastLook(house.client, message)).reached).toBe(2);
    await setRules(BASE);
    expect((await lastLook(house.client, message)).reached).toBe(1);
  });

  test('a change that loosens says so, and waits for a second owner where the house wants two', async () => {
    const before = (await house.client.get<RulesView>('/api/house-rules')).rules;
    await house.database
      .unscoped()('teammate')
      .whereNot('email', 'owner.all@lanternferry.test')
      .update({ role: 'organizer' });
    const alone = await house.client.call('PUT', '/api/house-rules', {
      rules: { ...before, secondPair: true },
      basedOn: await versionNow(),
    });
    expect([alone.status, alone.text]).toEqual([422, expect.stringContaining('only one owner')]);
    const second = await house.as('owner', null, 'second');
    await setRules({ ...before, secondPair: true });

    const round = {
      ...before,
      secondPair: true,
      places: {
        ...before.places,
        US: { ...before.places.US!, hours: { text: null, call: { from: 0, to: 1440 } } },
      },
    };
    const shut = {
      ...round,
      places: {
        ...round.places,
        US: { ...before.places.US!, hours: { text: null, call: { from: 540, to: 1080 } } },
      },
    };
    expect((await setRules(shut)).waits).toBe(false);
    const asked = await setRules(round);
    expect(asked).toMatchObject({ waits: true, loosens: ['United States: calls are made at more hours.'] });
    const view = await house.client.get<RulesView>('/api/house-rules');
    expect([view.rules, view.waiting]).toEqual([
      shut,
      expect.objectContaining({ mine: true, loosens: asked.loosens }),
    ]);
    expect((await house.client.call('POST', '/api/house-rules/waiting', { agrees: true })).status).toBe(409);

    await second.post('/api/house-rules/waiting', { agrees: true });
    const made = await house.client.get<RulesView>('/api/house-rules');
    expect([made.rules, made.waiting]).toEqual([round, null]);
    expect(made.history[0]!.words).toContain('Asked for by The owner.');
    expect((await second.call('POST', '/api/house-rules/waiting', { agrees: true })).status).toBe(404);

    const one = await setRules(before);
    expect(one.loosens).toEqual(['A change that opens anybody needs no second owner any more.']);
    await second.post('/api/house-rules/waiting', { agrees: false });
    expect((await house.client.get<RulesView>('/api/house-rules')).rules).toEqual(round);
    await setRules(before);
    await second.post('/api/house-rules/waiting', { agrees: true });
  });

  test('nobody overwrites another change, changes nothing, or takes the last rules away', async () => {
    const { version } = await house.client.get<RulesView>('/api/house-rules');
    const put = (rules: unknown, basedOn = version) =>
      house.client.call<{ detail: string }>('PUT', '/api/house-rules', { rules, basedOn });
    expect((await put(having({ US: { ...US, oldAfterMonths: 9 } }), version - 1)).status).toBe(409);
    expect((await put(BASE)).body.detail).toContain('Nothing differs');
    expect((await put({ home: 'US', places: { US } })).status).toBe(422);
    expect((await put({ home: 'US', places: { ...BASE.places, "US'); --": US } })).status).toBe(422);
    expect(
      (
        await put({
          ...BASE,
          places: {
            ...BASE.places,
            US: { ...US, needs: { ...US.needs, text: { ...US.needs.text, news: 'nothing' } } },
          },
        })
      ).status,
    ).toBe(422);
    expect(
      (await (await house.as('organizer')).call('PUT', '/api/house-rules', { rules: BASE, basedOn: version }))
        .status,
    ).toBe(403);
  });
});

async function everyone(): Promise<number> {
  const tree = { kind: 'field', field: 'lastName', op: 'is', value: 'Lin' };
  const { id } = await house.client.post<{ id: number }>('/api/segments', {
    name: `Everyone ${crypto.randomUUID()}`,
    tree,
  });
  return id;
}

describe('rules are obeyed', () => {
  test('a text that comes at an indecent hour waits for a decent one, and the message with it', async () => {
    // Hours of the home zone that do not hold now: from two hours after now, for an hour.
    const zone = Number(
      new Intl.DateTimeFormat('en-GB', {
        timeZone: 'America/Los_Angeles',
        hour: '2-digit',
        hourCycle: 'h23',
      }).format(Date.now()),
    );
    const from = ((zone + 2) % 23) * 60;
    await setRules(
      having({ '*': { ...BASE.places['*']!, hours: { call: null, text: { from, to: from + 60 } } } }),
    );
    const batch = await bringIn(house.client, 'Email,First,Last,Mobile\n,Nan,Rowe,+64211712345\n');
    const message = await draftText(house.client, { from: [{ kind: 'batch', id: batch.id }] });
    const nan = await house.client.get<{ rows: { id: number }[] }>('/api/supporters?search=Nan Rowe');
    await moveTo(house.client, nan.rows[0]!.id, 'NZ');
    await send(house.client, message);
    const waiting = await eventually(
      'the text to wait',
      () =>
        house.database
          .unscoped()('delivery')
          .where('message_id', message)
          .first('state', 'not_before', 'detail') as Promise<{
          state: string;
          not_before: Date | null;
          detail: string;
        }>,
      (row) => row?.not_before !== null && row?.not_before !== undefined,
    );
    expect([waiting.state, waiting.detail, waiting.not_before!.getTime() > Date.now()]).toEqual([
      'ready',
      'Waits for a decent hour where they are',
      true,
    ]);
    expect((await resultsOf(house.client, message)).night).toMatchObject({
      people: 1,
      until: waiting.not_before!.toISOString(),
    });
    expect(house.gateway.texts.filter((one) => one.to === '+64211712345')).toEqual([]);
    await setRules(BASE);
    await house.database.unscoped()('delivery').where('message_id', message).update({ not_before: null });
    await messageAt(house.client, message, 'done');
    expect(house.gateway.texts.filter((one) => one.to === '+64211712345')).toHaveLength(1);
  });

  test('an email waits for its hours as well, where the house has set some', async () => {
    const utc = new Date().getUTCHours();
    const from = ((utc + 2) % 23) * 60;
    const hours = { call: null, text: null, email: { from, to: from + 60 } };
    await setRules(having({ IS: { ...BASE.places['*']!, hours } }));
    const batch = await bringIn(
      house.client,
      'Email,First,Last,Mobile\nnight@example.org,Nia,Rowe,\nday@example.org,Dag,Rowe,\n',
    );
    // Iceland keeps UTC all year (IANA).
    const nia = await house.client.get<{ rows: { id: number }[] }>(
      '/api/supporters?search=night@example.org',
    );
    await moveTo(house.client, nia.rows[0]!.id, 'IS');
    const message = await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] });
    await send(house.client, message);
    await eventually(
      'one of two to wait',
      () => resultsOf(house.client, message),
      ({ counts, night }) => counts.sent === 1 && night?.people === 1,
    );
    await setRules(BASE);
    await house.database.unscoped()('delivery').where('message_id', message).update({ not_before: null });
    await messageAt(house.client, message, 'done');
    expect((await resultsOf(house.client, message)).counts.sent).toBe(2);
  });

  test('the cap holds back whoever has had enough, service messages to a group too, and not an answer to one of them', async () => {
    await setRules(having({ US: { ...US, caps: { ...US.caps, email: { messages: 1, days: 7 } } } }));
    const batch = await bringIn(house.client, 'Email,First,Last,Mobile\ncap@example.org,Kit,Rowe,\n');
    const group = { from: [{ kind: 'batch' as const, id: batch.id }] };
    const first = await draftEmail(house.client, group);
    await send(house.client, first);
    await messageAt(house.client, first, 'done');
    expect(await lastLook(house.client, await draftEmail(house.client, group))).toMatchObject({
      reached: 0,
      suppressed: [{ reason: 'had-enough', people: 1 }],
    });
    const service = await draftEmail(house.client, group, { purpose: 'service' });
    expect(await lastLook(house.client, service)).toMatchObject({
      reached: 0,
      suppressed: [{ reason: 'had-enough', people: 1 }],
    });
    const { rows } = await house.client.get<{ rows: { id: number }[] }>(
      '/api/supporters?search=cap@example.org',
    );
    const may = await house.client.get<{ verdict: string }>(
      `/api/supporters/${rows[0]!.id}/may-write?channel=email&purpose=service`,
    );
    expect(may.verdict).toBe('send');
    await setRules(BASE);
  });

  test('opens and links are tracked only where the rule lets them be', async () => {
    const batch = await bringIn(
      house.client,
      'Email,First,Last,Mobile\nhere@example.org,Hal,Rowe,\nparis@example.org,Pia,Rowe,+33612345679\n',
    );
    const message = await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] });
    await send(house.client, message);
    await messageAt(house.client, message, 'done');
    const body = (to: string) =>
      house.sink.mails
        .find((mail) => mail.to === to)!
        .raw.replace(/=\r?\n/g, '')
        .replace(/=3D/g, '=');
    await Promise.all(['here@example.org', 'paris@example.org'].map((to) => mailTo(house, to, '/leave')));
    expect([
      /\/o\/[a-z0-9]+\.gif/.test(body('here@example.org')),
      /\/f\/[a-z0-9]+/.test(body('here@example.org')),
    ]).toEqual([true, true]);
    expect([
      /\/o\/[a-z0-9]+\.gif/.test(body('paris@example.org')),
      /\/f\/[a-z0-9]+/.test(body('paris@example.org')),
    ]).toEqual([false, false]);
    expect(body('paris@example.org')).toContain('https://give.lanternferry.test/hull');
    expect((await resultsOf(house.client, message)).counts.sent).toBe(2);
  });

  test('how to end texts is said once in a span of days, where the rule says so', async () => {
    await setRules({ ...BASE, textEndDays: 90 });
    const batch = await bringIn(
      house.client,
      'Email,First,Last,Mobile\nspan@example.org,Span,Lin,206 555 0177\n',
    );
    for (const words of ['One', 'Two']) {
      const id = await draftText(house.client, { from: [{ kind: 'batch', id: batch.id }] }, words);
      await send(house.client, id);
      await messageAt(house.client, id, 'done');
    }
    const got = house.gateway.texts
      .filter(({ to }) => to === '+12065550177')
      .map(({ text }) => text.replace(/^[^:]+: /, ''));
    expect(got).toEqual(['One Reply STOP to end.', 'Two']);
    await setRules(BASE);
  });

  test('what lapses within 30 days stands on Today, and the segment that Today means finds the people', async () => {
    const lapsing = having({ US: { ...US, lasts: { ...US.lasts, gift: 1 } } });
    await setRules(lapsing);
    const count = await house.client.post<{ total: number }>('/api/segments/count', {
      tree: { kind: 'lapses', channel: 'email', scope: 'appeals', days: 30 },
    });
    expect(count.total).toBe(1);
    const may = await house.client.post<{ total: number }>('/api/segments/count', {
      tree: { kind: 'may', channel: 'email', scope: 'appeals', may: true },
    });
    expect(may.total).toBeGreaterThan(1);
    const tomas = await house.as('viewer');
    expect((await tomas.get<{ lapsing: { people: number } }>('/api/today')).lapsing.people).toBe(1);
    await setRules(BASE);
  });
});

describe('do-not-contact', () => {
  const add = (lines: string) =>
    house.client.post<DncAdded>('/api/do-not-contact', { lines, note: 'Asked by letter' });
  const list = async (search = '') =>
    (await house.client.get<{ rows: DncRow[] }>(`/api/do-not-contact?search=${encodeURIComponent(search)}`))
      .rows;

  test('takes addresses, domains, numbers and ranges, tells the lines that are none, and closes who is on file', async () => {
    const batch = await bringIn(
      house.client,
      'Email,First,Last,Mobile\nd1@closed.example.net,Una,Quay,\nd2@example.org,Vera,Quay,\n,Walt,Quay,2065550181\n,Xena,Quay,2065550190\nd3@open.example.net,Yves,Quay,\n',
    );
    const added = await add(
      '@closed.example.net\nD2@Example.org\n+12065550180 - +12065550185\n\nnot an address\n+1 206 555 0190',
    );
    expect(added).toEqual({
      added: 4,
      already: 0,
      refused: [
        {
          line: 5,
          text: 'not an address',
          reason:
            'expected an email address, a domain, a telephone number, or two numbers with a dash between',
        },
      ],
      closed: 4,
    });
    expect(await add('d2@example.org')).toMatchObject({ added: 0, already: 1 });
    const email = await lastLook(
      house.client,
      await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] }),
    );
    expect([email.reached, email.suppressed]).toEqual([
      1,
      [
        { reason: 'no-address', people: 2 },
        { reason: 'do-not-contact', people: 2 },
      ],
    ]);
    const text = await lastLook(
      house.client,
      await draftText(house.client, { from: [{ kind: 'batch', id: batch.id }] }),
    );
    expect([text.reached, text.suppressed.find((one) => one.reason === 'do-not-contact')?.people]).toEqual([
      0, 2,
    ]);
  });

  test('closes whoever comes in later, by file, by hand, by form', async () => {
    const batch = await bringIn(
      house.client,
      'Email,First,Last,Mobile\nlate@closed.example.net,Zed,Quay,\n,Abel,Quay,2065550184\nfine@example.org,Bela,Quay,\n',
    );
    const look = await lastLook(
      house.client,
      await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] }),
    );
    expect(look.suppressed.find((one) => one.reason === 'do-not-contact')?.people).toBe(1);
    const bela = await personBy(house.client, 'fine@example.org');
    await house.client.post(`/api/supporters/${bela.id}/contact-points`, {
      kind: 'mobile',
      text: '206 555 0183',
    });
    const rows = await house.database
      .unscoped()('contact_point')
      .where({ organization_id: house.scope.organizationId, do_not_contact: 1 })
      .pluck('normal');
    expect(rows.sort()).toEqual(
      expect.arrayContaining(['+12065550183', '+12065550184', 'late@closed.example.net']),
    );
  });

  test('taking an entry off opens what no other entry closes', async () => {
    await add('late@closed.example.net');
    const [domain] = await list('closed.example.net');
    const find = async (kind: string) => (await list('closed')).find((row) => row.kind === kind)!;
    expect(domain).toBeDefined();
    await house.client.call('DELETE', `/api/do-not-contact/${(await find('domain')).id}`);
    const marked = async (normal: string) =>
      (await house.database.unscoped()('contact_point').where('normal', normal).first('do_not_contact')) as {
        do_not_contact: number;
      };
    expect([await marked('d1@closed.example.net'), await marked('late@closed.example.net')]).toEqual([
      { do_not_contact: 0 },
      { do_not_contact: 1 },
    ]);
  });

  test('comes as a file too, with or without a header and more columns', async () => {
    const form = new FormData();
    form.append(
      'file',
      new Blob(['\uFEFFEmail;Why\r\nx1@example.org;moved\r\nx2@example.org;died\r\n']),
      'left.csv',
    );
    expect(await house.client.post('/api/do-not-contact/file', form)).toMatchObject({
      added: 2,
      refused: [],
    });
    expect((await list('left.csv')).map((row) => row.how)).toEqual(['file', 'file']);
  });
});

test('presets are what a new house starts with', () => {
  expect(Object.keys(BASE.places)).toEqual(['US', 'US-FL', 'US-OK', 'US-WA', 'US-MD', 'CA', 'GB', 'EU', '*']);
  expect(BASE.places.CA!.lasts).toEqual(PRESETS.canada.rules.lasts);
});
