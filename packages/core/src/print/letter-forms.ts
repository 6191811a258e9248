import { PAPERS, type Paper } from './labels';

/** Ways to lay a letter out so that its address shows in the window of an envelope. */
export const LETTER_FORMS = ['din-b', 'us-10'] as const;
export type LetterForm = (typeof LETTER_FORMS)[number];

/** A rectangle in points (1/72 inch) from the upper left corner of the paper. */
export interface Rectangle {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Where things stand on the first page of a letter; lengths in points from the upper left corner. */
export interface LetterSheet {
  paper: Paper;
  /** The one line of who writes, over the address; in the window too. */
  sender: Rectangle;
  /** The lines of the address; they stand at its bottom where `low` says so, else at its top. */
  address: Rectangle & { low: boolean };
  /** Where the day stands, and below it the words begin. */
  bodyTop: number;
  margins: { left: number; right: number; top: number; bottom: number };
  /** Heights at which the paper is folded, marked at its left edge. */
  folds: readonly number[];
  /** The height of the punch mark; null where holes are not punched by it. */
  punch: number | null;
}

const mm = (length: number) => (length / 25.4) * 72;
const inch = (length: number) => length * 72;

/**
 * DIN 5008:2020 form B on A4 (from memory): the field of the address begins 20 mm from the left and 45 mm
 * from the top and is 85 by 45 mm; its upper 17.7 mm are for the sender and remarks, words begin 5 mm inside;
 * folds at 105 and 210 mm, the punch mark at 148.5 mm; margins of 25 mm left and 20 mm right.
 *
 * US no. 10 on Letter (from memory, common practice): an envelope of 9 1/2 by 4 1/8 in with a window of 4 1/2
 * by 1 1/8 in, 7/8 in from its left and 1/2 in from its bottom. Folded in thirds, the paper moves by up to 1
 * in sideways and 11/24 in up, and the address stays in the window whichever way it lies.
 */
export const LETTER_SHEETS: Record<LetterForm, LetterSheet> = {
  'din-b': {
    paper: 'A4',
    sender: { x: mm(25), y: mm(57.5), width: mm(75), height: mm(5) },
    address: { x: mm(25), y: mm(62.7), width: mm(75), height: mm(27.3), low: false },
    bodyTop: mm(98.5),
    margins: { left: mm(25), right: mm(20), top: mm(27), bottom: mm(25) },
    folds: [mm(105), mm(210)],
    punch: mm(148.5),
  },
  'us-10': {
    paper: 'LETTER',
    sender: { x: inch(1), y: inch(0.75), width: inch(4), height: inch(0.2) },
    address: { x: inch(1), y: inch(2.3), width: inch(3.3), height: inch(0.83), low: true },
    bodyTop: inch(3.9),
    margins: { left: inch(1), right: inch(1), top: inch(1), bottom: inch(1) },
    folds: [inch(11 / 3), inch(22 / 3)],
    punch: null,
  },
};

/** Countries whose post uses US Letter paper (common practice). */
const LETTER_PAPER = new Set(['US', 'CA', 'MX', 'PH', 'CL', 'CO', 'VE']);

/** The paper that a country (ISO 3166-1) prints on. */
export const paperIn = (country: string): Paper => (LETTER_PAPER.has(country) ? 'LETTER' : 'A4');

/** The form of letters in a country (ISO 3166-1). */
export function letterFormOf(country: string): LetterForm {
  return paperIn(country) === 'LETTER' ? 'us-10' : 'din-b';
}

/** The height of a line of an address of so many lines, at most 13.5 pt: all of them fit their field. */
export function addressLineHeight(sheet: LetterSheet, lines: number): number {
  return Math.min(13.5, sheet.address.height / Math.max(1, lines));
}

/** The top of the first line of an address of so many lines. */
export function addressTop(sheet: LetterSheet, lines: number): number {
  const { y, height, low } = sheet.address;
  return low ? y + height - lines * addressLineHeight(sheet, lines) : y;
}

/** The measures of the paper of a form, in points. */
export const paperOf = (form: LetterForm) => PAPERS[LETTER_SHEETS[form].paper];
