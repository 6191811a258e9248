/** Repeatable chance: mulberry32, a 32-bit generator that is good enough to invent people with. */
export class Chance {
  constructor(private state: number) {}

  /** 0 to 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  }

  /** A whole number from `from` to `to`, both included. */
  int(from: number, to: number): number {
    return from + Math.floor(this.next() * (to - from + 1));
  }

  is(share: number): boolean {
    return this.next() < share;
  }

  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)]!;
  }
}
