import type {
  MessageResults,
  Page,
  RecordView,
  ResultPerson,
  SupporterRow,
  ThreadsView,
  TimelineItem,
} from '@goodword/core/contract';
import { createTransport } from 'nodemailer';
import { MailInService } from './inbound/mail-in.service';
import { openTestHouse, pause, eventually, type TestHouse } from './testing/harness';
import {
  agreed,
  bringIn,
  draftEmail,
  draftText,
  lastLook,
  letterOf,
  messageAt,
  NOTHING,
  resultsOf,
  send,
} from './testing/steps';

let house: TestHouse;
let batchId: number;

const PEOPLE = [
  'Email,First,Last,Mobile',
  'ann@example.org,Ann,Reyes,206 555 0101',
  'bea@example.org,Bea,Okoro,206 555 0102',
  'cy@example.org,Cy,Lin,206 555 0103',
  'di@example.org,Di,Marsh,206 555 0104',
  'gone@example.org,Gone,Vale,',
  'ann@example.org,Jun,Reyes,',
  ',Text,Only,206 555 0105',
].join('\n');

beforeAll(async () => {
  house = await openTestHouse({ sink: { answer: (to) => (to.startsWith('gone') ? 550 : null) } });
  house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
  house.startWorker();
  batchId = (await bringIn(house.client, PEOPLE)).id;
});
afterAll(() => house.close());

const everyone = () => ({ from: [{ kind: 'batch' as const, id: batchId }] });
const find = async (search: string) =>
  (await house.client.get<Page<SupporterRow>>(`/api/supporters?search=${encodeURIComponent(search)}`))
    .rows[0]!;
const mailTo = (to: string) => [...house.sink.mails].reverse().find((mail) => mail.to === to)!;
const plain = (raw: string) => raw.replace(/=\r\n/g, '').replace(/=3D/g, '=');
const linkIn = (raw: string, path: string) =>
  new RegExp(`http://127\\.0\\.0\\.1:\\d+/${path}/[a-z2-7]+`)
    .exec(plain(raw))![0]
    .replace(/^http:\/\/[^/]+/, '');

describe('an email', () => {
  let messageId: number;
  let counts: MessageResults['counts'];

  test('goes once to everybody who may get it, and everybody else has a reason', async () => {
    messageId = await draftEmail(house.client, everyone());
    const look = await send(house.client, messageId);
    expect(look).toMatchObject({
      group: 7,
      reached: 5,
      suppressed: [
        { reason: 'no-address', people: 1 },
        { reason: 'shared-address', people: 1 },
      ],
    });
    await messageAt(house.client, messageId, 'done');
    ({ counts } = await resultsOf(house.client, messageId));
    expect(counts).toMatchObject({ sent: 4, delivered: 4, bounced: 1, suppressed: 2, unsure: 0 });
    expect(house.sink.mails.filter((mail) => mail.to === 'ann@example.org')).toHaveLength(1);
    expect(mailTo('bea@example.org').raw).toContain('Subject: Hello Bea');
  });

  test('a refused address goes on hold, and the next last look says so', async () => {
    const gone = await house.client.get<RecordView>(`/api/supporters/${(await find('gone@')).id}`);
    expect(gone.contactPoints[0]).toMatchObject({
      onHold: true,
      holdReason: expect.stringContaining('550') as string,
    });
    expect(
      (await lastLook(house.client, await draftEmail(house.client, everyone()))).suppressed,
    ).toContainEqual({ reason: 'on-hold', people: 1 });
  });

  test('opens and follows are counted once, and a tracked link leads only where the letter said', async () => {
    const { raw } = mailTo('bea@example.org');
    for (let i = 0; i < 2; i++) await house.client.call('GET', `${linkIn(raw, 'o')}.gif`);
    for (let i = 0; i < 2; i++)
      expect((await house.client.call('GET', linkIn(raw, 'f'))).headers.get('location')).toBe(
        'https://give.lanternferry.test/hull',
      );
    expect((await resultsOf(house.client, messageId)).counts).toMatchObject({ opened: 1, clicked: 1 });
    const forged = linkIn(raw, 'f').replace(/.$/, (last) => (last === 'a' ? 'b' : 'a'));
    expect((await house.client.call('GET', forged)).status).toBe(404);
  });

  // RFC 8058 §3.2: a POST with the one body acts; a GET must not.
  test('a GET of the way out only shows a button; the one-click POST leaves the purpose', async () => {
    const leave = linkIn(mailTo('bea@example.org').raw, 'leave');
    const page = await house.client.call<string>('GET', leave);
    expect(page.text).toContain('Leave appeals');
    expect((await find('bea@')).may.email).toBe('yes');
    for (let i = 0; i < 2; i++)
      expect(
        (await house.client.call('POST', leave, new URLSearchParams({ 'List-Unsubscribe': 'One-Click' })))
          .status,
      ).toBe(200);
    const bea = await house.client.get<RecordView>(`/api/supporters/${(await find('bea@')).id}`);
    expect(bea.entries.filter((entry) => entry.state === 'no')).toMatchObject([
      { scope: 'appeals', how: 'one-click', source: 'From “A letter”' },
    ]);
    expect(bea.consent).toContainEqual(
      expect.objectContaining({ channel: 'email', scope: 'news', state: 'yes' }),
    );
    expect((await resultsOf(house.client, messageId)).counts.left).toBe(1);
  });

  test('a mis-click has a way back on the same page', async () => {
    const leave = linkIn(mailTo('cy@example.org').raw, 'leave');
    await house.client.call('POST', leave, new URLSearchParams({ what: 'all' }));
    expect((await find('cy@')).may.email).toBe('no');
    await pause(5);
    const page = await house.client.call('POST', leave, new URLSearchParams({ what: 'back' }));
    expect(page.text).toContain('Leave appeals');
    const cy = await house.client.get<RecordView>(`/api/supporters/${(await find('cy@')).id}`);
    expect(cy.consent.find((one) => one.scope === 'appeals' && one.channel === 'email')!.state).toBe('yes');
  });

  test('a dead link is answered kindly', async () => {
    const answer = await house.client.call('GET', '/leave/example');
    expect([answer.status, answer.text.includes('leads nowhere')]).toEqual([404, true]);
  });

  test('a failure that comes back by mail (RFC 3464) puts the address on hold', async () => {
    const { from } = mailTo('di@example.org');
    const report = [
      'Content-Type: multipart/report; report-type=delivery-status; boundary=b',
      '',
      '--b',
      'Content-Type: text/plain',
      '',
      'No.',
      '--b',
      'Content-Type: message/delivery-status',
      '',
      'Reporting-MTA: dns; x.test',
      '',
      'Final-Recipient: rfc822; di@example.org',
      'Action: failed',
      'Status: 5.1.1',
      'Diagnostic-Code: smtp; 550 5.1.1',
      '  No such mailbox',
      '--b--',
      '',
    ].join('\r\n');
    const smtp = createTransport({
      host: '127.0.0.1',
      port: house.config.INBOUND_SMTP_PORT,
      ignoreTLS: true,
    });
    await smtp.sendMail({ envelope: { from: '', to: [from.toUpperCase()] }, raw: report });
    await expect(
      smtp.sendMail({ envelope: { from: '', to: ['b-forged@lists.lanternferry.test'] }, raw: report }),
    ).rejects.toThrow(/No such mailbox/);
    expect((await resultsOf(house.client, messageId)).counts.bounced).toBe(2);
    const di = await house.client.get<RecordView>(`/api/supporters/${(await find('di@')).id}`);
    expect(di.contactPoints[0]).toMatchObject({
      onHold: true,
      holdReason: '5.1.1 550 5.1.1 No such mailbox',
    });
    await house.client.post(`/api/supporters/${di.id}/contact-points/${di.contactPoints[0]!.id}/release`);
  });

  test('of a batch that was written to, whoever got the message would stay, and that is said before', async () => {
    const got = (await resultsOf(house.client, messageId)).counts.sent;
    expect(got).toBeGreaterThan(0);
    const { staying } = await house.client.get<{ staying: number }>(`/api/batches/${batchId}/take-out`);
    expect(staying).toBeGreaterThanOrEqual(got);
    expect(staying).toBeLessThan(7);
  });
});

describe('between the last look and the hand-over', () => {
  const prepared = (id: number) =>
    eventually(
      'the message to be on its way',
      () =>
        house.database.unscoped()('message').where({ id }).first('state') as unknown as Promise<{
          state: string;
        }>,
      (row) => row.state === 'sending',
    );

  /**
   * What was decided before this moment can't be called back; with the provider away it comes back by itself.
   */
  const nothingUnderWay = (id: number) =>
    eventually(
      'nothing to be under way',
      () =>
        house.database
          .unscoped()('delivery')
          .where('message_id', id)
          .whereIn('state', ['leased', 'in-flight'])
          .count('* as n') as unknown as Promise<{ n: number }[]>,
      ([row]) => Number(row?.n) === 0,
    );

  test('whoever leaves is held at the door', async () => {
    const id = await draftEmail(house.client, everyone(), { purpose: 'news', subject: 'News' });
    await house.client.post(`/api/messages/${id}/test`);
    const look = await lastLook(house.client, id);
    // With the mail server away, everything is decided and nothing has left.
    await house.sink.close();
    await house.client.post(`/api/messages/${id}/send`, { at: null, digest: look.digest });
    await prepared(id);
    const ann = await house.client.get<RecordView>(`/api/supporters/${(await find('ann@')).id}`);
    const point = ann.contactPoints.find((one) => one.kind === 'email')!.id;
    await house.client.post(`/api/supporters/${ann.id}/permission`, {
      contactPointId: point,
      channel: 'email',
      scope: 'all',
      state: 'no',
      how: 'phone',
      on: '2026-11-01',
      words: '',
    });
    await nothingUnderWay(id);
    await house.sink.listen();
    await messageAt(house.client, id, 'done');
    expect((await resultsOf(house.client, id)).counts).toMatchObject({
      sent: look.reached - 1,
      door: 1,
      unsure: 0,
    });
    const held = await house.client.get<Page<ResultPerson>>(`/api/messages/${id}/results/people?kind=door`);
    expect(held.rows).toMatchObject([{ supporterId: ann.id, detail: 'Opted out' }]);
    const timeline = await house.client.get<TimelineItem[]>(`/api/supporters/${ann.id}/timeline`);
    expect(timeline.find((item) => item.title.startsWith('Held back as it left'))).toMatchObject({
      detail: 'Opted out',
    });
  });

  test('a paused message waits, a resumed one goes on, a stopped one goes no further', async () => {
    await house.sink.close();
    const id = await draftEmail(house.client, everyone(), { purpose: 'news', subject: 'Stop me' });
    await house.database.unscoped()('message').where({ id }).update({ tested_at: new Date() });
    const { reached, digest } = await lastLook(house.client, id);
    await house.client.post(`/api/messages/${id}/send`, { at: null, digest });
    await prepared(id);
    await house.client.post(`/api/messages/${id}/pause`);
    await nothingUnderWay(id);
    await house.sink.listen();
    await pause(1500);
    expect((await resultsOf(house.client, id)).counts).toMatchObject({ sent: 0, waiting: reached });
    await house.sink.close();
    await house.client.post(`/api/messages/${id}/resume`);
    await house.client.post(`/api/messages/${id}/stop`);
    // What a hand-over had begun with before the stop ends in vain first.
    await nothingUnderWay(id);
    await house.sink.listen();
    await eventually(
      'nothing to wait',
      async () => (await resultsOf(house.client, id)).counts,
      (counts) => counts.waiting === 0,
    );
    expect((await resultsOf(house.client, id)).counts).toMatchObject({ sent: 0 });
    expect((await house.client.call('POST', `/api/messages/${id}/resume`)).status).toBe(409);
  });

  test('a lost mail server is waited for, and nothing is lost or doubled', async () => {
    await house.sink.close();
    const id = await draftEmail(house.client, everyone(), { purpose: 'news', subject: 'Patience' });
    await house.database.unscoped()('message').where({ id }).update({ tested_at: new Date() });
    const look = await lastLook(house.client, id);
    await house.client.post(`/api/messages/${id}/send`, { at: null, digest: look.digest });
    await pause(1500);
    expect((await resultsOf(house.client, id)).counts).toMatchObject({
      sent: 0,
      unsure: 0,
      waiting: look.reached,
    });
    await house.sink.listen();
    await messageAt(house.client, id, 'done', 20);
    expect((await resultsOf(house.client, id)).counts).toMatchObject({ sent: look.reached, unsure: 0 });
    expect(house.sink.mails.filter((mail) => mail.raw.includes('Subject: Patience'))).toHaveLength(
      look.reached,
    );
  });
});

describe('a text', () => {
  test('goes out, its answers are kept, STOP is obeyed at once and answered once', async () => {
    const id = await draftText(house.client, everyone());
    const look = await send(house.client, id);
    expect(look).toMatchObject({ reached: 5, parts: 5, suppressed: [{ reason: 'no-address', people: 2 }] });
    await messageAt(house.client, id, 'done');
    const toAnn = house.gateway.texts.find(
      (text) => text.to === '+12065550101' && text.text.includes('Hi Ann'),
    )!;
    // Who sends it and how to end texts, which the writer left out.
    expect(toAnn.text).toMatch(/^[^:]+: Hi Ann, boots on Saturday\. Reply STOP to end\.$/);
    for (let i = 0; i < 2; i++)
      expect(
        await house.client.hook({ type: 'receipt', id: 'r1', key: toAnn.key, status: 'delivered' }),
      ).toBe(204);
    const answer = (key: string, text: string, from = '+12065550101') =>
      house.client.hook({ type: 'inbound', id: key, from, to: '+12065550100', text });
    expect(await answer('in-1', 'Is there parking?')).toBe(204);
    expect(await answer('in-1', 'Is there parking?')).toBe(204);
    expect((await house.client.get<ThreadsView>('/api/replies')).threads.map(({ words }) => words)).toEqual([
      'Is there parking?',
    ]);
    const before = house.gateway.texts.length;
    await answer('in-2', 'Stop.');
    await answer('in-2', 'Stop.');
    await answer('in-3', 'STOP');
    expect(house.gateway.texts.slice(before)).toMatchObject([
      { to: '+12065550101', text: expect.stringContaining('no more texts') as string, key: 'answer-in-2' },
    ]);
    expect((await resultsOf(house.client, id)).counts).toMatchObject({ delivered: 1, replied: 1, left: 1 });
    expect((await find('ann@')).may.text).toBe('no');
    expect(
      (await lastLook(house.client, await draftText(house.client, everyone()))).suppressed,
    ).toContainEqual({ reason: 'said-no', people: 1 });
    await pause(5);
    await answer('in-4', 'start');
    expect((await find('ann@')).may.text).toBe('yes');
  });

  test('a stop from a number that nobody knows is kept for the day it is brought in', async () => {
    await house.client.hook({
      type: 'inbound',
      id: 'in-9',
      from: '+12065550177',
      to: '+12065550100',
      text: 'unsubscribe',
    });
    await bringIn(house.client, 'Email,First,Last,Mobile\nlate@example.org,Late,Lin,206 555 0177\n');
    expect((await find('late@')).may.text).toBe('no');
  });

  test('a hook with a wrong signature is refused', async () => {
    expect(
      await house.client.hook(
        { type: 'inbound', id: 'x', from: '+12065550101', to: '+12065550100', text: 'STOP' },
        'another secret, also long',
      ),
    ).toBe(403);
  });

  test('a gateway that is away is waited for', async () => {
    house.gateway.status = 503;
    const id = await draftText(house.client, everyone(), 'Second text');
    await house.database.unscoped()('message').where({ id }).update({ tested_at: new Date() });
    const look = await lastLook(house.client, id);
    await house.client.post(`/api/messages/${id}/send`, { at: null, digest: look.digest });
    await pause(1200);
    expect((await resultsOf(house.client, id)).counts.sent).toBe(0);
    house.gateway.status = null;
    await messageAt(house.client, id, 'done', 20);
    expect(house.gateway.texts.filter((text) => text.text.includes('Second text'))).toHaveLength(
      look.reached,
    );
  });
});

describe('what keeps a message from leaving', () => {
  const refusal = async (id: number, digest = '0'.repeat(64)) =>
    (await house.client.call<{ detail: string }>('POST', `/api/messages/${id}/send`, { at: null, digest }))
      .body.detail;

  test('an unknown merge field, no test, nobody who has looked, nobody to get it', async () => {
    const wrong = await draftEmail(house.client, everyone(), { subject: 'Hi {Frist name}' });
    expect(await refusal(wrong)).toContain('The nearest is {First name}');
    const untested = await draftEmail(house.client, everyone());
    expect(await refusal(untested)).toContain('Send yourself a test first');
    const nobody = await draftEmail(house.client, {});
    await house.client.post(`/api/messages/${nobody}/test`);
    expect(await refusal(nobody)).toContain('Take the last look first');
    expect(await refusal(nobody, (await lastLook(house.client, nobody)).digest)).toContain(
      'Take the last look first',
    );
  });

  test('a letter with something that cannot be mailed is refused in a sentence', async () => {
    const id = await draftEmail(house.client, {});
    const answer = await house.client.call<{ detail: string }>('PUT', `/api/messages/${id}`, {
      name: 'x',
      purpose: 'appeals',
      listId: null,
      subject: '',
      preheader: '',
      text: '',
      letter: letterOf('x', 'javascript:alert(1)'),
      basedOn: 1,
    });
    expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining('https://')]);
  });

  test('a message that is scheduled leaves at its time, not before', async () => {
    const id = await draftEmail(house.client, everyone(), { purpose: 'news', subject: 'At its time' });
    await house.client.post(`/api/messages/${id}/test`);
    const { reached, digest } = await lastLook(house.client, id);
    const at = Date.now() + 2500;
    await house.client.post(`/api/messages/${id}/send`, { at: new Date(at).toISOString(), digest });
    await pause(1000);
    expect((await resultsOf(house.client, id)).message.state).toBe('scheduled');
    await messageAt(house.client, id, 'done');
    expect(Date.now()).toBeGreaterThanOrEqual(at);
    expect((await resultsOf(house.client, id)).counts.sent).toBe(reached);
  });

  test('a schedule can be taken back, and a group in use cannot be deleted', async () => {
    const tag = await house.client.post<{ id: number }>('/api/tags', { name: 'needed' });
    await bringIn(house.client, 'Email,First,Last,Mobile\nsam@example.org,Sam,Lin,\n', {
      tagIds: [tag.id],
      permission: { email: agreed('appeals'), text: NOTHING },
    });
    const id = await draftEmail(house.client, { from: [{ kind: 'tag', id: tag.id }] });
    await house.client.post(`/api/messages/${id}/test`);
    const { digest } = await lastLook(house.client, id);
    await house.client.post(`/api/messages/${id}/send`, {
      at: new Date(Date.now() + 3_600_000).toISOString(),
      digest,
    });
    const blocked = await house.client.call<{ detail: string }>('DELETE', `/api/tags/${tag.id}`);
    expect([blocked.status, blocked.body.detail]).toEqual([
      409,
      expect.stringContaining('“A letter” still needs it'),
    ]);
    await house.client.post(`/api/messages/${id}/unschedule`);
    await house.client.put(`/api/messages/${id}/recipients`, {
      from: [],
      minus: [],
      without: [],
      basedOn: 1,
    });
    expect((await house.client.call('DELETE', `/api/tags/${tag.id}`)).status).toBe(204);
  });
});
