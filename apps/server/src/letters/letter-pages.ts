import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { readBlocks, type LetterDoc } from '@goodword/core/letter';
import {
  compile,
  render,
  type CompiledTemplate,
  type MergeValues,
  type Registry,
} from '@goodword/core/merge';
import {
  addressLineHeight,
  addressTop,
  LETTER_SHEETS,
  paperOf,
  type LetterForm,
  type LetterSheet,
} from '@goodword/core/print';
import { sentence } from '../platform/words';
import { blockContent } from './letter-blocks';

/** One letter: what stands in its window, its number in the pile, and what fills its words. */
export interface PrintedLetter {
  number: number;
  address: readonly string[];
  values: MergeValues;
}

export interface LetterAround {
  form: LetterForm;
  registry: Registry;
  organization: string;
  postalAddress: string;
  day: string;
  /** Pictures by their sources, as `data:` addresses. */
  pictures: Readonly<Record<string, string>>;
  logo: { src: string; width: number } | null;
  signature: string | null;
}

const SECOND = '#51626A';
const HAIR = '#8A979C';

/** The first thing of a letter; the layout writes on it on which page it came to lie. */
interface LetterMark {
  text: string;
  fontSize: number;
  lineHeight: number;
  positions?: { pageNumber: number }[];
}

/** Letters one after the other, each laid out for the window of its envelope and counted by itself. */
export function letterPages(
  letter: LetterDoc,
  letters: readonly PrintedLetter[],
  around: LetterAround,
): TDocumentDefinitions {
  const sheet = LETTER_SHEETS[around.form];
  const paper = paperOf(around.form);
  const { margins } = sheet;
  const filledWith = fillerOf(around.registry);
  const begins: LetterMark[] = letters.map(() => ({ text: ' ', fontSize: 1, lineHeight: 1 }));
  const content = letters.map(({ address, values }, i): Content => {
    const ink = {
      filled: filledWith(values),
      picture: (src: string) => (src in around.pictures ? src : null),
      signature: around.signature !== null && around.signature in around.pictures ? around.signature : null,
      width: paper.width - margins.left - margins.right,
    };
    return {
      stack: [
        begins[i]!,
        ...head(sheet, around),
        ...addressField(sheet, address, around),
        ...marks(sheet),
        // What follows begins where the first page has room for words, and at the margin on the others.
        {
          text: around.day,
          alignment: 'right',
          margin: [0, sheet.bodyTop - margins.top, 0, 18],
        },
        ...readBlocks(letter, values).map((block) => blockContent(block, ink)),
      ],
      ...(i > 0 ? { pageBreak: 'before' as const } : {}),
    };
  });
  return {
    pageSize: paper,
    pageMargins: [margins.left, margins.top, margins.right, margins.bottom],
    info: { title: sentence('letters.title') },
    defaultStyle: { font: 'Roboto', fontSize: 11, lineHeight: 1.25, color: '#000000' },
    images: { ...around.pictures },
    content,
    footer: (page, pages) => foot(letters, begins, page, pages, sheet),
  };
}

/** Each text is read once, however many letters it stands in. */
function fillerOf(registry: Registry): (values: MergeValues) => (text: string) => string {
  const known = new Map<string, CompiledTemplate>();
  const read = (text: string) => {
    const found = known.get(text) ?? compile(text, registry);
    known.set(text, found);
    return found;
  };
  return (values) => (text) => render(read(text), values);
}

/** Who writes: the logo where there is one, else the name. */
function head(sheet: LetterSheet, { logo, pictures, organization }: LetterAround): Content[] {
  const at = { absolutePosition: { x: sheet.margins.left, y: 28 } };
  if (logo && logo.src in pictures)
    return [{ image: logo.src, fit: [Math.min(220, logo.width * 0.75), 70], ...at }];
  return [{ text: organization, bold: true, fontSize: 13, ...at }];
}

/** The line of the sender, and the address, where the window shows them. */
function addressField(sheet: LetterSheet, lines: readonly string[], around: LetterAround): Content[] {
  const height = addressLineHeight(sheet, lines.length);
  const top = addressTop(sheet, lines.length);
  const line = [around.organization, ...around.postalAddress.split('\n')]
    .map((part) => part.trim())
    .filter(Boolean)
    .join(', ');
  return [
    {
      text: line,
      fontSize: fitting(line, sheet.sender.width, 7.5),
      color: SECOND,
      noWrap: true,
      absolutePosition: { x: sheet.sender.x, y: sheet.sender.y },
    },
    ...lines.map((text, i): Content => ({
      text,
      noWrap: true,
      lineHeight: 1,
      fontSize: fitting(text, sheet.address.width, height * 0.8),
      absolutePosition: { x: sheet.address.x, y: top + i * height },
    })),
  ];
}

/** A size in which a line of so many letters stays within its field: half an em each, the capitals wider. */
const fitting = (text: string, width: number, most: number) =>
  Math.max(5, Math.min(most, width / (0.56 * Math.max(1, text.length))));

/** Where it is folded, and where it is punched: short lines at the left edge, away from what is read. */
function marks(sheet: LetterSheet): Content[] {
  const mark = (y: number, length: number): Content => ({
    canvas: [{ type: 'line', x1: 0, y1: 0, x2: length, y2: 0, lineWidth: 0.5, lineColor: HAIR }],
    absolutePosition: { x: 12, y },
  });
  return [...sheet.folds.map((y) => mark(y, 9)), ...(sheet.punch === null ? [] : [mark(sheet.punch, 14)])];
}

/** The page of a letter that has several, and the letter's number, by which it is found in the pile. */
function foot(
  letters: readonly PrintedLetter[],
  begins: readonly LetterMark[],
  page: number,
  pages: number,
  { margins }: LetterSheet,
): Content {
  const firstOf = (mark: LetterMark | undefined) => mark?.positions?.[0]?.pageNumber;
  const at = begins.findLastIndex((mark) => (firstOf(mark) ?? Infinity) <= page);
  const first = firstOf(begins[at]) ?? 1;
  const of = (firstOf(begins[at + 1]) ?? pages + 1) - first;
  const number = letters[at]?.number;
  return {
    columns: [
      { text: number === undefined ? '' : sentence('letters.number', { number }), alignment: 'left' },
      {
        text: of > 1 ? sentence('letters.page', { page: page - first + 1, pages: of }) : '',
        alignment: 'right',
      },
    ],
    margin: [margins.left, margins.bottom - 34, margins.right, 0],
    fontSize: 7.5,
    color: SECOND,
  };
}
