import { t } from '@lingui/core/macro';
import { Extension, mergeAttributes, Node } from '@tiptap/core';
import Image from '@tiptap/extension-image';
import { ReactNodeViewRenderer } from '@tiptap/react';
import type { Alignment } from '@goodword/core/letter';
import { GiftsView } from './GiftsView';
import { PersonalView } from './PersonalView';

/** A button in a letter: a label and an address. */
export const LetterButton = Node.create({
  name: 'button',
  group: 'block',
  atom: true,
  addAttributes: () => ({ href: { default: '' }, label: { default: '' } }),
  parseHTML: () => [{ tag: 'a[data-letter-button]' }],
  renderHTML({ node, HTMLAttributes }) {
    const style =
      'display:inline-block;padding:10px 20px;background:#17252B;color:#fff;font:700 15px Arial,sans-serif;border-radius:4px;margin:0 0 14px;text-decoration:none';
    return [
      'a',
      mergeAttributes(HTMLAttributes, {
        'data-letter-button': '',
        style,
        role: 'img',
        'aria-label': t`Button: ${String(node.attrs.label)}`,
      }),
      String(node.attrs.label),
    ];
  },
});

/** A picture of the library; addresses from elsewhere are not taken, pasted ones included. */
export const LetterImage = Image.extend({
  addAttributes: () => ({
    src: { default: '' },
    alt: { default: null },
    width: { default: null },
    side: { default: null },
    href: { default: null },
  }),
  parseHTML: () => [{ tag: 'img[src^="/media/"]' }],
  renderHTML({ node, HTMLAttributes }) {
    const { width, side } = node.attrs as { width: number | null; side: 'start' | 'end' | null };
    const float = side
      ? `float:${side === 'start' ? 'left' : 'right'};max-width:50%;margin:4px 16px 8px;`
      : '';
    const style = `${float}${width ? `width:${width}px;` : ''}`;
    return ['img', mergeAttributes(HTMLAttributes, style ? { style } : {})];
  },
});

/** A button for each amount that somebody is asked for. */
export const Gifts = Node.create({
  name: 'gifts',
  group: 'block',
  atom: true,
  addAttributes: () => ({ href: { default: '' } }),
  parseHTML: () => [{ tag: 'div[data-letter-gifts]' }],
  renderHTML: ({ HTMLAttributes }) => ['div', mergeAttributes(HTMLAttributes, { 'data-letter-gifts': '' })],
  addNodeView: () => ReactNodeViewRenderer(GiftsView),
});

/** What the sender puts under their letters. */
export const Signature = Node.create({
  name: 'signature',
  group: 'block',
  atom: true,
  parseHTML: () => [{ tag: 'div[data-letter-signature]' }],
  renderHTML: ({ HTMLAttributes }) => [
    'div',
    mergeAttributes(HTMLAttributes, { 'data-letter-signature': '', class: 'letter-atom' }),
    t`The sender’s signature, with their picture`,
  ],
});

/** Two or three columns beside each other. */
export const LetterColumns = Node.create({
  name: 'columns',
  group: 'block',
  content: 'column{2,3}',
  isolating: true,
  parseHTML: () => [{ tag: 'div[data-letter-columns]' }],
  renderHTML: ({ HTMLAttributes }) => [
    'div',
    mergeAttributes(HTMLAttributes, { 'data-letter-columns': '' }),
    0,
  ],
});

export const LetterColumn = Node.create({
  name: 'column',
  content: 'block+',
  isolating: true,
  parseHTML: () => [{ tag: 'div[data-letter-column]' }],
  renderHTML: ({ HTMLAttributes }) => [
    'div',
    mergeAttributes(HTMLAttributes, { 'data-letter-column': '' }),
    0,
  ],
});

/** A passage for people whom a sentence fits, another wording for the rest. */
export const Personal = Node.create({
  name: 'personal',
  group: 'block',
  content: ['fitting', 'otherwise'].join(' '),
  isolating: true,
  addAttributes: () => ({
    tree: {
      default: null,
      parseHTML: (element) => JSON.parse(element.getAttribute('data-tree') ?? 'null') as unknown,
      renderHTML: ({ tree }) => ({ 'data-tree': JSON.stringify(tree) }),
    },
  }),
  parseHTML: () => [{ tag: 'div[data-letter-personal]' }],
  renderHTML: ({ HTMLAttributes }) => [
    'div',
    mergeAttributes(HTMLAttributes, { 'data-letter-personal': '' }),
    0,
  ],
  addNodeView: () => ReactNodeViewRenderer(PersonalView),
});

const wording = (name: 'fitting' | 'otherwise') =>
  Node.create({
    name,
    content: 'block+',
    isolating: true,
    parseHTML: () => [{ tag: `div[data-letter-${name}]` }],
    renderHTML: ({ HTMLAttributes }) => [
      'div',
      mergeAttributes(HTMLAttributes, {
        [`data-letter-${name}`]: '',
        ...(name === 'otherwise' ? { 'data-before': t`The rest read:` } : {}),
      }),
      0,
    ],
  });

export const Fitting = wording('fitting');
export const Otherwise = wording('otherwise');

/** Where the words of a paragraph or a heading stand. */
export const Aligned = Extension.create({
  name: 'aligned',
  addGlobalAttributes: () => [
    {
      types: ['paragraph', 'heading'],
      attributes: {
        align: {
          default: null,
          parseHTML: (element) => {
            const side = element.style.textAlign;
            return side === 'center' ? 'center' : side === 'right' || side === 'end' ? 'end' : null;
          },
          renderHTML: ({ align }: { align?: Alignment | null }) =>
            align ? { style: `text-align:${align}` } : {},
        },
      },
    },
  ],
});
