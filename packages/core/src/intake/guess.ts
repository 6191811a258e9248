import { FIELD_KINDS, type DateOrder, type FieldType } from '../fields';
import { nameMatchKey } from './clean';
import { choiceKey, type ColumnChoice, type DayTarget, type PlainTarget } from './columns';
import { consentHeader } from './consents';
import { BIRTH } from './births';
import { targetOf } from './headers';
import { readsRefusals, type BatchKind } from './row';
import { type ColumnProfile } from './column-profile';

/** A field that a column can be matched to. */
export interface KnownField {
  id: number;
  name: string;
  type: FieldType;
}

/** What a column was matched to, and how sure that is. */
export interface Guess {
  choice: ColumnChoice;
  /** 0 to 1: 0.9 and up where header and values agree, about 0.6 where only one of them says so. */
  confidence: number;
}

/** A few cells that say neither are left blank, and the column stays one of permission. */
const MOST_CONSENTS = 0.75;

const DAY = /\b(?:date|day|datum|tag|fecha|since|until|renew\w*|expir\w*)\b/i;
const AMOUNT =
  /amount|pledg|donat|\bgift|\bgiven\b|\bpaid\b|betrag|spende|montant|\bdons?\b|importe|donativo|\bdues\b|\bfee\b/i;

/**
 * The type that a new field should have: the narrowest that nearly all values fit; a header helps where
 * digits can be several things.
 */
export function guessType(profile: ColumnProfile, header = ''): FieldType {
  if (profile.filled === 0) return 'text';
  if (profile.dates > 0.9) return 'date';
  // Of some the year is known, and of others it is not.
  if (profile.birthdays > 0.9 && BIRTH.test(header)) return 'birthday';
  if (profile.serials > 0.9 && (BIRTH.test(header) || DAY.test(header))) return 'date';
  if (profile.yesNo > 0.95 && profile.distinct <= 4) return 'yesno';
  if (profile.links > 0.9) return 'link';
  if (profile.moneys > 0.5) return 'money';
  // A nought in front is lost by a number.
  if (profile.numbers > 0.95 && profile.zeros === 0) return AMOUNT.test(header) ? 'money' : 'number';
  return profile.distinct <= 12 && profile.filled >= profile.distinct * 2 ? 'choice' : 'text';
}

/** The share of values that a field of the type can take; null where it takes nearly anything. */
function fitsField(type: FieldType, profile: ColumnProfile): number | null {
  switch (type) {
    case 'number':
      return profile.numbers;
    case 'money':
      return Math.max(profile.numbers, profile.moneys);
    case 'yesno':
      return profile.yesNo;
    case 'date':
      return Math.max(profile.dates, profile.serials);
    case 'link':
      return profile.links;
    case 'country':
      return profile.countries;
    default:
      return null;
  }
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
      return Math.max(profile.emails, profile.links) > 0.6 ? 0 : null;
  }
}

/**
 * Matches one column. A header that says one thing while the values say another is believed by its values:
 * addresses under "Phone" are emails.
 */
export function guessColumn(
  header: string,
  profile: ColumnProfile,
  fields: readonly KnownField[],
  what: BatchKind = 'people',
): Guess {
  // Where no value tells, days are read in the order of the place; day first is what is taken without any.
  const order = profile.order ?? (profile.usual === 'month-first' ? profile.usual : undefined);
  const named = targetOf(header, what);
  const say = (choice: ColumnChoice, confidence: number): Guess => ({ choice, confidence });
  if (profile.nameEmails > 0.6) return say({ to: 'nameEmail' }, 0.9);
  if (profile.emails > 0.6) return say({ to: 'email' }, named === 'email' ? 0.99 : 0.85);
  const permission = readsRefusals(what) ? guessPermission(header, profile) : null;
  // To what people agreed is read of those who are brought in; a no is read in every file.
  if (permission && (what === 'people' || permission.choice.to === 'refusal')) return permission;
  if (named) {
    const fits = fit(named, profile);
    if (profile.filled === 0) return say(targeted(named, order), 0.5);
    if (fits === null) return say(targeted(named, order), 0.9);
    // Half of the values can't be what the header says: it is asked.
    if (fits >= 0.3) return say(targeted(named, order), fits < 0.5 ? 0.6 : 0.6 + fits * 0.39);
    if (believed(named, profile)) return say({ to: named }, 0.5);
  }
  if (profile.phones > 0.7 && profile.numbers < 1) return say({ to: 'mobile' }, 0.7);
  const key = nameMatchKey(header);
  const field = fieldLike(key, fields);
  // Hours are no yes and no, however alike the names; under the very name its faults are shown.
  const takes = field && (profile.filled === 0 || (fitsField(field.type, profile) ?? 1) >= 0.5);
  if (field && (takes || nameMatchKey(field.name) === key))
    return say(
      { to: 'field', fieldId: field.id, type: field.type, ...ordered(field.type, order) },
      takes ? 0.8 : 0.5,
    );
  if (profile.filled === 0 || /\b(notes?|old|internal|id)\b/i.test(header)) return say({ to: 'leave' }, 0.5);
  if (what !== 'people') return say({ to: 'leave' }, 0.6);
  const type = guessType(profile, header);
  return say({ to: 'newField', name: header.slice(0, 60) || 'Unnamed', type, ...ordered(type, order) }, 0.6);
}

/**
 * What a column says of permission. A header that refuses is a refusal whatever stands under it; where it can
 * be read in two ways it is taken for one too, and asked. Agreements are believed where their cells say yes
 * or no.
 */
function guessPermission(header: string, profile: ColumnProfile): Guess | null {
  const said = consentHeader(header);
  if (said?.sense === 'refuses' && !isNumbered(profile))
    return { choice: { to: 'refusal', channel: said.channel }, confidence: said.sure ? 0.9 : 0.5 };
  const agrees = said && profile.filled > 0 && profile.consents >= MOST_CONSENTS;
  // What was agreed to is asked where the header does not tell: nobody agrees by a guess.
  if (agrees && !said.sure) return { choice: { to: 'leave' }, confidence: 0.4 };
  if (agrees && (said.channel === 'email' || said.channel === 'text'))
    return { choice: { to: 'consent', channel: said.channel }, confidence: 0.9 };
  // "unsubscribed" among "subscribed" is a refusal whatever the column is called.
  const refused = profile.refusals > 0 && Math.max(profile.consents, profile.statuses) >= MOST_CONSENTS;
  return refused ? { choice: { to: 'refusal', channel: 'email' }, confidence: 0.6 } : null;
}

/**
 * Numbers, addresses and links are no refusals, however like one the header reads ("No. of calls",
 * "Unsubscribe link").
 */
function isNumbered({
  phones,
  emails,
  links,
  digits,
  numbers,
  yesNo,
  dates,
  serials,
}: ColumnProfile): boolean {
  if (Math.max(phones, emails, links) > 0.5) return true;
  return Math.max(digits, numbers) > 0.7 && Math.max(yesNo, dates, serials) < 0.5;
}

/**
 * A column of mistyped addresses is still one: its header is believed unless the values are plainly something
 * else.
 */
function believed(named: PlainTarget | DayTarget, profile: ColumnProfile): named is 'email' | 'mobile' {
  const other = Math.max(
    profile.yesNo,
    profile.dates,
    profile.statuses,
    profile.countries,
    profile.moneys,
    profile.links,
  );
  if (named === 'email') return profile.ats >= 0.3 && other < 0.5;
  return named === 'mobile' && profile.digits >= 0.5 && Math.max(profile.yesNo, profile.dates) < 0.5;
}

const ordered = (type: FieldType, order: DateOrder | undefined) =>
  FIELD_KINDS[type].dated && order ? { order } : {};

function targeted(
  to: Exclude<ReturnType<typeof targetOf>, null>,
  order: DateOrder | undefined,
): ColumnChoice {
  return to === 'signedOn' || to === 'givenOn' ? { to, order } : { to };
}

/**
 * A field of the same name, or whose name holds the header or is held by it (`Renewal` and `Membership
 * renews`).
 */
function fieldLike(key: string, fields: readonly KnownField[]): KnownField | undefined {
  if (key.length < 3) return undefined;
  const stem = key.slice(0, Math.max(4, key.length - 2));
  return (
    fields.find((field) => nameMatchKey(field.name) === key) ??
    fields.find((field) => nameMatchKey(field.name).includes(stem) || key.includes(nameMatchKey(field.name)))
  );
}

/** "Name" beside "First name" is the last name, unless whole names stand under it. */
function namesApart(guesses: Guess[], profiles: readonly ColumnProfile[]): Guess[] {
  const has = (target: string) => guesses.some(({ choice }) => choice.to === target);
  if (!has('firstName') || has('lastName')) return guesses;
  const isLast = (guess: Guess, i: number) => guess.choice.to === 'fullName' && profiles[i]!.names < 0.6;
  return guesses.map((guess, i) =>
    isLast(guess, i) ? { choice: { to: 'lastName' }, confidence: 0.8 } : guess,
  );
}

/**
 * The order in which days of a column are read where its own values do not tell: that of the file's other
 * columns, where these tell and agree, else that of the place.
 */
export function usualIn(profiles: readonly ColumnProfile[], profile: ColumnProfile): DateOrder {
  const told = new Set(
    profiles.flatMap(({ order, mixed }) =>
      mixed ? ['day-first', 'month-first'] : order === null ? [] : [order],
    ) as DateOrder[],
  );
  return told.size === 1 ? [...told][0]! : profile.usual;
}

/**
 * Matches all columns; a target that can be taken once goes to the column that fits it best, the first where
 * they tie.
 */
export function guessAll(
  header: readonly string[],
  profiles: readonly ColumnProfile[],
  fields: readonly KnownField[],
  what: BatchKind = 'people',
): Guess[] {
  const guesses = namesApart(
    header.map((name, i) =>
      guessColumn(name, { ...profiles[i]!, usual: usualIn(profiles, profiles[i]!) }, fields, what),
    ),
    profiles,
  );
  const best = new Map<string, number>();
  guesses.forEach(({ choice, confidence }, i) => {
    const key = choiceKey(choice);
    if (key === null) return;
    const other = best.get(key);
    if (other === undefined || confidence > guesses[other]!.confidence) best.set(key, i);
  });
  // A name in one piece is only cut where there are no columns for its parts.
  const parted =
    guesses.some(({ choice }) => choice.to === 'lastName') &&
    guesses.some(({ choice }) => choice.to === 'firstName');
  return guesses.map((guess, i) => {
    const key = choiceKey(guess.choice);
    const beaten = key !== null && best.get(key) !== i;
    return beaten || (guess.choice.to === 'fullName' && parted)
      ? { choice: { to: 'leave' }, confidence: 0.5 }
      : guess;
  });
}

/**
 * What a file is for, from its columns: amounts with days are gifts, a column of refusals is people who said
 * no.
 */
export function guessKind(header: readonly string[], profiles: readonly ColumnProfile[]): BatchKind {
  const has = (target: string, what: BatchKind) =>
    header.some(
      (name, i) =>
        targetOf(name, what) === target && (fit(target as ColumnChoice['to'], profiles[i]!) ?? 1) >= 0.5,
    );
  if (has('amount', 'gifts') && has('givenOn', 'gifts')) return 'gifts';
  const status = header.findIndex((name) => targetOf(name, 'refusals') === 'status');
  if (status >= 0 && profiles[status]!.statuses > 0.5) return 'refusals';
  return 'people';
}
