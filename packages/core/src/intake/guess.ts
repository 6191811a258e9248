import { coerce, dateOrderOf, parseYesNo, type DateOrder, type FieldType } from '../fields';
import { cleanEmail, cleanPhone, cutNameEmail, cutAddresses, nameMatchKey } from './clean';
import { choiceKey, type ColumnChoice } from './columns';
import { consentHeader, targetOf } from './headers';
import { readMoney } from './money';
import { readCountry } from '../fields';
import { serialDay, type BatchKind } from './row';
import { readStatus } from './statuses';

/** A field that a column can be matched to. */
export interface KnownField {
  id: number;
  name: string;
  type: FieldType;
}

/** What the values of a column look like, from a sample. Shares are of the cells that are not empty, 0 to 1. */
export interface ColumnProfile {
  filled: number;
  empty: number;
  emails: number;
  /** Names with an address in angle brackets. */
  nameEmails: number;
  phones: number;
  dates: number;
  /** Spreadsheet numbers of days. */
  serials: number;
  numbers: number;
  yesNo: number;
  countries: number;
  statuses: number;
  /** Two words or more, letters only. */
  names: number;
  distinct: number;
  order: DateOrder | null;
}

/** What a column was matched to, and how sure that is. */
export interface Guess {
  choice: ColumnChoice;
  /** 0 to 1: 0.9 and up where header and values agree, about 0.6 where only one of them says so. */
  confidence: number;
}

const SAMPLE = 500;
/** Telephone numbers are weighed by so many cells at most: each takes as long as a hundred other tests. */
const FEW = 200;

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
    if (this.distinct.size < 200 || this.distinct.has(cell)) this.distinct.set(cell, (this.distinct.get(cell) ?? 0) + 1);
    const found = /^\d/.test(cell) ? dateOrderOf([cell]) : null;
    if (found) this.order[found === 'day-first' ? 0 : 1] = true;
    // The first ones, then ever fewer, so that a file that is sorted shows its other end too.
    if (this.filled > SAMPLE && this.filled % this.step !== 0) return;
    this.sample.push(cell);
    if (this.sample.length > 3 * SAMPLE) {
      this.sample.splice(0, this.sample.length, ...this.sample.filter((_cell, i) => i < SAMPLE || i % 2 === 0));
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
      nameEmails: share((cell) => cutNameEmail(cell).name !== ''),
      phones: share((cell) => /\d{3}/.test(cell) && cleanPhone(cell, country).ok, few),
      dates: share((cell) => coerce('date', cell, 'day-first').ok || coerce('date', cell, 'month-first').ok),
      serials: share((cell) => serialDay(cell) !== null),
      // Digits in groups are a telephone number where they can be one.
      numbers: share((cell) => coerce('number', cell).ok && !(/\d[\s().-]+\d/.test(cell) && cleanPhone(cell, country).ok), few),
      yesNo: share((cell) => parseYesNo(cell) !== null),
      countries: share((cell) => readCountry(cell) !== null),
      statuses: share((cell) => readStatus(cell) !== null),
      names: share((cell) => /^[\p{L}'’.-]+,? [\p{L}'’. -]+$/u.test(cell)),
      distinct: this.distinct.size,
      order: dayFirst === monthFirst ? null : dayFirst ? 'day-first' : 'month-first',
    };
  }
}

/** Profiles a column that is wholly there. */
export function profileColumn(values: readonly string[], country: string): ColumnProfile {
  const sampler = new ColumnSampler();
  for (const value of values) sampler.add(value);
  return sampler.profile(country);
}

/** The type that a new field should have, from the values: the narrowest that nearly all of them fit. */
export function guessType(profile: ColumnProfile, sample: readonly string[] = []): FieldType {
  if (profile.filled === 0) return 'text';
  if (profile.dates > 0.9) return 'date';
  if (profile.yesNo > 0.95 && profile.distinct <= 4) return 'yesno';
  const signed = sample.filter((cell) => /\p{Sc}|^[A-Z]{3} ?\d/u.test(cell) && readMoney(cell) !== null).length;
  if (sample.length > 0 && signed > sample.length / 2) return 'money';
  if (profile.numbers > 0.95) return 'number';
  return profile.distinct <= 12 && profile.filled >= profile.distinct * 2 ? 'choice' : 'text';
}

/** Whether the values of a column can be what its header says; null where values say nothing about it. */
function fit(to: ColumnChoice['to'], profile: ColumnProfile): number | null {
  switch (to) {
    case 'email':
      return profile.emails;
    case 'nameEmail':
      return profile.nameEmails;
    case 'mobile':
      return profile.phones;
    case 'signedOn':
    case 'givenOn':
      return Math.max(profile.dates, profile.serials);
    case 'country':
      return profile.countries;
    case 'amount':
      return profile.numbers;
    case 'status':
      return profile.statuses;
    case 'fullName':
      return profile.emails > 0.5 || profile.numbers > 0.5 ? 0 : null;
    default:
      return profile.emails > 0.6 ? 0 : null;
  }
}

/**
 * Matches one column. A header that says one thing while the values say another is believed by its values: addresses
 * under "Phone" are emails.
 */
export function guessColumn(header: string, profile: ColumnProfile, fields: readonly KnownField[], what: BatchKind = 'people'): Guess {
  const order = profile.order ?? undefined;
  const named = targetOf(header, what);
  const say = (choice: ColumnChoice, confidence: number): Guess => ({ choice, confidence });
  if (profile.nameEmails > 0.6) return say({ to: 'nameEmail' }, 0.9);
  if (profile.emails > 0.6) return say({ to: 'email' }, named === 'email' ? 0.99 : 0.85);
  const consent = consentHeader(header);
  if (consent && profile.yesNo >= 0.9) return say({ to: 'consent', channel: consent }, 0.9);
  if (named) {
    const fits = fit(named, profile);
    if (profile.filled === 0) return say(targeted(named, order), 0.5);
    if (fits === null) return say(targeted(named, order), 0.9);
    if (fits >= 0.3) return say(targeted(named, order), 0.6 + fits * 0.39);
  }
  if (profile.phones > 0.7 && profile.numbers < 1) return say({ to: 'mobile' }, 0.7);
  const field = fieldLike(nameMatchKey(header), fields);
  if (field) return say({ to: 'field', fieldId: field.id, type: field.type, order }, 0.8);
  if (profile.filled === 0 || /\b(notes?|old|internal|id)\b/i.test(header)) return say({ to: 'leave' }, 0.5);
  if (what !== 'people') return say({ to: 'leave' }, 0.6);
  return say({ to: 'newField', name: header.slice(0, 60) || 'Unnamed', type: guessType(profile), order }, 0.6);
}

function targeted(to: Exclude<ReturnType<typeof targetOf>, null>, order: DateOrder | undefined): ColumnChoice {
  return to === 'signedOn' || to === 'givenOn' ? { to, order } : { to };
}

/** A field of the same name, or whose name holds the header or is held by it (`Renewal` and `Membership renews`). */
function fieldLike(key: string, fields: readonly KnownField[]): KnownField | undefined {
  if (key.length < 3) return undefined;
  const stem = key.slice(0, Math.max(4, key.length - 2));
  return (
    fields.find((field) => nameMatchKey(field.name) === key) ??
    fields.find((field) => nameMatchKey(field.name).includes(stem) || key.includes(nameMatchKey(field.name)))
  );
}

/** Matches all columns; a target that can be taken once goes to the column that fits it best, the first where they tie. */
export function guessAll(
  header: readonly string[],
  profiles: readonly ColumnProfile[],
  fields: readonly KnownField[],
  what: BatchKind = 'people',
): Guess[] {
  const guesses = header.map((name, i) => guessColumn(name, profiles[i]!, fields, what));
  const best = new Map<string, number>();
  guesses.forEach(({ choice, confidence }, i) => {
    const key = choiceKey(choice);
    if (key === null) return;
    const other = best.get(key);
    if (other === undefined || confidence > guesses[other]!.confidence) best.set(key, i);
  });
  // A name in one piece is only cut where there are no columns for its parts.
  const parted = guesses.some(({ choice }) => choice.to === 'lastName') && guesses.some(({ choice }) => choice.to === 'firstName');
  return guesses.map((guess, i) => {
    const key = choiceKey(guess.choice);
    const beaten = key !== null && best.get(key) !== i;
    return beaten || (guess.choice.to === 'fullName' && parted) ? { choice: { to: 'leave' }, confidence: 0.5 } : guess;
  });
}

export function guessColumns(
  header: readonly string[],
  profiles: readonly ColumnProfile[],
  fields: readonly KnownField[],
  what: BatchKind = 'people',
): ColumnChoice[] {
  return guessAll(header, profiles, fields, what).map(({ choice }) => choice);
}

/** What a file is for, from its columns: amounts with days are gifts, a column of refusals is people who said no. */
export function guessKind(header: readonly string[], profiles: readonly ColumnProfile[]): BatchKind {
  const has = (target: string, what: BatchKind) =>
    header.some((name, i) => targetOf(name, what) === target && (fit(target as ColumnChoice['to'], profiles[i]!) ?? 1) >= 0.5);
  if (has('amount', 'gifts') && has('givenOn', 'gifts')) return 'gifts';
  const status = header.findIndex((name) => targetOf(name, 'refusals') === 'status');
  if (status >= 0 && profiles[status]!.statuses > 0.5) return 'refusals';
  const reach = profiles.filter((profile) => profile.emails > 0.6 || profile.phones > 0.7).length;
  return header.filter((name) => name !== '').length <= 1 && reach <= 1 ? 'here' : 'people';
}
