const PAGE = 1 << 12;

/**
 * From ids to small numbers, through pages: ids of one organization lie close together without being without
 * gaps.
 */
export class IdIndex {
  size = 0;
  private readonly pages = new Map<number, Int32Array>();

  of(id: number): number | undefined {
    const n = this.pages.get(Math.floor(id / PAGE))?.[id % PAGE];
    return n === undefined || n < 0 ? undefined : n;
  }

  /** The number of an id, the next one where it has none yet. */
  add(id: number): number {
    const key = Math.floor(id / PAGE);
    let page = this.pages.get(key);
    if (!page) this.pages.set(key, (page = new Int32Array(PAGE).fill(-1)));
    const known = page[id % PAGE]!;
    return known >= 0 ? known : (page[id % PAGE] = this.size++);
  }

  get bytes(): number {
    return this.pages.size * PAGE * 4;
  }
}
