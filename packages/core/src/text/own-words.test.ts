import fc from 'fast-check';
import { ownWords, readIntent } from '.';

const LETTER = `Dear Ann,

the hull has to come out of the water before the ice does, and help us end the parking charge
at the landing. Would you give again today?

Warmly,
Rosa Oduya

Lantern Ferry Trust, 1 Slip Lane, Port Alder
You get this because you agreed to appeals. Unsubscribe: https://desk.lanternferry.test/leave/abc`;

const marked = LETTER.split('\n')
  .map((line) => `> ${line}`.trimEnd())
  .join('\n');
/** As a reader breaks it anew. */
const broken = LETTER.replace(/(.{30}\S*) /g, '$1\n');

/*
 * How the large mail readers quote, in the languages of supporters' pages. From memory of what they write; no
 * published source sets it down.
 */
const HEADS: [string, string][] = [
  [
    'web mail, English',
    'On Tue, Mar 3, 2026 at 10:02 AM Rosa Oduya, Lantern Ferry Trust <hello@lanternferry.test> wrote:',
  ],
  [
    'broken over lines',
    'On Tue, Mar 3, 2026 at 10:02 AM Rosa Oduya, Lantern Ferry Trust\n<hello@lanternferry.test> wrote:',
  ],
  ['telephone, English', 'On Mar 3, 2026, at 10:02, Rosa Oduya <hello@lanternferry.test> wrote:'],
  ['desk, German', 'Am 03.03.26 um 10:02 schrieb Rosa Oduya, Lantern Ferry Trust:'],
  ['web mail, German', 'Am Di., 3. März 2026 um 10:02 Uhr schrieb Rosa Oduya <hello@lanternferry.test>:'],
  ['web mail, French', 'Le mar. 3 mars 2026 à 10:02, Rosa Oduya <hello@lanternferry.test> a écrit :'],
  ['web mail, Spanish', 'El mar, 3 mar 2026 a las 10:02, Rosa Oduya (<hello@lanternferry.test>) escribió:'],
  [
    'office, English',
    '________________________________\nFrom: Rosa Oduya <hello@lanternferry.test>\nSent: Tuesday, March 3, 2026 10:02 AM\nTo: Ann Reyes\nSubject: The hull',
  ],
  [
    'office, German',
    'Von: Rosa Oduya <hello@lanternferry.test>\nGesendet: Dienstag, 3. März 2026 10:02\nAn: Ann Reyes\nBetreff: The hull',
  ],
  [
    'office, French',
    'De : Rosa Oduya <hello@lanternferry.test>\nEnvoyé : mardi 3 mars 2026 10:02\nÀ : Ann Reyes\nObjet : The hull',
  ],
  [
    'office, Spanish',
    'De: Rosa Oduya <hello@lanternferry.test>\nEnviado: martes, 3 de marzo de 2026 10:02\nPara: Ann Reyes\nAsunto: The hull',
  ],
  [
    'with a line',
    '-----Original Message-----\nFrom: Rosa Oduya <hello@lanternferry.test>\nSent: Tuesday, March 3, 2026\nTo: Ann Reyes\nSubject: The hull',
  ],
];

describe.each(HEADS)('quoted as in %s', (_name, head) => {
  test.each([
    ['marked', marked],
    ['unmarked', LETTER],
    ['broken anew', broken],
  ])('%s: words above, and words below, are theirs; ours are not', (_way, quoted) => {
    expect(ownWords(`See you on Saturday.\n\n${head}\n\n${quoted}\n`, LETTER)).toBe('See you on Saturday.');
    expect(ownWords(`${head}\n\n${quoted}\n\nSTOP. Please never write to me again.\n`, LETTER)).toBe(
      'STOP. Please never write to me again.',
    );
    expect(readIntent(ownWords(`Lovely.\n\n${head}\n\n${quoted}`, LETTER))).toBe('none');
  });
});

test('words between quoted lines are theirs', () => {
  const answer =
    'On 3 March 2026, Rosa wrote:\n> Would you give again today?\n\nNo. Unsubscribe me.\n\n> Warmly,\n> Rosa';
  expect(ownWords(answer, LETTER)).toBe('No. Unsubscribe me.');
});

test('a line of dashes is not the end, a signature is left out, and what a telephone adds', () => {
  expect(ownWords('Two things:\n-----\nstop the letters\n')).toBe('Two things:\nstop the letters');
  expect(ownWords('Fine by me.\n\n-- \nAnn Reyes\nStop & Go Deliveries\n')).toBe('Fine by me.');
  expect(ownWords('Stop\n\nSent from my phone')).toBe('Stop');
});

test('without our letter, what follows an attribution unmarked is quoted', () => {
  expect(ownWords(`Thanks.\n\nOn 3 March 2026, Rosa wrote:\n\n${LETTER}`)).toBe('Thanks.');
});

test('whatever of our own letter comes back, none of it is their word', () => {
  const lines = LETTER.split('\n').filter((line) => line.split(' ').length > 3);
  fc.assert(
    fc.property(fc.subarray(lines), fc.boolean(), (some, mark) => {
      const quoted = some.map((line) => (mark ? `> ${line}` : line)).join('\n');
      expect(ownWords(`On 3 March 2026, Rosa wrote:\n${quoted}`, LETTER)).toBe('');
    }),
  );
});
