import { simpleParser } from 'mailparser';
import { createTransport } from 'nodemailer';
import { chance } from './chance';
import { Mailroom } from './mailroom';
import { freePort, listener, mailIn, untilTrue } from './testing';

let room: Mailroom;
let site: Awaited<ReturnType<typeof listener>>;
let home: Awaited<ReturnType<typeof mailIn>>;
let [smtp, http] = [0, 0];

beforeAll(async () => {
  [site, home, smtp, http] = [await listener(), await mailIn(), await freePort(), await freePort()];
  room = new Mailroom({ smtpPort: smtp, httpPort: http, bounceHost: '127.0.0.1', bouncePort: home.port });
  await untilTrue(
    'the room',
    () =>
      fetch(`http://127.0.0.1:${http}/api/mails`).then(
        () => true,
        () => false,
      ) as unknown,
    Boolean,
  );
});
afterAll(async () => {
  await room.close();
  await Promise.all([site.close(), home.close()]);
});

const api = <T>(path: string) =>
  fetch(`http://127.0.0.1:${http}${path}`).then((answer) => answer.json() as Promise<T>);
interface Shown {
  id: number;
  to: string;
  returnPath: string;
  subject: string;
  text: string;
}

/** A mail as the program would hand it over, with a tracked link, a picture and both ways out. */
async function post(to: string, subject = 'Winter hull appeal'): Promise<void> {
  const transport = createTransport({ host: '127.0.0.1', port: smtp, ignoreTLS: true });
  try {
    await transport.sendMail({
      envelope: { from: 'b-token@lists.lanternferry.test', to: [to] },
      from: 'hello@lanternferry.test',
      to,
      replyTo: 'answer-token@lists.lanternferry.test',
      subject,
      text: 'Two planks in, forty to go.',
      html: `<p><a href="${site.url}/f/follow">Put in a plank</a> <a href="${site.url}/leave/token">Leave</a></p><img src="${site.url}/o/open.gif" width="1" height="1" alt="">`,
      headers: {
        'List-Unsubscribe': `<${site.url}/leave/token>, <mailto:leave-token@lists.lanternferry.test?subject=unsubscribe>`,
        'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
      },
    });
  } finally {
    transport.close();
  }
}
const act = (id: number, what: string, words = '') =>
  fetch(`http://127.0.0.1:${http}/mail/${id}/${what}`, {
    method: 'POST',
    body: new URLSearchParams({ words }),
    redirect: 'manual',
  });
const mailOf = async (to: string) => (await api<Shown[]>(`/api/mails?to=${to}`)).at(-1)!;

test('mail is taken for anybody, and kept under whom it went to', async () => {
  await post('ANN@example.org');
  expect(await mailOf('ann@example.org')).toMatchObject({
    to: 'ann@example.org',
    returnPath: 'b-token@lists.lanternferry.test',
    subject: 'Winter hull appeal',
    text: expect.stringContaining('forty to go') as string,
  });
  const raw = await (
    await fetch(`http://127.0.0.1:${http}/api/mails/${(await mailOf('ann@example.org')).id}/raw`)
  ).text();
  expect((await simpleParser(raw)).subject).toBe('Winter hull appeal');
  expect(await (await fetch(`http://127.0.0.1:${http}/?box=ann@example.org`)).text()).toContain(
    'Winter hull appeal',
  );
});

test('addresses say what becomes of their mail: refused for good, put off once', async () => {
  await expect(post('refuse.me@example.org')).rejects.toMatchObject({ responseCode: 550 });
  await expect(post('defer.me@example.org')).rejects.toMatchObject({ responseCode: 451 });
  await post('defer.me@example.org');
  expect(await mailOf('defer.me@example.org')).toBeDefined();
});

// RFC 3461 to 3464: a report of three parts to the return path, from nobody, that names whom and why.
test('a bounce comes back to the return path as a delivery status notification', async () => {
  await post('bounce.later@example.org');
  const [report] = await untilTrue(
    'the report',
    () => home.mails.filter(({ raw }) => raw.includes('bounce.later')),
    (found) => found.length > 0,
  );
  expect([report!.from, report!.to]).toEqual(['', 'b-token@lists.lanternferry.test']);
  expect(report!.raw).toMatch(/^Content-Type: multipart\/report; report-type=delivery-status/im);
  expect(report!.raw).toMatch(
    /^Final-Recipient: rfc822; bounce\.later@example\.org\r\nAction: failed\r\nStatus: 5\.1\.1/m,
  );
  expect(report!.raw).toMatch(/^Subject: Winter hull appeal/m);
});

test('readers open by loading the picture, and follow a link no further than its redirect', async () => {
  site.heard.length = 0;
  await post('opens@example.org');
  await untilTrue(
    'the picture',
    () => site.heard.map(({ path }) => path),
    (paths) => paths.includes('/o/open.gif'),
  );
  site.heard.length = 0;
  await post('follows@example.org');
  const paths = await untilTrue(
    'both',
    () => site.heard.map(({ path }) => path).sort(),
    (found) => found.length >= 2,
  );
  // Never the way out: only a person leaves.
  expect(paths).toEqual(['/f/follow', '/o/open.gif']);
});

// RFC 8058 §3.2: a POST with exactly this body, and no cookie or other proof of who it is.
test('the one-click way out is posted as a mail program posts it', async () => {
  await post('one@example.org');
  site.heard.length = 0;
  await act((await mailOf('one@example.org')).id, 'one-click');
  expect(site.heard).toEqual([
    expect.objectContaining({ method: 'POST', path: '/leave/token', body: 'List-Unsubscribe=One-Click' }),
  ]);
  expect(site.heard[0]!.headers).toMatchObject({ 'content-type': 'application/x-www-form-urlencoded' });
  expect(site.heard[0]!.headers.cookie).toBeUndefined();
});

test('a reader answers to Reply-To, with the mail quoted below', async () => {
  await post('two@example.org');
  await act((await mailOf('two@example.org')).id, 'answer', 'I can bring paint.');
  const [answer] = await untilTrue(
    'the answer',
    () => home.mails.filter(({ from }) => from === 'two@example.org'),
    (found) => found.length > 0,
  );
  const read = await simpleParser(answer!.raw);
  expect([answer!.to, read.subject]).toEqual([
    'answer-token@lists.lanternferry.test',
    'Re: Winter hull appeal',
  ]);
  expect(read.text).toMatch(/^I can bring paint\.\n\n> Two planks in/);
  expect(read.inReplyTo).toMatch(/^<.+>$/);
});

test('leaving by mail goes to the address of the header, and a complaint to the lists’ domain', async () => {
  await post('three@example.org');
  const { id } = await mailOf('three@example.org');
  await act(id, 'leave');
  await act(id, 'complain');
  const mails = await untilTrue(
    'both',
    () => home.mails.filter(({ from }) => from === 'three@example.org'),
    (found) => found.length > 1,
  );
  const to = Object.fromEntries(mails.map((mail) => [mail.to, mail.raw]));
  expect(to['leave-token@lists.lanternferry.test']).toMatch(/^Subject: unsubscribe/m);
  // RFC 5965 §2: a report of three parts, the second saying what it is, the third the mail itself.
  expect(to['complaints@lists.lanternferry.test']).toMatch(
    /report-type=feedback-report[^]*Feedback-Type: abuse[^]*message\/rfc822[^]*Winter hull appeal/,
  );
});

test('what is not there is answered kindly', async () => {
  expect((await fetch(`http://127.0.0.1:${http}/mail/999999`)).status).toBe(404);
  expect((await act(999_999, 'answer', 'Hello?')).status).toBe(303);
});

test('domains take mail but for those whose names say that they do not, or that nobody answers', async () => {
  const answer = await fetch(`http://127.0.0.1:${http}/lookup/domains`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      domains: ['example.org', 'nowhere.example.org', 'old.invalid', 'silent.example.org', 7],
    }),
  });
  expect(await answer.json()).toEqual({
    'example.org': true,
    'nowhere.example.org': false,
    'old.invalid': false,
  });
});

test('chance is the same for the same seed, spread evenly, and another for another', () => {
  const draws = Array.from({ length: 4000 }, (_none, i) => chance('ferry', 'open', `p${i}@example.org`));
  expect(draws.map((_one, i) => chance('ferry', 'open', `p${i}@example.org`))).toEqual(draws);
  expect(draws.every((one) => one >= 0 && one < 1)).toBe(true);
  expect(draws.filter((one) => one < 0.3).length / draws.length).toBeCloseTo(0.3, 1);
  expect(chance('hull', 'open', 'p1@example.org')).not.toBe(draws[1]);
});
