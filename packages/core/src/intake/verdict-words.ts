/** What became of the rows of a batch, in the order in which they are told: of one, and of several. */
const VERDICT_WORDS = {
  new: ['new', 'new'],
  shares: ['new at a shared address', 'new at a shared address'],
  update: ['updated', 'updated'],
  same: ['already the same', 'already the same'],
  here: ['here already', 'here already'],
  no: ['opted out', 'opted out'],
  hold: ['bounced', 'bounced'],
  gift: ['gift', 'gifts'],
  doubled: ['gift that is here already', 'gifts that are here already'],
  look: ['held for a look', 'held for a look'],
  skipped: ['left out by hand', 'left out by hand'],
  aside: ['skipped: a blank line, a total or the header once more', 'skipped: blank lines, totals, the header once more'],
  failed: ['with errors, not brought in', 'with errors, not brought in'],
} as const;

/** `6 new, 1 new at a shared address, 1 updated`; of a batch of no rows nothing. */
export function verdictSentence(counts: Readonly<Partial<Record<string, number>>>, locale = 'en'): string {
  const number = new Intl.NumberFormat(locale);
  return Object.entries(VERDICT_WORDS)
    .flatMap(([verdict, [one, many]]) => {
      const n = counts[verdict] ?? 0;
      return n > 0 ? [`${number.format(n)} ${n === 1 ? one : many}`] : [];
    })
    .join(', ');
}
