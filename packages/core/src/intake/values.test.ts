import fc from 'fast-check';
import { readMoney } from '../fields';
import { isoDay, dayOf } from '../common';
import { parseDate, parseYesNo, readCountry } from '../fields';
import {
  addressHint,
  applyLayout,
  bestLayout,
  cleanPhone,
  cleanRow,
  cutAddresses,
  cutName,
  cutNameEmail,
  cutPhones,
  gatherSpellings,
  guessAll,
  guessKind,
  isSwapped,
  looseEmail,
  meantDomain,
  menderOf,
  normalPostcode,
  readStatus,
  serialDay,
  targetOf,
  withDomains,
  withFieldsNow,
  type ColumnChoice,
} from '.';
import { spoken } from '../words';
import { profileColumn } from './testing';

// Unicode CLDR through Intl: the days of four languages in three styles are read back as they were written.
describe.each(['en-US', 'en-GB', 'es', 'fr', 'de'])('dates of %s', (locale) => {
  test.each(['long', 'medium', 'short'] as const)('%s', (dateStyle) => {
    const order = locale === 'en-US' ? 'month-first' : 'day-first';
    const format = new Intl.DateTimeFormat(locale, { dateStyle, timeZone: 'UTC' });
    for (let month = 1; month <= 12; month++) {
      for (const day of [1, 12, 28]) {
        const at = dayOf(2026, month, day)!;
        const written = format.format(new Date(at * 86_400_000));
        const read = parseDate(written, order);
        expect([written, read === null ? null : isoDay(read)]).toEqual([written, isoDay(at)]);
      }
    }
  });
});

test('a date may have a time behind it, and a spreadsheet may have made a number of it', () => {
  expect(isoDay(parseDate('14.11.2026 09:30', 'day-first')!)).toBe('2026-11-14');
  // ECMA-376 part 1 §18.17.4.1: day 1 is 1 January 1900, and 45,000 the 15th of March 2023.
  expect(isoDay(serialDay('45000')!)).toBe('2023-03-15');
  expect(serialDay('98101')).toBeNull();
});

// CLDR's own way of writing money, read back in hundredths; a currency without minor units (ISO 4217) has
// whole ones only.
describe.each(['en-US', 'de-DE', 'fr-FR', 'es-ES', 'de-CH', 'en-IN'])('money as %s writes it', (locale) => {
  test.each(['USD', 'EUR', 'JPY', 'GBP'])('%s', (currency) => {
    const format = new Intl.NumberFormat(locale, { style: 'currency', currency });
    const whole = format.resolvedOptions().maximumFractionDigits === 0;
    for (const minor of [5, 2500, 125_050, -2500, 100_000_000]) {
      const kept = whole ? minor * 100 : minor;
      expect([format.format(kept / 100), readMoney(format.format(kept / 100))?.minor]).toEqual([
        format.format(kept / 100),
        kept,
      ]);
    }
  });
});

test.each<[string, number | null, string | null]>([
  ['$25', 2500, null],
  ['€ 1.250,50', 125_050, 'EUR'],
  ['1,250', 125_000, null],
  ['(25.00)', -2500, null],
  ['25.00-', -2500, null],
  ['USD 12.5', 1250, 'USD'],
  ['£9', 900, 'GBP'],
  ['¥ 500', 50_000, null],
  ['JPY 500', 50_000, 'JPY'],
  ['twenty', null, null],
  ['', null, null],
])('%s is %s', (text, minor, currency) =>
  expect(readMoney(text)).toEqual(minor === null ? null : { minor, currency }),
);

test.each(['yes', 'Y', 'x', '✓', 'TRUE', 'oui', 'Ja', 'sí', 'wahr'])('%s is yes', (word) =>
  expect(parseYesNo(word)).toBe(true),
);
test.each(['no', 'N', '0', 'FALSE', 'non', 'Nein', 'opted out', '✗'])('%s is no', (word) =>
  expect(parseYesNo(word)).toBe(false),
);

// E.164 by libphonenumber; numbers set aside for fiction.
describe('telephone numbers that a spreadsheet damaged', () => {
  test('are put right where that is certain, and told', () => {
    expect(spoken(cleanPhone('1.2065550121E+10', 'US'))).toMatchObject({
      ok: true,
      normal: '+12065550121',
      hint: expect.stringContaining('12065550121') as string,
    });
    expect(spoken(cleanPhone('12065550121', 'GB'))).toMatchObject({
      ok: true,
      normal: '+12065550121',
      hint: expect.stringContaining('plus sign') as string,
    });
    expect(spoken(cleanPhone('2065550121.0', 'US'))).toMatchObject({ ok: true, normal: '+12065550121' });
  });
  test('and refused where digits are gone', () => {
    for (const text of ['1.2E+10', '1.20656E+10', '2.07946E+11'])
      expect(spoken(cleanPhone(text, 'US'))).toMatchObject({
        ok: false,
        reason: expect.stringContaining('shortened') as string,
      });
  });
});

describe('cells that hold more than one thing', () => {
  test.each([
    ['a@x.org; b@x.org', ['a@x.org', 'b@x.org']],
    ['a@x.org,b@x.org', ['a@x.org', 'b@x.org']],
    ['a@x.org or b@x.org', ['a@x.org', 'b@x.org']],
    ['a@x.org b@x.org', ['a@x.org', 'b@x.org']],
    ['Lin, Ann <a@x.org>', ['Lin, Ann <a@x.org>']],
    ['nothing', ['nothing']],
  ])('addresses: %s', (cell, parts) => expect(cutAddresses(cell)).toEqual(parts));
  test.each([
    ['206 555 0121 / 206 555 0122', ['206 555 0121', '206 555 0122']],
    ['206-555-0121; 206-555-0122', ['206-555-0121', '206-555-0122']],
    ['206/555 0121', ['206/555 0121']],
    ['(206) 555-0121', ['(206) 555-0121']],
  ])('numbers: %s', (cell, parts) => expect(cutPhones(cell)).toEqual(parts));
  test.each([
    ['Ruth Abara', 'Ruth', 'Abara'],
    ['Abara, Ruth', 'Ruth', 'Abara'],
    ['Dr. Ruth van der Abara Jr.', 'Ruth', 'van der Abara'],
    ['Ana María de la Cruz', 'Ana María', 'de la Cruz'],
    ['RUTH', 'RUTH', ''],
    ['Ruth Ann Abara', 'Ruth Ann', 'Abara'],
  ])('names: %s', (cell, firstName, lastName) => expect(cutName(cell)).toEqual({ firstName, lastName }));
  test.each([
    ['Ruth Abara <ruth@x.org>', { name: 'Ruth Abara', email: 'ruth@x.org' }],
    ['"Abara, Ruth" <ruth@x.org>', { name: 'Abara, Ruth', email: 'ruth@x.org' }],
    ['ruth@x.org (Ruth Abara)', { name: 'Ruth Abara', email: 'ruth@x.org' }],
    ['ruth@x.org', { name: '', email: 'ruth@x.org' }],
  ])('name and address: %s', (cell, expected) => expect(cutNameEmail(cell)).toEqual(expected));
});

describe('what is worth telling about an address', () => {
  test.each([
    ['gmial.com', 'gmail.com'],
    ['gmail.co', 'gmail.com'],
    ['hotnail.com', 'hotmail.com'],
    ['yahooo.fr', 'yahoo.fr'],
    ['gmail.com', null],
    ['mo.com', null],
    ['example.org', null],
  ])('%s: %s', (domain, meant) => expect(meantDomain(domain)).toBe(meant));
  // RFC 2142 §2 to §5 name these mailboxes.
  test.each(['info', 'sales', 'abuse', 'postmaster', 'webmaster', 'support'])(
    '%s@ is the address of a function',
    (role) => expect(spoken(addressHint(`${role}@example.org`))).toContain('function'),
  );
  test('a person’s is not', () => expect(spoken(addressHint('ruth@example.org'))).toBeNull());
  test('dots and plus parts are left alone, and told by what remains', () => {
    expect(looseEmail('ma.ri.sol+fair@example.org')).toBe('marisol@example.org');
    expect(looseEmail('plain@example.org')).toBe('plain@example.org');
  });

  test('at a domain that takes no mail it is left out; with nothing else the row stays out', () => {
    const rules = {
      what: 'people' as const,
      columns: [{ to: 'email' }, { to: 'mobile' }] as ColumnChoice[],
      country: 'US',
      currency: 'USD',
      today: 20_900,
    };
    const facts = {
      dead: (domain: string) => domain === 'gone.test',
      disposable: (domain: string) => domain === 'bin.test',
    };
    const both = spoken(withDomains(cleanRow(['a@gone.test', '206 555 0121'], rules), facts, 0));
    expect(both).toMatchObject({
      email: null,
      fatal: null,
      faults: [{ column: 0, reason: 'a@gone.test: nobody takes mail at gone.test' }],
    });
    expect(spoken(withDomains(cleanRow(['a@gone.test', ''], rules), facts, 0)).fatal).toContain(
      'nobody takes mail',
    );
    expect(spoken(withDomains(cleanRow(['a@gone.test; b@x.org', ''], rules), facts, 0))).toMatchObject({
      email: { normal: 'b@x.org' },
      moreEmails: [],
    });
    expect(spoken(withDomains(cleanRow(['a@bin.test', ''], rules), facts, 0)).hints).toMatchObject([
      { reason: expect.stringContaining('throw away') as string },
    ]);
  });
});

// Common practice of exports in four languages, no source.
test.each([
  ['Unsubscribed', 'left'],
  ['opted-out', 'left'],
  ['Désabonné', 'left'],
  ['Hard bounce', 'bounced'],
  ['unzustellbar', 'bounced'],
  ['Spam complaint', 'complained'],
  ['Subscribed', 'fine'],
  ['soft bounce', 'fine'],
  ['perhaps', null],
])('the status %s', (word, status) => expect(readStatus(word)).toBe(status));

describe('headers in four languages', () => {
  test.each([
    ['E-Mail-Adresse', 'email'],
    ['Correo electrónico', 'email'],
    ['Courriel', 'email'],
    ['Vorname', 'firstName'],
    ['Prénom', 'firstName'],
    ['Apellidos', 'lastName'],
    ['Nachname', 'lastName'],
    ['Handy', 'mobile'],
    ['Téléphone portable', 'mobile'],
    ['Teléfono móvil', 'mobile'],
    ['Código postal', 'postcode'],
    ['PLZ', 'postcode'],
    ['Straße', 'street'],
    ['Ville', 'city'],
    ['Phone (home)', 'mobile'],
    ['Email *', 'email'],
    ['Colour', null],
  ])('%s', (header, target) => expect(targetOf(header, 'people')).toBe(target));

  test('values are believed over headers, names in one piece are cut only where there are no parts, and confidence is told', () => {
    const guess = (table: Record<string, string[]>) =>
      guessAll(
        Object.keys(table),
        Object.values(table).map((values) => profileColumn(values, 'US')),
        [],
      );
    const [email, phone, name] = guess({
      'E-mail': ['206 555 0121', '206 555 0122'],
      Phone: ['a@x.org', 'b@x.org'],
      Name: ['Ann Lin', 'Bo Berg'],
    });
    expect([email!.choice.to, phone!.choice.to, name!.choice.to]).toEqual(['mobile', 'email', 'fullName']);
    expect(email!.confidence).toBeLessThan(guess({ Email: ['a@x.org'] })[0]!.confidence);
    expect(
      guess({ Name: ['Ann Lin'], 'First name': ['Ann'], 'Last name': ['Lin'], Email: ['a@x.org'] })[0]!
        .choice,
    ).toEqual({ to: 'leave' });
  });

  test('what a file is for', () => {
    const kind = (table: Record<string, string[]>) =>
      guessKind(
        Object.keys(table),
        Object.values(table).map((values) => profileColumn(values, 'US')),
      );
    expect(kind({ Email: ['a@x.org'], First: ['Ann'] })).toBe('people');
    expect(kind({ Email: ['a@x.org'], Betrag: ['25,00 €'], Datum: ['14.11.2026'] })).toBe('gifts');
    expect(kind({ Email: ['a@x.org'], Status: ['Unsubscribed'] })).toBe('refusals');
    expect(kind({ Email: ['a@x.org', 'b@x.org'] })).toBe('people');
  });
});

describe('mends', () => {
  const columns: ColumnChoice[] = [{ to: 'email' }, { to: 'mobile' }, { to: 'firstName' }];
  test('swap only where each fits the other and not its own', () => {
    const swapped = (a: string, b: string) => isSwapped([a, b], 0, 1, columns, 'US');
    expect(swapped('206 555 0121', 'a@x.org')).toBe(true);
    expect(swapped('', 'a@x.org')).toBe(true);
    expect(swapped('a@x.org', '206 555 0121')).toBe(false);
    expect(swapped('broken', '206 555 0121')).toBe(false);
    expect(swapped('', '')).toBe(false);
  });
  test('follow each other, edits last, and leave the file’s own cells as they are', () => {
    const cells = ['206 555 0121', 'a@x.org', 'Ann (x)'];
    const mend = menderOf(
      [
        { kind: 'edit', row: 4, column: 3, value: 'Bo' },
        { kind: 'swap', a: 1, b: 2 },
        { kind: 'strip', column: 3, text: '(x)' },
        { kind: 'recase', column: 10 },
      ],
      columns,
      'US',
    );
    expect(mend(cells, 0)).toEqual(['a@x.org', '206 555 0121', 'Ann']);
    expect(mend(cells, 3)).toEqual(['a@x.org', '206 555 0121', 'Bo']);
    expect(cells[0]).toBe('206 555 0121');
  });
  test('a swap made twice is the same as once', () => {
    const one = menderOf([{ kind: 'swap', a: 1, b: 2 }], columns, 'US');
    const cell = fc.constantFrom('206 555 0121', 'a@x.org', '', 'broken');
    fc.assert(
      fc.property(cell, cell, (a, b) => {
        const once = one([a, b, ''], 0);
        expect(one(once, 0)).toEqual(once);
      }),
    );
  });
});

test('near spellings are gathered under the choice there is, else the most frequent; digits must agree', () => {
  const counts = (words: Record<string, number>) => new Map(Object.entries(words));
  expect(gatherSpellings(counts({ medium: 3, Medium: 5, MEDIUM: 1, Large: 2 }))).toEqual([
    { to: 'Medium', from: ['medium', 'MEDIUM'] },
  ]);
  expect(gatherSpellings(counts({ 'evening run': 9, 'evenning run': 1 }))).toEqual([
    { to: 'evening run', from: ['evenning run'] },
  ]);
  expect(gatherSpellings(counts({ m: 9 }), ['M'])).toEqual([{ to: 'M', from: ['m'] }]);
  expect(gatherSpellings(counts({ 'Crew 1': 9, 'Crew 2': 1, S: 1, M: 1 }))).toEqual([]);
});

test('a remembered layout is found by its headers, applied by name, and passed over where too little fits', () => {
  const layout = {
    header: ['Email', 'Vorname', 'Schuh'],
    columns: [{ to: 'email' }, { to: 'firstName' }, { to: 'leave' }] as ColumnChoice[],
    what: 'people' as const,
  };
  const other = { ...layout, header: ['A', 'B', 'C', 'D'] };
  expect(bestLayout(['E-Mail', 'VORNAME', 'schuh'], [other, layout])).toMatchObject({
    layout,
    exact: true,
    known: 3,
  });
  expect(bestLayout(['Vorname', 'Email', 'Neu'], [layout])).toMatchObject({ exact: false, known: 2 });
  expect(bestLayout(['Foo', 'Email'], [layout])).toBeNull();
  expect(applyLayout(['Vorname', 'Neu'], [{ to: 'lastName' }, { to: 'mobile' }], layout)).toEqual([
    { to: 'firstName' },
    { to: 'mobile' },
  ]);
});

test('choices of another day are of the fields of today: gone ones are guessed anew, and types are what they are now', () => {
  const fields = [
    { id: 1, name: 'Boat', type: 'choice' as const },
    { id: 2, name: 'Hours', type: 'number' as const },
  ];
  const columns: ColumnChoice[] = [
    { to: 'email' },
    { to: 'field', fieldId: 1, type: 'choice' },
    { to: 'field', fieldId: 2, type: 'date', order: 'day-first' },
    { to: 'field', fieldId: 3, type: 'text' },
    { to: 'field', fieldId: 3, type: 'text' },
  ];
  const guess: ColumnChoice[] = [{ to: 'leave' }, { to: 'leave' }, { to: 'leave' }, { to: 'firstName' }];
  const now = withFieldsNow(columns, guess, fields);
  expect(now).toEqual([
    columns[0],
    columns[1],
    { to: 'field', fieldId: 2, type: 'number' },
    { to: 'firstName' },
    { to: 'leave' },
  ]);
  expect(withFieldsNow(now, guess, fields)).toEqual(now);
});

test('postcodes and countries compare however they are written', () => {
  expect([normalPostcode('98101-1234'), normalPostcode(' sw1a 1aa '), normalPostcode('')]).toEqual([
    '98101',
    'SW1A1AA',
    '',
  ]);
  expect(['Germany', 'Alemania', 'Allemagne', 'DE', 'Deutschland', 'usa'].map(readCountry)).toEqual([
    'DE',
    'DE',
    'DE',
    'DE',
    'DE',
    'US',
  ]);
  expect(readCountry('Atlantis')).toBeNull();
});

test('what nobody sees goes from every cell, whatever it is matched to', () => {
  const columns = (['email', 'mobile', 'city', 'street', 'tags', 'externalId', 'postcode'] as const).map(
    (to) => ({ to }),
  );
  const cells = [
    '\ufeffa\u200bnn@example.org\u200e',
    '\u202a+1 206 555 0101\u202c',
    'Port\u200b Al\u202eder',
    '1 Slip\u0007 Lane',
    'bo\u200bat',
    'M\u200b1',
    '98\u00ad101',
  ];
  expect(
    spoken(cleanRow(cells, { what: 'people', columns, country: 'US', currency: 'USD', today: 20_900 })),
  ).toMatchObject({
    email: { normal: 'ann@example.org' },
    mobile: { normal: '+12065550101' },
    post: { city: 'Port Alder', street: '1 Slip Lane', postcode: '98101' },
    tags: ['boat'],
    externalId: 'M1',
    faults: [],
  });
});
