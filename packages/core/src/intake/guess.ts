import { coerce, dateOrderOf, parseYesNo, type DateOrder, type FieldType } from '../fields';
import { cleanEmail, cleanMobile, nameMatchKey } from './clean';
import type { ColumnChoice } from './plan';

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
  phones: number;
  dates: number;
  numbers: number;
  yesNo: number;
  distinct: number;
  order: DateOrder | null;
}

const SAMPLE = 500;

/** Profiles the first rows and as many spread over the rest: a file that is sorted shows its other end too. */
export function profileColumn(values: readonly string[], country: string): ColumnProfile {
  const step = Math.max(1, Math.floor(values.length / SAMPLE));
  const sample = values.filter((_value, i) => i < SAMPLE || i % step === 0);
  const cells = sample.map((value) => value.trim()).filter((value) => value !== '');
  const share = (test: (cell: string) => boolean) => (cells.length === 0 ? 0 : cells.filter(test).length / cells.length);
  return {
    filled: values.filter((value) => value.trim() !== '').length,
    empty: values.filter((value) => value.trim() === '').length,
    emails: share((cell) => cleanEmail(cell).ok),
    phones: share((cell) => /\d{3}/.test(cell) && cleanMobile(cell, country).ok),
    dates: share((cell) => coerce('date', cell, 'day-first').ok || coerce('date', cell, 'month-first').ok),
    numbers: share((cell) => coerce('number', cell).ok),
    yesNo: share((cell) => parseYesNo(cell) !== null),
    distinct: new Set(cells).size,
    order: dateOrderOf(values),
  };
}

const HEADERS: [RegExp, ColumnChoice['to']][] = [
  [/^(e?mail|emailaddr|emailaddress|emailadresse|courriel|correo.*)$/, 'email'],
  [/^(mobile|cell|cellphone|mobilephone|mobilenumber|phone|phonenumber|telephone|tel|handy|portable)$/, 'mobile'],
  [/^(firstname|givenname|first|forename|prenom|vorname|nombre)$/, 'firstName'],
  [/^(lastname|surname|familyname|last|nom|nachname|apellidos?)$/, 'lastName'],
];

/** Header names compare without case, marks, spaces and dashes: `E-mail addr` is `emailaddr`. */
function headerKey(header: string): string {
  return nameMatchKey(header);
}

function consentOf(header: string, profile: ColumnProfile): ColumnChoice | null {
  const asks = /\b(ok|consent|opt.?in|agree[sd]?|permission|may we|subscribe)\b/i.test(header);
  if (!asks || profile.yesNo < 0.9) return null;
  return { to: 'consent', channel: /text|sms|mobile|phone/i.test(header) ? 'text' : 'email' };
}

/** The type that a new field should have, from the values: the narrowest that nearly all of them fit. */
export function guessType(profile: ColumnProfile): FieldType {
  if (profile.filled === 0) return 'text';
  if (profile.dates > 0.9) return 'date';
  if (profile.yesNo > 0.95 && profile.distinct <= 4) return 'yesno';
  if (profile.numbers > 0.95) return 'number';
  return profile.distinct <= 12 && profile.filled >= profile.distinct * 2 ? 'choice' : 'text';
}

/**
 * Matches one column. A header that says one thing while the values say another is believed by its values: addresses
 * under "Phone" are emails.
 */
export function guessColumn(header: string, profile: ColumnProfile, fields: readonly KnownField[]): ColumnChoice {
  if (profile.emails > 0.6) return { to: 'email' };
  const consent = consentOf(header, profile);
  if (consent) return consent;
  const key = headerKey(header);
  const named = HEADERS.find(([pattern]) => pattern.test(key))?.[1];
  const contradicted = (named === 'email' && profile.emails < 0.3) || (named === 'mobile' && profile.phones < 0.3);
  if (named && !(contradicted && profile.filled > 0)) return { to: named } as ColumnChoice;
  if (profile.phones > 0.7) return { to: 'mobile' };
  const field = fieldLike(key, fields);
  const order = profile.order ?? undefined;
  if (field) return { to: 'field', fieldId: field.id, type: field.type, order };
  if (profile.filled === 0 || /\b(notes?|old|internal|id)\b/i.test(header)) return { to: 'leave' };
  return { to: 'newField', name: header.slice(0, 60) || 'Unnamed', type: guessType(profile), order };
}

/** A field of the same name, or whose name holds the header or is held by it (`Renewal` and `Membership renews`). */
function fieldLike(key: string, fields: readonly KnownField[]): KnownField | undefined {
  if (key.length < 3) return undefined;
  const stem = key.slice(0, Math.max(4, key.length - 2));
  return (
    fields.find((field) => headerKey(field.name) === key) ??
    fields.find((field) => headerKey(field.name).includes(stem) || key.includes(headerKey(field.name)))
  );
}

/** Matches all columns; a target that can be taken once goes to the first column that fits it best. */
export function guessColumns(header: readonly string[], profiles: readonly ColumnProfile[], fields: readonly KnownField[]): ColumnChoice[] {
  const taken = new Set<string>();
  return header.map((name, i) => {
    const choice = guessColumn(name, profiles[i]!, fields);
    const target = choiceKey(choice);
    if (choice.to === 'leave' || !taken.has(target)) {
      taken.add(target);
      return choice;
    }
    return { to: 'leave' };
  });
}

/** Two columns with the same key would write to the same place. */
export function choiceKey(choice: ColumnChoice): string {
  switch (choice.to) {
    case 'field':
      return `field:${choice.fieldId}`;
    case 'newField':
      return `new:${nameMatchKey(choice.name)}`;
    case 'consent':
      return `consent:${choice.channel}`;
    default:
      return choice.to;
  }
}
