import { said, type Said } from '../common';
import type { LetterDoc } from './doc';
import { blocksOf } from './walk';
import { hrefsIn } from './written';

/**
 * From here on large mail readers cut the end of a letter off, and the way out with it. Common practice (no
 * source); bytes of the HTML, pictures left out.
 */
export const CUT_AT_BYTES = 102_000;
/** All pictures of a letter together: above, it is slow on the road. Common practice, no source. */
export const PICTURES_BYTES = 1_000_000;

/** What a letter weighs: bytes of its HTML and of its pictures. */
export interface LetterWeight {
  html: number;
  pictures: number;
}

/**
 * What is worth a second look before a letter leaves, and holds nothing back: links that anybody on the way
 * can change, pictures that say nothing to whoever does not see them, weight.
 *
 * @example letterDoubts(letter, { html: 12_000, pictures: 0 }) // []
 */
export function letterDoubts(letter: LetterDoc, { html, pictures }: LetterWeight): Said[] {
  const blocks = blocksOf(letter.content);
  const open = [...new Set(hrefsIn(letter).filter((href) => /^http:/i.test(href)))];
  // An empty text is an answer: the picture only decorates.
  const silent = blocks.filter((block) => block.type === 'image' && typeof block.attrs.alt !== 'string');
  return [
    ...open.map((href) => said('letter.doubt.http', { href })),
    ...(silent.length > 0 ? [said('letter.doubt.alt', { n: silent.length })] : []),
    ...(html > CUT_AT_BYTES ? [said('letter.doubt.cut', { kb: Math.round(html / 1000) })] : []),
    ...(pictures > PICTURES_BYTES
      ? [said('letter.doubt.pictures', { mb: (pictures / 1e6).toFixed(1) })]
      : []),
  ];
}

/** The sources of the pictures in a letter, each once. */
export function picturesOf(letter: LetterDoc): string[] {
  return [
    ...new Set(
      blocksOf(letter.content).flatMap((block) => (block.type === 'image' ? [block.attrs.src] : [])),
    ),
  ];
}
