import { spawnSync } from 'node:child_process';
import { createHash, createPrivateKey, generateKeyPairSync, sign } from 'node:crypto';
import { dkimVerify } from 'mailauth/lib/dkim/verify';
import { simpleParser } from 'mailparser';
import { dkimKeys } from '../testing/harness';
import { Sink } from '../testing/sink';
import { mailBody, signedWords } from '@goodword/core/mail';
import { dkimKey, dkimRecord } from './dkim';
import { SmtpOut, type HandOver, type OutgoingMail } from './mail-out';

const LEAVE = 'https://ferry.test/leave/abc';
const mail = (to = 'ines@example.org'): OutgoingMail => ({
  from: { name: 'Rosa Oduya, Lantern Ferry Trust', address: 'hello@lanternferry.test' },
  to,
  returnPath: 'b-token@lists.lanternferry.test',
  messageId: '<key@lists.lanternferry.test>',
  subject: 'Ińes, die Fähre — naïve',
  body: mailBody({ html: '<p>Grüße, Ines &amp; Jun</p>', text: 'Grüße, Ines & Jun' }),
  language: 'en',
  headers: {
    'List-Id': '"Ferry news" <list-4.lists.lanternferry.test>',
    'List-Unsubscribe': `<${LEAVE}>`,
    'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
  },
});

const rsa = dkimKey('lanternferry.test', 'gw', dkimKeys.privateKey);
const edwards = dkimKey(
  'lanternferry.test',
  'gw-ed',
  generateKeyPairSync('ed25519').privateKey.export({ type: 'pkcs8', format: 'pem' }).toString(),
);

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
    keys: [rsa, edwards],
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
  const toOld = new SmtpOut({ url: old.url, connections: 1, perSecond: 0, keys: [] });
  expect(await toOld.send(mail('zoë@example.org'))).toMatchObject({
    kind: 'refused',
    permanent: true,
    fault: 'message',
  });
  expect(await toOld.send(mail('zoe@bücher.example'))).toMatchObject({ kind: 'accepted' });
  await old.close();
  expect(old.mails.map(({ to }) => to)).toEqual([expect.stringMatching(/^zoe@/)]);
  toOld.close();
  const gone = new SmtpOut({ url: old.url, connections: 1, perSecond: 0, keys: [] });
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

  const resolver = async (name: string) => {
    const key = [rsa, edwards].find(({ selector }) => name === `${selector}._domainkey.lanternferry.test`);
    if (!key) throw new Error(`no record ${name}`);
    return [[dkimRecord(key)]];
  };
  const verify = async (message: string) =>
    (
      (await dkimVerify(Buffer.from(message), { resolver })) as unknown as {
        results: { algo: string; status: { result: string } }[];
      }
    ).results.map(({ algo, status }) => `${algo} ${status.result}`);

  // RFC 6376 and RFC 8463, by mailauth. RFC 8058 §4: the signature covers List-Unsubscribe and
  // List-Unsubscribe-Post.
  test('both signatures verify, and none does once something is changed or added', async () => {
    const raw = await sent();
    expect(await verify(raw)).toEqual(['rsa-sha256 pass', 'ed25519-sha256 pass']);
    const forged = [
      raw.replace(LEAVE, LEAVE.replace('abc', 'xyz')),
      raw.replace('Gr=C3=BC=C3=9Fe', 'Greetings'),
      // One more of a header that counts (RFC 6376 §8.15).
      ...['From: x@example.org', 'Subject: Sale', 'Reply-To: x@example.org', 'To: y@example.org'].map(
        (more) => raw.replace('From: ', `${more}\r\nFrom: `),
      ),
      ...['List-Unsubscribe: <https://x.test>', 'Content-Type: text/plain'].map((more) =>
        raw.replace('From: ', `${more}\r\nFrom: `),
      ),
    ];
    for (const mail of forged) expect(await verify(mail)).not.toContain('rsa-sha256 pass');
    // What servers on the way add or fold anew harms nothing.
    const onTheWay = `Received: from a.test by b.test; Fri, 11 Jul 2003 21:00:37 -0700\r\n${raw.replace('From: ', 'From:   ')}`;
    expect(await verify(onTheWay)).toEqual(['rsa-sha256 pass', 'ed25519-sha256 pass']);
  });

  // RFC 8463 A.2 and A.3: the keys and the signed message; Ed25519 has one signature for one text, so ours is
  // the same. (The key is test 1 of RFC 8032 §7.1.)
  test('the example of RFC 8463 comes out by what is ours: body hash, signed words, signature', () => {
    const headers = [
      'From: Joe SixPack <joe@football.example.com>\r\n',
      'To: Suzie Q <suzie@shopping.example.net>\r\n',
      'Subject: Is dinner ready?\r\n',
      'Date: Fri, 11 Jul 2003 21:00:37 -0700 (PDT)\r\n',
      'Message-ID: <20030712040037.46341.5F8J@football.example.com>\r\n',
    ];
    const body = 'Hi.\r\n\r\nWe lost the game.  Are you hungry yet?\r\n\r\nJoe.\r\n';
    const relaxed = body.replace(/ {2}/g, ' ');
    const bodyHash = '2jUSOH9NhtVGCQWNr9BrIAPreKQjO6Sn7XIkfJVOzv8=';
    expect(createHash('sha256').update(relaxed).digest('base64')).toBe(bodyHash);
    const head = `DKIM-Signature: v=1; a=ed25519-sha256; c=relaxed/relaxed;\r\n d=football.example.com; i=@football.example.com;\r\n q=dns/txt; s=brisbane; t=1528637909; h=from : to :\r\n subject : date : message-id : from : subject : date;\r\n bh=${bodyHash};\r\n b=`;
    const names = ['from', 'to', 'subject', 'date', 'message-id', 'from', 'subject', 'date'];
    const seed = Buffer.from('nWGxne/9WmC6hEr0kuwsxERJxWl7MmkZcDusAxyuf2A=', 'base64');
    const key = createPrivateKey({
      key: Buffer.concat([Buffer.from('302e020100300506032b657004220420', 'hex'), seed]),
      format: 'der',
      type: 'pkcs8',
    });
    expect(dkimRecord({ key })).toBe('v=DKIM1; k=ed25519; p=11qYAYKxCrfVS/7TyWQHOg7hcvPapiMlrwIaaPcHURo=');
    const hash = createHash('sha256')
      .update(signedWords(headers, names, head))
      .digest();
    expect(sign(null, hash, key).toString('base64')).toBe(
      '/gCrinpcQOoIfuHNQIbq4pgh9kyIK3AQUdt9OdqQehSwhEIug4D11BusFa3bT3FY5OsU7ZbnKELq+eXdp1Q1Dw==',
    );
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
    const away = new SmtpOut({ url: 'smtp://127.0.0.1:9', connections: 1, perSecond: 0, keys: [] });
    expect(await away.send(mail())).toMatchObject({ kind: 'unreachable' });
    away.close();
  });

  test('nor to one that went away between two mails', async () => {
    const brief = await new Sink().listen();
    const pool = new SmtpOut({ url: brief.url, connections: 1, perSecond: 0, keys: [] });
    expect(await pool.send(mail())).toMatchObject({ kind: 'accepted' });
    await brief.close();
    expect(await pool.send(mail())).toMatchObject({ kind: 'unreachable' });
    pool.close();
  });
});
