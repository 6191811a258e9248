import { speak, spoken } from '../words';
import fc from 'fast-check';
import { readFileSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import {
  cleanEmail,
  cleanMobile,
  cleanName,
  cleanRow,
  matchRow,
  menderOf,
  permissionFaults,
  writeCsv,
  type ColumnChoice,
} from '.';
import { decodeFile, guessColumns, profileColumn, readFile, readSheet } from './testing';

const rulesOf = (columns: ColumnChoice[]) => ({
  what: 'people' as const,
  columns,
  country: 'US',
  currency: 'USD',
  today: 20_900,
});
const read = (text: string) => {
  const result = readSheet(text);
  if (!result.ok) throw new Error(speak(result.reason));
  return result.sheet;
};

describe('RFC 4180 section 2, rule by rule', () => {
  test.each([
    ['1: CRLF ends a line', 'a,b\r\nc,d\r\n', [['c', 'd']]],
    ['2: the last line may have none', 'a,b\r\nc,d', [['c', 'd']]],
    ['4: spaces are part of a field', 'a,b\r\n c , d', [[' c ', ' d']]],
    ['5: fields may be quoted', '"a","b"\r\n"c",d', [['c', 'd']]],
    ['6: line breaks, quotes and commas in quotes', 'a,b\r\n"c\r\nc","d,d"', [['c\r\nc', 'd,d']]],
    ['7: a doubled quote is a quote', 'a,b\r\n"c ""x""",d', [['c "x"', 'd']]],
  ])('%s', (_rule, text, rows) => expect(read(text).rows).toEqual(rows));
});

// csv-spectrum (npm): files with their reading as JSON, made to try CSV readers.
describe('csv-spectrum', () => {
  const root = join(dirname(require.resolve('csv-spectrum')));
  // The JSON of location_coordinates holds another telephone number than its CSV, so the pair can't agree.
  const names = readdirSync(join(root, 'csvs'))
    .map((file) => file.replace(/\.csv$/, ''))
    .filter((name) => name !== 'location_coordinates');
  test.each(names)('%s', (name) => {
    const { header, rows } = read(readFileSync(join(root, 'csvs', `${name}.csv`), 'utf8'));
    const objects = rows.map((row) => Object.fromEntries(header.map((key, i) => [key, row[i]])));
    const expected = JSON.parse(readFileSync(join(root, 'json', `${name}.json`), 'utf8')) as object[];
    // A lone CR LF inside quotes is kept as the file has it.
    expect(JSON.stringify(objects).replaceAll('\\r\\n', '\\n')).toEqual(
      JSON.stringify(expected).replaceAll('\\r\\n', '\\n'),
    );
  });
});

describe('files that are not what they seem', () => {
  const bytes = (...values: number[]) => new Uint8Array(values);
  test.each([
    [bytes(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a), /PNG picture/],
    [bytes(), /empty/],
    [bytes(0x50, 0x4b, 3, 4), /spreadsheet or zip/],
    [bytes(0x61, 0, 0x62), /not a text file/],
  ])('%#', (file, reason) =>
    expect(spoken(decodeFile(file))).toMatchObject({
      ok: false,
      reason: expect.stringMatching(reason) as string,
    }),
  );

  test.each([
    ['', /is empty/],
    ['\n ,\n', /nothing in it/],
    ['a,b\n', /only a header/],
    ['a,b\n"c,d', /never closed/],
    [`${Array.from({ length: 300 }, (_v, i) => `c${i}`).join(',')}\nx`, /300 columns/],
  ])('%#', (text, reason) =>
    expect(spoken(readSheet(text))).toMatchObject({
      ok: false,
      reason: expect.stringMatching(reason) as string,
    }),
  );

  test('a byte order mark is no part of the first header', () => {
    const decoded = spoken(decodeFile(new TextEncoder().encode('\ufeffEmail;Name\nx@a.test;y')));
    expect(decoded.ok && read(decoded.text)).toMatchObject({ header: ['Email', 'Name'], delimiter: ';' });
  });

  test('empty lines at the ends are passed over; one in between keeps its place, so that row numbers stay true', () => {
    expect(read('\n,\na,b\n1,2\n,\n3,4\n,\n\n')).toMatchObject({
      header: ['a', 'b'],
      rows: [
        ['1', '2'],
        ['', ''],
        ['3', '4'],
      ],
    });
  });

  test('separators are found by themselves, not by what stands in quotes', () => {
    expect(read('a;b\n"x,y,z";1').delimiter).toBe(';');
    expect(read('a\tb\nx\t1').delimiter).toBe('\t');
    expect(read('only\nx').rows).toEqual([['x']]);
  });

  test('a line that names the separator is followed, passed over and told', () => {
    const named = readFile(new TextEncoder().encode('sep=;\na;b\n1,5;2\n'));
    expect(named).toMatchObject({
      ok: true,
      sheet: { header: ['a', 'b'], rows: [['1,5', '2']] },
      found: { delimiter: ';', separatorLine: true },
    });
    const plain = readFile(new TextEncoder().encode('a;b\n1;2\n'));
    expect(plain.ok && 'separatorLine' in plain.found).toBe(false);
  });

  test.each([
    ['several values in a cell', 'Email,Tags\na@x.test,boats|docks|fish|tea\nb@x.test,oars|sails|nets', ','],
    ['names turned round', 'Name;Email\nDoe, Ann, Dr;a@x.test\nRoe, Ben, Jr;b@x.test', ';'],
    ['decimal commas', 'Name;Given\nAnn;12,50\nBen;1.200,00', ';'],
    [
      'a title with commas',
      'Members, friends, and others, 2026\nName|Email\nAnn|a@x.test\nBen|b@x.test',
      '|',
    ],
    ['a cell of nothing but other separators', 'a,b\r\nv||,v|\r\n', ','],
  ])('a separator is told from %s', (_what, text, delimiter) => expect(read(text).delimiter).toBe(delimiter));

  test('what is written can be read back, and a formula is defused', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.array(
            fc.string().map((s) => `v${s}`),
            { minLength: 2, maxLength: 2 },
          ),
          { minLength: 1 },
        ),
        (rows) => {
          expect(read(writeCsv(['a', 'b'], rows)).rows).toEqual(rows);
        },
      ),
    );
    expect(writeCsv(['a'], [['=1+1'], ['+1 206 555 0101'], ['-3']])).toBe(
      "a\r\n'=1+1\r\n+1 206 555 0101\r\n-3\r\n",
    );
  });
});

describe('addresses', () => {
  // Bounds: RFC 5321 §4.5.3.1.1 (64) and §4.5.3.1.3 (256 with brackets, so 254).
  test.each([
    ['P.Okafor@Example.ORG', 'p.okafor@example.org'],
    [' <ann@example.org> ', 'ann@example.org'],
    ['Ann B <ann@example.org>', 'ann@example.org'],
    ['mailto:ann@example.org', 'ann@example.org'],
    ['ann+x@mail.example.org', 'ann+x@mail.example.org'],
    ["o'neil@example.org", "o'neil@example.org"],
  ])('%s', (text, normal) => expect(cleanEmail(text)).toMatchObject({ ok: true, normal }));

  test.each([
    'j.lindqvist@example',
    'ann.example.org',
    'a b@example.org',
    '.a@example.org',
    'a..b@example.org',
    'a@-x.org',
    'a@127.0.0.1',
    `${'a'.repeat(65)}@example.org`,
    `a@${'x'.repeat(63)}.${'y'.repeat(63)}.${'z'.repeat(63)}.${'w'.repeat(63)}.org`,
  ])('%s is refused', (text) => expect(cleanEmail(text).ok).toBe(false));

  // E.164 forms by libphonenumber; the numbers are those set aside for fiction (555-0100 to 0199).
  test.each([
    ['(206) 555-0121', '+12065550121'],
    ['206.555.0177', '+12065550177'],
    ['+1 206 555 0103', '+12065550103'],
    ['2065550166', '+12065550166'],
    ["'2065550166", '+12065550166'],
  ])('%s', (text, normal) => expect(spoken(cleanMobile(text, 'US'))).toMatchObject({ ok: true, normal }));
  test.each(['555-01', '1.2E+10', 'ask him', '12'])('%s is refused', (text) =>
    expect(spoken(cleanMobile(text, 'US')).ok).toBe(false),
  );
  test('a shortened number is called by its name', () =>
    expect(spoken(cleanMobile('1.20656E+10', 'US'))).toMatchObject({
      reason: expect.stringContaining('shortened') as string,
    }));

  test.each([
    ['MARISOL', 'MARISOL'],
    ['IDN', 'IDN'],
    ["o'neil", "o'neil"],
    ['  van  der Berg', 'van der Berg'],
    ['McKay', 'McKay'],
    ['AJ', 'AJ'],
  ])('%s', (text, name) => expect(cleanName(text)).toBe(name));
});

describe('guessing columns', () => {
  const guess = (table: Record<string, string[]>) =>
    guessColumns(
      Object.keys(table),
      Object.values(table).map((v) => profileColumn(v, 'US')),
      [{ id: 5, name: 'Membership renews', type: 'date' }],
    );

  test('the drawn example', () => {
    expect(
      guess({
        'E-mail addr': ['p@example.org', '206-555-0148', 'd@example.org'],
        'Given name': ['Precious', 'Dana', 'Yusuf'],
        Surname: ['Okafor', 'W', 'D'],
        Cell: ['(206) 555-0121', '206.555.0177', 'y.demir@example.org'],
        Renewal: ['03/04/2027', '14/02/2027', ''],
        Shirt: ['M', 'L', 'M', 'L', 'S', 'S'],
        'Notes (old system)': ['', 'paid cash', ''],
      }),
    ).toEqual([
      { to: 'email' },
      { to: 'firstName' },
      { to: 'lastName' },
      { to: 'mobile' },
      { to: 'field', fieldId: 5, type: 'date', order: 'day-first' },
      { to: 'newField', name: 'Shirt', type: 'choice', order: undefined },
      { to: 'leave' },
    ]);
  });

  test('values are believed over headers', () => {
    expect(guess({ Phone: ['a@example.org', 'b@example.org'] })).toEqual([{ to: 'email' }]);
    expect(guess({ Email: ['blue', 'green'] })).toMatchObject([{ to: 'newField' }]);
  });

  test('a consent column is found by header and values', () => {
    expect(guess({ 'OK to email': ['yes', 'no'], 'Text opt-in': ['x', ''] })).toEqual([
      { to: 'consent', channel: 'email' },
      { to: 'consent', channel: 'text' },
    ]);
  });
});

describe('one row', () => {
  const columns: ColumnChoice[] = [
    { to: 'email' },
    { to: 'mobile' },
    { to: 'firstName' },
    { to: 'field', fieldId: 5, type: 'date', order: 'day-first' },
    { to: 'consent', channel: 'email' },
  ];
  test('a sound row', () => {
    expect(
      spoken(cleanRow(['A@example.org', '206 555 0101', 'ann', '14/02/2027', 'no'], rulesOf(columns))),
    ).toMatchObject({
      email: { normal: 'a@example.org' },
      mobile: { normal: '+12065550101' },
      firstName: 'ann',
      values: [{ column: 3, value: { date: 20863 } }],
      consent: { email: false },
      faults: [],
      fatal: null,
    });
  });
  test('a bad cell is left out and the row comes in while one address is good', () => {
    const row = spoken(cleanRow(['not an address', '206 555 0101', '', 'someday', ''], rulesOf(columns)));
    expect(row.fatal).toBeNull();
    expect(row.faults.map((fault) => fault.column)).toEqual([0, 3]);
  });
  test('an empty row', () =>
    expect(spoken(cleanRow(['', ' ', ''], rulesOf(columns))).fatal).toBe('the row is empty'));
  test('nobody to reach', () =>
    expect(spoken(cleanRow(['', '', 'Ann'], rulesOf(columns))).fatal).toMatch(/no email and no mobile/));
  test('too many cells', () =>
    expect(spoken(cleanRow(['a@example.org', '', '', '', '', 'more'], rulesOf(columns))).fatal).toMatch(
      /6 cells under 5 columns/,
    ));
});

describe('who a row is', () => {
  const ann = { id: 1, firstName: 'Ann', lastName: 'Reyes' };
  test.each([
    ['nobody there', { firstName: 'Ann', lastName: 'Reyes' }, [], { kind: 'new' }],
    [
      'the same name',
      { firstName: 'ANN', lastName: 'réyes' },
      [{ ...ann, by: 'email' as const }],
      { kind: 'same', id: 1 },
    ],
    [
      'a missing name',
      { firstName: '', lastName: '' },
      [{ ...ann, by: 'mobile' as const }],
      { kind: 'same', id: 1 },
    ],
    [
      'another name at the address',
      { firstName: 'Jun', lastName: 'Reyes' },
      [{ ...ann, by: 'email' as const }],
      { kind: 'shares' },
    ],
    [
      'the fuller agreement wins',
      { firstName: 'Ann', lastName: 'Reyes' },
      [
        { id: 1, firstName: 'Ann', lastName: '', by: 'email' as const },
        { ...ann, id: 2, by: 'email' as const },
      ],
      { kind: 'same', id: 2 },
    ],
    [
      'two people',
      { firstName: 'Ann', lastName: '' },
      [
        { ...ann, by: 'email' as const },
        { id: 2, firstName: 'Ann', lastName: 'Okoro', by: 'mobile' as const },
      ],
      { kind: 'look', why: 'two-people', candidates: [{ id: 1 }, { id: 2 }] },
    ],
  ])('%s', (_name, row, candidates, expected) => expect(matchRow(row, candidates)).toMatchObject(expected));
});

test('there is no way past the permission step without evidence', () => {
  const none = { said: 'nothing' as const };
  const columns: ColumnChoice[] = [{ to: 'email' }];
  const yes = {
    said: 'yes' as const,
    from: 'everyone' as const,
    scopes: ['news' as const],
    how: 'paper' as const,
    on: '2026-11-20',
    words: 'Please send me ferry news by email.',
    voucher: 'Idris Vale',
  };
  const faults = (email: object) =>
    permissionFaults({ columns, permission: { email: { ...yes, ...email }, text: none } }, '2026-11-23').map(
      ({ field, said }) => `${field}: ${speak(said)}`,
    );
  expect(faults({})).toEqual([]);
  expect(faults({ words: 'ok' })).toEqual([expect.stringContaining('words')]);
  expect(faults({ on: '2026-11-24' })).toEqual([expect.stringContaining('future')]);
  expect(faults({ voucher: ' ' })).toEqual([expect.stringContaining('vouches')]);
  expect(faults({ scopes: [] })).toEqual([expect.stringContaining('choose')]);
  expect(faults({ from: 'column' })).toEqual([expect.stringContaining('column')]);
});

// Which capitals a name has is its bearer's to say; all of one case is most often a caps lock (common
// practice, no source).
test.each([
  ['MARISOL', 'Marisol'],
  ["o'neil", "O'Neil"],
  ['JEAN-LUC', 'Jean-Luc'],
  ['McKay', 'McKay'],
  ['AJ', 'AJ'],
  ['ÉLODIE', 'Élodie'],
])('asked for, %s is written %s', (text, name) => {
  const mender = menderOf([{ kind: 'recase', column: 2 }], [], 'US');
  expect(mender([text, ` ${text}`, text], 0)).toEqual([text, name, text]);
});
