import { execFileSync } from 'node:child_process';
import { toPdf } from './pdf';
import { doorSheet, type SheetPerson } from './sheets';

const person = (number: number, street: string): SheetPerson => ({
  ...{ number, name: `Person ${number}`, cells: ['+1 206 555 0142'], boxes: [] },
  ...{ street, city: 'Port Alder' },
});

// Read back by poppler. With one door a street, somewhere a street comes to lie at the foot of a page.
test.each([0, 1, 2, 3])(
  'no street stands at the foot of a page without a door, with %i lines for notes',
  async (noteLines) => {
    const people = Array.from({ length: 40 }, (_none, i) =>
      person(i + 1, `${i + 1} Street${String.fromCharCode(65 + (i % 26))}${i} Lane`),
    );
    const sheet = {
      title: 'Doors',
      notes: [],
      paper: 'LETTER' as const,
      columns: ['Phone'],
      noteLines,
      day: 'Nov 26, 2026',
    };
    const bytes = await toPdf(doorSheet(sheet, people));
    const pages = execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes })
      .toString()
      .split('\f')
      .slice(0, -1);
    expect(pages.length).toBeGreaterThan(1);
    for (const page of pages) {
      const lines = page.split('\n').filter((line) => line.trim() !== '');
      // The last line is the foot of the page, with the name of the sheet.
      expect(lines.at(-1)).toMatch(/\d+ of \d+/);
      expect(lines.at(-2)).not.toMatch(/ side, Port Alder|^\s*Who\s/);
    }
    expect(pages.join('\n').match(/Person \d+/g)).toHaveLength(40);
  },
);
