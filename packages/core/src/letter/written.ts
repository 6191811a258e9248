import type { AskRule } from './ask';
import type { LetterDoc } from './doc';
import { currentLetter } from './migrate';
import { blocksOf, innerBlocks, readBlocks } from './walk';

/** The words of a message or a template: a letter by mail or on paper, a text, a script to be read out. */
export interface WrittenWords {
  subject: string;
  /** The line that mail readers show behind the subject. */
  preheader: string;
  letter: LetterDoc | null;
  text: string;
}

/** Words with the language that they are in and what they ask for, as a version of them is kept. */
export interface KeptWords extends WrittenWords {
  /** BCP 47; null for the organization's. */
  locale: string | null;
  ask: AskRule | null;
  /** Of a text: values are written in the letters that cost least, ' for ’. */
  plainly: boolean;
}

/** A message before its first word. */
export const NO_WORDS: WrittenWords = { subject: '', preheader: '', letter: null, text: '' };

interface AnyNode {
  text?: string;
  attrs?: { label?: string; alt?: string | null; href?: string };
  marks?: { attrs?: { href?: string } }[];
  content?: unknown[];
}

/** Everything in a message that people read, a line each, as it was typed. */
export function readableLines({ subject, preheader, text, letter }: WrittenWords): string[] {
  return [subject, preheader, text, ...letterTexts(letter)];
}

/** Everything in a letter that people read: its texts, and the words of buttons and pictures. */
export function letterTexts(node: unknown): string[] {
  const { text, attrs, content } = (node ?? {}) as AnyNode;
  return [text, attrs?.label, attrs?.alt]
    .filter((one): one is string => Boolean(one))
    .concat((content ?? []).flatMap(letterTexts));
}

/**
 * A letter as one person reads it, without its looks: a paragraph for each block that has words, fields as
 * they were typed.
 */
export function letterParagraphs(
  letter: LetterDoc,
  values: Readonly<Record<string, string | null | undefined>>,
): string[] {
  return blocksOf(readBlocks(currentLetter(letter), values))
    .filter((block) => innerBlocks(block).length === 0)
    .map((block) => letterTexts(block).join(''))
    .filter((paragraph) => paragraph.trim() !== '');
}

/** The addresses behind the links, buttons and pictures of a letter, as they stand. */
export function hrefsIn(node: unknown): string[] {
  const { attrs, marks, content } = (node ?? {}) as AnyNode;
  const own = [attrs?.href, ...(marks ?? []).map((mark) => mark.attrs?.href)];
  return own.filter((one): one is string => Boolean(one)).concat((content ?? []).flatMap(hrefsIn));
}
