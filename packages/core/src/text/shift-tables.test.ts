import { createRequire } from 'node:module';
import fc from 'fast-check';
import { countParts, SHIFT_LANGUAGES, SHIFT_TABLES, shiftThatSaves } from '.';

/*
 * National tables of 3GPP TS 23.038, annex A: held against those of the package smpp 0.5.1, whose coder is
 * tried with every letter.
 */
const { gsmCoder } = createRequire(__filename)('smpp') as {
  gsmCoder: Record<'GSM' | 'GSM_TR' | 'GSM_ES' | 'GSM_PT', { charRegex: RegExp; chars: string }>;
};
const THEIRS = { tr: gsmCoder.GSM_TR, es: gsmCoder.GSM_ES, pt: gsmCoder.GSM_PT };

test.each(SHIFT_LANGUAGES)('%s: a letter is in our tables exactly where it is in theirs', (language) => {
  const { locking, single } = SHIFT_TABLES[language];
  if (locking !== null) expect(locking).toBe(THEIRS[language].chars);
  const all = Object.values(THEIRS).flatMap(({ chars }) => [...chars]);
  const letters = new Set([...all, ...single, ...'ÁÍÓÚáíóúÃÕãõÂâÊêÔôÀĞİŞğışçżřőαБкअ中😀ŵŷășțŁ']);
  for (const char of letters) {
    const ours = countParts(char, [language]).alphabet === 'gsm7';
    const theirs = [gsmCoder.GSM, THEIRS[language]].some(({ charRegex }) => charRegex.test(char));
    if (char !== '\u001b') expect([char, ours]).toEqual([char, theirs]);
  }
});

// A header that names one table takes 4 octets of 140 and leaves 155 septets, one that names two takes 7 and
// leaves 152; with what joins parts it is 149 and 146 (3GPP TS 23.040 §9.2.3.24).
test.each([
  ['es', 'á', 155, 149, 2],
  ['tr', 'ğ', 155, 149, 1],
  ['pt', 'ã', 155, 149, 1],
] as const)(
  '%s: %s is carried in 7 bits, beside the header that says so',
  (language, char, single, part, cost) => {
    const fits = Math.floor((single - 20) / cost);
    const text = `${'a'.repeat(20)}${char.repeat(fits)}`;
    expect(countParts(text, [language])).toMatchObject({ alphabet: 'gsm7', language, parts: 1 });
    expect(countParts(`${text}${char}${'b'.repeat(cost)}`, [language]).parts).toBe(2);
    const two = countParts(char.repeat(Math.floor((2 * part) / cost) - 1), [language]);
    expect(two.parts).toBe(2);
    expect(countParts(text)).toMatchObject({ alphabet: 'ucs2', language: null });
  },
);

test('used only where the gateway takes them, and only where the default alphabet has no place', () => {
  expect(countParts('Gracias, Ramón', ['tr'])).toMatchObject({ alphabet: 'ucs2' });
  expect(countParts('Grazie, perché', SHIFT_LANGUAGES)).toMatchObject({ alphabet: 'gsm7', language: null });
  expect(countParts('Ramón 中', SHIFT_LANGUAGES)).toMatchObject({ alphabet: 'ucs2', language: null });
});

test('it is told what a table would save', () => {
  const long = `${'Ramón y Lucía traen los tablones. '.repeat(4)}`;
  // Portuguese has á and í among the letters of one septet; with Spanish alone it takes no more parts.
  expect(shiftThatSaves(long)).toEqual({ language: 'pt', parts: 1 });
  expect(countParts(long, ['es']).parts).toBe(1);
  expect(shiftThatSaves('Ramón')).toBeNull();
  expect(shiftThatSaves('Boots on Saturday')).toBeNull();
});

test('tables never make more parts, and what is counted fits', () => {
  const letters = fc.constantFrom(...'abc €{}áíóúñçğışİĞŞãõâêô中’');
  fc.assert(
    fc.property(fc.array(letters, { maxLength: 400 }), fc.subarray([...SHIFT_LANGUAGES]), (chars, tables) => {
      const text = chars.join('');
      const [without, found] = [countParts(text), countParts(text, tables)];
      expect(found.parts).toBeLessThanOrEqual(without.parts);
      expect(found.left).toBeGreaterThanOrEqual(0);
      if (found.language !== null) expect(tables).toContain(found.language);
    }),
  );
});
