import { setupI18n } from '@lingui/core';
import { compileMessage } from '@lingui/message-utils/compileMessage';
import type { Code, Said, SaidValue } from '../common';
import en from './en.json';
import { placeWords } from './places';

/**
 * Speaks the sentences of a catalog (ICU MessageFormat) with their values. Throws where a sentence wants a
 * value that is not given.
 */
export function speaker<C extends string>(
  catalog: Readonly<Record<C, string>>,
): { say(code: C, values?: Said['values']): string } {
  const english = setupI18n({ locale: 'en', messages: { en: {} } });
  /** The names of the values that each sentence wants, of those that were said already. */
  const wanted = new Map<C, ReadonlySet<string>>();
  const load = (code: C) => {
    const compiled = compileMessage(catalog[code]);
    english.load('en', { [code]: compiled });
    const names = new Set(namesIn(compiled));
    wanted.set(code, names);
    return names;
  };
  const say = (code: C, values: Said['values'] = {}) => {
    for (const name of wanted.get(code) ?? load(code))
      if (!(name in values)) throw new Error(`expected a value for ${name} of "${code}"`);
    const join = (catalog as Record<string, string>)[`${code}.join`] ?? ', ';
    const said = english._(
      code,
      Object.fromEntries(Object.entries(values).map(([name, value]) => [name, shown(value, join)])),
    );
    // A name with a point at its end ("A.C.") ends the sentence too.
    return said.replace(/([^.])\.\.$/, '$1.');
  };
  return { say };
}

/**
 * A compiled sentence is text, or a list of texts and places: `[name]`, or with its kind and the texts of its
 * cases.
 */
function namesIn(compiled: unknown): string[] {
  if (!Array.isArray(compiled)) return [];
  return compiled.flatMap((token: unknown) => {
    if (!Array.isArray(token)) return [];
    const [name, , cases] = token as [string, string?, Record<string, unknown>?];
    return [name, ...(typeof cases === 'object' ? Object.values(cases).flatMap(namesIn) : [])];
  });
}

/** The sentence of the core's catalog under a code. */
export const { say } = speaker<Code>(en);

/** Puts what was said to words: sentences within it, numbers, lists and plurals (ICU MessageFormat). */
export const speak = ({ code, values }: Said): string => say(code, values);

function shown(value: SaidValue, join: string): string | number {
  if (typeof value === 'string' || typeof value === 'number') return value;
  if (Array.isArray(value)) return value.map((one: SaidValue) => shown(one, join)).join(join);
  return 'place' in value ? placeWords(value.place) : speak(value as Said);
}

/**
 * The labels of a list of keys: `each('state', PERMISSION_STATES)` holds what stands under `state.yes` and
 * the others.
 */
export function each<K extends string, P extends string>(
  prefix: P & (`${P}.${K}` extends Code ? P : never),
  keys: readonly K[],
): Record<K, string> {
  return Object.fromEntries(keys.map((key) => [key, say(`${prefix}.${key}` as Code)])) as Record<K, string>;
}

/** `T` with every `Said` in it put to words. */
export type Spoken<T> = T extends Said
  ? string
  : T extends (infer U)[]
    ? Spoken<U>[]
    : T extends object
      ? { [K in keyof T]: Spoken<T[K]> }
      : T;

/** A result of the core with its sentences, wherever in it they stand. */
export function spoken<T>(value: T): Spoken<T> {
  if (
    typeof value !== 'object' ||
    value === null ||
    value instanceof Set ||
    value instanceof Map ||
    value instanceof Date
  )
    return value as Spoken<T>;
  if ('code' in value && 'values' in value) return speak(value as unknown as Said) as Spoken<T>;
  if (Array.isArray(value)) return value.map(spoken) as Spoken<T>;
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, spoken(one)])) as Spoken<T>;
}
