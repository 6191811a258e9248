import { type Code, type Day, isoDay, said, type Said, visible } from '../common';
import {
  coerce,
  parseDate,
  parseYesNo,
  readCountry,
  readMoney,
  type DateOrder,
  type FieldType,
} from '../fields';
import { CHANNELS, SENDING_CHANNELS, type SendingChannel } from '../permission';
import {
  cleanEmail,
  cleanName,
  cleanPhone,
  cutAddresses,
  cutName,
  cutNameEmail,
  cutPhones,
  type CleanAddress,
  type Cleaned,
} from './clean';
import type { ColumnChoice } from './columns';
import { addressHint } from './health';
import type { PostalAddress } from './places';
import { readConsent, readRefused, refusedChannels } from './consents';
import { cutTags } from './tags';
import { readStatus } from './statuses';
import { type CellFault, type CleanRow, EMPTY_POST, emptyRow } from './clean-row';

/**
 * As many letters as a name, an id or a part of an address may have; one beyond it is told, and never cut.
 */
export const LONGEST = {
  firstName: 100,
  lastName: 100,
  fullName: 100,
  externalId: 80,
  street: 200,
  postcode: 20,
  city: 100,
  region: 100,
  stage: 60,
  chapter: 120,
  signedWords: 2000,
  giftId: 80,
  appeal: 60,
} as const;
const LONGEST_TAG = 120;

const brief = (cell: string) => cell.slice(0, 40);

/** What a file is brought in for. */
export const BATCH_KINDS = ['people', 'refusals', 'here', 'gifts'] as const;
export type BatchKind = (typeof BATCH_KINDS)[number];

/** Whether a column of refusals is read: a file of people who said no is a refusal as a whole. */
export const readsRefusals = (what: BatchKind): boolean => what !== 'refusals';

/** How rows are cleaned. */
export interface RowRules {
  what: BatchKind;
  columns: readonly ColumnChoice[];
  /** Country of telephone numbers without a country code, where the row itself names none. */
  country: string;
  /** The house's currency, in which fields keep money. */
  currency: string;
  /** The house's day. */
  today: Day;
  /** Columns that hold the day on which somebody was born (see `birthColumns`). */
  births?: ReadonlySet<number>;
  /** A no in any consent column is one to every channel. */
  noIsEverything?: boolean;
}

/** Cleans one row by the plan's columns. Pure, and the same in the page's worker and on the server. */
export function cleanRow(cells: readonly string[], rules: RowRules): CleanRow {
  const reader = new RowReader(cells, rules);
  rules.columns.forEach((choice, column) => {
    const cell = visible(cells[column] ?? '').trim();
    if (cell !== '' && choice.to !== 'leave') reader.read(choice, column, cell);
  });
  return reader.finish();
}

class RowReader {
  private readonly row = emptyRow();
  private readonly country: string;
  private isRefund = false;

  constructor(
    private readonly cells: readonly string[],
    private readonly rules: RowRules,
  ) {
    this.country = this.ownCountry() ?? rules.country;
  }

  /** Telephone numbers are read in the country that the row names. */
  private ownCountry(): string | null {
    const column = this.rules.columns.findIndex((choice) => choice.to === 'country');
    return column < 0 ? null : readCountry(this.cells[column] ?? '');
  }

  read(choice: ColumnChoice, column: number, cell: string): void {
    switch (choice.to) {
      case 'field':
      case 'newField':
        return this.field(choice.type, choice.order, column, cell);
      case 'consent': {
        const yes = readConsent(cell);
        if (yes === null) this.fault(column, said('value.yesno', { got: brief(cell) }));
        else this.row.consent[choice.channel] = yes;
        return;
      }
      case 'refusal': {
        const refused = readRefused(
          cell,
          (text) => serialDay(text) !== null || parseDate(text, 'day-first') !== null,
        );
        if (refused === null) this.hint(column, said('cell.refusal', { got: brief(cell) }));
        if (refused === false) return;
        for (const channel of refusedChannels(choice.channel)) this.row.refused.add(channel);
        return;
      }
      case 'signedOn':
        this.row.signedOn = this.day(column, cell, choice.order);
        return;
      case 'givenOn':
        this.row.gift.on = this.day(column, cell, choice.order);
        return;
      default:
        return this.plain(choice.to, column, cell);
    }
  }

  private plain(
    to: Exclude<ColumnChoice, { order?: DateOrder } | { channel: SendingChannel }>['to'],
    column: number,
    cell: string,
  ): void {
    const { row } = this;
    if (to in LONGEST && !this.fits(to as keyof typeof LONGEST, column, cell)) return;
    switch (to) {
      case 'leave':
        return;
      case 'firstName':
      case 'lastName':
        row[to] = cleanName(cell);
        return;
      case 'fullName':
        Object.assign(row, cutName(cell));
        return;
      case 'email':
        for (const part of cutAddresses(cell)) this.email(column, part);
        return;
      case 'nameEmail': {
        const { name, email } = cutNameEmail(cell);
        if (name !== '' && row.firstName === '' && row.lastName === '') Object.assign(row, cutName(name));
        return this.email(column, email);
      }
      case 'mobile':
        for (const part of cutPhones(cell)) this.phone(column, part);
        return;
      case 'externalId':
        row.externalId = cell;
        return;
      case 'street':
        return this.post({ street: [row.post?.street, cell].filter(Boolean).join(', ') });
      case 'postcode':
        return this.post({ postcode: cell });
      case 'city':
      case 'region':
        return this.post({ [to]: cell });
      case 'country': {
        const country = readCountry(cell);
        if (country === null) return this.fault(column, said('value.country', { got: brief(cell) }));
        return this.post({ country });
      }
      case 'tags':
        for (const tag of cutTags(cell))
          if (tag.length <= LONGEST_TAG) row.tags.push(tag);
          else this.fault(column, said('cell.tag-long', { most: LONGEST_TAG, length: tag.length }));
        return;
      case 'stage':
      case 'chapter':
        row[to] = cell;
        return;
      case 'signedWords':
        row.signedWords = cell;
        return;
      case 'status': {
        row.status = readStatus(cell);
        if (row.status === null) this.fault(column, said('cell.status', { got: brief(cell) }));
        return;
      }
      case 'amount':
      case 'currency':
      case 'giftId':
      case 'appeal':
      case 'rhythm':
        return this.gift(to, column, cell);
    }
  }

  /** Nothing is cut: what is too long to be a name, an id or a line of an address is told. */
  private fits(to: keyof typeof LONGEST, column: number, cell: string): boolean {
    const longest = LONGEST[to];
    if (cell.length > longest)
      this.fault(
        column,
        said('cell.long', { most: longest, length: cell.length, got: `${cell.slice(0, 30)}…` }),
      );
    return cell.length <= longest;
  }

  private gift(
    to: 'amount' | 'currency' | 'giftId' | 'appeal' | 'rhythm',
    column: number,
    cell: string,
  ): void {
    const { gift } = this.row;
    switch (to) {
      case 'amount': {
        const money = readMoney(cell);
        if (!money) return this.fault(column, said('value.amount', { got: brief(cell) }));
        gift.amount = money.minor;
        gift.currency = money.currency ?? gift.currency;
        return;
      }
      case 'currency':
        if (!/^[A-Z]{3}$/i.test(cell)) return this.fault(column, said('cell.currency', { got: brief(cell) }));
        gift.currency = cell.toUpperCase();
        return;
      case 'giftId':
        gift.ownId = cell;
        return;
      case 'appeal':
        gift.appeal = cell;
        return;
      case 'rhythm':
        // One word of the trade tells; everything else is single.
        gift.recurring =
          /recur|regular|month|quarter|annual|yearly|weekly|standing|subscri|regelm|mensu|monatl|dauer|period/i.test(
            cell,
          ) || parseYesNo(cell) === true;
        this.isRefund = /refund|reversed|chargeback|erstatt|rembours|reembols|devol/i.test(cell);
    }
  }

  private field(type: FieldType, order: DateOrder | undefined, column: number, cell: string): void {
    const serial = type === 'date' || type === 'birthday' ? serialDay(cell) : null;
    const { currency, today, births } = this.rules;
    const text = serial === null ? cell : isoDay(serial);
    const coerced = coerce(type, text, { order, currency, today, born: births?.has(column) ?? false });
    if (!coerced.ok) return this.fault(column, coerced.reason);
    if (serial !== null) this.hint(column, said('cell.serial', { got: cell }));
    this.row.values.push({ column, value: coerced.value });
  }

  private day(column: number, cell: string, order: DateOrder | undefined): Day | null {
    const day = serialDay(cell) ?? parseDate(cell, order ?? 'day-first');
    if (day === null) this.fault(column, said('value.date', { got: brief(cell) }));
    return day;
  }

  private email(column: number, cell: string): void {
    const address = this.kept(column, cleanEmail(cell));
    if (!address) return;
    const hint = addressHint(address.normal);
    if (hint) this.hint(column, hint);
    if (!this.row.email) this.row.email = address;
    else if (this.row.email.normal !== address.normal) this.row.moreEmails.push(address);
  }

  private phone(column: number, cell: string): void {
    const address = this.kept(column, cleanPhone(cell, this.country));
    if (!address) return;
    if (!this.row.mobile) this.row.mobile = address;
    else if (this.row.mobile.normal !== address.normal) this.row.moreMobiles.push(address);
  }

  private kept(column: number, cleaned: Cleaned): CleanAddress | null {
    if (!cleaned.ok) {
      this.fault(column, cleaned.reason);
      return null;
    }
    const { normal, shown, country, hint } = cleaned;
    if (hint) this.hint(column, hint);
    return { normal, shown, ...(country ? { country } : {}) };
  }

  private post(part: Partial<PostalAddress>): void {
    this.row.post = { ...(this.row.post ?? EMPTY_POST), ...part };
  }

  private fault(column: number, reason: Said): void {
    this.row.faults.push({ column, reason });
  }

  private hint(column: number, reason: Said): void {
    this.row.hints.push({ column, reason });
  }

  finish(): CleanRow {
    const { row, rules, cells } = this;
    // Whichever of the two columns comes first.
    if (this.isRefund && row.gift.amount !== null) row.gift.amount = -Math.abs(row.gift.amount);
    if (rules.noIsEverything && SENDING_CHANNELS.some((channel) => row.consent[channel] === false))
      for (const channel of CHANNELS) row.refused.add(channel);
    // A no outweighs a yes of the same row.
    for (const channel of SENDING_CHANNELS) if (row.refused.has(channel)) row.consent[channel] = false;
    row.fatal = fatalFault(row, cells, rules);
    return row;
  }
}

/**
 * A spreadsheet's number of a day, in the system that counts from 1900 (ECMA-376 part 1 §18.17.4.1), between
 * 1941 and 2119.
 */
export function serialDay(cell: string): Day | null {
  if (!/^\d{5}(?:\.\d+)?$/.test(cell)) return null;
  const serial = Math.floor(Number(cell));
  return serial >= 15_000 && serial <= 80_000 ? serial - 25_569 : null;
}

function fatalFault(row: CleanRow, cells: readonly string[], rules: RowRules): Said | null {
  const width = rules.columns.length;
  const extra = cells.slice(width).filter((cell) => cell.trim() !== '').length;
  if (extra > 0) return said('row.wide', { cells: cells.length, width });
  if (cells.every((cell) => cell.trim() === '')) return said('row.empty');
  if (rules.what === 'gifts') return giftFault(row);
  if (row.email || row.mobile) return null;
  if (row.externalId && rules.what !== 'refusals') return rules.what === 'here' ? null : unreachable(row);
  return unreachable(row);
}

/** What keeps a row out where it is what its cells are kept out for. */
export const reasonsOf = (faults: readonly CellFault[]): Said =>
  said('row.reasons', { reasons: faults.map(({ reason }) => reason) });

function unreachable(row: CleanRow): Said {
  return faultsOr(row, 'row.unreachable');
}

function giftFault(row: CleanRow): Said | null {
  if (row.gift.amount === null || row.gift.amount === 0) return faultsOr(row, 'row.no-amount');
  if (row.gift.on === null) return faultsOr(row, 'row.no-day');
  if (row.email || row.mobile || row.externalId || (row.lastName && row.post?.postcode)) return null;
  return faultsOr(row, 'row.whose');
}

function faultsOr(row: CleanRow, otherwise: Code): Said {
  return row.faults.length > 0 ? reasonsOf(row.faults) : said(otherwise);
}
