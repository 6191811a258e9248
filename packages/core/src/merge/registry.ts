import { nearest } from '../common';

/** A merge field that can be written: the name people read, and the key its value is found under. */
export interface MergeName {
  name: string;
  key: string;
  /** Standing words for when the value is missing. */
  fallback?: string | null;
  group: 'Supporter' | 'Sender' | 'Organization' | 'Last gift';
}

/** The fields every organization has. Custom fields join them as `field:ID`. */
export const STANDARD_NAMES: readonly MergeName[] = [
  { name: 'First name', key: 'firstName', group: 'Supporter' },
  { name: 'Last name', key: 'lastName', group: 'Supporter' },
  { name: 'Full name', key: 'fullName', group: 'Supporter' },
  { name: 'Greeting', key: 'greeting', group: 'Supporter' },
  { name: 'Email', key: 'email', group: 'Supporter' },
  { name: 'Mobile', key: 'mobile', group: 'Supporter' },
  { name: 'Chapter', key: 'chapter', group: 'Supporter' },
  { name: 'Sender: name', key: 'sender.name', group: 'Sender' },
  { name: 'Sender: title', key: 'sender.title', group: 'Sender' },
  { name: 'Sender: mobile', key: 'sender.mobile', group: 'Sender' },
  { name: 'Sender: email', key: 'sender.email', group: 'Sender' },
  { name: 'Sender: signature', key: 'sender.signature', group: 'Sender' },
  { name: 'Organization: name', key: 'organization.name', group: 'Organization' },
  { name: 'Organization: postal address', key: 'organization.postal', group: 'Organization' },
  { name: 'Last gift: amount', key: 'lastGift.amount', group: 'Last gift' },
  { name: 'Last gift: date', key: 'lastGift.date', group: 'Last gift' },
];

/** Names compare without case, spaces and marks: `first name`, `FirstName` and `First  Name` are one. */
export function nameKey(name: string): string {
  return name
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[\s_-]+/g, '');
}

/** Names of merge fields as a house has them, found whatever their case and spaces. */
export interface Registry {
  names: readonly MergeName[];
  find(name: string): MergeName | null;
  /** The nearest right name for a wrong one. */
  suggest(name: string): string | null;
}

/** The standard names and the fields of a house, by their keys. */
export function registryOf(names: readonly MergeName[]): Registry {
  const byKey = new Map(names.map((name) => [nameKey(name.name), name]));
  return {
    names,
    find: (name) => byKey.get(nameKey(name)) ?? null,
    suggest: (name) =>
      nearest(
        name,
        names.map((known) => known.name),
      ),
  };
}
