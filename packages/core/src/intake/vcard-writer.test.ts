import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { CardReader, tableOfCards } from './vcard';
import { writeCard } from './vcard-writer';

const person = {
  id: 7,
  firstName: 'Zoé',
  lastName: 'Núñez; the elder',
  points: [
    { kind: 'email' as const, shown: 'zoe@example.org' },
    { kind: 'email' as const, shown: 'z@example.net' },
    { kind: 'mobile' as const, shown: '+1 206 555 0101' },
    {
      kind: 'post' as const,
      shown: '1 Slip Lane',
      parts: { street: '1 Slip Lane', city: 'Port Alder', postcode: '98101', country: 'US' },
    },
  ],
  tags: ['plank menders', 'boats, small'],
};

test('a card has its lines in the order of the standard, ended and folded as RFC 6350 §3.2 asks', () => {
  const card = writeCard({ ...person, tags: [...person.tags, 'x'.repeat(120)] });
  const lines = card.split('\r\n');
  // RFC 6350 §6.1 and §6.7.9: BEGIN first, VERSION right behind it.
  expect(lines.slice(0, 2)).toEqual(['BEGIN:VCARD', 'VERSION:4.0']);
  expect(lines.at(-2)).toBe('END:VCARD');
  expect(Math.max(...lines.map((line) => Buffer.byteLength(line)))).toBeLessThanOrEqual(75);
  expect(card).not.toMatch(/[^\r]\n/);
});

const word = fc
  .string({ unit: 'grapheme', minLength: 1, maxLength: 30 })
  .filter((text) => /^[\p{L}\p{N}][\p{L}\p{M}\p{N}\p{P}]*$/u.test(text) && text.trim() === text);

test('what is written is read back, whatever letters names have', () => {
  fc.assert(
    fc.property(word, word, (firstName, lastName) => {
      const bytes = Buffer.from(writeCard({ ...person, firstName, lastName }));
      const reader = new CardReader(bytes);
      const { header, rows } = tableOfCards([...reader.push(bytes), ...reader.end()]);
      const row = rows[0];
      const at = (name: string) => row![header.indexOf(name as never)];
      expect([at('First name'), at('Last name'), at('Email'), at('Email 2'), at('Postcode')]).toEqual([
        firstName,
        lastName,
        'zoe@example.org',
        'z@example.net',
        '98101',
      ]);
    }),
  );
});

/** A Python that has the package, of those that a machine may have side by side. */
const python = ['python3', '/usr/bin/python3'].find((one) => {
  try {
    execFileSync(one, ['-c', 'import vobject'], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
});

// An independent reader, where this machine has it (Debian: python3-vobject).
(python ? test : test.skip)('Python’s vobject reads the same person', () => {
  const script = `
import sys, json, vobject
card = vobject.readOne(sys.stdin.buffer.read().decode())
print(json.dumps([card.n.value.given, card.n.value.family, [e.value for e in card.contents['email']], card.adr.value.code, card.categories.value]))`;
  const said = execFileSync(python!, ['-c', script], { input: writeCard(person) }).toString();
  expect(JSON.parse(said)).toEqual([
    'Zoé',
    'Núñez; the elder',
    ['zoe@example.org', 'z@example.net'],
    '98101',
    person.tags,
  ]);
});
