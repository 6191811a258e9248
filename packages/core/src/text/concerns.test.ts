import fc from 'fast-check';
import { concernsIn } from './concerns';
import { readIntent } from './reading';

const kindsOf = (words: string) => concernsIn(words).map(({ kind }) => kind);

/** What people write, by what it is about: common practice of whoever reads answers; no source. */
const SAID: [string, string[]][] = [
  ['Fewer emails please', ['leaving']],
  ['Get me off this', ['leaving']],
  ['I get too many emails from you', ['leaving']],
  ["I don't want to receive these any more", ['leaving']],
  ['Zu viele Nachrichten', ['leaving']],
  ['Demasiados correos', ['leaving']],
  ['Je ne souhaite plus vos messages', ['leaving']],
  ['We have moved! Our new address is 12 Quay Lane', ['address']],
  ['My email has changed, write to me at ana@new-place.test', ['address']],
  ['Wir sind umgezogen', ['address']],
  ['Tengo nuevo correo: ana@nuevo.test', ['address']],
  ['Nous avons déménagé en mars', ['address']],
  ['I just gave $50 at the door.', ['gift']],
  ['We mailed a check on Monday', ['gift']],
  ['Ich habe 100 Euro überwiesen', ['gift']],
  ['J’ai fait un don de 30 €', ['gift']],
  ['This is outrageous. How did you get my number?', ['complaint']],
  ['Woher haben Sie meine Adresse?', ['complaint']],
  ['¿De dónde han sacado mi número? Es inaceptable.', ['complaint']],
  ['I gave $20. Also, we moved.', ['gift', 'address']],
  ['Is there parking?', []],
  ['Lovely evening, thank you all', []],
  ['Please don’t stop writing, I love these', []],
  ['No complaints at all, great crew', []],
  ['Wir kommen zu viert, ohne Beschwerden', []],
  ['', []],
];

test.each(SAID)('%s', (words, kinds) => {
  expect(kindsOf(words)).toEqual(kinds);
});

test('what plainly asks to stop is asked about by itself, and not pointed out a second time', () => {
  for (const words of [
    'Please take me off your list.',
    'I get too many emails. Stop sending them',
    'Bitte streichen Sie mich, ich möchte keine Mails mehr.',
    'No quiero recibir más correos',
    'STOP',
  ]) {
    expect([words, ['hold', 'stop'].includes(readIntent(words))]).toEqual([words, true]);
    expect(kindsOf(words)).toEqual([]);
  }
});

test('what is named is told: the new address, also from the line below, and the amount as written', () => {
  expect(concernsIn('My email has changed.\nana.b+ferry@new-place.test')[0]).toMatchObject({
    named: 'ana.b+ferry@new-place.test',
  });
  expect(concernsIn('We gave $1,250.50 yesterday')[0]!.named).toBe('$1,250.50');
  expect(concernsIn('Ich habe 25 Euro gespendet')[0]!.named).toBe('25 Euro');
  expect(concernsIn('We mailed a check')[0]!.named).toBeNull();
});

test('the sentence that says it is where it is said to be', () => {
  const words = 'Hello!  \nThe boat is fine.\n  I get too many emails. Bye';
  const [one] = concernsIn(words);
  expect(words.slice(one!.from, one!.to)).toBe('I get too many emails.');
});

test('of any words: in order, each kind once, within the words, and never without a sentence', () => {
  const word = fc.constantFrom(
    'get me off',
    'too many texts',
    'we moved',
    'I gave',
    '$5',
    'complaint',
    'a@b.test',
    '.',
    '\n',
    '🙂 ',
  );
  const any = fc.oneof(
    fc.string({ unit: 'binary' }),
    fc.array(word).map((all) => all.join(' ')),
  );
  fc.assert(
    fc.property(any, (words) => {
      const found = concernsIn(words);
      expect(new Set(found.map(({ kind }) => kind)).size).toBe(found.length);
      for (const [i, { from, to }] of found.entries()) {
        expect(from).toBeGreaterThanOrEqual(i === 0 ? 0 : found[i - 1]!.from);
        expect(words.slice(from, to).trim()).toBe(words.slice(from, to));
        expect(to).toBeGreaterThan(from);
      }
    }),
  );
});

test('a book of one letter, of dots or of spaces is read in a moment', () => {
  for (const one of ['a', '.', ' ', 'a.', '1 ', 'a@', '$1'])
    expect(concernsIn(one.repeat(200_000))).toEqual([]);
});
