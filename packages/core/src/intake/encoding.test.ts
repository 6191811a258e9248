import { execFileSync } from 'node:child_process';
import { DELIMITERS, ENCODINGS, guessEncoding, type Encoding } from '.';
import { spoken } from '../words';
import { decodeFile, readFile, readSheet } from './testing';

/** Names as the C library calls them (glibc `iconv`, the reference that these readings are held against). */
type Whole = Exclude<Encoding, 'mixed'>;
const WHOLE = ENCODINGS.filter((one): one is Whole => one !== 'mixed');
const ICONV: Record<Whole, string> = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16LE',
  'utf-16be': 'UTF-16BE',
  'windows-1252': 'WINDOWS-1252',
  'iso-8859-2': 'ISO-8859-2',
  'iso-8859-15': 'ISO-8859-15',
  'windows-1250': 'WINDOWS-1250',
  'windows-1251': 'WINDOWS-1251',
  macintosh: 'MACINTOSH',
};
const inEncoding = (text: string, encoding: Whole) =>
  new Uint8Array(execFileSync('iconv', ['-f', 'UTF-8', '-t', ICONV[encoding]], { input: text }));

const WESTERN =
  'Email;Prénom;Nom;Ville\nzoe@example.org;Zoé;Müller-Ångström;Genève\njose@example.org;José;Núñez;Coruña\nbjorn@example.org;Bjørn;Sørensen;Århus\nanais@example.org;Anaïs;Lefèvre;Orléans\n';
const CENTRAL =
  'Email;Imię;Nazwisko;Miasto\nlukasz@example.org;Łukasz;Wójcik;Łódź\njiri@example.org;Jiří;Dvořák;Plzeň\ngyorgy@example.org;György;Szabó;Győr\nsarka@example.org;Šárka;Němcová;Kroměříž\n';
const CYRILLIC = 'Email;Имя;Город\nivan@example.org;Иван;Москва\nolga@example.org;Ольга;Тверь\n';
const TEXTS: Record<Whole, string> = {
  'utf-8': WESTERN,
  'utf-16le': WESTERN,
  'utf-16be': CENTRAL,
  'windows-1252': WESTERN,
  'iso-8859-15': WESTERN,
  macintosh: WESTERN,
  'iso-8859-2': CENTRAL,
  'windows-1250': CENTRAL,
  'windows-1251': CYRILLIC,
};

describe('encodings, held against iconv', () => {
  test.each(WHOLE)('%s is read as iconv wrote it', (encoding) => {
    const read = spoken(decodeFile(inEncoding(TEXTS[encoding], encoding), encoding));
    expect(read).toEqual({ ok: true, text: TEXTS[encoding], encoding, sure: true });
  });

  test.each(WHOLE)('%s is found by itself, or what reads the same', (encoding) => {
    const bytes = inEncoding(TEXTS[encoding], encoding);
    const read = readFile(bytes);
    const wanted = readSheet(TEXTS[encoding]);
    expect(read.ok && read.sheet).toEqual(wanted.ok && wanted.sheet);
    expect(read.ok && read.found.sure).toBe(encoding === 'utf-8');
  });

  test('a byte order mark decides (Unicode 16.0 §23.8)', () => {
    const marked = (mark: number[], rest: Uint8Array) => new Uint8Array([...mark, ...rest]);
    for (const [mark, encoding] of [
      [[0xff, 0xfe], 'utf-16le'],
      [[0xfe, 0xff], 'utf-16be'],
      [[0xef, 0xbb, 0xbf], 'utf-8'],
    ] as const) {
      const bytes = marked([...mark], inEncoding(WESTERN, encoding));
      expect(guessEncoding(bytes)).toEqual({ encoding, sure: true });
      const read = readFile(bytes);
      expect(read.ok && read.sheet.header[0]).toBe('Email');
    }
  });

  test('plain English is the same in all of them, and a picture is none', () => {
    expect(guessEncoding(new TextEncoder().encode('Email,Name\na@example.org,Ann\n'))).toEqual({
      encoding: 'utf-8',
      sure: true,
    });
    expect(spoken(decodeFile(new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0])))).toMatchObject({
      ok: false,
      reason: expect.stringContaining('PNG'),
    });
    expect(spoken(decodeFile(new Uint8Array([65, 0, 0, 0, 66, 1, 2, 3, 0, 200, 201, 202])))).toMatchObject({
      ok: false,
    });
  });
});

describe('separators', () => {
  test.each([...DELIMITERS])('%j is found by itself', (delimiter) => {
    const text =
      ['Email', 'First', 'Note'].join(delimiter) +
      '\n' +
      ['a@example.org', 'Ann', '"one, two; three"'].join(delimiter) +
      '\n';
    const read = readSheet(text);
    expect(read.ok && [read.sheet.delimiter, read.sheet.rows[0]]).toEqual([
      delimiter,
      ['a@example.org', 'Ann', 'one, two; three'],
    ]);
  });

  test('a first line that names the separator is obeyed and is no row', () => {
    for (const line of ['sep=;', '"sep=;"', 'SEP=;']) {
      const read = readSheet(`${line}\r\nEmail;Note\r\na@example.org;1,2,3,4,5\r\n`);
      expect(read.ok && [read.sheet.header, read.sheet.rows]).toEqual([
        ['Email', 'Note'],
        [['a@example.org', '1,2,3,4,5']],
      ]);
    }
  });

  test('a separator chosen by a person wins', () => {
    const read = readSheet('Email;Note,x\na@example.org;1,2\n', ',');
    expect(read.ok && read.sheet.header).toEqual(['Email;Note', 'x']);
  });
});

// WHATWG Encoding Standard, index windows-1252, held against iconv: what programs of Windows write for quotes
// and dashes.
test('quotes, dashes and the euro sign of Windows are read as they were written', () => {
  const text = 'Email;Note\nzoe@example.org;“It’s the ferry” – 5 € … Šime Žižka Œuvre\n';
  expect(spoken(decodeFile(inEncoding(text, 'windows-1252'), 'windows-1252'))).toMatchObject({ text });
});
