import fc from 'fast-check';
import { readRefusal } from '.';
import { spoken } from '../words';

describe('one line of a do-not-contact list', () => {
  const rows: [string, object][] = [
    ['Ann.Lin@Example.org', { kind: 'email', normal: 'ann.lin@example.org' }],
    ['"ann@example.org"', { kind: 'email', normal: 'ann@example.org' }],
    ['Ann Lin <ann@example.org>', { kind: 'email', normal: 'ann@example.org' }],
    ['@Example.net', { kind: 'domain', normal: 'example.net' }],
    ['mail.example.co.uk', { kind: 'domain', normal: 'mail.example.co.uk' }],
    ['bücher.example', { kind: 'domain', normal: 'bücher.example' }],
    ['(206) 555-0144', { kind: 'mobile', normal: '+12065550144' }],
    ['+44 20 7946 0958', { kind: 'mobile', normal: '+442079460958' }],
    ['206-555-0144', { kind: 'mobile', normal: '+12065550144' }],
    ['+12065550100 - +12065550149', { kind: 'range', from: '+12065550100', to: '+12065550149' }],
    ['+12065550100-+12065550149', { kind: 'range', from: '+12065550100', to: '+12065550149' }],
    ['206 555 0100 – 206 555 0149', { kind: 'range', from: '+12065550100', to: '+12065550149' }],
    ['+12065550100..+12065550149', { kind: 'range', from: '+12065550100', to: '+12065550149' }],
  ];
  test.each(rows)('%s', (line, refusal) => {
    expect(spoken(readRefusal(line, 'US'))).toEqual({ ok: true, refusal });
  });

  const refused: [string, RegExp][] = [
    ['nobody', /expected an email address, a domain, a telephone number/],
    ['ann@', /expected|no ending|not an email/],
    ['@', /./],
    ['+12065550149 - +12065550100', /from a lower to a higher number/],
    ['+12065550100 - +442079460958', /same length/],
    ['+12065550100 - 12', /not a telephone number/],
    ['', /expected/],
  ];
  test.each(refused)('%j is refused with its reason', (line, reason) => {
    const read = spoken(readRefusal(line, 'US'));
    expect([read.ok, read.ok ? '' : read.reason]).toEqual([false, expect.stringMatching(reason)]);
  });

  test('never throws, and what it reads is in normal form', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.emailAddress(), fc.domain()), (line) => {
        const read = spoken(readRefusal(line, 'US'));
        if (!read.ok) return expect(read.reason).not.toBe('');
        if (read.refusal.kind === 'email' || read.refusal.kind === 'domain')
          expect(read.refusal.normal).toBe(read.refusal.normal.toLowerCase());
        else
          expect(read.refusal.kind === 'mobile' ? read.refusal.normal : read.refusal.from).toMatch(/^\+\d+$/);
      }),
    );
  });
});
