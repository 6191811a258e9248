import type { Rule } from '../segment';

/** A page of HTML that was made elsewhere, sanitized; a letter's blocks beside it say what it reads. */
export interface OwnHtml {
  html: string;
  /** What was taken away when it came in, in sentences. */
  told: string[];
}

/**
 * A letter as the editor keeps it: a small closed set of blocks, so that everything in it can be mailed
 * safely. Documents before version 2 say none; `currentLetter` reads them.
 */
export interface LetterDoc {
  type: 'doc';
  /** The version of the set of blocks; 1 where nothing is said. */
  version?: number;
  /** A page of HTML made elsewhere, that is mailed in the place of the blocks; they say what it reads. */
  own?: OwnHtml | null;
  /** A personal letter: without the house's logo and colours. */
  plain?: boolean;
  content?: Block[];
}

/** The version of documents that are written today. */
export const LETTER_VERSION = 2;

/** Where the words of a paragraph or a heading stand: where reading begins, if nothing is said. */
export const ALIGNMENTS = ['center', 'end'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

/** Where a picture stands: over the whole width, or at a side with words beside it. */
export const SIDES = ['start', 'end'] as const;
export type Side = (typeof SIDES)[number];

/** A picture of the library. */
export interface LetterPicture {
  src: string;
  /** What is on it, for whoever does not see it; empty where it only decorates, null where nobody said. */
  alt?: string | null;
  /** How wide it stands, in CSS pixels; as wide as there is room where nothing is said. */
  width?: number | null;
  side?: Side | null;
  /** Where a press on it leads. */
  href?: string | null;
}

/** A passage for people whom a sentence fits, another wording for the rest. */
export interface PersonalBlock {
  type: 'personal';
  attrs: { tree: Rule };
  content: [PassageBlock<'fitting'>, PassageBlock<'otherwise'>];
}

/** One of the two wordings of a personal block. */
export interface PassageBlock<T extends 'fitting' | 'otherwise' = 'fitting' | 'otherwise'> {
  type: T;
  content?: Block[];
}

/** One of two or three columns that stand beside each other, and below each other on a telephone. */
export interface ColumnBlock {
  type: 'column';
  content?: Block[];
}

/** A block of a letter. */
export type Block =
  | { type: 'paragraph'; attrs?: { align?: Alignment | null }; content?: Inline[] }
  | { type: 'heading'; attrs: { level: number; align?: Alignment | null }; content?: Inline[] }
  | { type: 'bulletList' | 'orderedList'; content?: ListItem[] }
  | { type: 'blockquote'; content?: Block[] }
  | { type: 'horizontalRule' }
  | { type: 'button'; attrs: { href: string; label: string } }
  | { type: 'gifts'; attrs: { href: string } }
  | { type: 'image'; attrs: LetterPicture }
  | { type: 'columns'; content?: ColumnBlock[] }
  | { type: 'signature' }
  | PersonalBlock;

/** One item of a list in a letter. */
export interface ListItem {
  type: 'listItem';
  content?: Block[];
}

/** Words, a break or a merge field within a block. */
export type Inline = { type: 'text'; text: string; marks?: InlineMark[] } | { type: 'hardBreak' };

/** How words of a letter are set: strong, slanted, a link. */
export type InlineMark = { type: 'bold' | 'italic' } | { type: 'link'; attrs: { href: string } };

const LINK_FIELD = /^\{\s*Link:[^{}]*\}/i;

/**
 * Addresses that may stand behind a link: web pages, mail and telephone. Merge fields may stand behind the
 * host, never in it: where a link leads is the writer's to say, and no value's.
 */
export function isSafeLink(href: string): boolean {
  if (/^(?:mailto|tel):[^\s{}]+$/i.test(href)) return true;
  // A merge field that is a link is an address of the house's own.
  if (LINK_FIELD.test(href)) return !/[\s{}]/.test(href.replace(LINK_FIELD, '').replace(/\{[^{}]*\}/g, ''));
  if (!/^https?:\/\//i.test(href)) return false;
  const rest = href.slice(href.indexOf('//') + 2);
  const end = rest.search(/[/?#]/);
  const host = end < 0 ? rest : rest.slice(0, end);
  if (host === '' || /[\s{}]/.test(host)) return false;
  return !/\s/.test(rest.replace(/\{[^{}]*\}/g, ''));
}

/** The library image behind a source such as `/media/12`; null for any other address. */
export function imageIdOf(src: string): number | null {
  const found = /^\/media\/(\d+)$/.exec(src);
  return found ? Number(found[1]) : null;
}
