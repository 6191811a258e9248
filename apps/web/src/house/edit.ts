import {
  clockWords,
  isPlaceKey,
  PRESETS,
  type HouseRules,
  type PlaceKey,
  type PlaceRules,
  type PresetName,
} from '@goodword/core/permission';

/** The rules with one place's changed. */
export function withPlace(
  rules: HouseRules,
  key: PlaceKey,
  change: (place: PlaceRules) => PlaceRules,
): HouseRules {
  const place = rules.places[key];
  return place ? { ...rules, places: { ...rules.places, [key]: change(place) } } : rules;
}

/** A new place, with rules to begin with; null where the key is none or there already. */
export function addPlace(
  rules: HouseRules,
  country: string,
  region: string,
  preset: PresetName,
): { rules: HouseRules; key: PlaceKey } | null {
  const key = `${country.trim().toUpperCase()}${region.trim() === '' ? '' : `-${region.trim().toUpperCase()}`}`;
  if (!isPlaceKey(key) || rules.places[key]) return null;
  return { rules: { ...rules, places: { ...rules.places, [key]: PRESETS[preset].rules } }, key };
}

/** Without a place; everywhere else, and the place that unknown people count to, stay. */
export function withoutPlace(rules: HouseRules, key: PlaceKey): HouseRules {
  if (key === '*' || key === rules.home) return rules;
  const { [key]: _gone, ...places } = rules.places;
  return { ...rules, places };
}

/** Minutes after midnight of "08:00"; null for anything else. 24:00 is the end of the day. */
export function minutesOf(clock: string): number | null {
  const found = /^(\d{1,2}):(\d{2})$/.exec(clock.trim());
  if (!found) return null;
  const minutes = Number(found[1]) * 60 + Number(found[2]);
  return Number(found[2]) < 60 && minutes <= 1440 ? minutes : null;
}

/** The countries of "ca, GB": two letters each, each once; anything else is left out. */
export function countriesIn(text: string): string[] {
  return [...new Set(text.toUpperCase().split(/[^A-Z]+/))].filter((code) => code.length === 2).sort();
}

/** Lines of a text, each once, without what is blank. */
export function ruleLines(text: string): string[] {
  return [...new Set(text.split('\n').map((line) => line.trim()))].filter((line) => line.length > 1);
}

export const clockOf = clockWords;

/** Places in the order in which they are read: home first, then by name, everywhere else last. */
export function placeOrder(rules: HouseRules, nameOf: (key: PlaceKey) => string): PlaceKey[] {
  const rank = (key: PlaceKey) => (key === rules.home ? 0 : key === '*' ? 2 : 1);
  return Object.keys(rules.places).sort((a, b) => rank(a) - rank(b) || nameOf(a).localeCompare(nameOf(b)));
}
