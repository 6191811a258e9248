import { t } from '@lingui/core/macro';
import type { SegmentSize } from '@goodword/core/contract';

export interface SizePoint {
  day: Date;
  people: number;
}

/** The sizes as they are drawn: a point for each counted day, and the scale begins at nobody. */
export function sizePoints(sizes: readonly SegmentSize[]): SizePoint[] {
  return sizes.map(({ day, people }) => ({ day: new Date(`${day}T12:00:00Z`), people }));
}

/** How much more or fewer than at the first count, in words; empty while there is one count alone. */
export function sizeChangeWords(
  sizes: readonly SegmentSize[],
  number: (n: number) => string,
  day: (iso: string) => string,
): string {
  const [first, last] = [sizes[0], sizes.at(-1)];
  if (!first || !last || first === last) return '';
  const by = last.people - first.people;
  if (by === 0) return t`As many as on ${day(first.day)}.`;
  const far = number(Math.abs(by));
  return by > 0 ? t`${far} more than on ${day(first.day)}.` : t`${far} fewer than on ${day(first.day)}.`;
}
