/** A street address taken apart as far as going from door to door needs it. */
export interface Door {
  /** The street without its number; the whole text where no number was found. */
  street: string;
  number: number | null;
  /** What stands behind the number: "B", "1/2", "-3". */
  suffix: string;
  /** Flat, unit or floor. */
  unit: string;
}

/** No line of an address is longer. */
const LONGEST = 300;
const NUMBER = String.raw`(?<number>\d{1,6})(?<suffix>\s?(?:[a-z](?![a-z])|\d\/\d|[-–]\s?\d{1,6}[a-z]?)?)`;
const NUMBER_FIRST = new RegExp(`^${NUMBER},? (?<street>\\D.*)$`, 'iu');
const NUMBER_LAST = new RegExp(`^(?<street>\\D.*?),? (?:n[or.º°]{0,3} ?)?${NUMBER}$`, 'iu');
const UNIT =
  /[, ]{1,3}(?<unit>(?:(?:apt|apartment|unit|suite|ste|flat|floor|fl|room|rm|wohnung|piso|étage)(?:\.\s*|\s+)|#\s*)[\w-]+)$/iu;

/**
 * Takes "14B Slip Lane, Apt 3" or "Am Hafen 3a" apart: the number first, as English and French write it, or
 * last, as German and Spanish do. A street that is itself a number keeps it ("12 5th Avenue" is number 12).
 */
export function parseStreet(text: string): Door {
  const line = (text.split('\n')[0] ?? '').trim().replace(/\s+/g, ' ').slice(0, LONGEST);
  const unit = UNIT.exec(line)?.groups?.unit ?? '';
  const plain = unit === '' ? line : line.slice(0, UNIT.exec(line)!.index).trim();
  const found =
    NUMBER_FIRST.exec(plain) ??
    NUMBER_LAST.exec(plain) ??
    /^(?<number>\d{1,6})(?<suffix>) (?<street>\d.*)$/u.exec(plain);
  if (!found?.groups) return { street: plain, number: null, suffix: '', unit };
  const { street = '', number, suffix = '' } = found.groups;
  return { street: street.trim(), number: Number(number), suffix: suffix.trim().toUpperCase(), unit };
}

const keyOf = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

interface Placed {
  city: string;
  door: Door;
}

/**
 * By town, street, side (odd before even, each up the street), number, what stands behind it, and flat. Doors
 * without a number end their street.
 */
export function doorOrder(a: Placed, b: Placed): number {
  const side = ({ number }: Door) => (number === null ? 2 : 1 - (number % 2));
  return (
    keyOf(a.city).localeCompare(keyOf(b.city)) ||
    keyOf(a.door.street).localeCompare(keyOf(b.door.street), undefined, { numeric: true }) ||
    side(a.door) - side(b.door) ||
    (a.door.number ?? 0) - (b.door.number ?? 0) ||
    a.door.suffix.localeCompare(b.door.suffix, undefined, { numeric: true }) ||
    a.door.unit.localeCompare(b.door.unit, undefined, { numeric: true })
  );
}

/** The doors of one side of one street. */
export interface Walk<T> {
  street: string;
  city: string;
  side: 'odd' | 'even' | null;
  doors: T[];
}

/**
 * Everybody in the order in which one walks, parted by street and side. Addresses that differ in case or
 * marks are one street.
 */
export function walks<T extends { city: string; street: string }>(people: readonly T[]): Walk<T>[] {
  const placed = people
    .map((one) => ({ one, city: one.city, door: parseStreet(one.street) }))
    .sort(doorOrder);
  const out: Walk<T>[] = [];
  let last = '';
  for (const { one, city, door } of placed) {
    const side = door.number === null ? null : door.number % 2 === 1 ? 'odd' : 'even';
    const key = `${keyOf(city)}|${keyOf(door.street)}|${side}`;
    if (key !== last) out.push({ street: door.street, city, side, doors: [] });
    out.at(-1)!.doors.push(one);
    last = key;
  }
  return out;
}
