import {
  ELSEWHERE,
  placeKeyOf,
  UNION,
  UNION_COUNTRIES,
  type HouseRules,
  type PlaceRules,
} from '@goodword/core/permission';

/** SQL expressions of where somebody lives; both may be null. */
export interface PlaceSql {
  country: string;
  region: string;
}

export const quotedList = (some: readonly string[]) => some.map((one) => `'${one}'`).join(', ');

/** The key of a person's place, as `placeKeyOf` finds it. */
export function placeKeySql(rules: HouseRules, { country, region }: PlaceSql): string {
  const keys = Object.keys(rules.places);
  const regions = keys.filter((key) => key.includes('-'));
  const countries = keys.filter((key) => key !== ELSEWHERE && key !== UNION && !key.includes('-'));
  const home = placeKeyOf(rules, { country: null, region: null });
  return `CASE WHEN ${country} IS NULL THEN '${home}'
    ${
      regions.length > 0
        ? `WHEN CONCAT(${country}, '-', COALESCE(${region}, '')) IN
    (${quotedList(regions)}) THEN CONCAT(${country}, '-', ${region})`
        : ''
    }
    ${countries.length > 0 ? `WHEN ${country} IN (${quotedList(countries)}) THEN ${country}` : ''}
    ${keys.includes(UNION) ? `WHEN ${country} IN (${quotedList(UNION_COUNTRIES)}) THEN '${UNION}'` : ''}
    ELSE '${ELSEWHERE}' END`;
}

/** A whole number of the rules of a person's place: a literal where every place has the same. */
export function byPlaceSql(
  rules: HouseRules,
  person: PlaceSql,
  value: (place: PlaceRules) => number,
): string {
  const keysOf = new Map<number, string[]>();
  for (const [key, place] of Object.entries(rules.places))
    keysOf.set(value(place), [...(keysOf.get(value(place)) ?? []), key]);
  const values = [...keysOf].sort(([, a], [, b]) => b.length - a.length);
  const [most, ...others] = values.map(([n]) => Math.round(n));
  if (others.length === 0) return String(most);
  const key = placeKeySql(rules, person);
  return `(CASE ${values
    .slice(1)
    .map(([n, keys]) => `WHEN ${key} IN (${quotedList(keys)}) THEN ${Math.round(n)}`)
    .join(' ')} ELSE ${most} END)`;
}
