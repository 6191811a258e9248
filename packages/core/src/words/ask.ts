import type { AskRule } from '../letter';
import { say } from './speak';

/** A share as people say it: half, the same, twice; a number of times where there is no word. */
function shareWords(share: number): string {
  const known = { 0.5: 'half', 1: 'same', 1.5: 'half-more', 2: 'twice', 3: 'three-times' } as const;
  const word = known[share as keyof typeof known];
  return word ? say(`ask.share.${word}`) : say('ask.share.times', { times: share });
}

/**
 * The rule by which amounts are asked for, as a sentence. `money` writes hundredths of the currency.
 *
 * @example askWords(USUAL_ASK, money)
 * // 'half, the same and twice the last gift of the last 24 months, in friendly steps, at least $15, …'
 */
export function askWords(rule: AskRule, money: (hundredths: number) => string): string {
  const [first, second, third] = rule.shares.map(shareWords) as [string, string, string];
  const [low, middle, high] = rule.otherwise.map(money) as [string, string, string];
  const of = say(`ask.of.${rule.of}`);
  const within = rule.months === null ? '' : ` ${say('ask.within', { months: rule.months })}`;
  const rounded = rule.friendly ? `, ${say('ask.friendly')}` : '';
  const bounds = say('ask.bounds', { least: money(rule.least), most: money(rule.most) });
  const otherwise = say('ask.otherwise', { low, middle, high });
  return `${say('ask.shares', { first, second, third })} ${of}${within}${rounded}, ${bounds}; ${otherwise}`;
}
