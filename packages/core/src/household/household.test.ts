import fc from 'fast-check';
import { addressee, greetingOf, oneEach } from '.';

const people = (...names: string[]) =>
  names.map((name) => {
    const [firstName = '', lastName = ''] = name.split('|');
    return { firstName, lastName };
  });

test.each([
  [['Marisol|Castellan', 'Jun|Castellan'], 'Marisol and Jun', 'Marisol and Jun Castellan'],
  [['Marisol|Castellan', 'Jun|Park'], 'Marisol and Jun', 'Marisol Castellan and Jun Park'],
  [['Ana|Ruiz', 'Bo|Ruiz', 'Cy|Ruiz'], 'Ana, Bo, and Cy', 'Ana, Bo, and Cy Ruiz'],
  [['Ana|Ruiz', '|Ruiz'], 'Ana', 'Ana Ruiz'],
  [['Ana|Ruiz', 'Ana|Ruiz'], 'Ana', 'Ana Ruiz'],
  [['|'], '', ''],
])('%j are greeted as %s and addressed as %s', (names, greeting, to) => {
  expect([greetingOf(people(...names), null, 'en-US'), addressee(people(...names), 'en-US')]).toEqual([
    greeting,
    to,
  ]);
});

test('words kept for a household win, and names are joined as the language joins them', () => {
  expect(greetingOf(people('Ana|R', 'Bo|R'), ' the Ruiz family ', 'en-US')).toBe('the Ruiz family');
  expect(greetingOf(people('Ana|R', 'Bo|R'), '  ', 'de-DE')).toBe('Ana und Bo');
  expect(greetingOf(people('Ana|R', 'Bo|R'), null, 'es-MX')).toBe('Ana y Bo');
});

test('one letter for each household, nobody lost and nobody twice, in the order of the people', () => {
  const someone = fc.record({ id: fc.nat(), householdId: fc.option(fc.nat(5), { nil: null }) });
  fc.assert(
    fc.property(fc.uniqueArray(someone, { selector: ({ id }) => id }), (all) => {
      const letters = oneEach(all);
      const flat = letters.flat();
      expect(new Set(flat.map(({ id }) => id)).size).toBe(all.length);
      for (const letter of letters)
        expect(new Set(letter.map(({ householdId }) => householdId)).size).toBe(1);
      const homes = letters.map(([first]) => first!.householdId).filter((home) => home !== null);
      expect(new Set(homes).size).toBe(homes.length);
      const places = letters.map(([first]) => all.indexOf(first!));
      expect(places).toEqual([...places].sort((a, b) => a - b));
    }),
  );
});
