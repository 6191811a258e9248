import type { Language } from '@goodword/core/forms';
import { countryCodes, countryName } from '@goodword/core/fields';
import { callingCodes } from '@goodword/core/intake';
import { escapeHtml as e } from '@goodword/core/letter';

/**
 * A list to choose one from. `empty`: the words of choosing nothing; left out where something is always
 * chosen.
 */
export function select(
  attributes: string,
  value: string,
  options: readonly (readonly [string, string])[],
  empty?: string,
): string {
  const all = options.map(
    ([key, words]) => `<option value="${e(key)}"${key === value ? ' selected' : ''}>${e(words)}</option>`,
  );
  return `<select ${attributes}>${empty === undefined ? '' : `<option value="">${e(empty)}</option>`}${all.join('')}</select>`;
}

const known = new Map<Language, [string, string][]>();

/** ISO 3166-1 codes with their names in the language, in the order of the language. */
export function countries(language: Language): [string, string][] {
  const cached = known.get(language);
  if (cached) return cached;
  const out = countryCodes().map((code): [string, string] => [code, countryName(code, language)]);
  out.sort((x, y) => x[1].localeCompare(y[1], language));
  known.set(language, out);
  return out;
}

const calling = new Map<Language, [string, string][]>();

/** Countries whose numbers can be read, with what one dials before them. */
export function callingCountries(language: Language): [string, string][] {
  const cached = calling.get(language);
  if (cached) return cached;
  const codes = callingCodes();
  const out = countries(language).flatMap(([code, name]): [string, string][] =>
    codes.has(code) ? [[code, `${name} +${codes.get(code)!}`]] : [],
  );
  calling.set(language, out);
  return out;
}
