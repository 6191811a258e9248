import { oneLine, seen } from '../common';
import type { Coerced, FieldKind, FieldValue, WrittenAs } from './field-kind';
import type { Manner } from './format';
import { birthdayKind } from './kinds/birthday';
import { choiceKind } from './kinds/choice';
import { choicesKind } from './kinds/choices';
import { countryKind } from './kinds/country';
import { dateKind } from './kinds/date';
import { dateTimeKind } from './kinds/datetime';
import { fileKind } from './kinds/file';
import { linkKind } from './kinds/link';
import { longTextKind } from './kinds/longtext';
import { moneyKind } from './kinds/money';
import { numberKind } from './kinds/number';
import { placeKind } from './kinds/place';
import { regionKind } from './kinds/region';
import { textKind } from './kinds/text';
import { yesNoKind } from './kinds/yesno';
import type { FieldOp } from './ops';

/**
 * Kinds of fields, in the order in which they are offered: each decides how a cell is read, kept and shown.
 */
const KINDS = {
  text: textKind,
  longtext: longTextKind,
  number: numberKind,
  money: moneyKind,
  date: dateKind,
  datetime: dateTimeKind,
  birthday: birthdayKind,
  yesno: yesNoKind,
  choice: choiceKind,
  choices: choicesKind,
  country: countryKind,
  region: regionKind,
  place: placeKind,
  link: linkKind,
  file: fileKind,
} as const;

/** The type of a field, by its name. */
export type FieldType = keyof typeof KINDS;
/** What each type of field does with its values. */
export const FIELD_KINDS: Readonly<Record<FieldType, FieldKind>> = KINDS;
/** Every type of field, in the order in which they are offered. */
export const FIELD_TYPES = Object.keys(KINDS) as FieldType[];

/** What a line of a segment can ask of a field, by its type. */
export const asksOf = (type: FieldType): readonly FieldOp[] => FIELD_KINDS[type].asks;

/** Reads the text of a cell or an editor as a value of the type. Never throws. */
export function coerce(type: FieldType, text: string, as: WrittenAs = {}): Coerced {
  const kind = FIELD_KINDS[type];
  return kind.read((kind.lines ? seen(text) : oneLine(text)).trim(), as);
}

/** A kept value in words. An empty value gives an empty text. */
export const formatValue = (type: FieldType, value: FieldValue, manner: Manner): string =>
  FIELD_KINDS[type].write(value, manner);

/**
 * A kept value as it can be read again whatever the locale: dates as ISO days, amounts with a point, yes and
 * no.
 */
export const isoValue = (type: FieldType, value: FieldValue): string => FIELD_KINDS[type].iso(value);
