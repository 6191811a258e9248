const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/** Lets one through after the other, so many a second; everybody at once where there is no limit. */
export function paceOf(perSecond: number | null): () => Promise<void> {
  if (perSecond === null) return () => Promise.resolve();
  let next = 0;
  return () => {
    const now = performance.now();
    const turn = Math.max(now, next);
    next = turn + 1000 / perSecond;
    return turn > now ? pause(turn - now) : Promise.resolve();
  };
}
