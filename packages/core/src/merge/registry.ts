import { nearest } from '../common';
import type { FormattedKind } from './formats';

/** A merge field that can be written: the name people read, and the key its value is found under. */
export interface MergeName {
  name: string;
  key: string;
  /** Standing words for when the value is missing. */
  fallback?: string | null;
  group: 'Supporter' | 'Sender' | 'Organization' | 'Gifts' | 'Ask' | 'Link';
  /** What it holds, where that can be written in several ways. */
  kind?: FormattedKind;
  /** Its value keeps its lines. */
  lines?: boolean;
}

/** The fields every organization has. Custom fields join them as `field:ID`. */
export const STANDARD_NAMES: readonly MergeName[] = [
  { name: 'First name', key: 'firstName', group: 'Supporter', kind: 'name' },
  { name: 'Last name', key: 'lastName', group: 'Supporter', kind: 'name' },
  { name: 'Full name', key: 'fullName', group: 'Supporter', kind: 'name' },
  { name: 'Greeting', key: 'greeting', group: 'Supporter' },
  { name: 'Household: names', key: 'household.names', group: 'Supporter' },
  { name: 'Email', key: 'email', group: 'Supporter' },
  { name: 'Mobile', key: 'mobile', group: 'Supporter' },
  { name: 'Chapter', key: 'chapter', group: 'Supporter' },
  { name: 'Sender: name', key: 'sender.name', group: 'Sender' },
  { name: 'Sender: title', key: 'sender.title', group: 'Sender' },
  { name: 'Sender: mobile', key: 'sender.mobile', group: 'Sender' },
  { name: 'Sender: email', key: 'sender.email', group: 'Sender' },
  { name: 'Sender: signature', key: 'sender.signature', group: 'Sender', lines: true },
  { name: 'Organization: name', key: 'organization.name', group: 'Organization' },
  { name: 'Organization: postal address', key: 'organization.postal', group: 'Organization' },
  { name: 'Last gift: amount', key: 'lastGift.amount', group: 'Gifts', kind: 'money' },
  { name: 'Last gift: date', key: 'lastGift.date', group: 'Gifts', kind: 'date' },
  { name: 'First gift: amount', key: 'firstGift.amount', group: 'Gifts', kind: 'money' },
  { name: 'First gift: date', key: 'firstGift.date', group: 'Gifts', kind: 'date' },
  { name: 'Largest gift: amount', key: 'largestGift.amount', group: 'Gifts', kind: 'money' },
  { name: 'Largest gift: date', key: 'largestGift.date', group: 'Gifts', kind: 'date' },
  { name: 'This year: amount', key: 'thisYear.amount', group: 'Gifts', kind: 'money' },
  { name: 'This year: number of gifts', key: 'thisYear.number', group: 'Gifts', kind: 'number' },
  { name: 'All gifts: amount', key: 'allGifts.amount', group: 'Gifts', kind: 'money' },
  { name: 'All gifts: number', key: 'allGifts.number', group: 'Gifts', kind: 'number' },
  { name: 'Ask: first', key: 'ask.first', group: 'Ask', kind: 'money' },
  { name: 'Ask: second', key: 'ask.second', group: 'Ask', kind: 'money' },
  { name: 'Ask: third', key: 'ask.third', group: 'Ask', kind: 'money' },
  { name: 'Link: giving page', key: 'link.giving', group: 'Link' },
  { name: 'Link: preferences', key: 'link.preferences', group: 'Link' },
];

/** Whether the values of a key are addresses: they stand in the address of a link as they are. */
export const isLinkKey = (key: string): boolean => key.startsWith('link.');

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
  /** The names of groups that a passage can be for. */
  groups: readonly string[];
  /** What a passage for the group asks of people, as a key of their values; null for an unknown one. */
  group(name: string): string | null;
}

/** A group that a passage can be for: its name, and the key of people's values that says who is in it. */
export interface MergeGroup {
  name: string;
  key: string;
}

/** The standard names and the fields of a house, and the groups that passages can be for. */
export function registryOf(names: readonly MergeName[], groups: readonly MergeGroup[] = []): Registry {
  const byGroup = new Map(groups.map((one) => [nameKey(one.name), one.key]));
  const byKey = new Map(names.map((name) => [nameKey(name.name), name]));
  return {
    names,
    find: (name) => byKey.get(nameKey(name)) ?? null,
    suggest: (name) =>
      nearest(
        name,
        names.map((known) => known.name),
      ),
    groups: groups.map(({ name }) => name),
    group: (name) => byGroup.get(nameKey(name)) ?? null,
  };
}
