import { letterTexts, type LetterDoc } from '@goodword/core/letter';

/** The first words of a letter, to know it by; empty where nothing is written. */
export function letterStart(letter: LetterDoc | null): string {
  const text = letterTexts(letter).find((one) => one.trim() !== '') ?? '';
  return text.trim().slice(0, 120);
}
