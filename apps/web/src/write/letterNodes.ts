import StarterKit from '@tiptap/starter-kit';
import { isSafeLink } from '@goodword/core/letter';
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
      // A link that can't be mailed is none; its words stay.
      isAllowedUri: (url) => isSafeLink(url),
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
