import { diffWordsWithSpace } from 'diff';
import { readableLines, type WrittenWords } from '@goodword/core/letter';

/** A piece of words: there in both, only before, or only now. */
export interface WordChange {
  words: string;
  is: 'same' | 'gone' | 'new';
}

/** What changed from one version of words to the next, word by word; of long stretches that stayed, ends. */
export function changedWords(before: WrittenWords | null, now: WrittenWords): WordChange[] {
  const lines = (words: WrittenWords | null) =>
    words ? readableLines(words).filter(Boolean).join('\n') : '';
  return diffWordsWithSpace(lines(before), lines(now)).map(({ value, added, removed }) => ({
    words: added || removed || value.length < 160 ? value : `${value.slice(0, 70)} … ${value.slice(-70)}`,
    is: added ? 'new' : removed ? 'gone' : 'same',
  }));
}
