import type en from '../words/en.json';

/** What can be said: a sentence or a label of the catalog. */
export type Code = keyof typeof en;

/** A place by its key, such as `US-FL`; its name is the reader's. */
export interface NamedPlace {
  place: string;
}

/**
 * What stands in a sentence: words as they are, a number, a sentence within it, a place by its code, or a
 * list of these.
 */
export type SaidValue = string | number | Said | NamedPlace | readonly SaidValue[];

/**
 * Something to be said, without its words: which sentence of the catalog, and what it names. The core
 * computes these; only the room `words` puts them into a language. Several values in one place are parted as
 * the catalog says under the code with `.join`, else by commas.
 */
export interface Said {
  code: Code;
  values: Readonly<Record<string, SaidValue>>;
}

/** A code with its values, to be put to words at the very end by the room of words. */
export const said = (code: Code, values: Said['values'] = {}): Said => ({ code, values });
