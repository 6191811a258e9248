/** How far an appeal has come with one person. */
export interface Claim {
  /** Something of it has been handed over to them. */
  gone: boolean;
  /** The first of its deliveries to them that left or is to leave, by its id: ids rise as they are made. */
  first: number;
}

/** What has reached somebody is before what only waits; of two alike the one that was made first is. */
const isBefore = (a: Claim, b: Claim) => (a.gone === b.gone ? a.first < b.first : a.gone);

/**
 * Whether another appeal is asking somebody, so that this one waits: `mine` is what this one has come to
 * with them, `others` what those have that are not over for them. Of any number of appeals exactly one is not
 * held up by the rest, whichever of them asks first and however often.
 */
export function isAskedElsewhere(mine: Claim | null, others: readonly Claim[]): boolean {
  return others.some((other) => mine === null || isBefore(other, mine));
}
