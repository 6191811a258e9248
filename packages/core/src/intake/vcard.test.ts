import { CardReader, natureOf, tableOfCards, Unreadable, type CardRow } from '.';

function read(text: string, size = 13): CardRow[] {
  const bytes = new TextEncoder().encode(text);
  const reader = new CardReader(bytes);
  const rows: CardRow[] = [];
  for (let at = 0; at < bytes.length; at += size) rows.push(...reader.push(bytes.subarray(at, at + size)));
  return [...rows, ...reader.end()];
}
const card = (...lines: string[]) => ['BEGIN:VCARD', ...lines, 'END:VCARD', ''].join('\r\n');

// The author's own card closes RFC 6350 (§8, version 4.0); it is shortened here to the properties that are
// read, with an address and a number set aside for examples in the place of a person's.
test('the example of RFC 6350 §8, in its form', () => {
  const [row] = read(
    card(
      'VERSION:4.0',
      'FN:Simon Example',
      'N:Example;Simon;;;ing. jr,M.Sc.',
      'BDAY:--0203',
      'ANNIVERSARY:20090808T1430-0500',
      'GENDER:M',
      'LANG;PREF=1:fr',
      'ORG;TYPE=work:Ferry Works',
      'ADR;TYPE=work:;Suite D2-630;2875 Laurier;Quebec;QC;G1V 2M2;Canada',
      'TEL;VALUE=uri;TYPE="work,voice";PREF=1:tel:+1-206-555-0101;ext=102',
      'TEL;VALUE=uri;TYPE="work,cell,voice,video,text":tel:+1-206-555-0102',
      'EMAIL;TYPE=work:simon.example@example.org',
      'TZ:-0500',
      'URL;TYPE=home:https://www.example.org/simon',
    ),
  );
  expect(row).toMatchObject({
    'First name': 'Simon',
    'Last name': 'Example',
    Birthday: '--02-03',
    Organization: 'Ferry Works',
    Email: 'simon.example@example.org',
    Phone: '+1-206-555-0102',
    Street: 'Suite D2-630, 2875 Laurier',
    City: 'Quebec',
    Region: 'QC',
    Postcode: 'G1V 2M2',
    Country: 'Canada',
    Web: 'https://www.example.org/simon',
  });
});

// RFC 2426 §2.6 (folding), §3.3.1 (TEL types), §3.3.2 (EMAIL with pref), §3.6.1 (CATEGORIES), §4 (escapes).
test('version 3.0: folded lines, several addresses with the preferred first, categories, escapes', () => {
  const [row] = read(
    card(
      'VERSION:3.0',
      'FN:Ruth Abara',
      'N:Abara;Ruth;;;',
      'EMAIL;TYPE=internet:old@example.org',
      'EMAIL;TYPE=internet,pref:ruth@exam',
      ' ple.org',
      'TEL;TYPE=work,fax:+1 206 555 0103',
      'TEL;TYPE=cell:+1 206 555 0104',
      'CATEGORIES:plank menders,Deck\\, crew',
      'NOTE:Likes boats\\, and\\nbread',
    ),
  );
  expect(row).toMatchObject({
    Email: 'ruth@example.org',
    'Email 2': 'old@example.org',
    Phone: '+1 206 555 0104',
    Tags: 'plank menders; "Deck, crew"',
    Note: 'Likes boats, and\nbread',
  });
  expect(row!['Phone 2']).toBeUndefined();
});

test('six addresses and numbers are read, the preferred first; a mobile before other lines, and no fax', () => {
  const emails = [1, 2, 3, 4, 5, 6, 7].map(
    (n) => `EMAIL${n === 5 ? ';PREF=1' : ''};TYPE=work:e${n}@example.org`,
  );
  const phones = [
    'TEL;TYPE=home:+1 206 555 0101',
    'TEL;TYPE=fax:+1 206 555 0102',
    'TEL;TYPE="work,cell":+1 206 555 0103',
    'TEL;TYPE=work:+1 206 555 0104',
  ];
  const [row] = read(card('VERSION:4.0', 'FN:Ruth', 'N:;Ruth;;;', ...emails, ...phones));
  expect([row!.Email, row!['Email 2'], row!['Email 6']]).toEqual([
    'e5@example.org',
    'e1@example.org',
    'e6@example.org',
  ]);
  expect([row!.Phone, row!['Phone 2'], row!['Phone 3'], row!['Phone 4']]).toEqual([
    '+1 206 555 0103',
    '+1 206 555 0101',
    '+1 206 555 0104',
    undefined,
  ]);
  expect(Object.keys(row!)).not.toContain('Email 7');
});

test('grouped properties, line feeds alone, and the old kind with quoted-printable letters', () => {
  expect(
    read(
      'BEGIN:VCARD\nVERSION:3.0\nFN:Bo Lin\nN:Lin;Bo;;;\nitem1.EMAIL:bo@example.org\nitem1.X-ABLabel:Boat\nEND:VCARD\n',
    ),
  ).toMatchObject([{ Email: 'bo@example.org' }]);
  expect(
    read(
      card(
        'VERSION:2.1',
        'N;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:N=C3=BA=C3=B1ez;Jos=C3=A9',
        'EMAIL;INTERNET:jose@example.org',
      ),
    ),
  ).toMatchObject([{ 'First name': 'José', 'Last name': 'Núñez' }]);
});

test('many cards make a table of the columns that somebody fills', () => {
  const cards = read(
    card('VERSION:4.0', 'FN:Ann', 'N:;Ann;;;', 'EMAIL:ann@example.org') +
      card('VERSION:4.0', 'FN:Bo', 'N:;Bo;;;', 'TEL:+12065550101'),
    5,
  );
  expect(tableOfCards(cards)).toEqual({
    header: ['First name', 'Email', 'Phone'],
    rows: [
      ['Ann', 'ann@example.org', ''],
      ['Bo', '', '+12065550101'],
    ],
  });
});

test('a card that is cut off, or is none, is told with its number', () => {
  expect(() => read('BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ann')).toThrow(Unreadable);
  expect(() => read(`${card('VERSION:4.0', 'FN:Ann')}BEGIN:VCARD\r\nnonsense\r\nEND:VCARD\r\n`)).toThrow(
    expect.objectContaining({
      said: { code: 'card.wrong', values: expect.objectContaining({ card: 2 }) as object },
    }),
  );
  expect(natureOf(new TextEncoder().encode('\ufeffBEGIN:VCARD'))).toBe('vcard');
});
