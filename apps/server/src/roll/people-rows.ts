/** More chapters than an organization has. */
const MOST_CHAPTERS = 2 ** 12;

/**
 * People with their chapters, as they come, to be handed out by rising id. The database gives a million of
 * them from an index in half the time that it takes to put them in order as well; one sort of numbers here
 * costs a third of that.
 */
export class PeopleRows {
  /** Ids of supporters with the place of their chapter behind: whole numbers up to 2^53. */
  private packed = new Float64Array(1 << 12);
  private length = 0;
  private readonly chapters: number[] = [];
  private readonly placeOf = new Map<number, number>();

  push(id: number, chapterId: number): void {
    let place = this.placeOf.get(chapterId);
    if (place === undefined) {
      place = this.chapters.push(chapterId) - 1;
      if (place >= MOST_CHAPTERS)
        throw new Error(`expected fewer than ${MOST_CHAPTERS} chapters, got one more`);
      this.placeOf.set(chapterId, place);
    }
    if (this.length === this.packed.length) {
      const larger = new Float64Array(this.length * 2);
      larger.set(this.packed);
      this.packed = larger;
    }
    this.packed[this.length++] = id * MOST_CHAPTERS + place;
  }

  byId(each: (id: number, chapterId: number) => void): void {
    for (const one of this.packed.subarray(0, this.length).sort())
      each(Math.floor(one / MOST_CHAPTERS), this.chapters[one % MOST_CHAPTERS]!);
  }
}
