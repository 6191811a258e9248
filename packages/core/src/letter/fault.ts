import { said, type Said } from '../common';
import { ALIGNMENTS, imageIdOf, isSafeLink, SIDES } from './doc';
import { MOST_OWN_HTML } from './own';

/** Pieces that a letter may have, and those within one of them: more nobody reads. */
const MOST_NODES = 2000;
/** Blocks within blocks: the deepest that a reader can follow. */
const DEEPEST = 12;
/** Columns that stand beside each other. */
const MOST_COLUMNS = 3;

interface AnyNode {
  type: string;
  own?: unknown;
  text?: unknown;
  attrs?: Record<string, unknown>;
  marks?: unknown;
  content?: unknown;
}

const BLOCKS = [
  'paragraph',
  'heading',
  'bulletList',
  'orderedList',
  'blockquote',
  'horizontalRule',
  'button',
  'gifts',
  'image',
  'columns',
  'signature',
  'personal',
] as const;
const INLINES = ['text', 'hardBreak'] as const;

/** What may stand within each piece; nothing within those that are not here. */
const WITHIN: Record<string, readonly string[]> = {
  doc: BLOCKS,
  paragraph: INLINES,
  heading: INLINES,
  bulletList: ['listItem'],
  orderedList: ['listItem'],
  listItem: BLOCKS,
  blockquote: BLOCKS,
  columns: ['column'],
  // Columns within columns would be too narrow to be read.
  column: BLOCKS.filter((type) => type !== 'columns'),
  personal: ['fitting', 'otherwise'],
  fitting: BLOCKS,
  otherwise: BLOCKS,
};

const MARKS = new Set(['bold', 'italic', 'link']);

/**
 * Checks a document that came over the wire: only known pieces where they may stand, safe links, library
 * images, at most 2,000 pieces, twelve deep. Returns the first thing wrong, or null. The sentences of
 * personal blocks are checked by whoever knows segments.
 */
export function letterFault(doc: unknown): Said | null {
  if (!isNode(doc) || doc.type !== 'doc') return said('letter.document');
  if (!isNone(doc.own) && !isOwn(doc.own)) return said('letter.own');
  let nodes = 0;
  const visit = (node: AnyNode, depth: number): Said | null => {
    if (++nodes > MOST_NODES) return said('letter.long');
    if (depth > DEEPEST) return said('letter.deep');
    return pieceFault(node) ?? childFault(node, (child) => visit(child, depth + 1));
  };
  return childFault(doc, (child) => visit(child, 1));
}

function isNode(value: unknown): value is AnyNode {
  return typeof value === 'object' && value !== null && typeof (value as AnyNode).type === 'string';
}

function childFault({ type, content }: AnyNode, visit: (node: AnyNode) => Said | null): Said | null {
  if (content === undefined) return null;
  if (!Array.isArray(content)) return said('letter.list');
  for (const child of content) {
    if (!isNode(child)) return said('letter.piece');
    if (!(WITHIN[type] ?? []).includes(child.type)) return said('letter.kind', { type: child.type });
    const fault = visit(child);
    if (fault) return fault;
  }
  return null;
}

/** A page of HTML with what was taken out of it, within their bounds; that it is clean others see to. */
function isOwn(value: unknown): boolean {
  const { html, told } = value as { html?: unknown; told?: unknown };
  if (typeof html !== 'string' || html === '' || html.length > MOST_OWN_HTML) return false;
  return Array.isArray(told) && told.length <= 40 && told.every((one) => textOf(one).length <= 300);
}

/** What came over the wire may be anything; what is no text is none. */
const textOf = (value: unknown) => (typeof value === 'string' ? value : '');

const isNone = (value: unknown) => value === undefined || value === null;

const isOneOf = (values: readonly string[], value: unknown) =>
  isNone(value) || values.includes(textOf(value));

function pieceFault(node: AnyNode): Said | null {
  const { type, attrs = {}, content } = node;
  switch (type) {
    case 'text':
      return typeof node.text === 'string' ? markFault(node.marks) : said('letter.text');
    case 'heading':
      if (![1, 2, 3].includes(Number(attrs.level))) return said('letter.heading');
      return isOneOf(ALIGNMENTS, attrs.align) ? null : said('letter.style');
    case 'paragraph':
      return isOneOf(ALIGNMENTS, attrs.align) ? null : said('letter.style');
    case 'image':
      return pictureFault(attrs);
    case 'button':
      return isSafeLink(textOf(attrs.href)) ? null : said('letter.button', { label: textOf(attrs.label) });
    case 'gifts':
      return isSafeLink(textOf(attrs.href)) ? null : said('letter.gifts');
    case 'columns':
      return countFault(content, 2, MOST_COLUMNS);
    case 'personal':
      return typesOf(content).join() === 'fitting,otherwise' && typeof attrs.tree === 'object' && attrs.tree
        ? null
        : said('letter.personal');
    default:
      return null;
  }
}

const typesOf = (content: unknown): string[] =>
  Array.isArray(content) ? content.map((one: unknown) => (isNode(one) ? one.type : '')) : [];

function countFault(content: unknown, least: number, most: number): Said | null {
  const { length } = typesOf(content);
  return length >= least && length <= most ? null : said('letter.columns');
}

function pictureFault(attrs: Record<string, unknown>): Said | null {
  if (imageIdOf(textOf(attrs.src)) === null) return said('letter.image');
  const href = textOf(attrs.href);
  if (href !== '' && !isSafeLink(href)) return said('letter.link', { href });
  const width = Number(attrs.width ?? 1);
  return isOneOf(SIDES, attrs.side) && width >= 1 && width <= 2000 ? null : said('letter.picture');
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
