/** Edit distance (insert, delete, replace; Levenshtein 1966) of two short texts. */
export function editDistance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const replace = row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1);
      next.push(Math.min(replace, row[j]! + 1, next[j - 1]! + 1));
    }
    row = next;
  }
  return row[b.length]!;
}

/** The candidate most like `text` when it is near enough to be a slip (a third of its letters), else null. */
export function nearest(text: string, candidates: readonly string[]): string | null {
  let best: string | null = null;
  let least = Math.max(2, Math.floor(text.length / 3)) + 1;
  for (const candidate of candidates) {
    const distance = editDistance(text.toLowerCase(), candidate.toLowerCase());
    if (distance < least) [best, least] = [candidate, distance];
  }
  return best;
}
