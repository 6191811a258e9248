import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateRawSync } from 'node:zlib';
import * as XLSX from '@e965/xlsx';
import { Unreadable } from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { FolderStorage } from '../../platform/storage';
import { hiddenInOds } from './hidden-in-ods';
import { textLines, openingOf, readThrough } from './text-reading';
import { workbookToCsv } from './workbook';

/** What a file that can't be read is refused with. */
const refusalOf = (reading: Promise<unknown>): Promise<string> =>
  reading.then(
    () => 'it was read',
    (error: unknown) => (error instanceof Unreadable ? speak(error.said) : String(error)),
  );

const folder = mkdtempSync(join(tmpdir(), 'gw-files-'));
const storage = new FolderStorage(folder);
const KNOWN = { fields: [], country: 'US', what: null };

async function read(bytes: Uint8Array, reading = {}) {
  const storageKey = await storage.put(bytes);
  const file = await readThrough(storage, { storageKey, reading }, KNOWN);
  const rows: string[][] = [];
  const { encoding, delimiter, headerLine } = file.found;
  const opening = await openingOf(storage, file.textKey, { encoding, delimiter, headerLine });
  for await (const lines of textLines(storage, file.textKey, opening))
    rows.push(...lines.filter((line) => line.aside === null).map((line) => line.cells));
  return { ...file, rows };
}

function workbook(
  sheets: Record<string, XLSX.WorkSheet>,
  bookType: XLSX.BookType = 'xlsx',
  props?: XLSX.WorkBook['Workbook'],
): Uint8Array {
  const book = XLSX.utils.book_new();
  for (const [name, sheet] of Object.entries(sheets)) XLSX.utils.book_append_sheet(book, sheet, name);
  if (props) book.Workbook = props;
  return XLSX.write(book, { type: 'buffer', bookType }) as Uint8Array;
}
const rows = (...some: (string | number | boolean | null)[][]) => XLSX.utils.aoa_to_sheet(some);

describe('workbooks', () => {
  // The fixtures were saved by LibreOffice 7.4 Calc from one and the same sheet; a CSV beside them says what
  // it shows.
  const fixtures = join(__dirname, '../../testing/files');
  test.each(['people.xlsx', 'people.ods', 'people.xls'])(
    '%s, saved by LibreOffice, is read back cell by cell',
    async (name) => {
      const { found, rows: cells } = await read(readFileSync(join(fixtures, name)));
      expect(found).toMatchObject({
        kind: 'workbook',
        headerLine: 2,
        titles: ['Winter fair, 14 November'],
        header: ['Email', 'Name', 'Phone', 'Signed', 'Hours', 'Postcode', 'OK', 'Sum'],
      });
      expect(cells).toEqual([
        ['ann@example.org', 'Ann Réyes', '12065550101', '2026-11-14', '2.5', '00123', 'yes', '5'],
        ['bo@example.org', 'Bo "Punt" Lin', '+1 206 555 0102', '2026-11-15', '1000', '98101', 'no', '2000'],
        ['cy@example.org', 'Cy, the miller', '', '1999-12-31', '0.1', '', 'yes', '0.2'],
      ]);
      expect(found.workbook).toMatchObject({
        sheets: [{ name: 'Fair' }, { name: 'Notes' }],
        sheet: 1,
        formulas: 3,
      });
    },
  );

  test('the sheet with people is found past a hidden and an empty one, and another can be chosen', async () => {
    const book = workbook(
      {
        Settings: rows(['a', 'b'], [1, 2]),
        Cover: rows(['Lantern Ferry']),
        People: rows(['Email', 'Name'], ['a@x.org', 'Ann']),
        Old: rows(['Email'], ['b@x.org']),
      },
      'xlsx',
      { Sheets: [{ Hidden: 1 }, {}, {}, {}] },
    );
    expect(await read(book)).toMatchObject({ found: { workbook: { sheet: 3 } }, rows: [['a@x.org', 'Ann']] });
    expect(await read(book, { sheet: 4 })).toMatchObject({
      found: { workbook: { sheet: 4 } },
      rows: [['b@x.org']],
    });
    expect(await refusalOf(read(book, { sheet: 9 }))).toContain('4 sheets');
  });

  test('merged cells count for each row, hidden columns are named, faults of formulas are nothing', async () => {
    const sheet = rows(['Town', 'Email', 'Old id'], ['Upriver', 'a@x.org', 1], [null, 'b@x.org', 2]);
    sheet['!merges'] = [{ s: { r: 1, c: 0 }, e: { r: 2, c: 0 } }];
    sheet['!cols'] = [{}, {}, { hidden: true }];
    sheet.C3 = { t: 'e', v: 42 };
    const { rows: cells, found } = await read(workbook({ A: sheet }));
    expect(cells).toEqual([
      ['Upriver', 'a@x.org', '1'],
      ['Upriver', 'b@x.org', ''],
    ]);
    expect(found.workbook).toMatchObject({ mergedCells: 1, hiddenColumns: [3] });
  });

  // Saved by LibreOffice 7.4 Calc from one sheet: a title merged over seven columns, dates, a column hidden,
  // a header that repeats, a total.
  test.each(['sign-ups.ods', 'sign-ups.xlsx', 'sign-ups.xls'])(
    '%s, saved by LibreOffice: what is hidden is found in every format',
    async (name) => {
      const { found, rows: cells } = await read(readFileSync(join(fixtures, name)));
      expect(found).toMatchObject({
        titles: ['Harbor Day sign-ups, autumn 2026'],
        header: ['Full name', 'E-mail', 'Cell phone', 'Signed', 'Inner notes', 'Boats', 'Boats doubled'],
        asides: { header: 1, total: 1 },
      });
      expect(found.workbook).toMatchObject({
        sheet: 2,
        hiddenColumns: [5],
        hiddenRows: 0,
        mergedCells: 1,
        formulas: 60,
      });
      expect(cells).toHaveLength(60);
      expect(cells[1]!.slice(0, 6)).toEqual([
        'Ruth Quay',
        'harbor.1@example.org',
        '(206) 555-0101',
        '2026-09-02',
        'inner',
        '1',
      ]);
    },
  );

  test('rows that a filter hides are counted, and columns repeated to the end of the sheet are not named', () => {
    const table = `<table:table table:name="A"><table:table-column/><table:table-column table:visibility="collapse" table:number-columns-repeated="16383"/>
      <table:table-row table:visibility="filter" table:number-rows-repeated="3"/><table:table-row/></table:table>`;
    const zip = XLSX.CFB.utils.cfb_new();
    XLSX.CFB.utils.cfb_add(
      zip,
      '/content.xml',
      Buffer.from(
        `<office:spreadsheet><table:table table:name="0"></table:table>${table}</office:spreadsheet>`,
      ),
    );
    const bytes = Buffer.from(XLSX.CFB.write(zip, { type: 'buffer', fileType: 'zip' }) as Uint8Array);
    const hidden = hiddenInOds(bytes, 1);
    expect(hidden).toMatchObject({ rows: 3 });
    expect(hidden!.columns).toHaveLength(1023);
    expect(hiddenInOds(bytes, 0)).toEqual({ columns: [], rows: 0 });
    expect(hiddenInOds(bytes, 2)).toBeNull();
    expect(hiddenInOds(Buffer.from('Email,Name'), 0)).toBeNull();
  });

  test('a web page of a table and an XML workbook under the wrong ending are spreadsheets', async () => {
    const page =
      '<html><body><table><tr><th>Email</th><th>Name</th></tr><tr><td>a@x.org</td><td>Ann &amp; Bo</td></tr></table></body></html>';
    expect((await read(Buffer.from(page))).rows).toEqual([['a@x.org', 'Ann & Bo']]);
    expect((await read(workbook({ A: rows(['Email', 'Name'], ['a@x.org', 'Ann']) }, 'xlml'))).rows).toEqual([
      ['a@x.org', 'Ann'],
    ]);
  });

  test('what is hostile or broken ends with a sentence', async () => {
    await expect(read(Buffer.from('PK\u0003\u0004 and nothing of a workbook behind'))).rejects.toThrow(
      Unreadable,
    );
    expect(await refusalOf(read(readFileSync(join(fixtures, 'sign-ups.xlsx')).subarray(0, 5000)))).toMatch(
      /was cut off on its way here/,
    );
    expect(await refusalOf(read(bomb()))).toMatch(/larger than a table of people ever is/);
    const big = join(folder, 'big.xlsx');
    writeFileSync(
      big,
      workbook({
        A: rows(...Array.from({ length: 20_000 }, (_v, i) => [`p${i}@x.org`, `Person ${i}`, i, i * 2])),
      }),
    );
    expect(
      await refusalOf(
        workbookToCsv(big, join(folder, 'big.csv'), null, {
          seconds: 60,
          heapMegabytes: 20,
          memoryMegabytes: 2000,
        }),
      ),
    ).toMatch(/needs more memory/);
    expect(
      await refusalOf(
        workbookToCsv(big, join(folder, 'big.csv'), null, {
          seconds: 60,
          heapMegabytes: 1000,
          memoryMegabytes: 30,
        }),
      ),
    ).toMatch(/needs more memory/);
    expect(
      await refusalOf(
        workbookToCsv(big, join(folder, 'big.csv'), null, {
          seconds: 0.05,
          heapMegabytes: 1000,
          memoryMegabytes: 1000,
        }),
      ),
    ).toMatch(/takes too long/);
  });
});

/** A zip of a few kilobytes whose one part says, and is, half a gigabyte of zeros. */
function bomb(): Buffer {
  const size = 500 * 1024 * 1024;
  const body = deflateRawSync(Buffer.alloc(1 << 20));
  const name = Buffer.from('xl/worksheets/sheet1.xml');
  const local = Buffer.alloc(30);
  local.writeUInt32LE(0x04034b50, 0);
  local.writeUInt16LE(8, 8);
  local.writeUInt32LE(body.length, 18);
  local.writeUInt32LE(size, 22);
  local.writeUInt16LE(name.length, 26);
  const central = Buffer.alloc(46);
  central.writeUInt32LE(0x02014b50, 0);
  central.writeUInt32LE(size, 24);
  central.writeUInt16LE(name.length, 28);
  return Buffer.concat([local, name, body, central, name]);
}

test('cards become a table, read through like any other', async () => {
  const card = (name: string, email: string) =>
    `BEGIN:VCARD\r\nVERSION:4.0\r\nFN:${name}\r\nN:${name.split(' ').reverse().join(';')};;;\r\nEMAIL:${email}\r\nEND:VCARD\r\n`;
  const {
    found,
    rows: cells,
    guesses,
  } = await read(Buffer.from(card('Ann Lin', 'a@x.org') + card('Bo Lin', 'b@x.org')));
  expect(found).toMatchObject({ kind: 'vcard', header: ['First name', 'Last name', 'Email'] });
  expect(cells).toEqual([
    ['Ann', 'Lin', 'a@x.org'],
    ['Bo', 'Lin', 'b@x.org'],
  ]);
  expect(guesses.map(({ choice }) => choice.to)).toEqual(['firstName', 'lastName', 'email']);
});

test('what a file is for is seen by its columns', async () => {
  const what = async (text: string) => (await read(Buffer.from(text))).what;
  expect(await what('Email,First name\na@x.org,Ann\n')).toBe('people');
  expect(await what('Email,Amount,Date\na@x.org,$25.00,2026-11-01\n')).toBe('gifts');
  expect(await what('Email,Status\na@x.org,Unsubscribed\nb@x.org,Hard bounce\n')).toBe('refusals');
  expect(await what('a@x.org\nb@x.org\n')).toBe('people');
});
