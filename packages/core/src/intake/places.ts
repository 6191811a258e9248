import { getCountries, getCountryCallingCode } from 'libphonenumber-js/min';
import { nameMatchKey } from './clean';

/** Countries whose telephone numbers can be told (ISO 3166-1). */
export const PHONE_COUNTRIES: readonly string[] = getCountries();

/** What is dialled before a number of each of them (ITU-T E.164), without the plus. */
export function callingCodes(): Map<string, string> {
  return new Map(getCountries().map((country) => [country, getCountryCallingCode(country)]));
}

/** A postal address as it came in its parts. */
export interface PostalAddress {
  street: string;
  city: string;
  region: string;
  postcode: string;
  country: string;
}

/** Postcodes compare without spaces and dashes, in capitals; a US ZIP+4 by its first five digits. */
export function normalPostcode(text: string): string {
  const plain = text.toUpperCase().replace(/[^A-Z0-9]/g, '');
  return /^\d{9}$/.test(plain) ? plain.slice(0, 5) : plain.slice(0, 12);
}

/** What two writings of one address have in common, for telling doubles. */
export function normalAddress(address: PostalAddress): string {
  return [address.street, normalPostcode(address.postcode), address.city, address.country]
    .map(nameMatchKey)
    .join('|')
    .slice(0, 254);
}

/**
 * By what a person's postal address is kept. Without a street it is a town, which a thousand people have:
 * each has it for themselves, so that nobody shares an address with strangers, nor their no to post. In SQL:
 * `FURTHER` of bringing in.
 */
export function postalKey(address: PostalAddress, supporterId: number): string {
  const normal = normalAddress(address);
  return address.street === '' ? `${normal.slice(0, 230)}|${supporterId}` : normal;
}

/** As on an envelope, in one line. */
export function shownAddress({ street, city, region, postcode, country }: PostalAddress): string {
  const town = [city, [region, postcode].filter(Boolean).join(' ')].filter(Boolean).join(', ');
  return [street, town, country].filter(Boolean).join(', ').slice(0, 300);
}
