import { addMonths, type Day } from '../common';
import { ASK_NAMES } from './gifts';

/** Which gift amounts are made of. */
export const ASK_BASES = ['last', 'largest', 'average'] as const;
export type AskBase = (typeof ASK_BASES)[number];

/** How amounts are asked for: from what somebody gave, else three of one's own. Money in hundredths. */
export interface AskRule {
  /** Three shares of the gift, rising: 0.5 for half, 2 for twice. */
  shares: [number, number, number];
  of: AskBase;
  /** Gifts of so many months count; all where it is null. */
  months: number | null;
  /** To steps that people give in. */
  friendly: boolean;
  least: number;
  most: number;
  /** For whom no gift counts. */
  otherwise: [number, number, number];
}

/** Half, the same and twice the last gift of two years; 25, 50 and 100 for the others. */
export const USUAL_ASK: AskRule = {
  shares: [0.5, 1, 2],
  of: 'last',
  months: 24,
  friendly: true,
  least: 1500,
  most: 50_000,
  otherwise: [2500, 5000, 10_000],
};

/** A gift: the day, and the amount in hundredths. What was given back is none. */
export interface CountedGift {
  on: Day;
  amount: number;
}

/**
 * Steps that amounts are rounded to, from this much on (in hundredths): whole units below 20, fives below
 * 100, tens below 250, twenty-fives below 500, fifties below 1,000, hundreds, and so on. Common practice, no
 * source.
 */
const STEPS: readonly (readonly [from: number, step: number])[] = [
  [0, 100],
  [2000, 500],
  [10_000, 1000],
  [25_000, 2500],
  [50_000, 5000],
  [100_000, 10_000],
  [500_000, 50_000],
  [1_000_000, 100_000],
];

const stepAt = (amount: number): number => STEPS.findLast(([from]) => amount >= from)![1];

/** The nearest amount that people give in; of two equally near the higher one. Hundredths. */
export function friendlyAmount(amount: number): number {
  const step = stepAt(amount);
  return Math.max(step, Math.round(amount / step) * step);
}

function baseOf(rule: AskRule, gifts: readonly CountedGift[], today: Day): number | null {
  const since = rule.months === null ? -Infinity : addMonths(today, -rule.months);
  const counted = gifts.filter(({ on, amount }) => amount > 0 && on >= since && on <= today);
  if (counted.length === 0) return null;
  switch (rule.of) {
    case 'last':
      return counted.reduce((last, gift) => (gift.on >= last.on ? gift : last)).amount;
    case 'largest':
      return Math.max(...counted.map(({ amount }) => amount));
    case 'average':
      return counted.reduce((sum, { amount }) => sum + amount, 0) / counted.length;
  }
}

/**
 * What somebody is asked for: up to three amounts in hundredths, rising, none twice; fewer where the most
 * that is asked leaves no room. Pure.
 *
 * @example askAmounts(USUAL_ASK, [{ on: today, amount: 5000 }], today) // [2500, 5000, 10000]
 */
export function askAmounts(rule: AskRule, gifts: readonly CountedGift[], today: Day): number[] {
  const base = baseOf(rule, gifts, today);
  const wished = base === null ? rule.otherwise : rule.shares.map((share) => share * base);
  const out: number[] = [];
  for (const wish of wished) {
    const round = base === null ? wish : rule.friendly ? friendlyAmount(wish) : Math.round(wish);
    const bounded = Math.min(rule.most, Math.max(rule.least, round));
    const before = out.at(-1) ?? 0;
    // Two shares that come to the same amount are a step apart.
    const next = bounded > before ? bounded : Math.min(rule.most, before + stepAt(before));
    if (next > before) out.push(next);
  }
  return out;
}

/** Amounts by the names that merge fields know them by. */
export function namedAmounts(
  amounts: readonly number[],
): { name: (typeof ASK_NAMES)[number]; amount: number }[] {
  return ASK_NAMES.flatMap((name, at) => {
    const amount = amounts[at];
    return amount === undefined ? [] : [{ name, amount }];
  });
}
