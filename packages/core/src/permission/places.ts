import type { Instant } from '../common';

/**
 * Where a supporter is, as far as it is known: ISO 3166-1 alpha-2, and the part after the dash of ISO 3166-2.
 */
export interface Place {
  country: string | null;
  region: string | null;
}

/** What rules are kept for: a country, a region of one ("US-FL"), the European Union, or everywhere else. */
export type PlaceKey = string;
/** The key of rules for places without any of their own. */
export const ELSEWHERE: PlaceKey = '*';
/** The key of rules for the European Union. */
export const UNION: PlaceKey = 'EU';

/**
 * Member states of the European Union and the three others where its data protection law applies (EEA
 * Agreement, Annex XI).
 */
export const UNION_COUNTRIES = [
  ...[
    'AT',
    'BE',
    'BG',
    'CY',
    'CZ',
    'DE',
    'DK',
    'EE',
    'ES',
    'FI',
    'FR',
    'GR',
    'HR',
    'HU',
    'IE',
    'IT',
    'LT',
    'LU',
    'LV',
    'MT',
    'NL',
    'PL',
    'PT',
    'RO',
  ],
  ...['SE', 'SI', 'SK'],
  ...['IS', 'LI', 'NO'],
] as const;

/** Whether a text is a key of rules: a country, a region of one, the Union, elsewhere. */
export function isPlaceKey(text: string): boolean {
  return text === ELSEWHERE || /^[A-Z]{2}(-[A-Z0-9]{1,3})?$/.test(text);
}

/** The keys that may hold a place's rules, the nearest first. */
export function keysFor(place: Place): PlaceKey[] {
  const { country, region } = place;
  if (!country) return [ELSEWHERE];
  return [
    ...(region ? [`${country}-${region}`] : []),
    country,
    ...((UNION_COUNTRIES as readonly string[]).includes(country) ? [UNION] : []),
    ELSEWHERE,
  ];
}

/** Where somebody was until a moment. */
export interface PastPlace extends Place {
  until: Instant;
}

/** Where somebody was at a moment. `before` is ordered by its moments. */
export function placeAt(now: Place, before: readonly PastPlace[], at: Instant): Place {
  return before.find(({ until }) => at < until) ?? now;
}
