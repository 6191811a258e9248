import { LETTER_VERSION, letterOfText, NO_WORDS, type Block, type LetterDoc } from '../../letter';
import type { PersonalBlock, WrittenWords } from '../../letter';
import type { Channel, Purpose } from '../../permission';

/** Words to begin with, by channel, for one occasion. A blank (`___`) is filled in by whoever writes. */
export interface Starter {
  /** Kept with what was made of it; never changes. */
  key: string;
  name: string;
  /** When to use it. */
  note: string;
  purpose: Purpose;
  words: Partial<Record<Channel, WrittenWords>>;
}

/** Plain words and blocks, one after the other. */
const letterWith = (parts: readonly (string | Block)[]): LetterDoc => ({
  type: 'doc',
  version: LETTER_VERSION,
  content: parts.flatMap((part) => (typeof part === 'string' ? (letterOfText(part).content ?? []) : [part])),
});

/** An email. */
export const email = (subject: string, preheader: string, ...parts: (string | Block)[]): WrittenWords => ({
  ...NO_WORDS,
  subject,
  preheader,
  letter: letterWith(parts),
});

/** A letter on paper. */
export const onPaper = (...parts: (string | Block)[]): WrittenWords => ({
  ...NO_WORDS,
  letter: letterWith(parts),
});

/** The three amounts to press, leading to where the house says that one gives. */
export const GIFT_BUTTONS: Block = { type: 'gifts', attrs: { href: '{Link: giving page}' } };

/** What the sender puts under their letters. */
export const SIGNATURE: Block = { type: 'signature' };

/** Words for whoever gave so many times within so many months, and others for the rest. */
export function forGivers(times: number, months: number, fitting: string, otherwise: string): PersonalBlock {
  const tree = { kind: 'gave', did: true, measure: 'count', atLeast: times } as const;
  return {
    type: 'personal',
    attrs: { tree: { ...tree, window: { over: 'last-months', days: months } } },
    content: [
      { type: 'fitting', content: letterOfText(fitting).content },
      { type: 'otherwise', content: letterOfText(otherwise).content },
    ],
  };
}

/** A text, or a script to be read out. */
export const spokenWords = (text: string): WrittenWords => ({ ...NO_WORDS, text });
