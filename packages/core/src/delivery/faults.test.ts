import fc from 'fast-check';
import { DELIVERY_FAULTS, deliveryFault, enhancedStatus, RETRY_MINUTES, retryAfter } from '.';

// The details of RFC 3463 §3 (and 5.1.10 of RFC 7505 §4.2, 5.7.8 of RFC 4954 §6), each as a mail comes back.
test.each([
  ['5.1.0', 'address'],
  ['5.1.1', 'address'],
  ['5.1.2', 'address'],
  ['5.1.3', 'address'],
  ['5.1.6', 'address'],
  ['5.1.7', 'provider'],
  ['5.1.8', 'provider'],
  ['5.1.10', 'address'],
  ['5.2.0', 'address'],
  ['5.2.1', 'address'],
  ['5.2.2', 'full'],
  ['5.2.3', 'message'],
  ['5.2.4', 'unknown'],
  ['5.3.0', 'unknown'],
  ['5.3.4', 'message'],
  ['5.4.1', 'unknown'],
  ['5.4.4', 'unknown'],
  ['5.5.0', 'unknown'],
  ['5.6.1', 'message'],
  ['5.7.1', 'policy'],
  ['5.7.8', 'provider'],
  ['5.7.26', 'policy'],
] as const)('%s is about %s', (text, fault) => expect(deliveryFault({ reply: null, text })).toBe(fault));

// As servers word them; the sentences are our own in the manner of common ones.
test.each([
  [550, '5.1.1 <ann@example.org>: Recipient address rejected: User unknown', 'RCPT TO', 'address'],
  [550, 'No such user here', 'RCPT TO', 'address'],
  [550, '5.7.1 Service unavailable; client host [192.0.2.1] blocked using a block list', 'RCPT TO', 'policy'],
  [550, 'Message rejected as spam', 'DATA', 'policy'],
  [550, '5.7.1 No such user', 'RCPT TO', 'address'],
  [552, 'Requested mail action aborted: exceeded storage allocation', 'RCPT TO', 'full'],
  [552, '5.3.4 Message size exceeds fixed maximum', 'DATA', 'message'],
  [452, '4.2.2 Mailbox full', 'RCPT TO', 'full'],
  [535, '5.7.8 Authentication credentials invalid', 'AUTH', 'provider'],
  [530, '5.7.0 Must issue a STARTTLS command first', 'MAIL FROM', 'provider'],
  [550, '5.1.8 Sender address has null MX', 'MAIL FROM', 'provider'],
  [554, '5.7.1 Rejected by policy', 'DATA', 'policy'],
  [554, 'Transaction failed', 'DATA', 'unknown'],
  [550, 'Not accepted', 'DATA', 'policy'],
  [554, '5.4.4 Unable to route: no mail hosts for domain', 'RCPT TO', 'unknown'],
] as const)('%i %s after %s', (reply, text, command, fault) =>
  expect(deliveryFault({ reply, text, command })).toBe(fault),
);

test('an enhanced code is read where it stands, and numbers that look like one are none', () => {
  expect(enhancedStatus('550 5.1.10 RESOLVER.ADR.RecipientNotFound')).toEqual({
    class: 5,
    subject: 1,
    detail: 10,
  });
  expect(enhancedStatus('554 Host 5.1.2.3 is listed')).toBeNull();
  expect(enhancedStatus('Version 15.1.1')).toBeNull();
  expect(enhancedStatus('')).toBeNull();
});

test('whatever a server says, it is one of these, and an answer to whom we are holds no address', () => {
  const reply = fc.option(fc.integer({ min: 400, max: 599 }), { nil: null });
  fc.assert(
    fc.property(reply, fc.string({ maxLength: 600 }), (code, text) => {
      expect(DELIVERY_FAULTS).toContain(deliveryFault({ reply: code, text }));
      expect(deliveryFault({ reply: code, text, command: 'MAIL FROM' })).toBe('provider');
    }),
  );
});

// RFC 5321 §4.5.4.1: at least half an hour between tries once the first, quicker ones are over, and days.
test('a refusal that may pass is tried for three days, ever more slowly, and then given up', () => {
  const hours = RETRY_MINUTES.reduce((sum, minutes) => sum + minutes, 0) / 60;
  expect(hours).toBeGreaterThanOrEqual(71);
  expect(hours).toBeLessThanOrEqual(96);
  expect([...RETRY_MINUTES].sort((a, b) => a - b)).toEqual(RETRY_MINUTES);
  expect(RETRY_MINUTES.slice(3).every((minutes) => minutes >= 30)).toBe(true);
  expect([retryAfter(0), retryAfter(RETRY_MINUTES.length)]).toEqual([1, null]);
});
