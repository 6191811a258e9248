import type { Content } from 'pdfmake/interfaces';
import type { Block, Inline } from '@goodword/core/letter';

/** What the blocks of a letter are set with: the words of one person, and pictures by their sources. */
export interface LetterInk {
  filled: (text: string) => string;
  /** The name under which the document keeps a picture; null where it has none. */
  picture: (src: string) => string | null;
  /** The picture under the sender's signature. */
  signature: string | null;
  /** Points that the words are wide. */
  width: number;
}

const HAIR = '#B9C3BE';
/** CSS pixels are 1/96 inch, points 1/72. */
const POINTS_A_PIXEL = 0.75;
const ALIGNED = { center: 'center', end: 'right' } as const;

/** One block of a letter on paper. */
export function blockContent(block: Block, ink: LetterInk): Content {
  const { filled } = ink;
  switch (block.type) {
    case 'paragraph':
      return { text: inlineContent(block.content, filled), ...aligned(block.attrs), margin: [0, 0, 0, 9] };
    case 'heading':
      return {
        text: inlineContent(block.content, filled),
        ...aligned(block.attrs),
        bold: true,
        fontSize: 19 - 2 * block.attrs.level,
        margin: [0, 4, 0, 6],
      };
    case 'bulletList':
      return { ul: items(block, ink), margin: [0, 0, 0, 9] };
    case 'orderedList':
      return { ol: items(block, ink), margin: [0, 0, 0, 9] };
    // On paper a button is where it leads.
    case 'button':
      return { text: `${filled(block.attrs.label)}: ${filled(block.attrs.href)}`, margin: [0, 0, 0, 9] };
    case 'blockquote':
      return { stack: inner(block.content, ink), margin: [14, 0, 0, 4], italics: true };
    case 'horizontalRule':
      return {
        canvas: [{ type: 'line', x1: 0, y1: 0, x2: 200, y2: 0, lineWidth: 0.5, lineColor: HAIR }],
        margin: [0, 6, 0, 12],
      };
    case 'columns':
      return columns(block.content ?? [], ink);
    case 'signature':
      return {
        stack: [
          ...(ink.signature ? [{ image: ink.signature, fit: [150, 60] as [number, number] }] : []),
          { text: filled('{Sender: signature}') },
        ],
        unbreakable: true,
        margin: [0, 4, 0, 9],
      };
    // Amounts stand on paper as words; where one gives stands beside them.
    case 'gifts':
      return {
        text: filled('{Ask: first, or ""}  {Ask: second, or ""}  {Ask: third, or ""}').trim(),
        bold: true,
        margin: [0, 0, 0, 9],
      };
    case 'image':
      return imageContent(block.attrs, ink);
    // What is for somebody was chosen before.
    case 'personal':
      return '';
  }
}

function columns(parts: readonly { content?: Block[] }[], ink: LetterInk): Content {
  const gap = 18;
  const width = (ink.width - gap * (parts.length - 1)) / Math.max(1, parts.length);
  return {
    columns: parts.map((column) => ({ width, stack: inner(column.content, { ...ink, width }) })),
    columnGap: gap,
  };
}

function imageContent(attrs: Extract<Block, { type: 'image' }>['attrs'], ink: LetterInk): Content {
  const image = ink.picture(attrs.src);
  if (image === null) return '';
  const wanted = attrs.width ? attrs.width * POINTS_A_PIXEL : ink.width;
  const alignment = attrs.side === 'end' ? ('right' as const) : ('left' as const);
  return { image, fit: [Math.min(wanted, ink.width), 420], alignment, margin: [0, 0, 0, 9] };
}

const aligned = (attrs: { align?: keyof typeof ALIGNED | null } | undefined) =>
  attrs?.align ? { alignment: ALIGNED[attrs.align] } : {};

const inner = (blocks: readonly Block[] | undefined, ink: LetterInk) =>
  (blocks ?? []).map((block) => blockContent(block, ink));

function items(list: { content?: readonly { content?: Block[] }[] }, ink: LetterInk): Content[] {
  return (list.content ?? []).map((item) => ({ stack: inner(item.content, ink) }));
}

function inlineContent(inlines: readonly Inline[] | undefined, filled: (text: string) => string): Content {
  return (inlines ?? []).map((inline): Content => {
    if (inline.type === 'hardBreak') return '\n';
    const has = (type: string) => (inline.marks ?? []).some((mark) => mark.type === type);
    return { text: filled(inline.text), bold: has('bold'), italics: has('italic') };
  });
}
