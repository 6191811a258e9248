import { said, type Code, type Said } from '../common';
/**
 * What the words beside a box for texts must say. 47 CFR 64.1200(f)(9) wants the seller named and the
 * agreement clear; frequency, cost, HELP and STOP are what United States carriers ask of every program
 * (common practice, no source here).
 */
const MUSTS: readonly [Code, (words: string) => boolean][] = [
  [
    'ask.must.often',
    (words) =>
      /\b(\d+|one|two|three|four|five|six|several|uno|une?|deux|zwei|vier)\b.{0,40}\b(month|week|year|mes|semana|mois|semaine|monat|woche|jahr)|\b(weekly|monthly|daily|recurring|varies|vary|frequency)\b|mensu|hebdo|semanal|monatlich|wöchentlich/iu.test(
        words,
      ),
  ],
  [
    'ask.must.cost',
    (words) =>
      /\b(rates?|cost|costs|charge|charges|fees?|free|tarif\w*|co[uû]t\w*|frais|coste?s?|kosten\w*|gebühr\w*|gratis|gratuit\w*)\b/iu.test(
        words,
      ),
  ],
  ['ask.must.help', (words) => /\b(HELP|AIDE|AYUDA|HILFE)\b/u.test(words)],
  ['ask.must.stop', (words) => /\b(STOP|ARRET|ARRÊT)\b/u.test(words)],
];

/** No words beside a box are longer. */
const MOST_READ = 4000;

/** What is missing in the words beside a box for texts, each to be read after "The words must say …". */
export function textAskFaults(typed: string, organization: string): Said[] {
  const words = typed.slice(0, MOST_READ);
  const plain = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ');
  const named = plain(words).includes(plain(organization).trim());
  return [
    ...(named ? [] : [said('ask.must.who', { organization })]),
    ...MUSTS.filter(([, holds]) => !holds(words)).map(([missing]) => said(missing)),
  ];
}
