import { createHmac } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import { simpleParser } from 'mailparser';
import { createTransport } from 'nodemailer';
import { answerMail, complaintMail, leavingMail } from './answers';
import { chance } from './chance';
import { deliveryStatusMail } from './dsn';
import { Handsets } from './handsets';
import { Mailroom } from './mailroom';

const SECRET = 'a secret of the hook';
const wait = async (so: () => boolean) => {
  for (let i = 0; i < 100 && !so(); i++) await new Promise((done) => setTimeout(done, 50));
  expect(so()).toBe(true);
};

/** The other side: keeps what it is asked for and what is posted to it. */
let asked: { method: string; url: string; body: string; signature: string }[] = [];
let other: Server;
let otherUrl: string;
beforeAll(async () => {
  other = createServer((request, response) => {
    let body = '';
    request.on('data', (chunk) => (body += String(chunk)));
    request.on('end', () => {
      asked.push({ method: request.method!, url: request.url!, body, signature: String(request.headers['x-signature'] ?? '') });
      response.end();
    });
  });
  await new Promise<void>((done) => other.listen(0, '127.0.0.1', () => done()));
  otherUrl = `http://127.0.0.1:${(other.address() as { port: number }).port}`;
});
afterAll(() => new Promise((done) => other.close(done)));
beforeEach(() => void (asked = []));

const post = async (url: string, body: object) =>
  (await fetch(url, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })).json();

describe('what readers write back', () => {
  const raw = [
    'From: "Rosa" <hello@lanternferry.test>',
    'To: ann@example.org',
    'Reply-To: answer-abc@lists.lanternferry.test',
    'Message-ID: <one@lists.lanternferry.test>',
    'List-Unsubscribe: <https://gw.test/leave/abc>,',
    ' <mailto:leave-abc@lists.lanternferry.test?subject=unsubscribe>',
    'Subject: The hull',
    '',
    'Give here.',
    '',
  ].join('\r\n');
  const mail = async () => ({ to: 'ann@example.org', raw: Buffer.from(raw), parsed: await simpleParser(raw) });

  test('an answer goes to Reply-To, names what it answers and quotes it', async () => {
    const letter = answerMail(await mail(), 'Is there parking?')!;
    const read = await simpleParser(letter.raw);
    expect([letter.to, read.inReplyTo, read.subject]).toEqual([
      'answer-abc@lists.lanternferry.test',
      '<one@lists.lanternferry.test>',
      'Re: The hull',
    ]);
    expect(read.text).toContain('Is there parking?\n\n> Give here.');
  });

  test('leaving by mail goes to the address in the header (RFC 2369 §3.2)', async () => {
    const letter = leavingMail(await mail())!;
    expect([letter.to, (await simpleParser(letter.raw)).subject]).toEqual(['leave-abc@lists.lanternferry.test', 'unsubscribe']);
    expect(leavingMail({ ...(await mail()), parsed: await simpleParser('Subject: none\r\n\r\n') })).toBeNull();
  });

  test('a complaint is a feedback report with the mail in it (RFC 5965 §2)', async () => {
    const letter = complaintMail(await mail())!;
    const read = await simpleParser(letter.raw);
    expect(letter.to).toBe('complaints@lists.lanternferry.test');
    expect(letter.raw).toContain('Feedback-Type: abuse');
    expect(read.attachments.map((part) => part.contentType)).toEqual(expect.arrayContaining(['message/feedback-report']));
    expect(letter.raw).toContain('List-Unsubscribe: <https://gw.test/leave/abc>');
  });
});

describe('Mailroom', () => {
  let room: Mailroom;
  let back: Mailroom;
  beforeAll(() => {
    back = new Mailroom({ smtpPort: 4991, httpPort: 4992, bounceHost: '127.0.0.1', bouncePort: 9 });
    room = new Mailroom({ smtpPort: 4993, httpPort: 4994, bounceHost: '127.0.0.1', bouncePort: 4991 });
  });
  afterAll(() => Promise.all([room.close(), back.close()]));

  const smtp = createTransport({ host: '127.0.0.1', port: 4993, ignoreTLS: true });
  const mailTo = (to: string) =>
    smtp.sendMail({
      envelope: { from: 'b-token@lists.test', to: [to] },
      from: 'a@b.test',
      to,
      subject: 'Hello',
      html: `<a href="${otherUrl}/f/first">x</a> <a href="${otherUrl}/leave/x">out</a><img src="${otherUrl}/o/mark.gif">`,
      headers: { 'List-Unsubscribe': `<${otherUrl}/leave/token>` },
    });

  test('says whether a domain takes mail, and keeps silent about some', async () => {
    const answer = await post('http://127.0.0.1:4994/lookup/domains', { domains: ['example.org', 'nowhere.example.org', 'silent.example.org', 7] });
    expect(answer).toEqual({ 'example.org': true, 'nowhere.example.org': false });
  });

  test('keeps mail in mailboxes, and shows them on a page', async () => {
    await mailTo('ann@example.org');
    const rows = (await (await fetch('http://127.0.0.1:4994/api/mails?to=ann@example.org')).json()) as { subject: string }[];
    expect(rows).toMatchObject([{ subject: 'Hello' }]);
    expect(await (await fetch('http://127.0.0.1:4994/?box=ann@example.org')).text()).toContain('Hello');
  });

  test('refuses, defers once, opens and follows as the address says', async () => {
    await expect(mailTo('refuse.x@example.org')).rejects.toMatchObject({ responseCode: 550 });
    await expect(mailTo('defer.x@example.org')).rejects.toMatchObject({ responseCode: 451 });
    await mailTo('defer.x@example.org');
    await mailTo('follows.x@example.org');
    await wait(() => asked.some((one) => one.url === '/o/mark.gif') && asked.some((one) => one.url === '/f/first'));
    expect(asked.some((one) => one.url.startsWith('/leave'))).toBe(false);
  });

  test('bounces by a report to the return path', async () => {
    await mailTo('bounce.x@example.org');
    await wait(() => back.mails.some((mail) => mail.to === 'b-token@lists.test'));
  });

  // RFC 8058 §3.2: POST with the body List-Unsubscribe=One-Click.
  test('leaves by one click', async () => {
    await room.oneClick(room.mails[0]!);
    expect(asked).toMatchObject([{ method: 'POST', url: '/leave/token', body: 'List-Unsubscribe=One-Click' }]);
  });

  test('its report has the parts of RFC 3464, read by mailparser', async () => {
    const report = await simpleParser(
      deliveryStatusMail({ to: 'x@example.org', returnPath: 'b@lists.test', raw: Buffer.from('Subject: Hi\r\n\r\nbody') }),
      { keepDeliveryStatus: true },
    );
    const status = report.attachments.find((part) => part.contentType === 'message/delivery-status')!.content.toString();
    for (const field of ['Reporting-MTA: dns;', 'Final-Recipient: rfc822; x@example.org', 'Action: failed', 'Status: 5.1.1'])
      expect(status).toContain(field);
  });
});

describe('Handsets', () => {
  let handsets: Handsets;
  beforeAll(() => {
    handsets = new Handsets({
      port: 4995,
      key: 'key',
      hookUrl: otherUrl,
      hookSecret: SECRET,
      ourNumber: '+12065550100',
      receiptDelay: 10,
      repeatReceipts: true,
    });
  });
  afterAll(() => handsets.close());
  const send = (to: string, key: string) =>
    fetch('http://127.0.0.1:4995/v1/messages', {
      method: 'POST',
      headers: { authorization: 'Bearer key', 'idempotency-key': key, 'content-type': 'application/json' },
      body: JSON.stringify({ to, text: 'Hi' }),
    });
  const hooks = () => asked.map((one) => JSON.parse(one.body) as { type: string; key?: string; status?: string; text?: string });

  test('deliver a key once, and repeat receipts as networks do, signed', async () => {
    expect((await send('+12065550101', 'k1')).status).toBe(202);
    await send('+12065550101', 'k1');
    expect(handsets.texts.filter((text) => text.key === 'k1')).toHaveLength(1);
    await wait(() => hooks().filter((hook) => hook.key === 'k1' && hook.status === 'delivered').length === 2);
    expect(asked[0]!.signature).toBe(createHmac('sha256', SECRET).update(asked[0]!.body).digest('hex'));
  });

  test('fail what can not be reached, refuse what is no mobile, and want their key', async () => {
    await send('+12065550198', 'k2');
    await wait(() => hooks().some((hook) => hook.key === 'k2' && hook.status === 'failed'));
    expect((await send('+12065550197', 'k3')).status).toBe(422);
    expect((await fetch('http://127.0.0.1:4995/v1/messages', { method: 'POST' })).status).toBe(401);
  });

  test('say what line a number is', async () => {
    expect(await post('http://127.0.0.1:4995/lookup/lines', { numbers: ['+12065550121', '+12065550199', 7] })).toEqual({
      '+12065550121': 'mobile',
      '+12065550199': 'landline',
    });
  });

  test('answer', async () => {
    await handsets.answer('+12065550101', 'STOP');
    expect(hooks().at(-1)).toMatchObject({ type: 'inbound', text: 'STOP' });
    expect(await (await fetch('http://127.0.0.1:4995/')).text()).toContain('+12065550101');
  });
});

test('chance is the same for the same seed', () => {
  expect(chance('a', 'b')).toBe(chance('a', 'b'));
  expect(chance('a', 'b')).not.toBe(chance('b', 'b'));
});
