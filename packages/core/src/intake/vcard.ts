// @ts-expect-error TS1479: its types are those of its ES module; the package has a CommonJS one as well, which is what runs.
import ICAL from 'ical.js';
import { decoderOf, guessEncoding } from './encoding';
import { Unreadable } from './records';
import { joinTags } from './tags';

/** Columns that a vCard file is read into; those that nobody fills are left out. */
const COLUMNS = [
  'First name',
  'Last name',
  'Email',
  'Email 2',
  'Email 3',
  'Email 4',
  'Email 5',
  'Email 6',
  'Phone',
  'Phone 2',
  'Phone 3',
  'Phone 4',
  'Phone 5',
  'Phone 6',
  'Birthday',
  'Street',
  'City',
  'Region',
  'Postcode',
  'Country',
  'Organization',
  'Title',
  'Tags',
  'Own id',
  'Web',
  'Note',
] as const;

/** Addresses of a kind that are read of a card, the preferred ones first. */
const MOST_POINTS = 6;

/** A person as a vCard tells it, by column. */
export type CardRow = Partial<Record<(typeof COLUMNS)[number], string>>;

type Value = string | string[] | (string | string[])[];
type Property = [name: string, params: Record<string, string | string[]>, type: string, ...values: Value[]];

const flat = (value: Value | undefined): string =>
  Array.isArray(value) ? value.flat().join(' ').trim() : (value ?? '').trim();
const typesOf = ([, params]: Property): string[] =>
  [params.type ?? []].flat().flatMap((type) => type.toLowerCase().split(','));

/**
 * Preferred first (RFC 6350 §5.3: PREF from 1; RFC 2426 §3.3: TYPE=pref), mobile before other lines, else as
 * they stand.
 */
function ranked(properties: Property[]): Property[] {
  const rank = (one: Property) => {
    const types = typesOf(one);
    const pref = Number([one[1].pref ?? 100].flat()[0]);
    return (
      (types.includes('pref') ? 1 : pref) -
      (types.some((type) => ['cell', 'text', 'mobile'].includes(type)) ? 200 : 0) +
      (types.includes('fax') ? 500 : 0)
    );
  };
  return properties
    .map((one, at) => ({ one, at }))
    .sort((a, b) => rank(a.one) - rank(b.one) || a.at - b.at)
    .map(({ one }) => one);
}

function rowOf(properties: readonly Property[]): CardRow {
  const all = (name: string) => properties.filter(([own]) => own === name || own.endsWith(`.${name}`));
  const first = (name: string) => flat(all(name)[0]?.[3]);
  const row: CardRow = {};
  const [family, given] = (all('n')[0]?.[3] as Value[] | undefined) ?? [];
  row['First name'] = flat(given);
  row['Last name'] = flat(family);
  if (!row['First name'] && !row['Last name']) row['First name'] = first('fn');
  ranked(all('email'))
    .slice(0, MOST_POINTS)
    .forEach((one, i) => (row[i === 0 ? 'Email' : (`Email ${i + 1}` as 'Email 2')] = flat(one[3])));
  ranked(all('tel').filter((one) => !typesOf(one).includes('fax')))
    .slice(0, MOST_POINTS)
    .forEach(
      (one, i) =>
        (row[i === 0 ? 'Phone' : (`Phone ${i + 1}` as 'Phone 2')] = flat(one[3]).replace(/^tel:/i, '')),
    );
  const address = ranked(all('adr'))[0]?.[3] as Value[] | undefined;
  if (address) {
    row.Street = [address[1], address[2]].map(flat).filter(Boolean).join(', ');
    [row.City, row.Region, row.Postcode, row.Country] = [3, 4, 5, 6].map((part) => flat(address[part]));
  }
  row.Birthday = first('bday')
    .replace(/^(\d{4})(\d\d)(\d\d).*/, '$1-$2-$3')
    .replace(/^--(\d\d)-?(\d\d).*/, '--$1-$2');
  row.Organization = first('org');
  row.Title = first('title');
  row.Tags = joinTags(all('categories').flatMap((one) => one.slice(3).flat(2) as string[]));
  row['Own id'] = first('uid').replace(/^urn:uuid:/i, '');
  row.Web = first('url');
  row.Note = first('note');
  return row;
}

/** Cards of the old kind (2.1): types without a name, quoted-printable letters. */
function asVersion3(card: string): string {
  return withoutQuotedPrintable(card)
    .replace(/^VERSION:.*$/im, 'VERSION:3.0')
    .replace(/^[^:\r\n\u2028\u2029]+(?=:)/gm, (head) => head.replace(/;([A-Za-z0-9-]+)(?=;|$)/g, ';TYPE=$1'));
}

/** Cards of the old kind (2.1) mark their letters so; the newer ones are always plain. */
function withoutQuotedPrintable(card: string): string {
  return card.replace(
    /^([^:\r\n\u2028\u2029]*);(?:ENCODING=)?QUOTED-PRINTABLE([^:\r\n\u2028\u2029]*):((?:.*=\r?\n)*.*)$/gim,
    (_all, head: string, tail: string, value: string) => {
      const bytes: number[] = [];
      const plain = value.replace(/=\r?\n/g, '');
      for (let i = 0; i < plain.length; i++) {
        const hex = plain[i] === '=' ? Number.parseInt(plain.slice(i + 1, i + 3), 16) : Number.NaN;
        if (Number.isNaN(hex)) bytes.push(plain.charCodeAt(i));
        else [i] = [i + 2, bytes.push(hex)];
      }
      return `${head}${tail.replace(/;CHARSET=[^;:]*/i, '')}:${new TextDecoder().decode(new Uint8Array(bytes))}`;
    },
  );
}

const LONGEST_CARD = 5_000_000;

/**
 * Reads vCards (RFC 6350 version 4, RFC 2426 version 3) from bytes that come in pieces: several addresses and
 * numbers with their types, categories, folded lines. Unfolding and unescaping are ical.js's.
 */
export class CardReader {
  private text = '';
  private readonly decoder;
  private count = 0;

  constructor(start: Uint8Array) {
    this.decoder = decoderOf(
      guessEncoding(start.subarray(0, start.lastIndexOf(10) + 1 || start.length)).encoding,
    );
  }

  push(piece: Uint8Array): CardRow[] {
    this.text += this.decoder.decode(piece);
    const rows = this.take();
    this.bound();
    return rows;
  }

  end(): CardRow[] {
    this.text += this.decoder.end();
    const rows = this.take();
    if (/^[ \t]{0,20}BEGIN:VCARD/im.test(this.text))
      throw new Unreadable('card.end', { card: this.count + 1 });
    return rows;
  }

  /** A card with a picture in it is long; one without an end would take all memory. */
  private bound(): void {
    if (this.text.length > LONGEST_CARD)
      throw new Unreadable('card.long', { card: this.count + 1, most: LONGEST_CARD / 1_000_000 });
  }

  private take(): CardRow[] {
    const rows: CardRow[] = [];
    for (let found = END.exec(this.text); found; found = END.exec(this.text)) {
      const end = found.index + found[0].length;
      const card = this.text.slice(0, end);
      this.text = this.text.slice(end);
      rows.push(this.read(card.slice(Math.max(0, card.search(/BEGIN:VCARD/i)))));
    }
    return rows;
  }

  private read(card: string): CardRow {
    this.count += 1;
    try {
      const version = /^VERSION:\s*(\S+)/im.exec(card)?.[1];
      const plain = version === '2.1' ? asVersion3(card) : card;
      const [, properties] = ICAL.parse(plain.trim()) as unknown as [string, Property[]];
      return rowOf(properties);
    } catch (error) {
      throw new Unreadable('card.wrong', { card: this.count, why: (error as Error).message });
    }
  }
}
const END = /^END:VCARD[ \t]*(?:\r\n|\r|\n|$)/im;

/** Cards as a table: the header holds the columns that anybody fills. */
export function tableOfCards(cards: readonly CardRow[]): { header: string[]; rows: string[][] } {
  const header = COLUMNS.filter((column) => cards.some((card) => (card[column] ?? '') !== ''));
  return { header, rows: cards.map((card) => header.map((column) => card[column] ?? '')) };
}
