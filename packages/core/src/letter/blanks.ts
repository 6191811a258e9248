import { hrefsIn, readableLines, type WrittenWords } from './written';

/** As on a form: three or more underscores where somebody is to write. */
const BLANK = /_{3,}/;

/** How much of a line is told around a blank, in letters. */
const AROUND = 24;

/**
 * The blanks in a message that are still to be filled in, in its words and behind its links, each with some
 * words around it, as typed.
 *
 * @example blanksIn({ ...NO_WORDS, text: 'It costs ___ in all' }) // ['It costs ___ in all']
 */
export function blanksIn(words: WrittenWords): string[] {
  return [...readableLines(words), ...hrefsIn(words.letter)].flatMap((line) => {
    const at = BLANK.exec(line);
    if (!at) return [];
    const from = Math.max(0, at.index - AROUND);
    const to = Math.min(line.length, at.index + at[0].length + AROUND);
    return [`${from > 0 ? '…' : ''}${line.slice(from, to).trim()}${to < line.length ? '…' : ''}`];
  });
}
