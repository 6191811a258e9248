import { blocksOf } from './walk';
import { hrefsIn, letterTexts, type WrittenWords } from './written';

/** Whether words ask for amounts anywhere: by buttons, or by a field. */
export function asksForAmounts({ subject, preheader, text, letter }: WrittenWords): boolean {
  if (blocksOf(letter?.content).some(({ type }) => type === 'gifts')) return true;
  const lines = [subject, preheader, text, ...letterTexts(letter), ...hrefsIn(letter)];
  return lines.some((line) => /\{\s*ask\s*:/i.test(line));
}
