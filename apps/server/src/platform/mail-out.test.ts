import { spawnSync } from 'node:child_process';
import { createPublicKey } from 'node:crypto';
import { dkimVerify } from 'mailauth/lib/dkim/verify';
import { simpleParser } from 'mailparser';
import { dkimKeys } from '../testing/harness';
import { Sink } from '../testing/sink';
import { SmtpOut, type HandOver, type OutgoingMail } from './mail-out';

const LEAVE = 'https://ferry.test/leave/abc';
const mail = (to = 'ines@example.org'): OutgoingMail => ({
  from: '"Rosa Oduya, Lantern Ferry Trust" <hello@lanternferry.test>',
  to,
  returnPath: 'b-token@lists.lanternferry.test',
  messageId: '<key@lists.lanternferry.test>',
  subject: 'Ińes, die Fähre — naïve',
  html: '<p>Grüße, Ines &amp; Jun</p>',
  text: 'Grüße, Ines & Jun',
  headers: {
    'List-Id': '"Ferry news" <list-4.lists.lanternferry.test>',
    'List-Unsubscribe': `<${LEAVE}>`,
    'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
  },
});

let sink: Sink;
let out: SmtpOut;
beforeAll(async () => {
  sink = await new Sink({
    answer: (to) => (to.startsWith('refuse') ? 550 : to.startsWith('defer') ? 451 : null),
    cutAfterData: (to) => to.startsWith('cut'),
  }).listen();
  out = new SmtpOut({
    url: sink.url,
    connections: 2,
    perSecond: 0,
    dkim: { domain: 'lanternferry.test', selector: 'gw', privateKey: dkimKeys.privateKey },
  });
});
afterAll(async () => {
  out.close();
  await sink.close();
});

async function sent(): Promise<string> {
  expect(await out.send(mail())).toMatchObject({ kind: 'accepted' });
  return sink.mails.at(-1)!.raw;
}

// RFC 6531 §3.1: only to a server that offers SMTPUTF8; a domain alone has its ASCII form.
test('letters beyond ASCII before the @ go to a server that takes them, and to no other', async () => {
  expect(await out.send(mail('zoë@example.org'))).toMatchObject({ kind: 'accepted' });
  expect(sink.mails.at(-1)!.to).toBe('zoë@example.org');
  const old = await new Sink({ asciiOnly: true }).listen();
  const toOld = new SmtpOut({ url: old.url, connections: 1, perSecond: 0, dkim: null });
  expect(await toOld.send(mail('zoë@example.org'))).toMatchObject({
    kind: 'refused',
    permanent: true,
    fault: 'message',
  });
  expect(await toOld.send(mail('zoe@bücher.example'))).toMatchObject({ kind: 'accepted' });
  await old.close();
  expect(old.mails.map(({ to }) => to)).toEqual([expect.stringMatching(/^zoe@/)]);
  toOld.close();
  const gone = new SmtpOut({ url: old.url, connections: 1, perSecond: 0, dkim: null });
  expect(await gone.send(mail('zoë@example.org'))).toMatchObject({ kind: 'unreachable' });
  gone.close();
});

describe('the mail, read back by others', () => {
  test('by mailparser: multipart, both parts, names and headers', async () => {
    const parsed = await simpleParser(await sent());
    expect(parsed.subject).toBe('Ińes, die Fähre — naïve');
    expect(parsed.text?.trim()).toBe('Grüße, Ines & Jun');
    expect(parsed.html).toContain('Grüße, Ines &amp; Jun');
    expect(parsed.from?.value[0]).toEqual({
      name: 'Rosa Oduya, Lantern Ferry Trust',
      address: 'hello@lanternferry.test',
    });
    expect(sink.mails.at(-1)!.from).toBe('b-token@lists.lanternferry.test');
  });

  // RFC 2047 §2: an encoded word in what somebody typed is not one of ours, and would be decoded by whoever
  // reads.
  test.each(['Hi =?utf-8?Q?Ann?=, planks', `=?=${'é'.repeat(90)}=?utf-8?B?QQ==?=`, '=?'])(
    'a subject reads as it was typed: %s',
    async (subject) => {
      expect(await out.send({ ...mail(), subject })).toMatchObject({ kind: 'accepted' });
      expect((await simpleParser(sink.mails.at(-1)!.raw)).subject).toBe(subject);
    },
  );

  test("by Python's email package, where there is a Python", async () => {
    const script = `import sys, json
from email import policy, message_from_bytes
m = message_from_bytes(sys.stdin.buffer.read(), policy=policy.default)
print(json.dumps({'subject': m['subject'], 'type': m.get_content_type(), 'parts': [p.get_content_type() for p in m.iter_parts()], 'text': m.get_body(('plain',)).get_content().strip(), 'defects': len(m.defects), 'list': m['list-id']}))`;
    const python = spawnSync('python3', ['-c', script], { input: await sent(), encoding: 'utf8' });
    if (python.error) return expect((python.error as NodeJS.ErrnoException).code).toBe('ENOENT');
    expect(JSON.parse(python.stdout)).toEqual({
      subject: 'Ińes, die Fähre — naïve',
      type: 'multipart/alternative',
      parts: ['text/plain', 'text/html'],
      text: 'Grüße, Ines & Jun',
      defects: 0,
      list: '"Ferry news" <list-4.lists.lanternferry.test>',
    });
  });

  // RFC 2369 §2: an angle-bracketed address; RFC 2919 §2: phrase and identifier; RFC 8058 §3.1: exactly one
  // value.
  test('the list headers have the forms of their standards', async () => {
    const header = (raw: string, name: string) =>
      new RegExp(`^${name}:((?:.*(?:\\r\\n[ \\t])?)*)`, 'im')
        .exec(raw)![1]!
        .replace(/\r\n[ \t]/g, ' ')
        .trim();
    const raw = await sent();
    expect(header(raw, 'List-Unsubscribe')).toBe(`<${LEAVE}>`);
    expect(header(raw, 'List-Unsubscribe-Post')).toBe('List-Unsubscribe=One-Click');
    expect(header(raw, 'List-Id')).toBe('"Ferry news" <list-4.lists.lanternferry.test>');
  });

  // RFC 8058 §4: a valid DKIM signature that covers at least List-Unsubscribe and List-Unsubscribe-Post. RFC
  // 6376.
  test('the DKIM signature verifies by an independent verifier and covers the list headers', async () => {
    const raw = await sent();
    const der = createPublicKey(dkimKeys.publicKey)
      .export({ type: 'spki', format: 'der' })
      .toString('base64');
    const resolver = async (name: string) => {
      expect(name).toBe('gw._domainkey.lanternferry.test');
      return [[`v=DKIM1; k=rsa; p=${der}`]];
    };
    const verify = async (message: string) =>
      (await dkimVerify(Buffer.from(message), { resolver })) as {
        results: { status: { result: string }; signingHeaders?: { keys: string } }[];
      };
    const { results } = await verify(raw);
    expect(results.map((one) => one.status.result)).toEqual(['pass']);
    const covered = /[;\s]h=([^;]+);/.exec(raw.replace(/\r\n[ \t]+/g, ''))![1]!;
    for (const name of ['list-unsubscribe', 'list-unsubscribe-post', 'list-id', 'from', 'to', 'subject'])
      expect(covered.split(':')).toContain(name);
    const forged = await verify(raw.replace(LEAVE, LEAVE.replace('abc', 'xyz')));
    expect(forged.results[0]!.status.result).not.toBe('pass');
  });
});

describe('what became of a hand-over', () => {
  test.each<[string, Partial<HandOver>]>([
    ['fine@example.org', { kind: 'accepted' }],
    ['refuse@example.org', { kind: 'refused', permanent: true, fault: 'address' }],
    ['defer@example.org', { kind: 'refused', permanent: false, fault: 'unknown' }],
    ['cut@example.org', { kind: 'unsure' }],
  ])('%s', async (to, expected) => expect(await out.send(mail(to))).toMatchObject(expected));

  test('nothing was given away to a server that is not there', async () => {
    const away = new SmtpOut({ url: 'smtp://127.0.0.1:9', connections: 1, perSecond: 0, dkim: null });
    expect(await away.send(mail())).toMatchObject({ kind: 'unreachable' });
    away.close();
  });

  test('nor to one that went away between two mails', async () => {
    const brief = await new Sink().listen();
    const pool = new SmtpOut({ url: brief.url, connections: 1, perSecond: 0, dkim: null });
    expect(await pool.send(mail())).toMatchObject({ kind: 'accepted' });
    await brief.close();
    expect(await pool.send(mail())).toMatchObject({ kind: 'unreachable' });
    pool.close();
  });
});
