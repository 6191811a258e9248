import { getCountry } from 'countries-and-timezones';
import type { Place } from '../permission';

const [EASTERN, CENTRAL, MOUNTAIN, PACIFIC] = [
  'America/New_York',
  'America/Chicago',
  'America/Denver',
  'America/Los_Angeles',
];
const [ATLANTIC, NEWFOUNDLAND] = ['America/Halifax', 'America/St_Johns'];

/**
 * Zones of the states (49 CFR part 71) and provinces whose country has several; the zones of a split one all
 * stand here. Compiled from memory of the IANA time zone database; checked against it for every name and
 * offset by a test.
 */
const REGIONS: Record<string, Record<string, readonly string[]>> = {
  US: {
    ...spread([EASTERN], 'CT DC DE GA MA MD ME NC NH NJ NY OH PA RI SC VA VT WV'),
    // The four counties beside Wisconsin.
    MI: [EASTERN, CENTRAL],
    ...spread([CENTRAL], 'AL AR IA IL LA MN MO MS OK WI'),
    ...spread([MOUNTAIN], 'CO MT NM UT WY'),
    ...spread([PACIFIC], 'CA WA'),
    // West Wendover and Jackpot.
    NV: [PACIFIC, MOUNTAIN],
    ...spread([EASTERN, CENTRAL], 'FL IN KY TN'),
    ...spread([CENTRAL, MOUNTAIN], 'KS ND NE SD TX'),
    ...spread([MOUNTAIN, PACIFIC], 'ID OR'),
    AZ: ['America/Phoenix', MOUNTAIN],
    AK: ['America/Anchorage', 'America/Adak'],
    HI: ['Pacific/Honolulu'],
    PR: ['America/Puerto_Rico'],
  },
  CA: {
    ...spread(['America/Toronto', CENTRAL, 'America/Atikokan'], 'ON'),
    // The Magdalen Islands; the Lower North Shore keeps no summer time.
    QC: ['America/Toronto', ATLANTIC, 'America/Blanc-Sablon'],
    ...spread([ATLANTIC], 'NB NS PE'),
    NL: [NEWFOUNDLAND, ATLANTIC],
    MB: ['America/Winnipeg'],
    SK: ['America/Regina', 'America/Edmonton'],
    AB: ['America/Edmonton'],
    BC: ['America/Vancouver', 'America/Edmonton', 'America/Fort_Nelson'],
    YT: ['America/Whitehorse'],
    NT: ['America/Edmonton'],
    NU: ['America/Iqaluit', 'America/Winnipeg', 'America/Edmonton', 'America/Atikokan'],
  },
};

function spread(zones: readonly string[], regions: string): Record<string, readonly string[]> {
  return Object.fromEntries(regions.split(' ').map((region) => [region, zones]));
}

/** Countries whose regions lie in several time zones. */
export const ZONED_REGIONS = REGIONS;

/**
 * Every time zone that a supporter may be in: that of the region where it is known, else all of the country,
 * else the house's own. An hour is decent when it is decent in all of them.
 */
export function zonesOf(place: Place, home: string): readonly string[] {
  if (!place.country) return [home];
  const region = place.region ? REGIONS[place.country]?.[place.region] : undefined;
  const zones = region ?? getCountry(place.country)?.timezones ?? [];
  return zones.length > 0 ? zones : [home];
}
