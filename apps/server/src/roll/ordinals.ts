import { Bits } from '@goodword/core/common';
import { IdIndex } from './id-index';

/** More than what is there, so that somebody new does not move everybody. */
const SLACK = 1 << 12;

/** Everybody ever seen, each under an ordinal that never changes while the roll lives: 0 for the first. */
export class Ordinals {
  /** The supporter behind each ordinal. */
  ids = new Uint32Array(SLACK);
  /** The chapter of each. */
  chapters = new Uint32Array(SLACK);
  /** Those who are here; erased people and those taken back out keep their ordinal, outside this set. */
  alive = new Bits(0);
  private readonly index = new IdIndex();
  private readonly here: number[] = [];

  get size(): number {
    return this.index.size;
  }

  ordinalOf(id: number): number | undefined {
    return this.index.of(id);
  }

  /** Puts somebody here, or changes their chapter. Call `settle` after the last. */
  put(id: number, chapterId: number): void {
    const ordinal = this.index.add(id);
    if (ordinal >= this.ids.length) this.enlarge();
    this.ids[ordinal] = id;
    this.chapters[ordinal] = chapterId;
    this.here.push(ordinal);
  }

  /**
   * Takes those away who are named and were not put here since the last time, and gives the sets their new
   * size.
   */
  settle(named: readonly number[] = []): void {
    const alive = this.alive.size === this.size ? this.alive : this.alive.grown(this.size);
    for (const ordinal of named) alive.remove(ordinal);
    for (const ordinal of this.here) alive.add(ordinal);
    this.here.length = 0;
    this.alive = alive;
  }

  get bytes(): number {
    return this.ids.byteLength * 2 + this.alive.words.byteLength + this.index.bytes;
  }

  private enlarge(): void {
    const length = Math.ceil(this.ids.length * 1.25) + SLACK;
    const [ids, chapters] = [new Uint32Array(length), new Uint32Array(length)];
    ids.set(this.ids);
    chapters.set(this.chapters);
    [this.ids, this.chapters] = [ids, chapters];
  }
}
