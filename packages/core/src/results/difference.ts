import { wilson } from './rates';

/** How many of how many people did something. */
export interface Share {
  count: number;
  of: number;
}

/** Two shares beside each other: how much more the second is, all 0 to 1. */
export interface Difference {
  /** Of the second less that of the first. */
  more: number;
  /** The range in which its true value lies with 95 % confidence. */
  low: number;
  high: number;
  /** So many standard errors, were both alike: 0 where nothing can be said. */
  z: number;
}

/**
 * Two proportions of people who were drawn by chance: the z of the pooled two-proportion test (NIST/SEMATECH
 * e-Handbook of Statistical Methods, 7.3.3), and the interval of the difference from the two Wilson intervals
 * (R. G. Newcombe, "Interval estimation for the difference between independent proportions", Statistics in
 * Medicine 17, 1998, method 10). Null where one of them is of nobody.
 */
export function differenceOf(first: Share, second: Share): Difference | null {
  const [a, b] = [wilson(first.count, first.of), wilson(second.count, second.of)];
  if (!a || !b) return null;
  const more = b.rate - a.rate;
  const pooled = (first.count + second.count) / (first.of + second.of);
  const error = Math.sqrt(pooled * (1 - pooled) * (1 / first.of + 1 / second.of));
  return {
    more,
    low: more - Math.hypot(b.rate - b.low, a.high - a.rate),
    high: more + Math.hypot(b.high - b.rate, a.rate - a.low),
    z: error === 0 ? 0 : more / error,
  };
}

/** Of a two-sided test at 5 %, and of the power of 80 % to see what there is: standard normal quantiles. */
const [Z_95, Z_80] = [1.959964, 0.841621];

/**
 * How many people each of two groups must have, to tell one share from another in 80 of 100 tries by a
 * two-sided test at 5 %: J. L. Fleiss, B. Levin, M. C. Paik, "Statistical Methods for Rates and Proportions",
 * 2003, 4.2, without correction for continuity (the formula from memory). Infinity for shares that are equal.
 */
export function peopleToTell(one: number, other: number): number {
  const middle = (one + other) / 2;
  const alike = Z_95 * Math.sqrt(2 * middle * (1 - middle));
  const apart = Z_80 * Math.sqrt(one * (1 - one) + other * (1 - other));
  return one === other ? Infinity : Math.ceil(((alike + apart) / (one - other)) ** 2);
}

/**
 * The nearest larger share that so many people each tell from one, to a thousandth; null where not even
 * everybody would be enough.
 */
export function toldFrom(share: number, each: number): number | null {
  for (let other = Math.floor(share * 1000) + 1; other <= 1000; other++)
    if (peopleToTell(share, other / 1000) <= each) return other / 1000;
  return null;
}
