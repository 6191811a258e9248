/** One person of the donor database, as it keeps them. */
export interface DeskPerson {
  id: string;
  first: string;
  last: string;
  email: string;
  mobile: string;
  town: string;
  member_until: string;
  paid_up: boolean;
  news: 'yes' | 'no' | '';
  joined_on: string;
  interests: string[];
  changed: number;
  gone: boolean;
}

const FIRST =
  'Ada Bram Cleo Dario Edda Finn Gwen Hugo Ines Jonas Keya Lior Mara Nils Oona Pavel Quinn Rhea Sami Tova'.split(
    ' ',
  );
const LAST =
  'Abbott Brine Calder Drift Eastwood Fathom Gale Harbour Inlet Jetty Kelp Lantern Mooring Narrows Oar Pier'.split(
    ' ',
  );
const TOWNS = ['East Landing', 'Lower Quay', 'Heron Point', 'Saltmarsh'];
const INTERESTS = ['ferry history', 'boat building', 'school trips', 'night crossings'];

const pick = <T>(from: readonly T[], n: number): T => from[n % from.length]!;

/**
 * Invented people, always the same: some paid up and some not, some who ticked news and some who said no, an
 * address that can't be read, two of one house, somebody without any address.
 */
export function deskPeople(n: number): DeskPerson[] {
  return Array.from({ length: n }, (_none, i) => {
    const [first, last] = [pick(FIRST, i * 7 + Math.floor(i / 20)), pick(LAST, i * 5 + Math.floor(i / 16))];
    const own = `${first}.${last}.${i}@members.lanternferry.test`.toLowerCase();
    const email = i % 41 === 7 ? 'not known' : i % 37 === 5 ? '' : i % 29 === 3 ? 'the.house@pier.test' : own;
    return {
      ...{ id: `D-${String(1000 + i)}`, first, last, email, town: pick(TOWNS, i) },
      mobile: i % 3 === 0 ? `+1206555${String(1000 + (i % 9000)).slice(-4)}` : '',
      member_until: `${2026 + (i % 2)}-${String(1 + (i % 12)).padStart(2, '0')}-28`,
      ...{ paid_up: i % 4 !== 0, news: i % 13 === 2 ? 'no' : i % 5 === 4 ? '' : 'yes' },
      joined_on: `${2015 + (i % 11)}-${String(1 + (i % 12)).padStart(2, '0')}-1${i % 10}`,
      interests: [pick(INTERESTS, i), ...(i % 2 === 0 ? [pick(INTERESTS, i + 1)] : [])],
      ...{ changed: 1, gone: false },
    };
  });
}

export const DESK_FIELDS: readonly { key: keyof DeskPerson; name: string }[] = [
  { key: 'id', name: 'Record id' },
  { key: 'first', name: 'First name' },
  { key: 'last', name: 'Last name' },
  { key: 'email', name: 'Email' },
  { key: 'mobile', name: 'Mobile' },
  { key: 'town', name: 'Town' },
  { key: 'member_until', name: 'Member until' },
  { key: 'news', name: 'OK to email' },
  { key: 'joined_on', name: 'Joined on' },
  { key: 'interests', name: 'Interests' },
];

export const DESK_FILTERS: readonly { key: string; name: string; has: (one: DeskPerson) => boolean }[] = [
  { key: 'paid-up', name: 'paid up this year', has: (one) => one.paid_up },
  { key: 'east-landing', name: 'of East Landing', has: (one) => one.town === 'East Landing' },
];
