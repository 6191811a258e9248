/**
 * What the words beside a box for texts must say. 47 CFR 64.1200(f)(9) wants the seller named and the agreement clear;
 * frequency, cost, HELP and STOP are what United States carriers ask of every program (common practice, no source here).
 */
const MUSTS: readonly [string, (words: string) => boolean][] = [
  [
    'how often texts come',
    (words) =>
      /\b(\d+|one|two|three|four|five|six|several|uno|une?|deux|zwei|vier)\b.{0,40}\b(month|week|year|mes|semana|mois|semaine|monat|woche|jahr)|\b(weekly|monthly|daily|recurring|varies|vary|frequency)\b|mensu|hebdo|semanal|monatlich|wöchentlich/iu.test(
        words,
      ),
  ],
  [
    'what texts may cost',
    (words) =>
      /\b(rates?|cost|costs|charge|charges|fees?|free|tarif\w*|co[uû]t\w*|frais|coste?s?|kosten\w*|gebühr\w*|gratis|gratuit\w*)\b/iu.test(words),
  ],
  ['that HELP gets help', (words) => /\b(HELP|AIDE|AYUDA|HILFE)\b/u.test(words)],
  ['that STOP ends it', (words) => /\b(STOP|ARRET|ARRÊT)\b/u.test(words)],
];

/** No words beside a box are longer. */
const MOST_READ = 4000;

/** What is missing in the words beside a box for texts, each to be read after "The words must say …". */
export function textAskFaults(said: string, organization: string): string[] {
  const words = said.slice(0, MOST_READ);
  const plain = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ');
  const named = plain(words).includes(plain(organization).trim());
  return [...(named ? [] : [`who writes (${organization})`]), ...MUSTS.filter(([, holds]) => !holds(words)).map(([missing]) => missing)];
}

/** Words for a box that say all of it. */
export function standardTextAsk(organization: string, perMonth: number): string {
  return `${organization} may text me about ${perMonth} times a month. Message and data rates may apply. Reply HELP for help, STOP to leave. Agreeing is not a condition of anything.`;
}
