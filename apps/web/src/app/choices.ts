import { t } from '@lingui/core/macro';
import { countryCodes, countryName } from '@goodword/core/fields';

export const MONTHS = [
  t`January`,
  t`February`,
  t`March`,
  t`April`,
  t`May`,
  t`June`,
  t`July`,
  t`August`,
  t`September`,
  t`October`,
  t`November`,
  t`December`,
];

/** Zones that the browser knows, with the one of now even where it doesn't. */
export function zonesWith(now: string): string[] {
  const zones = Intl.supportedValuesOf('timeZone');
  return zones.includes(now) ? zones : [now, ...zones];
}

/** All countries by name, in the reader's order. */
export function countryChoices(): [code: string, name: string][] {
  return countryCodes()
    .map((code): [string, string] => [code, countryName(code, 'en')])
    .sort((a, b) => a[1].localeCompare(b[1]));
}

export function currencies(): [code: string, words: string][] {
  const names = new Intl.DisplayNames(['en'], { type: 'currency' });
  return Intl.supportedValuesOf('currency').map((code) => [code, `${code}, ${names.of(code) ?? code}`]);
}

/** Ways to write dates and amounts, each with an example. */
const LOCALES = [
  'en-US',
  'en-CA',
  'en-GB',
  'en-IE',
  'en-AU',
  'en-NZ',
  'es-US',
  'es-ES',
  'es-MX',
  'fr-CA',
  'fr-FR',
  'fr-BE',
  'de-DE',
  'de-AT',
  'de-CH',
];

export function localesWith(now: string): [tag: string, words: string][] {
  const tags = LOCALES.includes(now) ? LOCALES : [now, ...LOCALES];
  const names = new Intl.DisplayNames(['en'], { type: 'language' });
  return tags.map((tag) => {
    const day = new Intl.DateTimeFormat(tag, { dateStyle: 'medium', timeZone: 'UTC' }).format(
      Date.UTC(2026, 10, 29),
    );
    const number = new Intl.NumberFormat(tag, { minimumFractionDigits: 2 }).format(1234.5);
    return [tag, `${names.of(tag) ?? tag}: ${day}, ${number}`];
  });
}
