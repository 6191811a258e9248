import type { DateOrder, FieldType } from '../fields';
import type { SendingChannel } from '../permission';
import { nameMatchKey } from './clean';
import type { RefusedChannel } from './consents';

/** Targets that need nothing but a column. */
export const PLAIN_TARGETS = [
  'leave',
  'email',
  'nameEmail',
  'mobile',
  'firstName',
  'lastName',
  'fullName',
  'externalId',
  'street',
  'postcode',
  'city',
  'region',
  'country',
  'tags',
  'stage',
  'chapter',
  'signedWords',
  'status',
  'amount',
  'currency',
  'giftId',
  'appeal',
  'rhythm',
] as const;
export type PlainTarget = (typeof PLAIN_TARGETS)[number];

/** Targets that are days, whose order has to be known. */
export const DAY_TARGETS = ['signedOn', 'givenOn'] as const;
export type DayTarget = (typeof DAY_TARGETS)[number];

/** A field that is yet to be made. */
export interface FieldToMake {
  name: string;
  type: FieldType;
  section?: string;
  choices?: string[];
  fallback?: string;
}

/** What becomes of one column of the file. */
export type ColumnChoice =
  | { to: PlainTarget }
  | { to: DayTarget; order?: DateOrder }
  | { to: 'field'; fieldId: number; type: FieldType; order?: DateOrder }
  | ({ to: 'newField'; order?: DateOrder } & FieldToMake)
  | { to: 'consent'; channel: SendingChannel }
  /** A column whose yes is a no: to one channel, or to every one. */
  | { to: 'refusal'; channel: RefusedChannel };

/** Targets that several columns may share: their values are joined, in the order of the columns. */
const SHARED: ReadonlySet<string> = new Set(['email', 'mobile', 'street', 'tags', 'nameEmail']);

/** Two columns with the same key would write to the same place; null where that is fine. */
export function choiceKey(choice: ColumnChoice): string | null {
  switch (choice.to) {
    case 'leave':
    // Whoever is refused in any of them is.
    case 'refusal':
      return null;
    case 'field':
      return joins(choice.type) ? null : `field:${choice.fieldId}`;
    case 'newField':
      return joins(choice.type) ? null : `new:${nameMatchKey(choice.name)}`;
    case 'consent':
      return `consent:${choice.channel}`;
    default:
      return SHARED.has(choice.to) ? null : choice.to;
  }
}

/** Text fields take the values of several columns, one after the other. */
function joins(type: FieldType): boolean {
  return type === 'text';
}

/** A value that every row of the batch gets, as though the file had one more column of it. */
export interface Constant {
  choice: ColumnChoice;
  value: string;
}
