// @ts-expect-error TS1479: its types are those of its ES module; the package has a CommonJS one as well, which is what runs.
import ICAL from 'ical.js';

/** Somebody as a card has places for. */
export interface CardPerson {
  id: number;
  firstName: string;
  lastName: string;
  points: readonly {
    kind: 'email' | 'mobile' | 'post';
    shown: string;
    parts?: Partial<Record<'street' | 'city' | 'postcode' | 'region' | 'country', string>> | null;
  }[];
  tags: readonly string[];
}

// The library adds the blank before a folded line on top: with it a line has the 75 octets of RFC 6350 §3.2.
ICAL.foldLength = 74;

/**
 * One vCard 4.0 (RFC 6350): names, addresses, numbers, the postal address, and the tags as categories. Lines
 * are folded and end in CRLF.
 */
export function writeCard(person: CardPerson): string {
  const card = new ICAL.Component(['vcard', [], []]);
  const full = `${person.firstName} ${person.lastName}`.trim();
  const shownOf = (kind: string) =>
    person.points.filter((point) => point.kind === kind).map((point) => point.shown);
  card.addPropertyWithValue('version', '4.0');
  card.addPropertyWithValue('fn', full || (shownOf('email')[0] ?? 'No name'));
  const name = new ICAL.Property('n', card);
  name.setValue([person.lastName, person.firstName, '', '', ''] as never);
  card.addProperty(name);
  for (const email of shownOf('email')) card.addPropertyWithValue('email', email);
  for (const phone of shownOf('mobile')) card.addPropertyWithValue('tel', phone);
  for (const point of person.points.filter((one) => one.kind === 'post')) {
    const address = new ICAL.Property('adr', card);
    const {
      street = '',
      city = '',
      postcode = '',
      region = '',
      country = '',
    } = point.parts ?? { street: point.shown };
    address.setValue(['', '', street, city, region, postcode, country].map((part) => part ?? '') as never);
    card.addProperty(address);
  }
  if (person.tags.length > 0) {
    const categories = new ICAL.Property('categories', card);
    categories.setValues(person.tags as never);
    card.addProperty(categories);
  }
  card.addPropertyWithValue('uid', `good-word-${person.id}`);
  return `${card.toString()}\r\n`;
}
