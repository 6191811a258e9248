import type { Candidate, FoundBy, PersonName } from '@goodword/core/intake';

/** Something by which people are found: a key of a kind, as it is compared. */
export interface Clue {
  by: FoundBy;
  key: string;
}

interface Earlier extends PersonName {
  id: number;
}

/**
 * Where this many people of one postcode have names that begin alike, further ones are not looked through for likely
 * doubles: a file of one town would compare everybody with everybody.
 */
export const MOST_NEARBY = 40;

/**
 * People of a file's earlier rows by what they can be found with. One object a person, shared by all that leads to it, and
 * no list where a clue leads to one alone: half a million rows have to fit into memory.
 */
export class EarlierRows {
  private readonly maps = new Map<FoundBy, Map<string, Earlier | Earlier[]>>();

  add(clues: readonly Clue[], id: number, { firstName, lastName }: PersonName): void {
    const person: Earlier = { id, firstName, lastName };
    for (const { by, key } of clues) {
      let map = this.maps.get(by);
      if (!map) this.maps.set(by, (map = new Map()));
      const known = map.get(key);
      if (known === undefined) map.set(key, person);
      else if (!Array.isArray(known)) {
        if (known.id !== id) map.set(key, [known, person]);
      } else if ((by !== 'nearby' || known.length < MOST_NEARBY) && !known.some((one) => one.id === id)) known.push(person);
    }
  }

  at({ by, key }: Clue): Candidate[] {
    const known = this.maps.get(by)?.get(key);
    if (known === undefined) return [];
    return Array.isArray(known) ? known.map((one) => ({ ...one, by })) : [{ ...known, by }];
  }
}
