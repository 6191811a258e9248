import Papa from 'papaparse';
import type { AddressHolder, PermissionReport, RecordView } from '@goodword/core/contract';
import { MailInService } from '../inbound/mail-in.service';
import { houseDay, openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { agreed, bringIn, draftEmail, letterOf, messageAt, moveTo, NOTHING, send } from '../testing/steps';
import { mailTo, openFormAs, personBy, Visitor } from '../testing/supporter';

/*
 * One person's file of permission: all that is kept of them, nothing of anybody else, also when they are
 * erased.
 */
let house: TestHouse;
let visitor: Visitor;
beforeAll(async () => {
  house = await openTestHouse();
  house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
  house.startWorker();
  visitor = new Visitor(house.config.PUBLIC_URL, { 'x-forwarded-for': '203.0.113.9' });
});
afterAll(() => house.close());

const fileOf = (id: number) => house.client.get<PermissionReport>(`/api/supporters/${id}/permission.json`);
const record = (id: number) => house.client.get<RecordView>(`/api/supporters/${id}`);
const texted = (from: string, text: string, at?: string) =>
  house.client.hook({
    type: 'inbound',
    id: `t-${Math.random()}`,
    from,
    to: '+12065550100',
    text,
    ...(at ? { at } : {}),
  });

async function someone(
  row: string,
  plan: Parameters<typeof bringIn>[2] = {},
): Promise<RecordView & { batchId: number }> {
  const batch = await bringIn(house.client, `Email,First,Last,Mobile\n${row}\n`, plan);
  return { ...(await personBy(house.client, row.split(',')[0] || row.split(',')[1]!)), batchId: batch.id };
}

async function mailed(batchId: number, purpose: string): Promise<void> {
  const letter = letterOf('The ferry leaves the landing at noon');
  const message = await draftEmail(
    house.client,
    { from: [{ kind: 'batch', id: batchId }] },
    { purpose, letter },
  );
  await send(house.client, message);
  await messageAt(house.client, message, 'done');
}

const object = (id: number) =>
  house.client.post(`/api/supporters/${id}/objection`, {
    how: 'phone',
    on: houseDay(),
    words: 'No more, please',
  });

describe('the file of one person', () => {
  test('an entry is shown with its words, who recorded it, the rule of the place as it was, and what was sent on its strength', async () => {
    const gus = await someone('gus@example.org,Gus,Moss,');
    await mailed(gus.batchId, 'appeals');
    // The house changes its mind later: what held then is what counts.
    const view = await house.client.get<{
      rules: { places: Record<string, { needs: { email: Record<string, string> } }> };
      version: number;
    }>('/api/house-rules');
    const stricter = structuredClone(view.rules);
    stricter.places.US!.needs.email.appeals = 'yes';
    await house.client.put('/api/house-rules', { rules: stricter, basedOn: view.version });
    const file = await fileOf(gus.id);
    await house.client.put('/api/house-rules', { rules: view.rules, basedOn: view.version + 1 });
    expect(file.entries.find((one) => one.scope === 'appeals' && one.channel === 'email')).toMatchObject({
      state: 'yes',
      how: 'paper',
      words: expect.stringContaining('Please write to me about the ferry.'),
      recordedBy: 'The owner',
      rule: expect.stringMatching(
        /^United States: email asks for at least an implied permission \(appeals\)$/,
      ),
      sentOnItsStrength: [{ message: 'A letter', channel: 'email', outcome: 'sent' }],
    });
    const page = (await house.client.call('GET', `/api/supporters/${gus.id}/permission.html`)).text;
    for (const words of [
      'What Gus Moss agreed to',
      'Please write to me about the ferry.',
      'by The owner',
      'Sent on its strength: A letter',
    ])
      expect(page).toContain(words);
    const pdf = await fetch(`${house.client.base}/api/supporters/${gus.id}/permission.pdf`, {
      headers: { cookie: house.client.cookies },
    });
    expect([pdf.status, (await pdf.text()).slice(0, 5)]).toEqual([200, '%PDF-']);
  });

  test('what was sent without an entry, and what was held back, are told with their reasons', async () => {
    const flo = await someone('flo@example.org,Flo,Reed,', { permission: { email: NOTHING, text: NOTHING } });
    await mailed(flo.batchId, 'service');
    await object(flo.id);
    const file = await fileOf(flo.id);
    const why = expect.stringMatching(
      /^A service message. Never asked, .*asks for nothing on record/,
    ) as string;
    expect(file.sent).toMatchObject([
      { message: 'A letter', address: 'flo@example.org', entryId: null, why },
    ]);
    expect(file.entries.map((one) => one.how)).toEqual(expect.arrayContaining(['objection']));

    const both = await bringIn(
      house.client,
      'Email,First,Last,Mobile\nfay@example.org,Fay,Reed,\nfox@example.org,Fox,Reed,\n',
    );
    const fay = await personBy(house.client, 'fay@example.org');
    await object(fay.id);
    await mailed(both.id, 'appeals');
    expect((await fileOf(fay.id)).notSent).toMatchObject([{ outcome: 'suppressed', why: 'Opted out' }]);
  });

  test('a form is shown as it looked then, with the page, the origin, the request to confirm and its words', async () => {
    const form = await openFormAs(house.client, 'Harbour day', (one) => ({
      ...one,
      confirm: { ...one.confirm, email: 'always' },
    }));
    await visitor.post(`/join/${form.slug}`, { firstName: 'Hal', email: 'hal@example.org', agree_0: '1' });
    const { link } = await mailTo(house, 'hal@example.org', '/confirm');
    await visitor.post(link, {});
    await house.client.put(`/api/forms/${form.id}`, {
      name: 'Harbour day',
      slug: form.slug,
      version: form.version,
      definition: { ...form.definition, title: 'Quite another title' },
    });
    const hal = await personBy(house.client, 'hal@example.org');
    const file = await fileOf(hal.id);
    const said = file.entries.filter((one) => one.form?.id === form.id);
    expect(said.map((one) => one.state).sort()).toEqual(expect.arrayContaining(['asked', 'yes']));
    expect(said.find((one) => one.state === 'asked')).toMatchObject({
      page: `${house.config.PUBLIC_URL}/join/${form.slug}`,
      origin: '203.0.113.9',
      form: { id: form.id, version: form.version },
    });
    expect(said.find((one) => one.state === 'yes')).toMatchObject({
      page: `${house.config.PUBLIC_URL}/confirm`,
      how: 'form',
    });
    expect(file.forms).toMatchObject([
      { id: form.id, version: form.version, definition: { title: form.definition.title } },
    ]);
    expect(file.confirmations).toMatchObject([
      { channel: 'email', address: 'hal@example.org', outcome: 'confirmed' },
    ]);
    expect(file.confirmations[0]!.words.length).toBeGreaterThan(20);
  });

  test('replies, questions, holds and their end, places and addresses of before are in it', async () => {
    const ivy = await someone('ivy@example.org,Ivy,Dale,2065550171');
    await texted('+12065550171', 'please stop texting me', '2026-11-20T10:00:00Z');
    const today = await house.client.get<{ stops: { taskId: number; supporterId: number }[] }>('/api/today');
    const task = today.stops.find((one) => one.supporterId === ivy.id)!;
    await house.client.post(`/api/tasks/${task.taskId}/settle`, { outcome: 'meant' });
    await moveTo(house.client, ivy.id, 'CA', 'QC');
    const file = await fileOf(ivy.id);
    expect(file.replies).toMatchObject([
      { channel: 'text', at: '2026-11-20T10:00:00.000Z', words: 'please stop texting me' },
    ]);
    expect(file.questions).toMatchObject([
      { words: 'please stop texting me', outcome: 'meant', settledBy: 'The owner' },
    ]);
    expect(file.holds).toMatchObject([
      {
        reason: expect.stringContaining('please stop texting me'),
        why: 'They meant stop, and that is recorded',
        releasedBy: 'The owner',
      },
    ]);
    expect(file.holds[0]!.releasedAt).not.toBeNull();
    expect(file.places).toMatchObject([{ place: 'United States', by: 'The owner' }]);
    const numberAt = file.consent
      .filter((one) => one.channel === 'text')
      .map((one) => [one.address, one.state]);
    expect(numberAt).toEqual(expect.arrayContaining([[expect.stringContaining('555'), 'no']]));
  });

  test('how they stand is told at each address on its own', async () => {
    const kim = await someone('kim@example.org,Kim,Low,');
    await house.client.post(`/api/supporters/${kim.id}/contact-points`, {
      kind: 'email',
      text: 'kim.low@example.org',
    });
    const stand = (await fileOf(kim.id)).consent
      .filter((one) => one.scope === 'appeals')
      .map((one) => [one.address, one.state]);
    expect(stand).toEqual([
      ['kim@example.org', 'yes'],
      ['kim.low@example.org', 'never'],
    ]);
  });

  test('nothing of somebody else who has the same address is in it, on no road', async () => {
    const two = await bringIn(
      house.client,
      'Email,First,Last,Mobile\npair@example.org,Mia,Stone,\npair@example.org,Noa,Stone,\n',
      {
        permission: { email: agreed('appeals'), text: NOTHING },
      },
    );
    expect(two.state).toBe('done');
    const { rows } = await house.client.get<{ rows: { id: number; firstName: string }[] }>(
      '/api/supporters?search=pair@example.org',
    );
    const [mia, noa] = ['Mia', 'Noa'].map((name) => rows.find((row) => row.firstName === name)!);
    await house.client.post(`/api/supporters/${mia!.id}/permission`, {
      contactPointId: (await record(mia!.id)).contactPoints[0]!.id,
      ...{ channel: 'email', scope: 'appeals', state: 'no', how: 'reply', on: houseDay() },
      words: 'My divorce lawyer says stop',
    });
    const file = await fileOf(noa!.id);
    const theirs = file.entries.filter((one) => one.byAnother);
    expect(theirs).toMatchObject([
      { state: 'no', scope: 'appeals', words: '', origin: null, recordedBy: null },
    ]);
    expect(file.consent.find((one) => one.scope === 'appeals')).toMatchObject({ state: 'no' });
    for (const form of ['permission.json', 'permission.html', 'everything?as=json', 'everything?as=csv']) {
      const answer = await house.client.call('GET', `/api/supporters/${noa!.id}/${form}`);
      expect([form, answer.status, /divorce|Mia/.exec(answer.text)?.[0]]).toEqual([form, 200, undefined]);
    }
  });

  test('whatever people are called is escaped', async () => {
    const hal = await someone('lox@example.org,Lox,Moss,');
    await house.client.call('PATCH', `/api/supporters/${hal.id}`, {
      firstName: '<img src=x onerror=alert(1)>',
      lastName: '',
    });
    expect((await house.client.call('GET', `/api/supporters/${hal.id}/permission.html`)).text).not.toContain(
      '<img',
    );
  });
});

describe('somebody erased', () => {
  test('is found by the address that is shown, and their file has dates, states and a hash, and no name', async () => {
    const ora = await someone('ora@example.org,Ora,Finch,2065550172');
    await mailed(ora.batchId, 'appeals');
    await visitor.post((await mailTo(house, 'ora@example.org', '/leave')).link, { what: 'all' });
    await house.client.call('DELETE', `/api/supporters/${ora.id}`);
    const find = (address: string) =>
      house.client.get<AddressHolder[]>(`/api/permission/files?address=${encodeURIComponent(address)}`);
    expect(await find('ORA@example.org')).toMatchObject([
      { id: ora.id, name: '', erasedAt: expect.any(String), current: false },
    ]);
    expect(await find('206 555 0172')).toMatchObject([{ id: ora.id }]);
    expect(await find('nobody@example.org')).toEqual([]);
    const file = await fileOf(ora.id);
    expect(file.supporter).toMatchObject({ name: 'Erased', erasedAt: expect.any(String) });
    expect(file.supporter.addresses.map((one) => one.shown)).toEqual(
      expect.arrayContaining([expect.stringMatching(/^hash [0-9a-f]{64}$/)]),
    );
    // Which of several erased addresses an entry was said at can still be told.
    const known = file.supporter.addresses.map((one) => `${one.shown.slice(0, 17)}…`);
    for (const { address } of file.entries) if (address !== null) expect(known).toContain(address);
    expect(file.entries.some(({ address }) => address !== null)).toBe(true);
    expect(file.consent.filter((one) => one.channel === 'email' && one.scope === 'appeals')).toMatchObject([
      { state: 'no' },
    ]);
    expect(file.sent).toMatchObject([{ outcome: 'sent', entryId: expect.any(Number) }]);
    expect(JSON.stringify(file).toLowerCase()).not.toMatch(/ora@|finch|0172/);
    const writer = await house.as('writer');
    expect((await writer.call('GET', '/api/permission/files?address=ora@example.org')).status).toBe(403);
  });

  test('an address that is neither of the two kinds is told', async () => {
    const answer = await house.client.call<{ detail: string }>(
      'GET',
      '/api/permission/files?address=quay+side',
    );
    expect(answer.status).toBe(422);
  });
});

test('the log of refusals says when each was received, read and acted on, and within how long', async () => {
  await someone('pia@example.org,Pia,Ray,2065550173');
  const sentAt = new Date(Date.now() - 90_000);
  await texted('+12065550173', 'STOP', sentAt.toISOString());
  await eventually(
    'the stop',
    async () => (await personBy(house.client, 'pia@example.org')).entries,
    (entries) => entries.some((one) => one.state === 'no'),
  );
  const csv = (await house.client.call('GET', '/api/permission/revocations.csv')).text;
  const rows = Papa.parse<Record<string, string>>(csv.replace('\ufeff', ''), {
    header: true,
    skipEmptyLines: true,
  }).data;
  const [pia] = rows.filter((row) => row.Address?.includes('555 0173'));
  expect(pia).toMatchObject({
    Channel: 'Text',
    'What it closed': 'everything',
    Words: 'STOP',
    Received: sentAt.toISOString(),
  });
  const [received, acted] = [Date.parse(pia!.Received!), Date.parse(pia!['Acted on']!)];
  expect(Number(pia!['Seconds from received to acted on'])).toBe(Math.round((acted - received) / 1000));
  expect(acted - received).toBeGreaterThanOrEqual(90_000);
  // A question that a person settled: held from the moment it came, acted on when it was settled.
  const held = rows.find((row) => row.Words === 'please stop texting me');
  expect(held?.['On hold from']).not.toBe('');
});
