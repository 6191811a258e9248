import { generateJSON } from '@tiptap/core';
import { letterOfText, NO_WORDS, type LetterDoc, type WrittenWords } from '@goodword/core/letter';
import type { Channel } from '@goodword/core/permission';
import { cleaned } from './cleaned';
import { letterNodes } from './letterNodes';

const MARKUP = /<\/?(html|body|p|div|br|h[1-6]|ul|ol|li|table|td|span|a|b|strong|em|i|img)\b[^>]*>/i;

/** What is read aloud of HTML: its words, a line for a block. */
function textOf(html: string): string {
  const page = new DOMParser().parseFromString(html, 'text/html');
  page.querySelectorAll('style, script, title').forEach((one) => one.remove());
  page.querySelectorAll('br').forEach((one) => one.replaceWith('\n'));
  page.querySelectorAll('p, div, li, h1, h2, h3, h4, h5, h6, tr').forEach((one) => one.append('\n'));
  const lines = (page.body.textContent ?? '').split('\n').map((line) => line.trim());
  return lines.filter((line) => line !== '').join('\n');
}

/** Words from elsewhere as those of a channel: HTML where it is such, else plain words with their lines. */
export function pastedWords(pasted: string, channel: Channel): WrittenWords {
  const isHtml = MARKUP.test(pasted);
  if (channel === 'text' || channel === 'call')
    return { ...NO_WORDS, text: (isHtml ? textOf(pasted) : pasted.trim()).slice(0, 4000) };
  const letter = isHtml ? cleaned(generateJSON(pasted, letterNodes) as LetterDoc) : letterOfText(pasted);
  return { ...NO_WORDS, letter };
}
