import fc from 'fast-check';
import { labelAt, LABEL_KINDS, LABEL_SHEETS, PAPERS, parseStreet, walks } from '.';

describe('street addresses', () => {
  // The order of number and street is that of each country's post (common practice, no source).
  test.each([
    ['14 Slip Lane', 'Slip Lane', 14, '', ''],
    ['14B Slip Lane, Apt 3', 'Slip Lane', 14, 'B', 'Apt 3'],
    ['14 b Slip Lane #7', 'Slip Lane', 14, 'B', '#7'],
    ['Am Hafen 3a', 'Am Hafen', 3, 'A', ''],
    ['Calle del Río 22', 'Calle del Río', 22, '', ''],
    ['3, rue du Bac', 'rue du Bac', 3, '', ''],
    ['12 5th Avenue', '5th Avenue', 12, '', ''],
    ['10-12 Ferry Road', 'Ferry Road', 10, '-12', ''],
    ['7 1/2 Rope Walk', 'Rope Walk', 7, '1/2', ''],
    ['Boathouse, Upper Quay', 'Boathouse, Upper Quay', null, '', ''],
    ['PO Box', 'PO Box', null, '', ''],
    ['', '', null, '', ''],
  ])('%s', (text, street, number, suffix, unit) =>
    expect(parseStreet(text)).toEqual({ street, number, suffix, unit }),
  );
});

describe('going from door to door', () => {
  const at = (street: string, city = 'Port Alder') => ({ street, city });

  test('up the odd side, then up the even side, street by street and town by town', () => {
    const all = [
      at('10 Slip Lane'),
      at('3 Slip Lane'),
      at('2 Slip Lane'),
      at('21 slip lane'),
      at('3B Slip Lane'),
      at('Slip Lane'),
      at('5 Anchor Street'),
      at('1 Zebra Row', 'Alder Mouth'),
    ];
    expect(
      walks(all).map(({ street, side, doors }) => [street, side, doors.map((door) => door.street)]),
    ).toEqual([
      ['Zebra Row', 'odd', ['1 Zebra Row']],
      ['Anchor Street', 'odd', ['5 Anchor Street']],
      ['Slip Lane', 'odd', ['3 Slip Lane', '3B Slip Lane', '21 slip lane']],
      ['Slip Lane', 'even', ['2 Slip Lane', '10 Slip Lane']],
      ['Slip Lane', null, ['Slip Lane']],
    ]);
  });

  test('nobody is lost, and no side of a street comes twice', () => {
    const someone = fc.record({
      street: fc
        .tuple(fc.nat(30), fc.constantFrom('Slip Lane', 'Anchor Street', 'Quay'))
        .map(([number, street]) => `${number} ${street}`),
      city: fc.constantFrom('Port Alder', 'Alder Mouth'),
    });
    fc.assert(
      fc.property(fc.array(someone), (all) => {
        const parts = walks(all);
        expect(parts.flatMap(({ doors }) => doors)).toHaveLength(all.length);
        const keys = parts.map(({ city, street, side }) => `${city}|${street}|${side}`);
        expect(new Set(keys).size).toBe(keys.length);
      }),
    );
  });
});

describe('labels', () => {
  // ISO 216:2007, table 1: A4 is 210 mm by 297 mm. US Letter is 8.5 by 11 inches (ANSI/ASME Y14.1, size A).
  test('papers have the measures of their standards', () => {
    expect(PAPERS.A4.width / 72).toBeCloseTo(210 / 25.4, 6);
    expect(PAPERS.A4.height / 72).toBeCloseTo(297 / 25.4, 6);
    expect([PAPERS.LETTER.width / 72, PAPERS.LETTER.height / 72]).toEqual([8.5, 11]);
  });

  test.each(LABEL_KINDS)(
    '%s: labels lie on the paper, beside each other, with the same margin at both ends',
    (kind) => {
      const sheet = LABEL_SHEETS[kind];
      const paper = PAPERS[sheet.paper];
      const last = labelAt(sheet, sheet.columns * sheet.rows - 1);
      expect(last.page).toBe(0);
      expect(paper.width - (last.x + sheet.width)).toBeCloseTo(sheet.left, 0);
      expect(paper.height - (last.y + sheet.height)).toBeCloseTo(sheet.top, 0);
      expect(labelAt(sheet, 1).x).toBeGreaterThanOrEqual(labelAt(sheet, 0).x + sheet.width);
    },
  );

  test('a sheet begun goes on behind the labels used, and the next page begins at its first', () => {
    const sheet = LABEL_SHEETS['letter-30'];
    expect(labelAt(sheet, 0, 4)).toEqual(labelAt(sheet, 4));
    expect(labelAt(sheet, 26, 4)).toEqual({ page: 1, x: sheet.left, y: sheet.top });
  });
});
