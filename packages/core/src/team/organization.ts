/** Whether the IANA time zone is known (by the tz data of this machine). */
export function isTimeZone(zone: string): boolean {
  // An offset ("+02:00") would pass as a zone and know no summer time.
  if (!/^[A-Za-z]/.test(zone)) return false;
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/**
 * Whether a BCP 47 tag names a language and a country that dates and amounts can be written for: `en-US`,
 * `fr-CA`.
 */
export function isLocale(tag: string): boolean {
  try {
    const { language, region } = new Intl.Locale(tag);
    return Boolean(language && region) && Intl.DateTimeFormat.supportedLocalesOf([tag]).length > 0;
  } catch {
    return false;
  }
}

/** Whether it is the ISO 4217 code of a currency. */
export function isCurrency(code: string): boolean {
  return Intl.supportedValuesOf('currency').includes(code);
}

/**
 * Who sends and where they live, in one line, as it stands under every mail (15 U.S.C. 7704(a)(5)(A)(iii): a
 * valid physical postal address of the sender). The legal name where there is one, else the name that people
 * know.
 */
export function imprintOf(organization: { name: string; legalName: string }, postalAddress: string): string {
  const lines = postalAddress.split(/\r?\n/).map((line) => line.trim());
  return [organization.legalName.trim() || organization.name.trim(), ...lines]
    .filter((part) => part !== '')
    .join(', ');
}
