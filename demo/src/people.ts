import { Chance } from './chance';
import { AREA_CODES, CROSSINGS, FIRST_NAMES, LAST, SHIRTS, SKILLS, STREETS } from './names';

/** What somebody agreed to on one channel. */
export interface Agreement {
  channel: 'email' | 'text' | 'call';
  scope: 'news' | 'appeals' | 'volunteering' | 'ferry-news' | 'launch-day' | 'board-notes' | 'all';
  state: 'yes' | 'implied' | 'asked' | 'no';
  /** Days before today. */
  ago: number;
  how: 'paper' | 'form' | 'in-person' | 'one-click' | 'keyword' | 'gift' | 'phone';
}

export interface Person {
  chapter: number;
  firstName: string;
  lastName: string;
  email: string | null;
  mobile: string | null;
  onHold: boolean;
  joinedAgo: number;
  /** Days from today; may be past. */
  renewsIn: number | null;
  birthday: number | null;
  crossing: string | null;
  shirt: string | null;
  skill: string | null;
  hours: number | null;
  tags: string[];
  lists: string[];
  gifts: { ago: number; amount: number }[];
  agreements: Agreement[];
  /** Street and number in Port Alder. */
  street: string | null;
  /** Whose household they are of, by place among the people; those who share it share one. */
  home: number | null;
}

const WORDS = ['example.org', 'example.com', 'example.net'];

function slug(text: string): string {
  return text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z]/g, '');
}

/** A birthday among real days, 29 February included now and then. */
function birthday(chance: Chance): number {
  if (chance.is(0.002)) return 229;
  const month = chance.int(1, 12);
  return month * 100 + chance.int(1, [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][month - 1]!);
}

function gifts(chance: Chance): Person['gifts'] {
  if (!chance.is(0.46)) return [];
  const usual = chance.pick([10, 15, 20, 25, 40, 50, 75, 100, 120, 250]) * 100;
  const out: Person['gifts'] = [];
  for (let year = 0; year < 4; year++) {
    if (!chance.is(year === 0 ? 0.38 : 0.55)) continue;
    const times = chance.is(0.15) ? chance.int(2, 6) : 1;
    for (let i = 0; i < times; i++)
      out.push({
        ago: year * 365 + chance.int(5, 364),
        amount: Math.max(500, usual + chance.pick([0, 0, 0, 500, -500, 1000])),
      });
  }
  return out;
}

function agreements(
  chance: Chance,
  person: Pick<Person, 'email' | 'mobile' | 'gifts' | 'joinedAgo'>,
): Agreement[] {
  const out: Agreement[] = [];
  const add = (
    channel: Agreement['channel'],
    scope: Agreement['scope'],
    state: Agreement['state'],
    ago: number,
    how: Agreement['how'],
  ) => out.push({ channel, scope, state, ago, how });
  const { joinedAgo } = person;
  if (person.email) {
    const how = chance.pick(['paper', 'form', 'in-person'] as const);
    if (chance.is(0.84)) add('email', 'news', 'yes', joinedAgo, how);
    if (chance.is(0.74)) add('email', 'appeals', 'yes', joinedAgo, how);
    else if (person.gifts.length > 0)
      add('email', 'appeals', 'implied', Math.min(...person.gifts.map((gift) => gift.ago)), 'gift');
    if (chance.is(0.5)) add('email', 'ferry-news', 'yes', joinedAgo, 'form');
    if (chance.is(0.12)) add('email', 'board-notes', 'yes', joinedAgo, 'form');
    if (chance.is(0.045))
      add('email', 'appeals', 'no', chance.int(1, Math.max(1, joinedAgo - 1)), 'one-click');
    if (chance.is(0.02)) add('email', 'all', 'no', chance.int(1, Math.max(1, joinedAgo - 1)), 'one-click');
  }
  if (person.mobile) {
    if (chance.is(0.42)) add('text', 'appeals', 'yes', joinedAgo, 'form');
    if (chance.is(0.3)) add('text', 'launch-day', 'yes', joinedAgo, 'keyword');
    else if (chance.is(0.04)) add('text', 'launch-day', 'asked', chance.int(1, 20), 'form');
    if (chance.is(0.05)) add('text', 'all', 'no', chance.int(1, Math.max(1, joinedAgo - 1)), 'keyword');
  }
  return out;
}

function street(chance: Chance): string | null {
  if (!chance.is(0.55)) return null;
  const number = `${chance.int(1, 180)}${chance.is(0.04) ? chance.pick(['A', 'B']) : ''}`;
  return `${number} ${chance.pick(STREETS)}${chance.is(0.06) ? `, Apt ${chance.int(1, 12)}` : ''}`;
}

const CHAPTER_SHARES = [0, 0, 0, 0, 0, 1, 1, 1, 2, 2];

/**
 * Invents the supporters of the Lantern Ferry Trust, the same for the same seed. About one in ten shares an
 * address.
 */
export function inventPeople(count: number, seed = 1847): Person[] {
  const chance = new Chance(seed);
  // What was invented later has a chance of its own, so that all else stays as it was.
  const later = new Chance(seed + 1);
  const people: Person[] = [];
  for (let i = 0; i < count; i++) {
    const before = people[i - 1];
    const household = before?.email && chance.is(0.06) ? before : null;
    const firstName = chance.is(0.012) ? '' : chance.is(0.004) ? 'Wilhelmina' : chance.pick(FIRST_NAMES);
    const lastName =
      household?.lastName ??
      (chance.is(0.05) ? `${chance.pick(LAST)}-${chance.pick(LAST)}` : chance.pick(LAST));
    const number = `+1${AREA_CODES[Math.floor(i / 100) % AREA_CODES.length]}55501${String(i % 100).padStart(2, '0')}`;
    const email = household
      ? household.email
      : chance.is(0.95)
        ? `${chance.is(0.006) ? 'bounce.' : ''}${slug(firstName) || 'hello'}.${slug(lastName)}${i}@${chance.pick(WORDS)}`
        : null;
    const person = {
      chapter: household?.chapter ?? chance.pick(CHAPTER_SHARES),
      firstName,
      lastName,
      email,
      mobile: chance.is(0.55) || !email ? number : null,
      onHold: chance.is(0.012),
      joinedAgo: chance.int(20, 1800),
      renewsIn: chance.is(0.45) ? chance.int(-200, 360) : null,
      birthday: chance.is(0.4) ? birthday(chance) : null,
      crossing: chance.is(0.5) ? chance.pick(CROSSINGS) : null,
      shirt: chance.is(0.35) ? chance.pick(SHIRTS) : null,
      skill: chance.is(0.2) ? chance.pick(SKILLS) : null,
      hours: chance.is(0.18) ? chance.int(1, 160) : null,
      tags: (
        [
          ['plank menders', 0.09],
          ['boat shed key', 0.015],
          ['winter fair 2026', 0.07],
          ['oar makers', 0.04],
          ['crossing guides', 0.03],
        ] as const
      )
        .filter(([, share]) => chance.is(share))
        .map(([tag]) => tag),
      lists: (
        [
          ['Ferry news', 0.5],
          ['Launch day', 0.24],
          ['Board notes', 0.06],
          ['Deck crew', 0.04],
        ] as const
      )
        .filter(([, share]) => chance.is(share))
        .map(([list]) => list),
      gifts: gifts(chance),
    };
    const lives =
      household && later.is(0.8)
        ? { street: household.street, home: (household.home ??= i - 1) }
        : { street: street(later), home: null };
    const calls: Agreement[] =
      person.mobile && later.is(0.3)
        ? [{ channel: 'call', scope: 'appeals', state: 'yes', ago: person.joinedAgo, how: 'paper' }]
        : [];
    people.push({ ...person, ...lives, agreements: [...agreements(chance, person), ...calls] });
  }
  return people;
}
