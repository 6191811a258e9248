import { connect } from 'node:net';
import { createTransport } from 'nodemailer';
import { openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { MailInService } from './mail-in.service';
import { MAIL_LIMITS, mailFault, MailReader } from './mail-reader';

let house: TestHouse;
let domain: string;
beforeAll(async () => {
  house = await openTestHouse();
  house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
  domain = ((await house.database.unscoped()('organization').first('list_domain')) as { list_domain: string })
    .list_domain;
});
afterAll(() => house.close());

const transport = () =>
  createTransport({ host: '127.0.0.1', port: house.config.INBOUND_SMTP_PORT, ignoreTLS: true });
const mail = async (to: string | string[], raw: string) =>
  transport()
    .sendMail({ envelope: { from: 'ann@example.org', to: [to].flat() }, raw })
    .then(
      () => 250,
      (error: { responseCode?: number }) => error.responseCode ?? 0,
    );
const letter = (body: string, more = '') =>
  `From: Ann <ann@example.org>\r\nSubject: Hello\r\nMessage-ID: <a@example.org>\r\n${more}\r\n${body}\r\n`;

describe('what is taken in', () => {
  test('only for our own domains, and nothing but what is ours there', async () => {
    expect(await mail('complaints@example.org', letter('x'))).toBe(550);
    expect(await mail(`ann@${domain}`, letter('x'))).toBe(550);
    expect(await mail(`answer-abc@${domain}`, letter('x'))).toBe(550);
    expect(await mail(`complaints@${domain}`, letter('x'))).toBe(250);
  });

  test('somebody answers at postmaster (RFC 5321 4.5.1), and no machine gets an answer', async () => {
    const arrived = () => house.sink.mails.filter((one) => one.raw.includes('Subject: To postmaster: Hello'));
    expect(await mail(`Postmaster@${domain}`, letter('Your mails do not arrive here.'))).toBe(250);
    await eventually(
      'the mail to both owners',
      () => arrived().length,
      (n) => n === 2,
    );
    expect(arrived()[0]!.raw).toContain('ann@example.org');
    expect(await mail(`postmaster@${domain}`, letter('Away', 'Auto-Submitted: auto-replied\r\n'))).toBe(250);
    expect(await mail('postmaster@example.org', letter('x'))).toBe(550);
    expect(arrived()).toHaveLength(2);
  });

  test('so many bytes, header lines, parts and recipients, and no more', async () => {
    expect(await mail(`complaints@${domain}`, letter('x'.repeat(900).concat('\r\n').repeat(12_000)))).toBe(
      552,
    );
    expect(await mail(`complaints@${domain}`, letter('x', 'X-A: b\r\n'.repeat(2000)))).toBe(554);
    expect(await mail(`complaints@${domain}`, letter('x', `X-A: ${'b'.repeat(900)}\r\n`.repeat(100)))).toBe(
      554,
    );
    expect(
      await mail(
        `complaints@${domain}`,
        letter('--a\r\n\r\nx\r\n'.repeat(300), 'Content-Type: multipart/mixed; boundary=a\r\n'),
      ),
    ).toBe(554);
    const many = Array.from({ length: 40 }, (_v, i) =>
      i % 2 ? `complaints@${domain}` : `COMPLAINTS@${domain}`,
    );
    // Those beyond are refused one by one; the mail is taken for the others.
    expect(await mail(many, letter('x'))).toBe(250);
  });

  test('a mail far too large is heard to its end and kept no more', async () => {
    const before = process.memoryUsage().rss;
    const told = await new Promise<string>((done) => {
      const socket = connect(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
      let said = '';
      socket.on('data', (part) => (said += part.toString()));
      socket.on('close', () => done(said));
      const chunk = Buffer.from(`${'x'.repeat(998)}\r\n`.repeat(1000));
      socket.once('data', async () => {
        for (const line of [
          'HELO a',
          'MAIL FROM:<a@example.org>',
          `RCPT TO:<complaints@${domain}>`,
          'DATA',
        ]) {
          socket.write(`${line}\r\n`);
          await new Promise((go) => setTimeout(go, 60));
        }
        for (let i = 0; i < 60; i++)
          if (!socket.write(chunk)) await new Promise((go) => socket.once('drain', go));
        socket.write('\r\n.\r\nQUIT\r\n');
      });
    });
    expect(told).toContain('552 ');
    expect(process.memoryUsage().rss - before).toBeLessThan(60 * 1024 * 1024);
  });
});

describe('reading one', () => {
  const raw = (text: string) => Buffer.from(text);

  test('a mail is read whole', async () => {
    const reader = new MailReader();
    const read = await reader.read(raw(letter('See you on Saturday.', 'Auto-Submitted: no\r\n')));
    expect(read).toMatchObject({ subject: 'Hello', messageId: '<a@example.org>', from: 'ann@example.org' });
    expect([read.text.trim(), read.headers.get('auto-submitted')]).toEqual(['See you on Saturday.', 'no']);
    await reader.close();
  });

  test('one that takes too long is told, and the next one is read in a new thread', async () => {
    const reader = new MailReader(1);
    const slow = reader.read(raw(letter('x')));
    const next = reader.read(raw(letter('x')));
    await expect(slow).rejects.toThrow('could not be read');
    await expect(next).rejects.toThrow('could not be read');
    Object.assign(reader, { patience: 10_000 });
    expect((await reader.read(raw(letter('x')))).subject).toBe('Hello');
    await reader.close();
  });

  test('an answer that cannot be read is not taken: its sender tries again, for it may be a no', async () => {
    const reading = jest
      .spyOn(house.app.get(MailReader), 'read')
      .mockRejectedValue(new Error('The mail could not be read'));
    expect(await mail(`complaints@${domain}`, letter('STOP'))).toBe(451);
    reading.mockRestore();
    expect(await mail(`complaints@${domain}`, letter('STOP'))).toBe(250);
  });

  test.each([
    ['header lines by the hundred thousand', `${'A: b\r\n'.repeat(300_000)}\r\nx`],
    ['no end of the header', 'A: b\r\n'.repeat(12_000)],
    ['one header line', `A: ${'b'.repeat(1_900_000)}\r\n\r\nx`],
    ['parts in parts', `A: b\r\n\r\n${'--a\r\n'.repeat(100_000)}`],
    ['more bytes than allowed', `A: b\r\n\r\n${'x'.repeat(MAIL_LIMITS.bytes)}`],
  ])('%s are refused before anything reads them', (_what, text) =>
    expect(mailFault(raw(text))).not.toBeNull(),
  );
  test('an ordinary one with a picture and a quoted letter is not', () => {
    expect(
      mailFault(
        raw(letter(`--a\r\n\r\nx\r\n${'> quoted\r\n'.repeat(5000)}--a--\r\n${'iVBOR'.repeat(200_000)}`)),
      ),
    ).toBeNull();
  });
});
