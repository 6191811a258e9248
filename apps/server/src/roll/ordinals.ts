import { Bits } from '@goodword/core/common';

const PAGE = 1 << 12;
/** More than what is there, so that somebody new does not move everybody. */
const SLACK = 1 << 12;

/**
 * Everybody ever seen, each under an ordinal that never changes while the roll lives: 0 for the first. Ids are looked up
 * through pages of ordinals, since ids of one organization lie close together without being without gaps.
 */
export class Ordinals {
  size = 0;
  /** The supporter behind each ordinal. */
  ids = new Uint32Array(SLACK);
  /** The chapter of each. */
  chapters = new Uint32Array(SLACK);
  /** Those who are here; erased people and those taken back out keep their ordinal, outside this set. */
  alive = new Bits(0);
  private readonly pages = new Map<number, Int32Array>();
  private readonly here: number[] = [];

  ordinalOf(id: number): number | undefined {
    const ordinal = this.pages.get(Math.floor(id / PAGE))?.[id % PAGE];
    return ordinal === undefined || ordinal < 0 ? undefined : ordinal;
  }

  /** Puts somebody here, or changes their chapter. Call `settle` after the last. */
  put(id: number, chapterId: number): void {
    let ordinal = this.ordinalOf(id);
    if (ordinal === undefined) {
      ordinal = this.size++;
      if (ordinal >= this.ids.length) this.enlarge();
      this.ids[ordinal] = id;
      this.pageOf(id)[id % PAGE] = ordinal;
    }
    this.chapters[ordinal] = chapterId;
    this.here.push(ordinal);
  }

  /** Takes those away who are named and were not put here since the last time, and gives the sets their new size. */
  settle(named: readonly number[] = []): void {
    const alive = this.alive.size === this.size ? this.alive : this.alive.grown(this.size);
    for (const ordinal of named) alive.remove(ordinal);
    for (const ordinal of this.here) alive.add(ordinal);
    this.here.length = 0;
    this.alive = alive;
  }

  get bytes(): number {
    return this.ids.byteLength * 2 + this.alive.words.byteLength + this.pages.size * PAGE * 4;
  }

  private pageOf(id: number): Int32Array {
    const key = Math.floor(id / PAGE);
    let page = this.pages.get(key);
    if (!page) this.pages.set(key, (page = new Int32Array(PAGE).fill(-1)));
    return page;
  }

  private enlarge(): void {
    const length = Math.ceil(this.ids.length * 1.25) + SLACK;
    const [ids, chapters] = [new Uint32Array(length), new Uint32Array(length)];
    ids.set(this.ids);
    chapters.set(this.chapters);
    [this.ids, this.chapters] = [ids, chapters];
  }
}
