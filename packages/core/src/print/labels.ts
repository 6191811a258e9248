/**
 * Papers in points (1/72 inch): ISO 216 A4 (210 × 297 mm) and ANSI/ASME Y14.1 A, "US Letter" (8.5 × 11 in).
 */
export const PAPERS = {
  A4: { width: mm(210), height: mm(297) },
  LETTER: { width: 612, height: 792 },
} as const;
export type Paper = keyof typeof PAPERS;

/** A sheet of labels, all lengths in points from the upper left corner of the paper. */
export interface LabelSheet {
  paper: Paper;
  columns: number;
  rows: number;
  width: number;
  height: number;
  left: number;
  top: number;
  gapX: number;
  gapY: number;
}

/** The sheets of labels that are known. */
export const LABEL_KINDS = ['a4-21', 'letter-30'] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];

/**
 * The two most common sheets for addresses, by their measures (common practice of stationers, no source; the
 * measures are from memory).
 */
export const LABEL_SHEETS: Record<LabelKind, LabelSheet> = {
  'a4-21': {
    paper: 'A4',
    columns: 3,
    rows: 7,
    width: mm(63.5),
    height: mm(38.1),
    left: mm(7.25),
    top: mm(15.15),
    gapX: mm(2.5),
    gapY: 0,
  },
  'letter-30': {
    paper: 'LETTER',
    columns: 3,
    rows: 10,
    width: 2.625 * 72,
    height: 72,
    left: 0.1875 * 72,
    top: 36,
    gapX: 0.125 * 72,
    gapY: 0,
  },
};

function mm(length: number): number {
  return (length / 25.4) * 72;
}

/**
 * Where a label lies: its page from 0, and its upper left corner. `used` labels of the first sheet were
 * peeled off before.
 */
export function labelAt(sheet: LabelSheet, index: number, used = 0): { page: number; x: number; y: number } {
  const perPage = sheet.columns * sheet.rows;
  const at = index + used;
  const within = at % perPage;
  return {
    page: Math.floor(at / perPage),
    x: sheet.left + (within % sheet.columns) * (sheet.width + sheet.gapX),
    y: sheet.top + Math.floor(within / sheet.columns) * (sheet.height + sheet.gapY),
  };
}
