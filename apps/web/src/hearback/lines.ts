import type { MessageResults } from '@goodword/core/contract';

/** What is drawn over time: the count, its word, its ink. */
export const SERIES = [
  ['opened', 'opened', '#0F766B'],
  ['clicked', 'clicked', '#8A5A0E'],
  ['replied', 'replied', '#17252B'],
  ['left', 'left', '#A62B45'],
] as const;

export type ResultHours = MessageResults['overTime'];

/** Running totals, so that the end of each line is the count that stands beside it. */
export function running(hours: ResultHours, kind: (typeof SERIES)[number][0]): { at: Date; total: number }[] {
  let total = 0;
  return hours.map((hour) => ({ at: new Date(hour.at), total: (total += hour[kind]) }));
}

/** Labels at the ends of lines, moved apart where they would cover each other. */
export function spread(wanted: { key: string; y: number }[]): Map<string, number> {
  const out = new Map<string, number>();
  let last = -Infinity;
  for (const one of [...wanted].sort((a, b) => a.y - b.y)) {
    last = Math.max(one.y, last + 15);
    out.set(one.key, last);
  }
  return out;
}

/** Ticks for the axis, no day twice. */
export function dayTicks(x: { ticks(count: number): Date[] }): Date[] {
  return x.ticks(5).filter((tick, i, all) => i === 0 || tick.toDateString() !== all[i - 1]!.toDateString());
}
