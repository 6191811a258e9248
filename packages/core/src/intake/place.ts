import { readRegionIn } from '../fields';
import type { Place } from '../permission';

/** Where a row says that somebody is, and whether it says so itself or only its telephone number does. */
export interface RowPlace extends Place {
  said: boolean;
}

/**
 * The place of a row: the country and the region of its postal address; a region without a country is looked
 * for in the house's own; else the country of the telephone number, which tells of no region.
 */
export function placeOfRow(
  row: { post: { country: string; region: string } | null; mobile: { country?: string } | null },
  homeCountry: string,
): RowPlace {
  const { country = '', region = '' } = row.post ?? {};
  const code =
    region.trim() === '' ? null : (readRegionIn(country || homeCountry, region.trim())?.slice(3) ?? null);
  if (country) return { country, region: code, said: true };
  if (code) return { country: homeCountry, region: code, said: true };
  return { country: row.mobile?.country?.slice(0, 2) ?? null, region: null, said: false };
}
