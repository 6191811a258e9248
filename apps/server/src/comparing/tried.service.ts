import { Inject, Injectable } from '@nestjs/common';
import { better, type Found, type Tried } from '@goodword/core/wordings';
import type { Scoped } from '../platform/scoped';
import { ResultsRepository } from '../results/results.repository';
import { WordingsRepository, type ComparisonRow, type Underway } from '../wordings/wordings.repository';

const HOUR_MS = 3_600_000;
/** While some of those who were drawn wait for their mail, it is asked again so often. */
const ASK_AGAIN_MS = 600_000;

/** What came of each wording so far. */
@Injectable()
export class TriedService {
  constructor(
    @Inject(ResultsRepository) private readonly results: ResultsRepository,
    @Inject(WordingsRepository) private readonly wordings: WordingsRepository,
  ) {}

  /**
   * Of those who were drawn: whoever got it because it was the better one says nothing of that. They left
   * after it was decided.
   */
  async of(
    db: Scoped,
    ids: readonly number[],
    { measure, decided_at: decided }: Pick<ComparisonRow, 'measure' | 'decided_at'>,
  ): Promise<{ tried: Tried[]; found: Found }> {
    const tried = await Promise.all(ids.map((id) => this.one(db, id, measure, decided)));
    return { tried, found: better(tried as [Tried, ...Tried[]]) };
  }

  private async one(
    db: Scoped,
    id: number,
    measure: ComparisonRow['measure'],
    until: Date | null,
  ): Promise<Tried> {
    const counts = await this.results.counts(db, id, until);
    const count = measure === 'gave' ? await this.wordings.gave(db, id, until) : counts[measure];
    // Some open a mail that comes back afterwards: a share is never more than the whole.
    return { count, of: Math.max(counts.delivered, count) };
  }
}

/** When it is decided, as it is now: so many hours after the last of those who were drawn has got it. */
export function decidesAt({ leaving, lastLeft }: Underway, hours: number, now: number): Date {
  if (leaving > 0) return new Date(now + ASK_AGAIN_MS);
  return new Date((lastLeft?.getTime() ?? now) + hours * HOUR_MS);
}
