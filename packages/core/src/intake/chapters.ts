import { readCountry, readRegion, readRegionIn } from '../fields';
import type { Place } from '../permission';
import { nameMatchKey } from './clean';
import { normalPostcode } from './places';

/**
 * A chapter that new people may join, and where its people live, as somebody wrote it: "US-WA, Oregon, 97,
 * 980".
 */
export interface ChapterHome {
  id: number;
  name: string;
  places: string;
}

/** One thing that a chapter's places say: a country, a region (ISO 3166), or how postcodes there begin. */
type Home = { country: string } | { region: string } | { postcode: string };

/**
 * Reads the places of a chapter: regions by code or name, those of the house's own country first ("CA" of a
 * house in the United States is California), countries by code or name, anything else with a digit as the
 * beginning of postcodes. What can't be read is told.
 */
export function readHomes(text: string, homeCountry: string): { homes: Home[]; unread: string[] } {
  const [homes, unread]: [Home[], string[]] = [[], []];
  for (const part of text.split(/[,;\n]/).map((one) => one.trim())) {
    if (part === '') continue;
    const region = readRegionIn(homeCountry, part) ?? readRegion(part);
    const country = region ? null : readCountry(part);
    const plain = normalPostcode(part);
    if (region) homes.push({ region });
    else if (country) homes.push({ country });
    else if (/\d/.test(part) && plain !== '' && /^[a-z0-9 -]+$/i.test(part)) homes.push({ postcode: plain });
    else unread.push(part);
  }
  return { homes, unread };
}

/** Says which chapter somebody new joins. */
export class ChapterFinder {
  private readonly byName: ReadonlyMap<string, number>;
  private readonly homes: readonly { id: number; home: Home }[];

  constructor(
    private readonly chapters: readonly ChapterHome[],
    homeCountry: string,
  ) {
    this.byName = new Map(chapters.map(({ id, name }) => [nameMatchKey(name), id]));
    this.homes = chapters.flatMap(({ id, places }) =>
      readHomes(places, homeCountry).homes.map((home) => ({ id, home })),
    );
  }

  /** The chapter of that name, in any case and with any marks; null for none. */
  named(name: string): number | null {
    return this.byName.get(nameMatchKey(name)) ?? null;
  }

  names(): string {
    return this.chapters.map(({ name }) => name).join(', ');
  }

  /**
   * The chapter whose places fit best: by the longest beginning of the postcode, else by region, else by
   * country. Of two that fit alike the first. Null where none fits.
   */
  at({ country, region }: Place, postcode: string): number | null {
    const plain = normalPostcode(postcode);
    let best: { id: number; fit: number } | null = null;
    for (const { id, home } of this.homes) {
      const fit =
        'postcode' in home
          ? plain !== '' && plain.startsWith(home.postcode)
            ? 2 + home.postcode.length
            : 0
          : 'region' in home
            ? Number(region !== null && home.region === `${country}-${region}`) * 2
            : Number(home.country === country);
      if (fit > (best?.fit ?? 0)) best = { id, fit };
    }
    return best?.id ?? null;
  }
}
