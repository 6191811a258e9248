import { compile, joinLiterals, type MergeFault, type MergePart } from '../merge';
import type { Rule } from '../segment';
import type { LetterDoc } from './doc';
import { escapedLiterals, htmlOf, LetterIndex, PADDING, type LetterSurroundings } from './html';
import { escapeHtml } from './markup';
import { currentLetter } from './migrate';
import { isOwnWayOut, ownHtmlParts } from './own';
import { plainOf } from './plain-text';
import { FACES, INK, USUAL_STYLE, type HouseStyle } from './style';

/** A letter ready to be filled for many people. */
export interface CompiledLetter {
  html: MergePart[];
  plain: MergePart[];
  faults: MergeFault[];
  /** Addresses behind the links, in order: slot `link:0` is the first. Equal addresses share one. */
  links: string[];
  /** The sentences of personal blocks, in order: `fits:0` is the first. */
  rules: Rule[];
}

/** Turns a checked document (see `letterFault`) of any version into its body. Linear in the document. */
export function compileLetter(doc: LetterDoc, around: LetterSurroundings): CompiledLetter {
  const letter = currentLetter(doc);
  const index = new LetterIndex();
  const { parts, faults } = letter.own
    ? ownHtmlParts(letter.own.html, around, index)
    : htmlOf(letter, around, index);
  return {
    html: parts,
    plain: plainOf(letter, around, index),
    faults,
    links: index.links,
    rules: index.rules,
  };
}

/** What stands around every mass email: who sent it, where they live, why it came and the way out. */
export interface LetterFrame {
  /** Who sends and where they live, in one line. */
  imprint: string;
  why: string;
  /** The words that lead to the page on which one leaves or chooses. */
  leaveWords: string;
  subject: string;
  preheader: string;
  /** BCP 47. */
  language: string;
}

/** Colours for readers whose program is dark: words light, links lighter, paper dark. */
const DARK =
  ':root{color-scheme:light dark;supported-color-schemes:light dark}' +
  '@media (prefers-color-scheme:dark){.b{background:#14191c!important}.t{color:#e8ecea!important}' +
  '.s{color:#b4c0bd!important}.a{color:#7fd1c7!important}}';

const SMALL = 'margin:0 0 8px;font:13px/24px Arial,sans-serif;color:#51626A';

const slot = (key: string, or: string): MergePart => ({ key, name: key, or });

/** What is hidden behind the subject in the list of a mail reader. */
function hidden(preheader: readonly MergePart[]): MergePart[] {
  if (preheader.length === 0) return [];
  return [
    '<div style="display:none;max-height:0;overflow:hidden">',
    ...preheader.map(escapedLiterals),
    '</div>',
  ];
}

function logoOf({ logo }: HouseStyle, around: LetterSurroundings, name: string): MergePart[] {
  if (!logo) return [];
  const { url, width, height } = around.picture(logo.src);
  const natural = width ?? logo.width;
  const wide = Math.min(logo.width, natural);
  const high = height === null ? '' : ` height="${Math.round((height * wide) / natural)}"`;
  return [
    `<img src="${escapeHtml(url(Math.min(2 * wide, natural)))}" alt="${escapeHtml(name)}" width="${wide}"${high} ` +
      `style="display:block;width:${wide}px;max-width:100%;height:auto;border:0;margin:0 0 24px">`,
  ];
}

/** The words of the house above who sends it, in the language of the letter. */
const footerWords = ({ footer }: HouseStyle, language: string): string =>
  footer[language.slice(0, 2).toLowerCase()] ?? '';

/**
 * The whole mail: body, footer with slots `why` (what it rests on; the footer's words where a person's are
 * not known), `leave` (the way out), `imprint` (who sends; a chapter may have an address of its own) and
 * `pixel` (the address of the open mark, may be empty). Subject and preview line merge as any text does. A
 * plain letter has no logo.
 */
export function wrapLetter(
  letter: CompiledLetter,
  doc: Pick<LetterDoc, 'plain' | 'own'>,
  frame: LetterFrame,
  around: LetterSurroundings & { organization: string },
): { html: MergePart[]; plain: MergePart[] } {
  const style = around.style ?? USUAL_STYLE;
  const { language } = frame;
  const [subject, preheader] = [
    compile(frame.subject, around.registry).parts,
    compile(frame.preheader, around.registry).parts,
  ];
  const own = footerWords(style, language);
  const head: MergePart[] = [
    `<!doctype html><html lang="${escapeHtml(language)}" dir="${textDirection(language)}"><head><meta charset="utf-8">` +
      '<meta name="viewport" content="width=device-width,initial-scale=1">' +
      '<meta name="color-scheme" content="light dark"><meta name="supported-color-schemes" content="light dark"><title>',
    ...subject.map(escapedLiterals),
    '</title>',
  ];
  const html: MergePart[] = [
    ...head,
    ...(doc.own
      ? ownBody(letter, doc.own.html, frame, preheader)
      : houseBody(letter, doc, frame, around, preheader)),
    PIXEL,
    '</body></html>',
  ];
  const plain: MergePart[] = [
    ...letter.plain,
    `----------\n${own === '' ? '' : `${own}\n`}`,
    slot('why', frame.why),
    `\n${frame.leaveWords}: `,
    slot('leave', '#'),
    '\n',
    slot('imprint', frame.imprint),
    '\n',
  ];
  return { html: joinLiterals(html), plain: joinLiterals(plain) };
}

const PIXEL: MergePart = {
  when: 'pixel',
  then: ['<img src="', slot('pixel', ''), '" width="1" height="1" alt="">'],
  otherwise: [],
};

/** The words in the look of the house, with all that stands under them. */
function houseBody(
  letter: CompiledLetter,
  doc: Pick<LetterDoc, 'plain'>,
  frame: LetterFrame,
  around: LetterSurroundings & { organization: string },
  preheader: readonly MergePart[],
): MergePart[] {
  const style = around.style ?? USUAL_STYLE;
  const { language } = frame;
  const own = footerWords(style, language);
  return [
    `<style>${DARK}</style></head><body class="b" style="margin:0;padding:0;background:#ffffff">`,
    ...hidden(preheader),
    '<table role="presentation" width="100%" cellpadding="0" cellspacing="0"><tr><td align="center">' +
      `<table role="presentation" width="${style.width}" cellpadding="0" cellspacing="0" ` +
      `style="width:100%;max-width:${style.width}px;table-layout:fixed"><tr>` +
      `<td align="${textDirection(language) === 'rtl' ? 'right' : 'left'}" ` +
      `style="padding:${PADDING}px;overflow-wrap:anywhere;word-break:break-word">`,
    ...(doc.plain ? [] : logoOf(style, around, around.organization)),
    ...letter.html,
    '<hr style="border:0;border-top:1px solid #D3DAD6;margin:24px 0 16px;clear:both">',
    ...(own === '' ? [] : [`<p class="s" style="${SMALL}">${escapeHtml(own).replace(/\n/g, '<br>')}</p>`]),
    `<p class="s" style="${SMALL}">`,
    slot('why', frame.why),
    ' ',
    ...wayOut(frame),
    `</p><p class="s" style="${SMALL}">`,
    slot('imprint', frame.imprint),
    '</p></td></tr></table></td></tr></table>',
  ];
}

const wayOut = ({ leaveWords }: LetterFrame): MergePart[] => [
  '<a class="s" href="',
  slot('leave', '#'),
  `" style="color:#51626A">${escapeHtml(leaveWords)}</a>`,
];

/** A page as it came, with what a mail must carry and it leaves out: the way out, who sends, from where. */
function ownBody(
  letter: CompiledLetter,
  html: string,
  frame: LetterFrame,
  preheader: readonly MergePart[],
): MergePart[] {
  const hasWayOut = letter.links.some(isOwnWayOut);
  const hasPostal = /\{\s*organization:\s*postal address/i.test(html) || html.includes(frame.imprint);
  return [
    '</head><body style="margin:0;padding:0">',
    ...hidden(preheader),
    ...letter.html,
    '<div style="max-width:600px;margin:24px auto 0;padding:0 16px;overflow-wrap:anywhere">',
    `<p style="${SMALL}">`,
    slot('why', frame.why),
    ...(hasWayOut ? [] : [' ', ...wayOut(frame)]),
    '</p>',
    ...(hasPostal ? [] : [`<p style="${SMALL}">`, slot('imprint', frame.imprint), '</p>']),
    '</div>',
  ];
}

/** The direction in which a language is written (CLDR: `layout/orientation`), from memory. */
function textDirection(language: string): 'ltr' | 'rtl' {
  return /^(ar|fa|he|iw|ku-arab|ps|sd|ug|ur|yi|dv|syr)\b/i.test(language) ? 'rtl' : 'ltr';
}

/** The face and ink that words of a house have on screen. */
export const screenStyle = (style: HouseStyle): { fontFamily: string; color: string } => ({
  fontFamily: FACES[style.face],
  color: INK,
});
