import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import {
  FileReader,
  guessEncoding,
  guessHeader,
  natureOf,
  openFile,
  RecordReader,
  unscrambled,
  Unreadable,
  type ParseOptions,
  type TextLine,
} from '.';
import { readFile } from './testing';

const bytes = (text: string) => new TextEncoder().encode(text);

/** Reads a text in pieces of some size, as files come off a disk. */
function inPieces(
  text: Uint8Array,
  size: number,
  reading: ParseOptions = {},
): { lines: TextLine[]; found: ReturnType<FileReader['found']> } {
  const reader = new FileReader(openFile(text, true, reading));
  const lines: TextLine[] = [];
  for (let at = 0; at < text.length; at += size) lines.push(...reader.push(text.subarray(at, at + size)));
  return { lines: [...lines, ...reader.end()], found: reader.found() };
}

const people = (text: string, reading?: ParseOptions) =>
  inPieces(bytes(text), 7, reading)
    .lines.filter((line) => line.aside === null)
    .map((line) => line.cells.join('|'));

describe('lines that are no people', () => {
  const sheet =
    'Winter fair,,\nby Idris,,\nEmail,First,Last\na@x.org,Ann,Lin\n\nEmail,First,Last\nb@x.org,Bo,Lin\nTotal,2,\n\n\n';

  test('titles over the header, the header again, blanks and totals are found, and counted apart', () => {
    const { found, lines } = inPieces(bytes(sheet), 11);
    expect(found).toMatchObject({
      header: ['Email', 'First', 'Last'],
      headerLine: 3,
      titles: ['Winter fair', 'by Idris'],
      asides: { blank: 1, header: 1, total: 1 },
      rows: 5,
    });
    expect(lines.map((line) => line.aside)).toEqual([null, 'blank', 'header', null, 'total']);
  });

  test('and are people where somebody says so', () =>
    expect(people(sheet, { keepAside: true })).toEqual([
      'a@x.org|Ann|Lin',
      'Email|First|Last',
      'b@x.org|Bo|Lin',
      'Total|2|',
    ]));

  test('another line can be the header, or none', () => {
    expect(inPieces(bytes(sheet), 9, { headerLine: 1 }).found.header).toEqual(['Winter fair']);
    expect(inPieces(bytes('a@x.org,Ann\nb@x.org,Bo\n'), 5).found).toMatchObject({
      headerLine: null,
      header: ['Column 1', 'Column 2'],
      rows: 2,
    });
    expect(people('Ann,a@x.org\n', { headerLine: null })).toEqual(['Ann|a@x.org']);
  });

  test('doubled headers and ragged rows are told', () => {
    expect(inPieces(bytes('Email,Phone,phone\na@x.org,1\nb@x.org,1,2,3\n'), 4).found).toMatchObject({
      doubled: ['phone'],
      shorter: 1,
      longer: 1,
    });
  });

  test.each(['Total,12', 'Grand total,', 'Summe;4', 'Somme,3', 'Anzahl,9'])('%s sums up', (line) => {
    const { lines } = inPieces(
      bytes(
        `Email${line.includes(';') ? ';' : ','}First\na@x.org${line.includes(';') ? ';' : ','}Ann\n${line}\n`,
      ),
      6,
    );
    expect(lines.at(-1)!.aside).toBe('total');
  });
  test('somebody named Total is a person', () =>
    expect(people('Last,Email\nTotal,t@x.org\n')).toEqual(['Total|t@x.org']));
});

describe('letters', () => {
  test.each([
    ['JosÃ©', 'José'],
    ['MÃ¼ller-Ã…ngstrÃ¶m', 'Müller-Ångström'],
    ['â€œquotedâ€\u009d', '“quoted”'],
  ])('%s was %s', (broken, meant) => expect(unscrambled(broken)).toBe(meant));
  test.each(['José', 'plain', 'Ã', 'São Paulo', 'Ãguas'])('%s is left alone', (text) =>
    expect(unscrambled(text)).toBeNull(),
  );

  test('whatever was read wrongly once comes back (held against iconv)', () => {
    const text = 'Zoé Lefèvre, Núñez, Grüße, 5 €';
    const broken = execFileSync('iconv', ['-f', 'WINDOWS-1252', '-t', 'UTF-8'], {
      input: Buffer.from(text),
    }).toString();
    expect(broken).not.toBe(text);
    expect(unscrambled(broken)).toBe(text);
  });

  test('two encodings in one file are read line by line', () => {
    const file = Buffer.concat([
      bytes('Name,City\nJosé,Coruña\n'),
      Buffer.from('M\u00fcller,K\u00f6ln\n', 'latin1'),
      bytes('Zoé,Genève\n'),
    ]);
    expect(guessEncoding(file)).toEqual({ encoding: 'mixed', sure: false });
    const read = readFile(file);
    expect(read.ok && read.sheet.rows).toEqual([
      ['José', 'Coruña'],
      ['Müller', 'Köln'],
      ['Zoé', 'Genève'],
    ]);
    expect(inPieces(file, 3).lines.map((line) => line.cells[0])).toEqual(['José', 'Müller', 'Zoé']);
  });
});

test('however a file is cut into pieces, the same comes out', () => {
  const cell = fc.oneof(fc.string({ maxLength: 6 }), fc.constantFrom('a@x.org', 'é', '"', 'x\ny', 'a,b', ''));
  const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`;
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { minLength: 2, maxLength: 3 }), { minLength: 1, maxLength: 6 }),
      fc.constantFrom('\n', '\r\n'),
      fc.integer({ min: 1, max: 40 }),
      (rows, end, size) => {
        const text = bytes(rows.map((row) => row.map(quoted).join(',')).join(end));
        const read = (step: number) => {
          const reader = new RecordReader({ encoding: 'utf-8', delimiter: ',' });
          const out: string[][] = [];
          for (let at = 0; at < text.length; at += step)
            out.push(...reader.push(text.subarray(at, at + step)));
          return [...out, ...reader.end()];
        };
        expect(read(size)).toEqual(read(text.length));
      },
    ),
  );
});

test('a quote that is never closed is told with its line, and does not eat the memory', () => {
  const reader = new RecordReader({ encoding: 'utf-8', delimiter: ',' });
  reader.push(bytes('a,b\nc,"d\n'));
  expect(() => {
    for (let i = 0; i < 200; i++) reader.push(bytes('x'.repeat(10_000)));
  }).toThrow(Unreadable);
});

test.each([
  ['<html><table><tr><td>Email</td></tr></table>', 'workbook'],
  ['<?xml version="1.0"?><Workbook>', 'workbook'],
  ['BEGIN:VCARD\r\nVERSION:3.0', 'vcard'],
  ['PK\u0003\u0004', 'workbook'],
  ['Email,Name', 'text'],
  ['', 'empty'],
])('%# what a file is, whatever it is called', (text, nature) => expect(natureOf(bytes(text))).toBe(nature));

test('one row that is too wide does not lose the header', () => {
  expect(
    guessHeader([
      ['Email', 'First'],
      ['a@example.org', 'Ann', 'x', 'y'],
      ['b@example.org', 'Bo'],
    ]),
  ).toBe(0);
  expect(
    guessHeader([
      ['Email', 'First'],
      ['a@example.org', 'Ann', 'x', 'y'],
    ]),
  ).toBe(0);
  // The widest line may as well be the header itself.
  expect(
    guessHeader([
      ['A list'],
      ['Email', 'First', 'Last', 'Town', 'Notes'],
      ['a@example.org', 'Ann'],
      ['b@example.org', 'Bo'],
    ]),
  ).toBe(1);
});
