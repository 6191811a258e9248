import { allCountries } from 'country-region-data';
import { countryName, readCountry } from './countries';

/** A region of a country: its code as in ISO 3166-2 without the country, and its name. */
export interface Region {
  /** ISO 3166-2: "US-WA". */
  code: string;
  name: string;
}

const SHORT = /^[A-Z0-9]{1,3}$/;
let byCountry: Map<string, Region[]> | null = null;
let byName: Map<string, Region[]> | null = null;

const keyOf = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');

/** Regions of each country that have a code of ISO 3166-2; the package also names some that have none. */
function table(): Map<string, Region[]> {
  byCountry ??= new Map(
    allCountries.map(([, country, regions]) => [
      country,
      regions.flatMap(([name, code]) => {
        const part = (code ?? '').replace(`${country}-`, '');
        return SHORT.test(part) ? [{ code: `${country}-${part}`, name }] : [];
      }),
    ]),
  );
  return byCountry;
}

/** The regions of a country by ISO 3166-1 code, by name; none for a country without any. */
export function regionsOf(country: string): readonly Region[] {
  return table().get(country) ?? [];
}

function named(): Map<string, Region[]> {
  if (byName) return byName;
  byName = new Map();
  for (const regions of table().values())
    for (const region of regions)
      byName.set(keyOf(region.name), [...(byName.get(keyOf(region.name)) ?? []), region]);
  return byName;
}

/**
 * The code of a region written as code ("US-WA", "us wa"), as name with its country ("Québec, Canada"), or as
 * a name that only one country has ("Washington"). Null for anything else: "Victoria" alone could be several.
 */
export function readRegion(text: string): string | null {
  const code = /^([a-z]{2})[-–\s/]([a-z0-9]{1,3})$/i.exec(text.trim());
  if (code) {
    const wanted = `${code[1]}-${code[2]}`.toUpperCase();
    return regionsOf(code[1]!.toUpperCase()).some((region) => region.code === wanted) ? wanted : null;
  }
  const [name = '', ...rest] = text.split(/[,(]/);
  const land = rest.length > 0 ? readCountry(rest.join(' ')) : null;
  if (rest.length > 0 && land === null) return null;
  const short = name.trim().toUpperCase();
  if (land !== null && regionsOf(land).some((region) => region.code === `${land}-${short}`))
    return `${land}-${short}`;
  const found = (named().get(keyOf(name)) ?? []).filter(
    (region) => land === null || region.code.startsWith(`${land}-`),
  );
  return found.length === 1 ? found[0]!.code : null;
}

/**
 * As `readRegion` where the country is known: its own names and codes alone are read, "WA" or "Victoria" too.
 */
export function readRegionIn(country: string, text: string): string | null {
  const found = readRegion(`${country}-${text}`) ?? readRegion(`${text}, ${country}`) ?? readRegion(text);
  return found?.startsWith(`${country}-`) ? found : null;
}

/** A region's name with its country's: "Washington, United States"; the code itself where it is not known. */
export function regionName(code: string, locale = 'en'): string {
  const country = code.slice(0, 2);
  const region = regionsOf(country).find((one) => one.code === code);
  return region ? `${region.name}, ${countryName(country, locale)}` : code;
}
