import type { Column, Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { labelAt, LABEL_SHEETS, PAPERS, walks, type LabelKind, type Paper } from '@goodword/core/print';

/** One line of a sheet: a person, as far as the sheet shows them. */
export interface SheetPerson {
  /** What the answers are entered by. */
  number: number;
  name: string;
  cells: string[];
  /** What can be ticked. */
  boxes: string[];
  street: string;
  city: string;
}

export interface PrintSheet {
  title: string;
  /** Under the title: what it is of, and who is not on it. */
  notes: string[];
  columns: string[];
  noteLines: number;
  paper: Paper;
  /** As the footer names the day. */
  day: string;
}

/** Room for the number of a person, of four digits. */
const NUMBER_WIDTH = 24;
const INK = '#17252B';
const HAIR = '#B9C3BE';
const SECOND = '#51626A';
const MARGINS: [number, number, number, number] = [40, 40, 40, 44];

function frame(sheet: Pick<PrintSheet, 'title' | 'paper' | 'day'>, content: Content): TDocumentDefinitions {
  return {
    pageSize: PAPERS[sheet.paper],
    pageMargins: MARGINS,
    info: { title: sheet.title },
    defaultStyle: { font: 'Roboto', fontSize: 9.5, color: INK },
    content,
    footer: (page, pages) => ({
      columns: [
        { text: `${sheet.title}, ${sheet.day}`, alignment: 'left' },
        { text: `${page} of ${pages}`, alignment: 'right' },
      ],
      margin: [40, 14, 40, 0],
      fontSize: 8,
      color: SECOND,
    }),
  };
}

function heading({ title, notes }: PrintSheet): Content {
  return [
    { text: title, fontSize: 17, bold: true, margin: [0, 0, 0, 2] },
    ...notes.map((text): Content => ({ text, color: SECOND, margin: [0, 0, 0, 2] })),
    { text: '', margin: [0, 0, 0, 6] },
  ];
}

/** Little squares with a word each, to be ticked with a pen. */
function ticks(boxes: readonly string[]): Content {
  return {
    columns: boxes.flatMap((word): Column[] => [
      { width: 11, canvas: [{ type: 'rect', x: 0, y: 1.5, w: 7.5, h: 7.5, lineWidth: 0.7, lineColor: INK }] },
      { width: 'auto', text: word, noWrap: true, fontSize: 8.5, margin: [0, 0, 9, 0] },
    ]),
    columnGap: 2,
    margin: [0, 3, 0, 0],
  };
}

/** Room to write: thin lines over the width of the paper. */
function noteRoom(lines: number, width: number): Content {
  if (lines === 0) return '';
  const canvas = Array.from({ length: lines }, (_none, i) => ({
    type: 'line' as const,
    x1: 0,
    y1: 15 * (i + 1),
    x2: width,
    y2: 15 * (i + 1),
    lineWidth: 0.4,
    lineColor: HAIR,
  }));
  return { canvas, margin: [0, 0, 0, 3] };
}

/** Lines over and under the names of the columns in ink; what stands above them has none. */
const rules = (above: number) => ({
  hLineWidth: (at: number) => (at < above ? 0 : at <= above + 1 ? 0.9 : 0.4),
  vLineWidth: () => 0,
  hLineColor: (at: number) => (at <= above + 1 ? INK : HAIR),
  paddingTop: () => 4,
  paddingBottom: () => 3,
  paddingLeft: (at: number) => (at === 0 ? 0 : 5),
  paddingRight: () => 3,
});

/**
 * The people under the names of the columns, and under a title where there is one: on every page, and never
 * without a person.
 */
function table(sheet: PrintSheet, people: readonly SheetPerson[], title?: string): Content {
  const width = PAPERS[sheet.paper].width - MARGINS[0] - MARGINS[2];
  const span = sheet.columns.length + 2;
  // What is left of the paper for a person, without the number and what stands between cells: a wider one
  // would push the table over the edge.
  const room = width - NUMBER_WIDTH - 3 - 8 * (span - 1) - 4;
  const head: TableCell[] = ['', 'Who', ...sheet.columns].map((text) => ({
    text,
    bold: true,
    fontSize: 8.5,
  }));
  const blanks = (count: number) => Array.from({ length: count }, (): TableCell => ({}));
  const above =
    title === undefined
      ? []
      : [
          [
            { text: title, bold: true, fontSize: 12, colSpan: span, margin: [0, 8, 0, 1] },
            ...blanks(span - 1),
          ] as TableCell[],
        ];
  const rows = people.map((person): TableCell[] => [
    { text: String(person.number), color: SECOND, fontSize: 8.5 },
    {
      colSpan: span - 1,
      stack: [
        {
          columns: [
            { text: person.name, bold: true, width: '*' },
            ...person.cells.map((text) => ({ text, width: '*' as const })),
          ],
          columnGap: 6,
        },
        ...(person.boxes.length > 0 ? [ticks(person.boxes)] : []),
        noteRoom(sheet.noteLines, room),
      ],
    },
    ...blanks(span - 2),
  ]);
  const widths = [NUMBER_WIDTH, ...Array.from({ length: span - 1 }, () => '*' as const)];
  const heads = [...above, head];
  return {
    table: {
      headerRows: heads.length,
      keepWithHeaderRows: 1,
      dontBreakRows: true,
      widths,
      body: [...heads, ...rows],
    },
    layout: rules(above.length),
  };
}

/** A sheet to call from: numbered people, what is known of each, boxes to tick, and room for notes. */
export function callSheet(sheet: PrintSheet, people: readonly SheetPerson[]): TDocumentDefinitions {
  return frame(sheet, [heading(sheet), table(sheet, people)]);
}

const SIDES = { odd: 'odd side', even: 'even side' } as const;

/**
 * A sheet to go from door to door with: by street, up the odd side and up the even side, with the house
 * first.
 */
export function doorSheet(sheet: PrintSheet, people: readonly SheetPerson[]): TDocumentDefinitions {
  const parts = walks(people).map((walk): Content => {
    const where = [walk.street || 'No street on file', walk.side && SIDES[walk.side], walk.city]
      .filter(Boolean)
      .join(', ');
    const doors = walk.doors.map((door) => ({ ...door, cells: [door.street, ...door.cells] }));
    return table({ ...sheet, columns: ['Door', ...sheet.columns] }, doors, where);
  });
  return frame(sheet, [heading(sheet), ...parts]);
}

/** Mailing labels at the places of a sheet of labels. Lines that are too many or too long are set smaller. */
export function labelSheet(
  kind: LabelKind,
  addresses: readonly (readonly string[])[],
  used: number,
): TDocumentDefinitions {
  const sheet = LABEL_SHEETS[kind];
  const pad = 9;
  const content = addresses.map((lines, i): Content => {
    const at = labelAt(sheet, i, used);
    const before = i === 0 ? 0 : labelAt(sheet, i - 1, used).page;
    const longest = Math.max(1, ...lines.map((line) => line.length));
    const size = Math.min(
      10.5,
      (sheet.height - 2 * pad) / (lines.length * 1.18),
      ((sheet.width - 2 * pad) / longest) * 1.95,
    );
    return {
      stack: lines.map((text) => ({ text, noWrap: true })),
      fontSize: Math.max(5.5, size),
      absolutePosition: { x: at.x + pad, y: at.y + pad },
      ...(at.page > before ? { pageBreak: 'before' as const } : {}),
    };
  });
  return {
    pageSize: PAPERS[sheet.paper],
    pageMargins: 0,
    info: { title: 'Labels' },
    defaultStyle: { font: 'Roboto', fontSize: 10.5, lineHeight: 1.05, color: '#000000' },
    content,
  };
}
