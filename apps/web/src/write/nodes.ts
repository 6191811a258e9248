import { t } from '@lingui/core/macro';
import { mergeAttributes, Node } from '@tiptap/core';
import Image from '@tiptap/extension-image';

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
  parseHTML: () => [{ tag: 'img[src^="/media/"]' }],
});
