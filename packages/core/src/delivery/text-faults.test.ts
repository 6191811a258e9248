import fc from 'fast-check';
import { DELIVERY_FAULTS, textFault } from '.';

// Sentences of our own in the manner of gateways; MAP errors of 3GPP TS 29.002 (from memory).
test.each([
  ['', 'Number not in service', 'address'],
  ['', 'Unknown subscriber', 'address'],
  ['', 'Destination is a landline', 'address'],
  ['1', '', 'address'],
  ['11', 'Undelivered', 'address'],
  ['', 'Inbox full', 'full'],
  ['', 'Memory capacity exceeded', 'full'],
  ['', 'Filtered as spam by the carrier', 'policy'],
  ['', 'Number not registered for this campaign', 'policy'],
  ['13', '', 'policy'],
  // 27: absent subscriber; 34: system failure.
  ['27', 'Absent subscriber', 'unknown'],
  ['34', '', 'unknown'],
  ['', 'Validity period expired', 'unknown'],
  ['', 'Handset switched off', 'unknown'],
  ['', '', 'unknown'],
] as const)('%s “%s” is about %s', (code, reason, fault) => expect(textFault({ code, reason })).toBe(fault));

test('whatever a gateway says, it is one of these', () => {
  // What every object of the language answers to is no code of theirs.
  for (const code of ['valueOf', 'constructor', '__proto__'])
    expect(textFault({ code, reason: '' })).toBe('unknown');
  fc.assert(
    fc.property(fc.string({ maxLength: 20 }), fc.string({ maxLength: 200 }), (code, reason) => {
      expect(DELIVERY_FAULTS).toContain(textFault({ code, reason }));
    }),
  );
});
