import { createTransport } from 'nodemailer';
import type { RecordView, TeammateView } from '@goodword/core/contract';
import { openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, messageAt, resultsOf, send } from '../testing/steps';
import { mailTo, openFormAs, personBy, Visitor } from '../testing/supporter';
import { MailInService } from './mail-in.service';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
});
afterAll(() => house.close());

const pathOf = (to: string) => house.sink.mails.filter((mail) => mail.to === to).at(-1)!.from;

async function mailIn(to: string, raw: Buffer | string[], from = ''): Promise<void> {
  const smtp = createTransport({ host: '127.0.0.1', port: house.config.INBOUND_SMTP_PORT, ignoreTLS: true });
  await smtp.sendMail({
    envelope: { from, to: [to] },
    raw: Array.isArray(raw) ? raw.join('\r\n') : raw,
  });
}

const report = (to: string, fields: string[], kind = 'delivery-status') => [
  `Content-Type: multipart/report; report-type=${kind}; boundary=b`,
  ...['', '--b', 'Content-Type: text/plain', '', 'No.', '--b', `Content-Type: message/${kind}`, ''],
  ...['Reporting-MTA: dns; x.test', '', `Final-Recipient: ${to}`, ...fields, '--b--', ''],
];

/** Somebody to whom a message has gone; gives the message. */
async function sentTo(email: string): Promise<number> {
  const batch = await bringIn(house.client, `Email,First,Last,Mobile\n${email},Ann,Lee,\n`);
  const id = await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] });
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  return id;
}
const record = async (email: string) =>
  house.client.get<RecordView>(`/api/supporters/${(await personBy(house.client, email)).id}`);
const onHold = async (email: string) => (await personBy(house.client, email)).contactPoints[0]!.onHold;

test('words alone, as older servers send them, with letters of another charset than they say', async () => {
  const id = await sentTo('words@example.org');
  const words = Buffer.concat([
    Buffer.from(
      'From: Post <postmaster@old.test>\r\nSubject: Undeliverable: Two planks\r\nContent-Type: text/plain; charset=x-none\r\nContent-Transfer-Encoding: 8bit\r\n\r\n',
    ),
    Buffer.from([0xe9, 0xff, 0x20]),
    Buffer.from('words@example.org\r\n550 5.1.1 User unknown\r\n'),
  ]);
  await mailIn(pathOf('words@example.org'), words);
  expect((await resultsOf(house.client, id)).counts).toMatchObject({ bounced: 1 });
  expect(await onHold('words@example.org')).toBe(true);
});

test('a vacation to the return path is nothing that came back (RFC 3834)', async () => {
  const id = await sentTo('away@example.org');
  await mailIn(pathOf('away@example.org'), [
    ...[
      'From: away@example.org',
      'Subject: Undelivered thoughts',
      'Auto-Submitted: auto-replied',
      '',
      'Back on Monday',
    ],
  ]);
  expect((await resultsOf(house.client, id)).counts.bounced ?? 0).toBe(0);
});

test('an address with other letters comes back in the manner of RFC 6533', async () => {
  await sentTo('zoë@example.org');
  const fields = ['Action: failed (gone)', 'Status: 5.1.1 (no such mailbox)'];
  await mailIn(
    pathOf('zoë@example.org'),
    report('utf-8; zo\\x{EB}@example.org', fields, 'global-delivery-status'),
  );
  expect(await onHold('zoë@example.org')).toBe(true);
});

test('what was passed on to several and reached one of them did not come back', async () => {
  const id = await sentTo('group@example.org');
  const others = [
    'Action: failed',
    'Status: 5.1.1',
    '',
    'Final-Recipient: rfc822; b@x.test',
    'Action: relayed',
    'Status: 2.0.0',
  ];
  await mailIn(pathOf('group@example.org'), report('rfc822; a@x.test', others));
  expect((await resultsOf(house.client, id)).counts.bounced ?? 0).toBe(0);
  expect(await onHold('group@example.org')).toBe(false);
});

test('a request to confirm has a return path of its own: the address is held, and says why', async () => {
  const form = await openFormAs(house.client, 'Mistyped', (made) => ({
    ...made,
    confirm: { ...made.confirm, email: 'always' as const },
  }));
  const visitor = new Visitor(house.config.PUBLIC_URL);
  await visitor.post(`/join/${form.slug}`, { firstName: 'Mia', email: 'mistyped@example.org', agree_0: '1' });
  await mailTo(house, 'mistyped@example.org', '/confirm');
  const path = pathOf('mistyped@example.org');
  expect(path).toMatch(/^b-[a-z2-7]+@lists\.lanternferry\.test$/);
  await mailIn(path, report('rfc822; mistyped@example.org', ['Action: failed', 'Status: 5.1.1']));
  const [point] = (await record('mistyped@example.org')).contactPoints;
  expect(point).toMatchObject({ onHold: true, holdReason: expect.stringContaining('5.1.1') as unknown });
});

test('an invitation that came back says so where the team is', async () => {
  await house.client.post('/api/team', {
    name: 'Noor Haddad',
    email: 'noor@gone.test',
    role: 'viewer',
    chapterIds: null,
  });
  await mailTo(house, 'noor@gone.test', '/password');
  await mailIn(
    pathOf('noor@gone.test'),
    report('rfc822; noor@gone.test', ['Action: failed', 'Status: 5.1.1']),
  );
  const team = await house.client.get<TeammateView[]>('/api/team');
  expect(team.find(({ email }) => email === 'noor@gone.test')).toMatchObject({
    invitation: { state: 'failed', detail: '5.1.1' },
  });
});

test('a return path of nobody, and one that was changed, are refused', async () => {
  await sentTo('changed@example.org');
  const path = pathOf('changed@example.org');
  await expect(
    mailIn(
      path.replace(/.(?=@)/, (c) => (c === 'a' ? 'b' : 'a')),
      ['Subject: x', '', 'x'],
    ),
  ).rejects.toThrow('550');
});
