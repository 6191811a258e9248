import { firstCopy, type Channel, type Verdict } from '@goodword/core/permission';
import { VERDICTS, type VerdictsOf } from './verdicts';

/** People by verdict, each group in rising order. */
export type GroupReaders = Partial<Record<Verdict, Uint32Array>>;

/**
 * Counts a group down: people by what the message meets at them, one copy to each address, or by post to each
 * of the `households` (one for each of the `ids`, 0 for none). `ids` must be in rising order.
 */
export function groupReaders(
  ids: Uint32Array,
  { verdicts, points }: VerdictsOf,
  channel: Channel,
  households?: Uint32Array,
): GroupReaders {
  const taken = new Set<number>();
  const places = new Uint8Array(ids.length);
  const counts = new Map<number, number>();
  for (let i = 0; i < ids.length; i++) {
    const at = { contactPointId: points[i] || null, householdId: households?.[i] ?? null };
    const place = VERDICTS.indexOf(firstCopy(taken, channel, VERDICTS[verdicts[i]!]!, at));
    places[i] = place;
    counts.set(place, (counts.get(place) ?? 0) + 1);
  }
  const out: GroupReaders = {};
  for (const [place, count] of counts) {
    const some = new Uint32Array(count);
    let n = 0;
    for (let i = 0; i < ids.length; i++) if (places[i] === place) some[n++] = ids[i]!;
    out[VERDICTS[place]!] = some;
  }
  return out;
}
