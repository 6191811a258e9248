import { said } from '../../common';
import { formatMoney } from '../../fields';
import { columnOf, type GiftMeasure } from '../plan';
import { whenSaid, windowDays, type Window } from '../windows';
import { whether, type LineKind } from './line-kind';

/**
 * Giving in a window. "sum" adds refunds up too, as what they are; the others look at gifts alone. "first"
 * and "last" ask that the first or last gift of all lies in the window.
 */
export interface GaveLine {
  kind: 'gave';
  did: boolean;
  /** The sum where nothing is said. */
  measure?: GiftMeasure;
  /** Minor units, or a number of gifts, at the least; null for any gift. */
  atLeast: number | null;
  /** At the most; only of those who gave in the window at all. */
  atMost?: number | null;
  window: Window;
}

/** What such a line reads, asks and says. */
export const gaveLine: LineKind<GaveLine> = {
  kind: 'gave',
  column: () => 'gifts',
  named: () => [],
  plan: ({ measure = 'sum', atLeast, atMost, window, did }, column, context) => ({
    kind: 'gifts',
    gifts: columnOf(column, 'gifts'),
    measure,
    days: windowDays(window, context),
    least: atLeast ?? -Infinity,
    most: atMost ?? Infinity,
    wanted: did,
  }),
  said: (line, names) => {
    const { measure = 'sum', atMost = null } = line;
    const show = (n: number) => (measure === 'count' ? said('gave.gifts', { n }) : formatMoney(n, names));
    const bounds = [
      ...(line.atLeast === null ? [] : [said('gave.at-least', { amount: show(line.atLeast) })]),
      ...(atMost === null ? [] : [said('gave.at-most', { amount: show(atMost) })]),
    ];
    const bounded = bounds.length > 0 ? said('gave.bounds', { bounds }) : said('gave.anything');
    const gave = { yes: whether(line.did), bounds: bounded, when: whenSaid(line.window, names.locale) };
    if (measure === 'sum' || measure === 'count') return said('gave.sum', gave);
    return said(bounds.length > 0 ? `gave.${measure}-of` : `gave.${measure}`, gave);
  },
};
