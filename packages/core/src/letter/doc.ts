import { said, type Said } from '../common';
/**
 * A letter as the editor keeps it: a small closed set of blocks, so that everything in it can be mailed
 * safely.
 */
export interface LetterDoc {
  type: 'doc';
  content?: Block[];
}

/** A block of a letter: paragraph, heading, list, button, picture, quotation. */
export type Block =
  | { type: 'paragraph'; content?: Inline[] }
  | { type: 'heading'; attrs: { level: number }; content?: Inline[] }
  | { type: 'bulletList' | 'orderedList'; content?: ListItem[] }
  | { type: 'button'; attrs: { href: string; label: string } }
  | { type: 'image'; attrs: { src: string; alt?: string | null; width?: number | null } };

/** One item of a list in a letter. */
export interface ListItem {
  type: 'listItem';
  content?: Block[];
}

/** Words, a break or a merge field within a block. */
export type Inline = { type: 'text'; text: string; marks?: InlineMark[] } | { type: 'hardBreak' };

/** How words of a letter are set: strong, slanted, a link. */
export type InlineMark = { type: 'bold' | 'italic' } | { type: 'link'; attrs: { href: string } };

/** Addresses that may stand behind a link: web pages, mail and telephone. */
export function isSafeLink(href: string): boolean {
  return /^(https?:\/\/|mailto:|tel:)\S+$/i.test(href);
}

/** The library image behind a source such as `/media/12`; null for any other address. */
export function imageIdOf(src: string): number | null {
  const found = /^\/media\/(\d+)$/.exec(src);
  return found ? Number(found[1]) : null;
}

const BLOCKS = new Set(['paragraph', 'heading', 'bulletList', 'orderedList', 'listItem', 'button', 'image']);
const INLINES = new Set(['text', 'hardBreak']);
const MARKS = new Set(['bold', 'italic', 'link']);

/**
 * Checks a document that came over the wire: only known kinds, safe links, library images, at most 2,000
 * nodes. Returns the first thing wrong, or null.
 */
export function letterFault(doc: unknown): Said | null {
  if (!isNode(doc) || doc.type !== 'doc') return said('letter.document');
  let nodes = 0;
  const visit = (node: AnyNode): Said | null => {
    if (++nodes > 2000) return said('letter.long');
    return nodeFault(node) ?? firstFault(node.content, visit);
  };
  return firstFault(doc.content, visit);
}

interface AnyNode {
  type: string;
  text?: unknown;
  attrs?: Record<string, unknown>;
  marks?: unknown;
  content?: unknown;
}

function isNode(value: unknown): value is AnyNode {
  return typeof value === 'object' && value !== null && typeof (value as AnyNode).type === 'string';
}

function firstFault(content: unknown, visit: (node: AnyNode) => Said | null): Said | null {
  if (content === undefined) return null;
  if (!Array.isArray(content)) return said('letter.list');
  for (const child of content) {
    const fault = isNode(child) ? visit(child) : said('letter.piece');
    if (fault) return fault;
  }
  return null;
}

/** What came over the wire may be anything; what is no text is none. */
const textOf = (value: unknown) => (typeof value === 'string' ? value : '');

function nodeFault(node: AnyNode): Said | null {
  if (!BLOCKS.has(node.type) && !INLINES.has(node.type)) return said('letter.kind', { type: node.type });
  if (node.type === 'text' && typeof node.text !== 'string') return said('letter.text');
  if (node.type === 'heading' && ![1, 2, 3].includes(Number(node.attrs?.level)))
    return said('letter.heading');
  if (node.type === 'image' && imageIdOf(textOf(node.attrs?.src)) === null) return said('letter.image');
  if (node.type === 'button' && !isSafeLink(textOf(node.attrs?.href))) {
    return said('letter.button', { label: textOf(node.attrs?.label) });
  }
  return markFault(node.marks);
}

function markFault(marks: unknown): Said | null {
  for (const mark of Array.isArray(marks) ? marks : []) {
    if (!isNode(mark) || !MARKS.has(mark.type)) return said('letter.style');
    if (mark.type === 'link' && !isSafeLink(textOf(mark.attrs?.href))) {
      return said('letter.link', { href: textOf(mark.attrs?.href) });
    }
  }
  return null;
}
