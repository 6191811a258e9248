import { simpleParser } from 'mailparser';
import { answerMail, complaintMail, leavingMail } from './answers';
import { deliveryStatusMail } from './dsn';

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
  const mail = async () => ({
    to: 'ann@example.org',
    raw: Buffer.from(raw),
    parsed: await simpleParser(raw),
  });

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
    expect([letter.to, (await simpleParser(letter.raw)).subject]).toEqual([
      'leave-abc@lists.lanternferry.test',
      'unsubscribe',
    ]);
    expect(
      leavingMail({ ...(await mail()), parsed: await simpleParser('Subject: none\r\n\r\n') }),
    ).toBeNull();
  });

  test('a complaint is a feedback report with the mail in it (RFC 5965 §2)', async () => {
    const letter = complaintMail(await mail())!;
    const read = await simpleParser(letter.raw);
    expect(letter.to).toBe('complaints@lists.lanternferry.test');
    expect(letter.raw).toContain('Feedback-Type: abuse');
    expect(read.attachments.map((part) => part.contentType)).toEqual(
      expect.arrayContaining(['message/feedback-report']),
    );
    expect(letter.raw).toContain('List-Unsubscribe: <https://gw.test/leave/abc>');
  });
});

test('a report of what could not be delivered has the parts of RFC 3464, read by mailparser', async () => {
  const report = await simpleParser(
    deliveryStatusMail({
      to: 'x@example.org',
      returnPath: 'b@lists.test',
      raw: Buffer.from('Subject: Hi\r\n\r\nbody'),
    }),
    { keepDeliveryStatus: true },
  );
  const status = report.attachments
    .find((part) => part.contentType === 'message/delivery-status')!
    .content.toString();
  for (const field of [
    'Reporting-MTA: dns;',
    'Final-Recipient: rfc822; x@example.org',
    'Action: failed',
    'Status: 5.1.1',
  ])
    expect(status).toContain(field);
});
