import StarterKit from '@tiptap/starter-kit';
import { LetterButton, LetterImage } from './nodes';

/** What a letter is made of, for the editor and for whatever is pasted. */
export const letterNodes = [
  StarterKit.configure({
    blockquote: false,
    codeBlock: false,
    code: false,
    strike: false,
    underline: false,
    horizontalRule: false,
    heading: { levels: [1, 2, 3] },
    link: {
      openOnClick: false,
      autolink: true,
      defaultProtocol: 'https',
      HTMLAttributes: { target: null, rel: null, class: null },
    },
  }),
  LetterButton,
  LetterImage,
];
