import { coerce, dateOrderOf, parseYesNo, usualOrder, type DateOrder } from '../fields';
import { cleanEmail, cleanPhone, cutNameEmail, cutAddresses } from './clean';
import { readConsent, saysRefused } from './consents';
import { readCountry, readMoney } from '../fields';
import { serialDay } from './row';
import { readStatus } from './statuses';

/** So many cells of a column are looked at, of those that are not empty. */
export const SAMPLE = 500;

/** Telephone numbers are weighed by so many cells at most: each takes as long as a hundred other tests. */
export const FEW = 200;

/** Whether a cell is a day, in whatever order it is written. */
export const isDay = (cell: string) =>
  coerce('date', cell).ok || coerce('date', cell, { order: 'month-first' }).ok;

/**
 * What the values of a column look like, from a sample. Shares are of the cells that are not empty, 0 to 1.
 */
export interface ColumnProfile {
  filled: number;
  empty: number;
  emails: number;
  /** Something with an at sign, or what people write for one. */
  ats: number;
  /** Names with an address in angle brackets. */
  nameEmails: number;
  phones: number;
  /** Seven digits and more, in whatever country they may be a telephone number. */
  digits: number;
  dates: number;
  /** Days with their year or without. */
  birthdays: number;
  /** Spreadsheet numbers of days. */
  serials: number;
  numbers: number;
  yesNo: number;
  countries: number;
  statuses: number;
  /** A yes or a no to being written to. */
  consents: number;
  /** A refusal in so many words. */
  refusals: number;
  /** Two words or more, letters only. */
  names: number;
  distinct: number;
  /** Of the web. */
  links: number;
  /** Amounts with a sign or a code of a currency. */
  moneys: number;
  /** Digits that begin with a nought: codes, which are no numbers. */
  zeros: number;
  /** The order that the values must be in, where they tell. */
  order: DateOrder | null;
  /** Some values work only day first, others only month first. */
  mixed: boolean;
  /** The order of the place. */
  usual: DateOrder;
}

/** Collects the values of a column as the rows come by: how many, and a sample spread over all of them. */
export class ColumnSampler {
  filled = 0;
  empty = 0;
  readonly sample: string[] = [];
  readonly distinct = new Map<string, number>();
  private order: [boolean, boolean] = [false, false];
  private step = 1;

  add(value: string | undefined): void {
    const cell = value?.trim() ?? '';
    if (cell === '') return void (this.empty += 1);
    this.filled += 1;
    if (this.distinct.size < 200 || this.distinct.has(cell))
      this.distinct.set(cell, (this.distinct.get(cell) ?? 0) + 1);
    const found = /^\d/.test(cell) ? dateOrderOf([cell]) : null;
    if (found) this.order[found === 'day-first' ? 0 : 1] = true;
    // The first ones, then ever fewer, so that a file that is sorted shows its other end too.
    if (this.filled > SAMPLE && this.filled % this.step !== 0) return;
    this.sample.push(cell);
    if (this.sample.length > 3 * SAMPLE) {
      this.sample.splice(
        0,
        this.sample.length,
        ...this.sample.filter((_cell, i) => i < SAMPLE || i % 2 === 0),
      );
      this.step *= 2;
    }
  }

  profile(country: string): ColumnProfile {
    const cells = this.sample;
    const share = (test: (cell: string) => boolean, among: readonly string[] = cells) =>
      among.length === 0 ? 0 : among.filter(test).length / among.length;
    const [dayFirst, monthFirst] = this.order;
    const few = cells.filter((_cell, i) => i % Math.ceil(cells.length / FEW) === 0);
    return {
      filled: this.filled,
      empty: this.empty,
      emails: share((cell) => cutAddresses(cell).every((part) => cleanEmail(part).ok)),
      ats: share((cell) => /@|[[(]at[)\]]| at /i.test(cell)),
      nameEmails: share((cell) => cutNameEmail(cell).name !== ''),
      // Some countries have numbers of four digits, and days with dots can be dialled in some; nobody has a
      // column of either.
      phones: share(
        (cell) => cell.replace(/\D/g, '').length >= 6 && !isDay(cell) && cleanPhone(cell, country).ok,
        few,
      ),
      digits: share((cell) => cell.replace(/\D/g, '').length >= 7, few),
      dates: share(isDay),
      birthdays: share(
        (cell) => coerce('birthday', cell).ok || coerce('birthday', cell, { order: 'month-first' }).ok,
      ),
      serials: share((cell) => serialDay(cell) !== null),
      // Digits in groups are a telephone number where they can be one.
      numbers: share(
        (cell) => coerce('number', cell).ok && !(/\d[\s().-]+\d/.test(cell) && cleanPhone(cell, country).ok),
        few,
      ),
      yesNo: share((cell) => parseYesNo(cell) !== null),
      countries: share((cell) => readCountry(cell) !== null),
      statuses: share((cell) => readStatus(cell) !== null),
      consents: share((cell) => readConsent(cell) !== null),
      refusals: share(saysRefused),
      names: share((cell) => /^[\p{L}'’.-]+,? [\p{L}'’. -]+$/u.test(cell)),
      distinct: this.distinct.size,
      links: share((cell) => /^(?:https?:\/\/|www\.)\S+$/i.test(cell)),
      moneys: share(
        (cell) => /\p{Sc}|^[A-Z]{3} ?\d|\d ?[A-Z]{3}$/u.test(cell) && readMoney(cell) !== null,
        few,
      ),
      zeros: share((cell) => /^0\d+$/.test(cell)),
      order: dayFirst === monthFirst ? null : dayFirst ? 'day-first' : 'month-first',
      mixed: dayFirst && monthFirst,
      usual: usualOrder(country),
    };
  }
}
