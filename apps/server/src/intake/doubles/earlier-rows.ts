import { nameMatchKey, type Candidate, type FoundBy, type PersonName } from '@goodword/core/intake';

/** Something by which people are found: a key of a kind, as it is compared. */
export interface MatchClue {
  by: FoundBy;
  key: string;
}

/**
 * Where this many people are at one clue (a postcode with names that begin alike, the telephone of an
 * office), further ones are found by their name alone: a file of one town would compare everybody with
 * everybody.
 */
export const MOST_AT_ONE = 40;

/** A clue with a name to it, under which those beyond the first are found. */
export const nameAt = (key: string, { firstName, lastName }: PersonName) =>
  `${key}\n${nameMatchKey(`${firstName} ${lastName}`)}`;

const NONE = -1;
const NOBODY: readonly number[] = [];

/**
 * People of a file's earlier rows by what they can be found with. Half a million rows have to fit into memory
 * beside everything else, so nothing here is an object of its own: keys and names are bytes one behind the
 * other, people and what leads to them are numbers in typed arrays.
 */
export class EarlierRows {
  private readonly bytes = new Bytes();
  private readonly ids = new Numbers(Float64Array);
  private readonly names = new Numbers(Uint32Array);
  private readonly tables = new Map<FoundBy, KeyTable>();

  add(clues: readonly MatchClue[], id: number, name: PersonName): void {
    const person = this.ids.push(id);
    this.names.push(this.bytes.add(`${name.firstName}\n${name.lastName}`));
    for (const { by, key } of clues) {
      let table = this.tables.get(by);
      if (!table) this.tables.set(by, (table = new KeyTable(this.bytes)));
      const known = table.at(key);
      if (known.some((one) => this.ids.at(one) === id)) continue;
      if (known.length < MOST_AT_ONE) table.add(key, person);
      else if (by !== 'nearby') this.addBeyond(table, nameAt(key, name), person, id);
    }
  }

  private addBeyond(table: KeyTable, key: string, person: number, id: number): void {
    const known = table.at(key);
    if (known.length < MOST_AT_ONE && !known.some((one) => this.ids.at(one) === id)) table.add(key, person);
  }

  /** The first people at a clue, and of those beyond them the ones with this name. */
  at({ by, key }: MatchClue, name: PersonName): Candidate[] {
    const table = this.tables.get(by);
    if (!table) return [];
    const first = table.at(key);
    if (first.length === 0) return [];
    const all = first.length < MOST_AT_ONE ? first : [...first, ...table.at(nameAt(key, name))];
    return all.map((person) => {
      const [firstName = '', lastName = ''] = this.bytes.read(this.names.at(person)).split('\n');
      return { id: this.ids.at(person), firstName, lastName, by };
    });
  }
}

/**
 * Keys to people by open addressing; the same key may lead to several, in the order in which they were added.
 */
class KeyTable {
  /** For each slot the number of its key plus one; 0 is free. */
  private slots = new Uint32Array(1 << 10);
  private readonly keys = new Numbers(Uint32Array);
  private readonly heads = new Numbers(Int32Array);
  private readonly tails = new Numbers(Int32Array);
  private readonly people = new Numbers(Uint32Array);
  private readonly nexts = new Numbers(Int32Array);

  constructor(private readonly bytes: Bytes) {}

  add(key: string, person: number): void {
    const node = this.people.push(person);
    this.nexts.push(NONE);
    const known = this.find(key);
    if (known !== NONE) {
      this.nexts.set(this.tails.at(known), node);
      this.tails.set(known, node);
      return;
    }
    const made = this.keys.push(this.bytes.add(key));
    this.heads.push(node);
    this.tails.push(node);
    if (this.keys.length * 2 > this.slots.length) this.grow();
    this.slots[this.slotOf(key)] = made + 1;
  }

  at(key: string): readonly number[] {
    const known = this.find(key);
    if (known === NONE) return NOBODY;
    const people: number[] = [];
    for (let node = this.heads.at(known); node !== NONE; node = this.nexts.at(node))
      people.push(this.people.at(node));
    return people;
  }

  private find(key: string): number {
    return this.slots[this.slotOf(key)]! - 1;
  }

  /** The slot that holds the key, or the free one where it belongs. */
  private slotOf(key: string): number {
    const mask = this.slots.length - 1;
    let slot = hashOf(key) & mask;
    for (; this.slots[slot] !== 0; slot = (slot + 1) & mask)
      if (this.bytes.equals(this.keys.at(this.slots[slot]! - 1), key)) break;
    return slot;
  }

  private grow(): void {
    const old = this.slots;
    this.slots = new Uint32Array(old.length * 2);
    const mask = this.slots.length - 1;
    for (const one of old) {
      if (one === 0) continue;
      let slot = hashOf(this.bytes.read(this.keys.at(one - 1))) & mask;
      while (this.slots[slot] !== 0) slot = (slot + 1) & mask;
      this.slots[slot] = one;
    }
  }
}

/** FNV-1a over UTF-16 units, mixed once more so that the low bits depend on all of them. */
function hashOf(key: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < key.length; i++) hash = Math.imul(hash ^ key.charCodeAt(i), 0x01000193);
  return (hash ^ (hash >>> 15)) >>> 0;
}

type NumberArray = Uint32Array | Int32Array | Float64Array;

/**
 * Numbers are kept in pages of this many, a power of two: to keep more never moves what is kept, nor holds it
 * twice.
 */
const PAGE_BITS = 14;
const IN_PAGE = (1 << PAGE_BITS) - 1;

/** A typed array that grows. */
class Numbers<A extends NumberArray> {
  length = 0;
  private readonly pages: A[] = [];

  constructor(private readonly Kind: new (length: number) => A) {}

  push(value: number): number {
    if ((this.length & IN_PAGE) === 0) this.pages.push(new this.Kind(1 << PAGE_BITS));
    this.set(this.length, value);
    return this.length++;
  }

  at(index: number): number {
    return this.pages[index >> PAGE_BITS]![index & IN_PAGE]!;
  }

  set(index: number, value: number): void {
    this.pages[index >> PAGE_BITS]![index & IN_PAGE] = value;
  }
}

/** Texts of less than this are kept in pages of this size, so that keeping more never moves what is kept. */
const PAGE = 1 << 20;

/**
 * Texts as UTF-8 one behind the other, each under the place at which it begins: the number of its page, and
 * where in it.
 */
class Bytes {
  private readonly pages = [Buffer.allocUnsafe(PAGE)];
  private end = 0;

  /** Keeps a text of at most 64 kB. */
  add(text: string): number {
    const length = Buffer.byteLength(text);
    if (this.end + length + 2 > PAGE) {
      this.pages.push(Buffer.allocUnsafe(PAGE));
      this.end = 0;
    }
    const page = this.pages.at(-1)!;
    page.writeUInt16LE(length, this.end);
    page.write(text, this.end + 2);
    const place = (this.pages.length - 1) * PAGE + this.end;
    this.end += length + 2;
    return place;
  }

  read(place: number): string {
    const [page, at] = [this.pageOf(place), place % PAGE];
    return page.toString('utf8', at + 2, at + 2 + lengthAt(page, at));
  }

  equals(place: number, text: string): boolean {
    const length = lengthAt(this.pageOf(place), place % PAGE);
    // The shortest that a text can be is a byte a unit: most others are told apart without reading them.
    return length >= text.length && length <= text.length * 3 && this.read(place) === text;
  }

  private pageOf(place: number): Buffer {
    return this.pages[Math.floor(place / PAGE)]!;
  }
}

const lengthAt = (page: Buffer, at: number): number => page[at]! | (page[at + 1]! << 8);
