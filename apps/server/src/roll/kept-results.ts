import type { Bits } from '@goodword/core/common';
import type { EvaluationCache, EvaluationContext, Line } from '@goodword/core/segment';

const MOST_RESULTS = 400;

/** What single lines came to, as long as neither their column nor the day has changed. */
export class KeptResults {
  private readonly results = new Map<string, { bits: Bits; version: number }>();

  get size(): number {
    return this.results.size;
  }

  clear(): void {
    this.results.clear();
  }

  /** For one evaluation: `versionOf` gives the version of a line's column, null where it has none. */
  cache(
    { today, fiscalMonth = 1 }: EvaluationContext,
    people: { readonly size: number },
    versionOf: (line: Line) => number | null,
  ): EvaluationCache {
    const keyOf = (line: Line) => `${today}/${fiscalMonth}/${JSON.stringify(line)}`;
    return {
      get: (line) => {
        const known = this.results.get(keyOf(line));
        return known && known.version === versionOf(line) && known.bits.size === people.size
          ? known.bits
          : undefined;
      },
      set: (line, bits) => {
        const version = versionOf(line);
        if (version === null) return;
        this.results.delete(keyOf(line));
        this.results.set(keyOf(line), { bits, version });
        if (this.results.size > MOST_RESULTS) this.results.delete(this.results.keys().next().value!);
      },
    };
  }
}
