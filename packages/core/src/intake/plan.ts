import type { Road, Scope, SendingChannel } from '../permission';
import { choiceKey, type ColumnChoice, type Constant } from './columns';
import type { MatchKey } from './match';
import type { Mend } from './mends';
import type { FileReading } from './reading';
import type { BatchKind } from './row';
import type { RefusalStatus } from './statuses';

/** What the people of the batch agreed to on one channel, and how that is known. */
export type ChannelPermission =
  | { said: 'nothing' }
  | {
      said: 'yes';
      /** For all rows, or only for those whose consent column says yes. A no in that column is always recorded. */
      from: 'everyone' | 'column';
      scopes: Scope[];
      how: Road;
      /** ISO day on which they agreed; a column of days goes before it. */
      on: string;
      words: string;
      voucher: string;
    };

/** The mail that asks to confirm. Both texts plain; the link and what is asked for are added by the program. */
export interface ConfirmRequest {
  subject: string;
  body: string;
}

/** Everything that was decided about a file: with the file itself, all that is needed to bring it in. */
export interface IntakePlan {
  what: BatchKind;
  /** How the file is read, where a person chose otherwise than what was found. */
  reading?: FileReading;
  columns: ColumnChoice[];
  /** Values that every row gets, as though in further columns. */
  constants: Constant[];
  mends: Mend[];
  /** Country of numbers without a country code; null for the organization's. */
  phoneCountry: string | null;
  matching: MatchKey[];
  permission: Record<SendingChannel, ChannelPermission>;
  /** People who agreed to email are asked to confirm, and stand as Asked until they do; null to take their word as it is. */
  confirm: ConfirmRequest | null;
  /** The chapter that new people go to; null for that in which the batch was begun. */
  chapterId: number | null;
  /** What happens to people who are here already. */
  existing: 'update' | 'fill' | 'leave';
  tagIds: number[];
  newTags: string[];
  listIds: number[];
  newLists: { name: string; folder: string }[];
  /** Onto a campaign's roster; the standing of rows whose own column names none. */
  roster: { campaignId: number; standing: string } | null;
  /** Of a file of refusals: what addresses without a status of their own did. */
  refusal: RefusalStatus | null;
  /** Of a file of gifts: whether people who are not here are brought in, as never asked. */
  strangers: 'bring-in' | 'leave';
  /** Teammates who get a mail when it is in. */
  notify: number[];
}

/** What a plan starts from. */
export const EMPTY_PLAN: Omit<IntakePlan, 'columns' | 'permission'> = {
  what: 'people',
  constants: [],
  mends: [],
  phoneCountry: null,
  matching: ['email', 'mobile', 'externalId'],
  confirm: null,
  chapterId: null,
  existing: 'update',
  tagIds: [],
  newTags: [],
  listIds: [],
  newLists: [],
  roster: null,
  refusal: null,
  strangers: 'leave',
  notify: [],
};

/** The plan's columns with those that constants make. */
export function allColumns(plan: Pick<IntakePlan, 'columns' | 'constants'>): ColumnChoice[] {
  return [...plan.columns, ...plan.constants.map(({ choice }) => choice)];
}

/** A row's cells with those of the constants behind the columns of the file; cells too many stay, to be found. */
export function withConstants(cells: readonly string[], plan: Pick<IntakePlan, 'columns' | 'constants'>): readonly string[] {
  if (plan.constants.length === 0) return cells;
  const width = plan.columns.length;
  const own = Array.from({ length: width }, (_none, i) => cells[i] ?? '');
  return [...own, ...plan.constants.map(({ value }) => value), ...cells.slice(width)];
}

/** Ways that a whole batch can have agreed. */
export const BATCH_ROADS = ['paper', 'form', 'in-person', 'phone'] as const satisfies readonly Road[];

/** What keeps a permission step from being passed, as sentences; empty when it may be. */
export function permissionFaults(plan: Pick<IntakePlan, 'permission' | 'columns'>, today: string): string[] {
  const faults: string[] = [];
  const dated = plan.columns.some((column) => column.to === 'signedOn');
  for (const channel of ['email', 'text'] as const) {
    const said = plan.permission[channel];
    const name = channel === 'email' ? 'Email' : 'Text';
    if (said.said === 'nothing') continue;
    if (said.scopes.length === 0) faults.push(`${name}: choose what they agreed to.`);
    if (!/^\d{4}-\d\d-\d\d$/.test(said.on)) faults.push(`${name}: say on which day they agreed${dated ? ' where the column is empty' : ''}.`);
    else if (said.on > today) faults.push(`${name}: the day they agreed lies in the future.`);
    if (said.words.trim().length < 10) faults.push(`${name}: give the words they agreed to, as they stood on the sheet or form.`);
    if (said.voucher.trim() === '') faults.push(`${name}: name who vouches for it.`);
    const hasColumn = plan.columns.some((column) => column.to === 'consent' && column.channel === channel);
    if (said.from === 'column' && !hasColumn) faults.push(`${name}: match a column to "${name} permission" first.`);
  }
  return faults;
}

/** What keeps the columns from being passed, as sentences. */
export function columnFaults(plan: Pick<IntakePlan, 'columns' | 'constants' | 'what'>): string[] {
  const columns = allColumns(plan);
  const keys = columns.map(choiceKey).filter((key) => key !== null);
  const twice = keys.find((key, i) => keys.indexOf(key) !== i);
  const faults = twice ? [`Two columns are matched to the same place (${twice}). Leave one of them out.`] : [];
  const has = (...targets: ColumnChoice['to'][]) => columns.some((choice) => targets.includes(choice.to));
  if (plan.what === 'gifts') {
    if (!has('amount')) faults.push('No column is matched to the amount of the gift. Match one.');
    if (!has('givenOn')) faults.push('No column is matched to the day of the gift. Match one, or give one day for all.');
    if (!has('email', 'nameEmail', 'mobile', 'externalId') && !(has('lastName', 'fullName') && has('postcode')))
      faults.push('Nothing says whose gifts these are. Match an email, a phone, an own id, or name and postcode.');
    return faults;
  }
  const reachable = has('email', 'nameEmail', 'mobile') || (plan.what === 'here' && has('externalId'));
  if (!reachable) faults.push('No column is matched to Email or Phone, so nobody could be reached. Match one.');
  return faults;
}
