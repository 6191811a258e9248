import fc from 'fast-check';
import { reportedRecipients, returnedMail, type ReturnPathMail } from '.';

const mail = (changes: Partial<ReturnPathMail> & { headers?: Record<string, string> }): ReturnPathMail => ({
  report: null,
  subject: 'Returned mail',
  text: '',
  header: (name) => changes.headers?.[name] ?? '',
  envelopeFrom: '',
  ...changes,
});

// RFC 3464 appendix E.2, "a simple DSN" and E.3, "multi-recipient DSN" (from memory, names as there).
const SIMPLE = `Reporting-MTA: dns; cs.utk.edu

Original-Recipient: rfc822;louisl@larry.slip.umd.edu
Final-Recipient: rfc822;louisl@larry.slip.umd.edu
Action: failed
Status: 4.0.0
Diagnostic-Code: smtp; 426 connection timed out
Last-Attempt-Date: Thu, 7 Jul 1994 17:15:49 -0400
`;
const SEVERAL = `Reporting-MTA: dns; cs.utk.edu

Original-Recipient: rfc822;arathib@vnet.ibm.com
Final-Recipient: rfc822;arathib@vnet.ibm.com
Action: failed
Status: 5.0.0 (permanent failure)
Diagnostic-Code: smtp;
 550 'arathib@vnet.IBM.COM' is not a registered gateway user
Remote-MTA: dns; vnet.ibm.com

Original-Recipient: rfc822;johnh@hpnjld.njd.hp.com
Final-Recipient: rfc822;johnh@hpnjld.njd.hp.com
Action: delayed
Status: 4.0.0 (hpnjld.njd.jp.com: host name lookup failure)

Original-Recipient: rfc822;wsnell@sdcc13.ucsd.edu
Final-Recipient: rfc822;wsnell@sdcc13.ucsd.edu
Action: failed
Status: 5.0.0
Diagnostic-Code: smtp; 550 user unknown
Remote-MTA: dns; sdcc13.ucsd.edu
`;

test('the simple example of RFC 3464: what failed, and that it was given up', () => {
  expect(reportedRecipients(SIMPLE)).toEqual([
    {
      original: 'louisl@larry.slip.umd.edu',
      final: 'louisl@larry.slip.umd.edu',
      action: 'failed',
      status: '4.0.0',
      diagnostic: '426 connection timed out',
    },
  ]);
});

test.each([
  [
    'arathib@vnet.ibm.com',
    { status: '5.0.0', diagnostic: "550 'arathib@vnet.IBM.COM' is not a registered gateway user" },
  ],
  [
    'Arathib@VNET.ibm.com',
    { status: '5.0.0', diagnostic: "550 'arathib@vnet.IBM.COM' is not a registered gateway user" },
  ],
  ['johnh@hpnjld.njd.hp.com', null],
  ['wsnell@sdcc13.ucsd.edu', { status: '5.0.0', diagnostic: '550 user unknown' }],
  // Passed on under three names of which one is only late: it may have been read.
  ['somebody@example.org', null],
])('of several recipients, with comments in their fields: %s', (address, expected) =>
  expect(returnedMail(mail({ report: SEVERAL }), address)).toEqual(expected),
);

// RFC 6533 §3: an address of the type utf-8, its letters as they are or escaped.
test.each([
  'utf-8; zoë@example.org',
  'utf-8; zo\\x{EB}@example.org',
  'UTF-8;  zo\\x{00eb}@EXAMPLE.org (Zoë)',
])('an international address: %s', (field) => {
  const report = `Reporting-MTA: dns; a.example\r\n\r\nFinal-Recipient: ${field}\r\nAction: failed\r\nStatus: 5.1.1\r\n`;
  expect(reportedRecipients(report)[0]!.final).toBe('zoë@example.org');
  const other = `${report}\r\nFinal-Recipient: rfc822; b@example.org\r\nAction: delivered\r\nStatus: 2.0.0\r\n`;
  expect(returnedMail(mail({ report: other }), 'zoë@example.org')).toEqual({
    status: '5.1.1',
    diagnostic: '',
  });
});

// As older servers word them; sentences of our own in the manner of common ones.
test.each<[string, Parameters<typeof mail>[0], string | null]>([
  [
    'words alone',
    { subject: 'Undeliverable: Two planks', text: 'The following address failed:\n550 5.1.1 No such user\n' },
    '5.1.1',
  ],
  [
    'a reply without an enhanced code',
    { subject: 'failure notice', text: 'Hi.\n550 no mailbox here by that name.\n' },
    '',
  ],
  [
    'a header with who failed',
    { subject: 'Hello', headers: { 'x-failed-recipients': 'ann@example.org' }, text: 'unrouteable address' },
    '',
  ],
  ['a delay in words', { subject: 'Warning: message delivery delayed', text: '450 4.2.0 try again' }, null],
  [
    'a delay that names whom it is for',
    {
      subject: 'Warning: message delayed 4 hours',
      headers: { 'x-failed-recipients': 'ann@example.org' },
    },
    null,
  ],
  [
    'a vacation (RFC 3834)',
    { subject: 'Undelivered thoughts', headers: { 'auto-submitted': 'auto-replied' } },
    null,
  ],
  ['an answer of a person', { subject: 'Re: Undeliverable', envelopeFrom: 'ann@example.org' }, null],
  ['thanks', { subject: 'Thank you' }, null],
  ['a receipt (RFC 8098)', { subject: 'Read: Two planks', text: 'displayed' }, null],
  ['fields without a recipient', { report: 'Reporting-MTA: dns; a.test', subject: 'Hi' }, null],
])('%s', (_what, changes, status) =>
  expect(returnedMail(mail(changes), 'ann@example.org')?.status ?? null).toBe(status),
);

test('whatever stands in a report, it is read', () => {
  const field = fc.constantFrom(
    'Action: failed',
    'Action: (',
    'Status: 5.1.1',
    'Final-Recipient: rfc822; a@b.c',
    '',
  );
  const line = fc.oneof(field, fc.string({ maxLength: 40 }));
  fc.assert(
    fc.property(fc.array(line, { maxLength: 20 }), (lines) => {
      const read = returnedMail(mail({ report: lines.join('\n') }), 'a@b.c');
      if (read) expect(Object.keys(read)).toEqual(['status', 'diagnostic']);
    }),
  );
});
