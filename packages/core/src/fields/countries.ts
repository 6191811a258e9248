let countries: Map<string, string> | null = null;
let codes: readonly string[] | null = null;

const keyOf = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');

/**
 * Regions that CLDR names but that are no countries: groupings, and codes reserved for other uses (ISO
 * 3166-1, 8.1.3).
 */
const NO_COUNTRY = new Set([
  'EU',
  'EZ',
  'UN',
  'QO',
  'ZZ',
  'XA',
  'XB',
  'AC',
  'CP',
  'CQ',
  'DG',
  'EA',
  'IC',
  'TA',
]);

/** ISO 3166-1 codes of all countries, as far as Intl (Unicode CLDR) has a name for them. */
export function countryCodes(): readonly string[] {
  if (codes) return codes;
  const names = new Intl.DisplayNames(['en'], { type: 'region' });
  const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  const canonical = (code: string) =>
    new Intl.Locale('und', { region: code }).region === code &&
    Intl.getCanonicalLocales(`und-${code}`)[0] === `und-${code}`;
  codes = letters
    .flatMap((first) => letters.map((second) => first + second))
    .filter((code) => !NO_COUNTRY.has(code) && names.of(code) !== code && canonical(code));
  return codes;
}

/** Countries by code and by their names in English, Spanish, French and German, and by names in daily use. */
function countryTable(): Map<string, string> {
  if (countries) return countries;
  countries = new Map([
    ['usa', 'US'],
    ['uk', 'GB'],
    ['england', 'GB'],
    ['scotland', 'GB'],
    ['wales', 'GB'],
    ['eeuu', 'US'],
  ]);
  for (const locale of ['en', 'es', 'fr', 'de']) {
    const names = new Intl.DisplayNames([locale], { type: 'region' });
    for (const code of countryCodes()) countries.set(keyOf(names.of(code) ?? code), code);
  }
  for (const code of countryCodes()) countries.set(code.toLowerCase(), code);
  return countries;
}

/** ISO 3166-1 code of a country written as code or name; null where it is neither. */
export function readCountry(text: string): string | null {
  return countryTable().get(keyOf(text)) ?? null;
}

/** The name of a country (ISO 3166-1 alpha-2) in a language, by the engine's own tables (CLDR). */
export function countryName(code: string, locale: string): string {
  try {
    return new Intl.DisplayNames([locale], { type: 'region' }).of(code) ?? code;
  } catch {
    return code;
  }
}
