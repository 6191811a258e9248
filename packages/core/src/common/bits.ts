/**
 * A set of ordinals 0 … size-1, one bit each, 32 to a word. A million people are 125 kB, and a whole-set
 * operation is a loop over 31,250 words.
 */
export class Bits {
  readonly words: Uint32Array;

  constructor(
    readonly size: number,
    words?: Uint32Array,
  ) {
    this.words = words ?? new Uint32Array((size + 31) >>> 5);
  }

  static all(size: number): Bits {
    const bits = new Bits(size);
    bits.words.fill(0xffffffff);
    bits.trim();
    return bits;
  }

  /** Everybody who passes a test, a word of the set at a time. */
  static where(size: number, test: (ordinal: number) => boolean): Bits {
    const bits = new Bits(size);
    for (let word = 0, ordinal = 0; ordinal < size; word++) {
      let value = 0;
      for (let bit = 0; bit < 32 && ordinal < size; bit++, ordinal++) if (test(ordinal)) value |= 1 << bit;
      bits.words[word] = value;
    }
    return bits;
  }

  has(ordinal: number): boolean {
    return ((this.words[ordinal >>> 5]! >>> (ordinal & 31)) & 1) === 1;
  }

  add(ordinal: number): void {
    this.words[ordinal >>> 5]! |= 1 << (ordinal & 31);
  }

  remove(ordinal: number): void {
    this.words[ordinal >>> 5]! &= ~(1 << (ordinal & 31));
  }

  /** The same set over more people, of whom the new ones are not in it. */
  grown(size: number): Bits {
    const out = new Bits(size);
    out.words.set(this.words);
    return out;
  }

  and(other: Bits): Bits {
    const [out, others] = [this.beside(other), other.words];
    for (let i = 0; i < out.words.length; i++) out.words[i] = this.words[i]! & others[i]!;
    return out;
  }

  or(other: Bits): Bits {
    const [out, others] = [this.beside(other), other.words];
    for (let i = 0; i < out.words.length; i++) out.words[i] = this.words[i]! | others[i]!;
    return out;
  }

  not(): Bits {
    const out = new Bits(this.size);
    for (let i = 0; i < out.words.length; i++) out.words[i] = ~this.words[i]!;
    out.trim();
    return out;
  }

  /**
   * How many ordinals are in the set (Hamming weight by the parallel count of Warren, "Hacker's Delight",
   * 5-1).
   */
  count(): number {
    let total = 0;
    for (let i = 0; i < this.words.length; i++) {
      let v = this.words[i]!;
      v -= (v >>> 1) & 0x55555555;
      v = (v & 0x33333333) + ((v >>> 2) & 0x33333333);
      total += (((v + (v >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
    }
    return total;
  }

  /** The ordinals in rising order. */
  ordinals(): number[] {
    const out: number[] = [];
    for (let i = 0; i < this.words.length; i++) {
      for (let word = this.words[i]!; word !== 0; word &= word - 1)
        out.push(i * 32 + 31 - Math.clz32(word & -word));
    }
    return out;
  }

  private beside(other: Bits): Bits {
    if (other.size !== this.size)
      throw new Error(`expected a set over ${this.size} people, got one over ${other.size}`);
    return new Bits(this.size);
  }

  /** Clears the bits past the last ordinal, which `all` and `not` set. */
  private trim(): void {
    const rest = this.size & 31;
    if (rest !== 0) this.words[this.words.length - 1]! &= (1 << rest) - 1;
  }
}
