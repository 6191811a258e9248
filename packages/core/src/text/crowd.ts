import { countParts, straighten } from './parts';
import type { ShiftLanguage } from './shift-tables';

/** How a text to many is cut into parts, over all who get it. */
export interface TextsOfCrowd {
  /** Parts of all texts together. */
  total: number;
  /** How many people get one part, two, and so on, rising. */
  byParts: { parts: number; people: number }[];
  /** Fields whose values force the alphabet that holds 70 instead of 160, for how many; the most first. */
  costly: { name: string; people: number }[];
  /** Parts that are saved in all where the values are written plainly: ' for ’. */
  saved: number;
}

/** Looks at each text that would leave, one after the other (3GPP TS 23.038 and 23.040, as `countParts`). */
export class TextCrowd {
  private total = 0;
  private saved = 0;
  private readonly people = new Map<number, number>();
  private readonly costly = new Map<string, number>();

  /** `tables`: the languages whose national tables the gateway takes. */
  constructor(private readonly tables: readonly ShiftLanguage[] = []) {}

  /** A text as it would leave, with the values that stand in it. */
  see(text: string, values: readonly { name: string; value: string }[]): void {
    const { parts, alphabet } = countParts(text, this.tables);
    this.total += parts;
    this.people.set(parts, (this.people.get(parts) ?? 0) + 1);
    if (alphabet === 'gsm7') return;
    const forcing = values.filter(({ value }) => countParts(value, this.tables).alphabet === 'ucs2');
    for (const name of new Set(forcing.map((one) => one.name)))
      this.costly.set(name, (this.costly.get(name) ?? 0) + 1);
    const plain = forcing.reduce(
      (all, { value }) => (value === '' ? all : all.split(value).join(straighten(value))),
      text,
    );
    this.saved += parts - Math.min(parts, countParts(plain, this.tables).parts);
  }

  found(): TextsOfCrowd {
    return {
      total: this.total,
      byParts: [...this.people]
        .map(([parts, people]) => ({ parts, people }))
        .sort((a, b) => a.parts - b.parts),
      costly: [...this.costly]
        .map(([name, people]) => ({ name, people }))
        .sort((a, b) => b.people - a.people || a.name.localeCompare(b.name)),
      saved: this.saved,
    };
  }
}
