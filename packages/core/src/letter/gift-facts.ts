import type { Day } from '../common';
import type { CountedGift } from './ask';

/** What somebody gave, in sum; amounts in hundredths. */
export interface GiftSum {
  amount: number;
  /** Gifts, without what was given back. */
  number: number;
}

/** What merge fields say of somebody's gifts. */
export interface GiftFacts {
  first: CountedGift | null;
  last: CountedGift | null;
  /** Of several as large the latest. */
  largest: CountedGift | null;
  thisYear: GiftSum;
  all: GiftSum;
}

const sumOf = (gifts: readonly CountedGift[]): GiftSum => ({
  amount: gifts.reduce((sum, { amount }) => sum + amount, 0),
  number: gifts.filter(({ amount }) => amount > 0).length,
});

/**
 * The first, the last and the largest gift, and what it comes to, this year and in all. What was given back
 * is no gift, and is taken from the sums. `year` is the first day of this year.
 */
export function giftFacts(gifts: readonly CountedGift[], year: Day): GiftFacts {
  const given = gifts.filter(({ amount }) => amount > 0);
  const best = (better: (one: CountedGift, than: CountedGift) => boolean) =>
    given.reduce<CountedGift | null>(
      (best, gift) => (best === null || better(gift, best) ? gift : best),
      null,
    );
  return {
    first: best((one, than) => one.on < than.on),
    last: best((one, than) => one.on >= than.on),
    largest: best(
      (one, than) => one.amount > than.amount || (one.amount === than.amount && one.on >= than.on),
    ),
    thisYear: sumOf(gifts.filter(({ on }) => on >= year)),
    all: sumOf(gifts),
  };
}
