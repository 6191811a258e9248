import { createTransport } from 'nodemailer';
import type { HouseRules } from '@goodword/core/permission';
import type { MessageResults, RecordView } from '@goodword/core/contract';
import { MailInService } from '../inbound/mail-in.service';
import { eventually, openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, messageAt, resultsOf, send } from '../testing/steps';
import { personBy } from '../testing/supporter';

/*
 * What a server says is taken for what it is about: an address is held for what is said of the address alone;
 * what is said of us pauses the sending and loses nobody.
 */
let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse({ env: { SMTP_CONNECTIONS: '2' } });
  house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
  house.startWorker();
});
afterAll(() => house.close());

let groups = 0;
/** A group of new people, by the names before the @. */
async function people(...names: string[]): Promise<{ from: { kind: 'batch'; id: number }[] }> {
  const domain = `g${++groups}.example.org`;
  const rows = names.map((name) => `${name}@${domain},${name},Li,`);
  return {
    from: [
      {
        kind: 'batch',
        id: (await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'))).id,
      },
    ],
  };
}
const address = (name: string) => `${name}@g${groups}.example.org`;
async function holdOf(email: string): Promise<{ onHold: boolean; holdReason: string | null }> {
  const { onHold, holdReason } = (await personBy(house.client, email)).contactPoints[0]!;
  return { onHold, holdReason };
}
const results = (id: number) => house.client.get<MessageResults>(`/api/messages/${id}/results`);

/** A mail that comes back (RFC 3464), for what was sent to somebody. */
async function comeBack(to: string, status: string, diagnostic: string, action = 'failed'): Promise<void> {
  const { from } = house.sink.mails.filter((mail) => mail.to === to).at(-1)!;
  const report = [
    'Content-Type: multipart/report; report-type=delivery-status; boundary=b',
    ...['', '--b', 'Content-Type: text/plain', '', 'No.', '--b', 'Content-Type: message/delivery-status', ''],
    ...['Reporting-MTA: dns; x.test', '', `Final-Recipient: rfc822; ${to}`, `Action: ${action}`],
    ...[`Status: ${status}`, `Diagnostic-Code: smtp; ${diagnostic}`, '--b--', ''],
  ].join('\r\n');
  const smtp = createTransport({ host: '127.0.0.1', port: house.config.INBOUND_SMTP_PORT, ignoreTLS: true });
  await smtp.sendMail({ envelope: { from: '', to: [from] }, raw: report });
}

test('what is refused is held for the address alone', async () => {
  const said: Record<string, [number, string]> = {
    gone: [550, '5.1.1 User unknown'],
    full: [552, '5.2.2 Mailbox full'],
    route: [554, '5.4.4 Unable to route'],
    odd: [554, 'Transaction failed'],
  };
  const group = await people('gone', 'full', 'route', 'odd', 'good');
  house.sink.options.answer = (to) => said[to.split('@')[0]!] ?? null;
  const id = await draftEmail(house.client, group, { subject: 'Refusals' });
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  house.sink.options.answer = undefined;
  expect((await resultsOf(house.client, id)).counts).toMatchObject({ sent: 1, bounced: 2, failed: 2 });
  const holds = await Promise.all(['gone', 'full', 'route', 'odd'].map((name) => holdOf(address(name))));
  expect(holds.map(({ onHold }) => onHold)).toEqual([true, false, false, false]);
});

test('a mailbox that is full three times within a month is held', async () => {
  const group = await people('brim');
  for (const time of [1, 2, 3]) {
    expect([time, (await holdOf(address('brim'))).onHold]).toEqual([time, false]);
    const id = await draftEmail(house.client, group, { subject: `Full ${time}` });
    await send(house.client, id);
    await messageAt(house.client, id, 'done');
    await comeBack(address('brim'), '5.2.2', '552 5.2.2 Over quota');
    await eventually(
      'the bounce',
      async () => (await resultsOf(house.client, id)).counts.bounced,
      (n) => n === 1,
    );
  }
  expect(await holdOf(address('brim'))).toEqual({
    onHold: true,
    holdReason: 'Its mailbox was full three times within 30 days',
  });
});

test('mails that come back for who sends them hold no address, and pause what is still leaving', async () => {
  const group = await people('p1', 'p2', 'p3', 'p4');
  const id = await draftEmail(house.client, group, { subject: 'Policy' });
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  await comeBack(address('p1'), '5.7.1', '550 5.7.1 Message content rejected as spam');
  await comeBack(address('p2'), '4.4.7', '421 4.4.7 Delivery time expired');
  await comeBack(address('p3'), '4.4.1', '421 4.4.1 No answer', 'delayed');
  const { counts } = await eventually(
    'them',
    () => resultsOf(house.client, id),
    (view) => view.counts.bounced === 2,
  );
  expect(counts.sent).toBe(4);
  for (const name of ['p1', 'p2', 'p3']) expect((await holdOf(address(name))).onHold).toBe(false);
});

test('a sending that is refused for who we are pauses itself, says why, and loses nobody when it goes on', async () => {
  const names = Array.from({ length: 12 }, (_none, i) => `w${i}`);
  const group = await people(...names);
  house.sink.options.answer = () => [550, '5.7.26 Unauthenticated mail is not accepted'];
  const id = await draftEmail(house.client, group, { subject: 'Unwelcome' });
  await house.client.post(`/api/messages/${id}/test`).catch(() => undefined);
  await house.database.unscoped()('message').where({ id }).update({ tested_at: new Date() });
  const look = await house.client.post<{ digest: string }>(`/api/messages/${id}/last-look`);
  await house.client.post(`/api/messages/${id}/send`, { at: null, digest: look.digest });
  await messageAt(house.client, id, 'paused');
  const { message, counts } = await results(id);
  expect(message.pausedWhy).toMatch(/servers refuse this mail .* 5\.7\.26/);
  expect([counts.failed, counts.bounced, counts.waiting]).toEqual([0, 0, 12]);
  house.sink.options.answer = undefined;
  await house.client.post(`/api/messages/${id}/resume`);
  await messageAt(house.client, id, 'done');
  expect((await results(id)).counts).toMatchObject({ sent: 12, failed: 0, bounced: 0 });
  const got = house.sink.mails.filter(({ raw }) => raw.includes('Subject: Unwelcome')).map(({ to }) => to);
  expect(new Set(got.filter((to) => names.some((name) => to === address(name)))).size).toBe(12);
  for (const name of names) expect((await holdOf(address(name))).onHold).toBe(false);
});

test('a sender who is not taken fails nobody: it goes on when it is', async () => {
  const group = await people('s1', 's2');
  const id = await draftEmail(house.client, group, { subject: 'Sender' });
  await house.client.post(`/api/messages/${id}/test`);
  house.sink.options.refuseSender = () => 550;
  const look = await house.client.post<{ digest: string }>(`/api/messages/${id}/last-look`);
  await house.client.post(`/api/messages/${id}/send`, { at: null, digest: look.digest });
  await messageAt(house.client, id, 'sending');
  await new Promise((done) => setTimeout(done, 1500));
  expect((await results(id)).counts).toMatchObject({ sent: 0, failed: 0, bounced: 0, waiting: 2 });
  house.sink.options.refuseSender = undefined;
  await messageAt(house.client, id, 'done');
  expect((await results(id)).counts.sent).toBe(2);
  const record = await house.client.get<RecordView>(
    `/api/supporters/${(await personBy(house.client, address('s1'))).id}`,
  );
  expect(record.contactPoints[0]!.onHold).toBe(false);
});

describe('the brake', () => {
  /** Of so many in a group, those whose address nobody is at. */
  const sending = async (names: string[], gone: (to: string) => boolean) => {
    const group = await people(...names);
    house.sink.options.answer = (to) => (gone(to) ? [550, '5.1.1 User unknown'] : null);
    const id = await draftEmail(house.client, group, { subject: `Brake ${groups}` });
    await house.client.post(`/api/messages/${id}/test`);
    const look = await house.client.post<{ digest: string }>(`/api/messages/${id}/last-look`);
    await house.client.post(`/api/messages/${id}/send`, { at: null, digest: look.digest });
    return id;
  };

  test('a list of which too many are nobody’s pauses itself, and goes on when somebody says so', async () => {
    const names = Array.from({ length: 600 }, (_none, i) => `b${i}`);
    // Nobody is at every tenth.
    const id = await sending(names, (to) => /^b\d*0@/.test(to));
    await messageAt(house.client, id, 'paused');
    const { message, counts } = await results(id);
    expect(message.pausedWhy).toMatch(/^Of \d+ addresses \d+ are nobody’s \(\d+(\.\d)? %\)/);
    expect(counts.waiting).toBeGreaterThan(0);
    // Somebody has looked, and the house says that this much is as it should be.
    const { rules, version } = await house.client.get<{ rules: HouseRules; version: number }>(
      '/api/house-rules',
    );
    await house.client.put('/api/house-rules', {
      rules: { ...rules, brake: { unknown: 30, complaints: 0.3 } },
      basedOn: version,
    });
    await house.client.post(`/api/messages/${id}/resume`);
    await messageAt(house.client, id, 'done');
    const after = await results(id);
    expect([after.counts.sent + after.counts.bounced, after.counts.failed]).toEqual([600, 0]);
    const got = house.sink.mails
      .filter(({ raw }) => raw.includes(`Subject: Brake ${groups}`))
      .map(({ to }) => to);
    expect(new Set(got).size).toBeGreaterThanOrEqual(540);
    house.sink.options.answer = undefined;
  }, 120_000);
});
