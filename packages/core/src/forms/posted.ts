import { CHOICE_SEPARATOR, type FieldType } from '../fields';
import { PHONE_COUNTRIES, type PostalAddress } from '../intake';
import { inputName, type FormItem } from './definition';

/** What a browser posted: one text a name. */
export type Posted = Readonly<Record<string, string | undefined>>;

/** The parts of an address as they are asked, in the order of an envelope. */
export const POSTAL_INPUTS = [
  'street',
  'postcode',
  'city',
  'region',
  'country',
] as const satisfies readonly (keyof PostalAddress)[];

/**
 * Name of one of several inputs that make up one answer, such as `field_5.month`, `post.street` or
 * `field_12.3`.
 */
export function partName(item: FormItem, part: string | number): string {
  return `${inputName(item)}.${part}`;
}

/**
 * The answer to an item as one text, put together where it was given by several controls; empty where nothing
 * was given.
 */
export function postedText(item: FormItem, type: FieldType | undefined, posted: Posted): string {
  const own = posted[inputName(item)];
  if (own !== undefined) return own.trim();
  if (type === 'birthday')
    return birthdayText(posted[partName(item, 'month')] ?? '', posted[partName(item, 'day')] ?? '');
  if (type === 'choices') return tickedOf(item, posted).join(CHOICE_SEPARATOR);
  return '';
}

/**
 * Month and day as ISO 8601 wrote a date without its year, `--02-29`. Half of one is left for whoever reads
 * it to refuse.
 */
function birthdayText(month: string, day: string): string {
  const two = (text: string) => text.trim().padStart(2, '0');
  return month.trim() === '' && day.trim() === '' ? '' : `--${two(month)}-${two(day)}`;
}

function tickedOf(item: FormItem, posted: Posted): string[] {
  const before = `${inputName(item)}.`;
  return Object.keys(posted)
    .filter((key) => key.startsWith(before) && /^\d{1,3}$/.test(key.slice(before.length)))
    .sort((a, b) => Number(a.slice(before.length)) - Number(b.slice(before.length)))
    .flatMap((key) => posted[key]?.trim() || []);
}

/** The parts of a postal address; null where neither a street nor a town was given. */
export function postedAddress(item: FormItem, posted: Posted): PostalAddress | null {
  const parts = Object.fromEntries(
    POSTAL_INPUTS.map((part) => [part, (posted[partName(item, part)] ?? '').trim()]),
  ) as unknown as PostalAddress;
  return parts.street === '' && parts.city === '' ? null : parts;
}

/** The country chosen beside a number, for those that are written without their code. */
export function numberCountry(item: FormItem, posted: Posted): string | null {
  const chosen = (posted[partName(item, 'country')] ?? '').toUpperCase();
  return PHONE_COUNTRIES.includes(chosen) ? chosen : null;
}
