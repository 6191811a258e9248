import StarterKit from '@tiptap/starter-kit';
import {
  Aligned,
  LetterColumn,
  LetterColumns,
  Fitting,
  Gifts,
  LetterButton,
  LetterImage,
  Otherwise,
  Personal,
  Signature,
} from './nodes';

/** What a letter is made of, for the editor and for whatever is pasted. */
export const letterNodes = [
  StarterKit.configure({
    codeBlock: false,
    code: false,
    strike: false,
    underline: false,
    heading: { levels: [1, 2, 3] },
    link: {
      openOnClick: false,
      autolink: true,
      defaultProtocol: 'https',
      HTMLAttributes: { target: null, rel: null, class: null },
    },
  }),
  Aligned,
  LetterButton,
  LetterImage,
  Gifts,
  Signature,
  LetterColumns,
  LetterColumn,
  Personal,
  Fitting,
  Otherwise,
];
