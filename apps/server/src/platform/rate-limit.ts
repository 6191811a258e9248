/**
 * At most so many acts by one key in a window of time. Held in this process: each HTTP process counts for
 * itself.
 */
export class RateLimit {
  private readonly acts = new Map<string, { from: number; n: number }>();

  constructor(
    private readonly most: number,
    private readonly windowMs: number,
  ) {}

  /** Counts an act; false when it is one too many. */
  pass(key: string, now = Date.now()): boolean {
    const known = this.acts.get(key);
    if (!known || now - known.from >= this.windowMs) {
      if (this.acts.size > 50_000) this.forget(now);
      this.acts.set(key, { from: now, n: 1 });
      return true;
    }
    known.n += 1;
    return known.n <= this.most;
  }

  /** Takes one back that was counted and did not happen. */
  undo(key: string): void {
    const known = this.acts.get(key);
    if (known) known.n -= 1;
  }

  private forget(now: number): void {
    for (const [key, act] of this.acts) if (now - act.from >= this.windowMs) this.acts.delete(key);
  }
}
