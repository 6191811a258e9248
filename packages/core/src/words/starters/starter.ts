import { letterOfText, NO_WORDS, type WrittenWords } from '../../letter';
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

/** An email of plain words. */
export const email = (subject: string, preheader: string, words: string): WrittenWords => ({
  ...NO_WORDS,
  subject,
  preheader,
  letter: letterOfText(words),
});

/** A letter on paper of plain words. */
export const onPaper = (words: string): WrittenWords => ({ ...NO_WORDS, letter: letterOfText(words) });

/** A text, or a script to be read out. */
export const spokenWords = (text: string): WrittenWords => ({ ...NO_WORDS, text });
