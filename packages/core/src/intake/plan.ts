import { said, type Code, type Said } from '../common';
import type { FieldType } from '../fields';
import type { CollectionMethod, Scope, SendingChannel } from '../permission';
import { choiceKey, type ColumnChoice, type Constant } from './columns';
import type { MatchKey } from './match';
import type { Mend } from './mends';
import type { NoCloses } from './no-closes';
import type { ParseOptions } from './reading';
import type { BatchKind } from './row';
import type { RefusalStatus } from './statuses';

/** What the people of the batch agreed to on one channel, and how that is known. */
export type ChannelPermission =
  | { said: 'nothing' }
  | {
      said: 'yes';
      /**
       * For all rows, or only for those whose consent column says yes. A no in that column is always
       * recorded.
       */
      from: 'everyone' | 'column';
      scopes: Scope[];
      how: CollectionMethod;
      /** ISO day on which they agreed; a column of days goes before it. */
      on: string;
      words: string;
      voucher: string;
    };

/**
 * The mail that asks to confirm. Both texts plain; the link and what is asked for are added by the program.
 */
export interface ConfirmRequest {
  subject: string;
  body: string;
}

/** Everything that was decided about a file: with the file itself, all that is needed to bring it in. */
export interface IntakePlan {
  what: BatchKind;
  /** How the file is read, where a person chose otherwise than what was found. */
  reading?: ParseOptions;
  columns: ColumnChoice[];
  /** Values that every row gets, as though in further columns. */
  constants: Constant[];
  mends: Mend[];
  /** Country of numbers without a country code; null for the organization's. */
  phoneCountry: string | null;
  matching: MatchKey[];
  permission: Record<SendingChannel, ChannelPermission>;
  /**
   * People who agreed to email are asked to confirm, and stand as Asked until they do; null to take their
   * word as it is.
   */
  confirm: ConfirmRequest | null;
  /** The chapter that new people go to; null for that in which the batch was begun. */
  chapterId: number | null;
  /** Whose places say another chapter joins that; a column that names one goes before. */
  byPlace: boolean;
  /** What happens to people who are here already. */
  existing: 'update' | 'fill' | 'leave';
  tagIds: number[];
  newTags: string[];
  listIds: number[];
  newLists: { name: string; folder: string }[];
  /** Onto a campaign's roster; the stage of rows whose own column names none. */
  roster: { campaignId: number; stage: string } | null;
  /** Of a file of refusals: what addresses without a status of their own did. */
  refusal: RefusalStatus | null;
  /** Of a file of gifts: whether people who are not here are brought in, as never asked. */
  strangers: 'bring-in' | 'leave';
  /** Teammates who get a mail when it is in. */
  notify: number[];
  /** Of a run of a feed: what a no in a consent column closes. */
  feed?: { no: NoCloses };
}

/** A plan as far as it is decided: nothing in it is acted on. */
export type DraftPlan = Partial<Omit<IntakePlan, 'permission'>> & { permission?: Record<string, unknown> };

/** What a plan starts from. */
export const EMPTY_PLAN: Omit<IntakePlan, 'columns' | 'permission'> = {
  what: 'people',
  constants: [],
  mends: [],
  phoneCountry: null,
  matching: ['email', 'mobile', 'externalId'],
  confirm: null,
  chapterId: null,
  byPlace: false,
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

/**
 * A row's cells with those of the constants behind the columns of the file; cells too many stay, to be found.
 */
export function withConstants(
  cells: readonly string[],
  plan: Pick<IntakePlan, 'columns' | 'constants'>,
): readonly string[] {
  if (plan.constants.length === 0) return cells;
  const width = plan.columns.length;
  const own = Array.from({ length: width }, (_none, i) => cells[i] ?? '');
  return [...own, ...plan.constants.map(({ value }) => value), ...cells.slice(width)];
}

/** Ways that a whole batch can have agreed. */
export const BATCH_COLLECTION_METHODS = [
  'paper',
  'form',
  'in-person',
  'phone',
] as const satisfies readonly CollectionMethod[];

/** What keeps a plan from being taken: where in it, and why. */
export interface PlanFault {
  /** The path of what is to be mended: `permission.email`, `columns`, `mends[2]`. */
  field: string;
  said: Said;
}

/** What keeps a permission step from being passed; empty when it may be. */
export function permissionFaults(
  plan: Pick<IntakePlan, 'permission' | 'columns'>,
  today: string,
): PlanFault[] {
  const faults: PlanFault[] = [];
  const dated = plan.columns.some((column) => column.to === 'signedOn');
  for (const channel of ['email', 'text'] as const) {
    const agreed = plan.permission[channel];
    const tell = (code: Code) =>
      faults.push({
        field: `permission.${channel}`,
        said: said(code, { channel: said(`channel.${channel}`) }),
      });
    if (agreed.said === 'nothing') continue;
    if (agreed.scopes.length === 0) tell('plan.scopes');
    if (!/^\d{4}-\d\d-\d\d$/.test(agreed.on)) tell(dated ? 'plan.day-empty' : 'plan.day');
    else if (agreed.on > today) tell('plan.future');
    if (agreed.words.trim().length < 10) tell('plan.words');
    if (agreed.voucher.trim() === '') tell('plan.voucher');
    const hasColumn = plan.columns.some((column) => column.to === 'consent' && column.channel === channel);
    if (agreed.from === 'column' && !hasColumn) tell('plan.column');
  }
  return faults;
}

/** What keeps the columns from being passed. */
export function columnFaults(plan: Pick<IntakePlan, 'columns' | 'constants' | 'what'>): PlanFault[] {
  const columns = allColumns(plan);
  const faults: PlanFault[] = [];
  const tell = (code: Code, values?: Said['values']) =>
    faults.push({ field: 'columns', said: said(code, values) });
  const keys = columns.map(choiceKey);
  const twice = keys.findIndex((key, i) => key !== null && keys.indexOf(key) !== i);
  if (twice >= 0) {
    const first = keys.indexOf(keys[twice]!);
    tell('plan.twice', { first: first + 1, second: twice + 1 });
  }
  const has = (...targets: ColumnChoice['to'][]) => columns.some((choice) => targets.includes(choice.to));
  if (plan.what === 'gifts') {
    if (!has('amount')) tell('plan.amount');
    if (!has('givenOn')) tell('plan.gift-day');
    if (
      !has('email', 'nameEmail', 'mobile', 'externalId') &&
      !(has('lastName', 'fullName') && has('postcode'))
    )
      tell('plan.whose');
    return faults;
  }
  const reachable = has('email', 'nameEmail', 'mobile') || (plan.what === 'here' && has('externalId'));
  if (!reachable) tell('plan.unreachable');
  return faults;
}

/**
 * Whether a plan fits the file: a choice for each of its columns, and no correction of a cell that it does
 * not have.
 */
export function fileFaults(
  plan: Pick<IntakePlan, 'columns' | 'mends'>,
  file: { columns: number; rows: number },
): PlanFault[] {
  const faults: PlanFault[] = [];
  const { length } = plan.columns;
  if (length !== file.columns)
    faults.push({
      field: 'columns',
      said: said('plan.width', { columns: file.columns, planned: length }),
    });
  plan.mends.forEach((mend, i) => {
    const columns = mend.kind === 'swap' ? [mend.a, mend.b] : [mend.column];
    const column = columns.find((one) => one > file.columns);
    if (column !== undefined)
      faults.push({
        field: `mends[${i}]`,
        said: said('plan.mend-column', { column, columns: file.columns }),
      });
    if (mend.kind === 'edit' && mend.row > file.rows)
      faults.push({ field: `mends[${i}]`, said: said('plan.mend-row', { row: mend.row, rows: file.rows }) });
  });
  return faults;
}

/** The plan with columns for new fields matched to those that are here under the name already. */
export function withKnownFields<Plan extends Pick<IntakePlan, 'columns' | 'constants'>>(
  plan: Plan,
  fields: readonly { id: number; name: string; type: FieldType }[],
  keyOf: (name: string) => string,
): Plan {
  const known = (choice: ColumnChoice): ColumnChoice => {
    const field =
      choice.to === 'newField' ? fields.find(({ name }) => keyOf(name) === keyOf(choice.name)) : undefined;
    if (choice.to !== 'newField' || field?.type !== choice.type) return choice;
    return {
      to: 'field',
      fieldId: field.id,
      type: field.type,
      ...(choice.order ? { order: choice.order } : {}),
    };
  };
  return {
    ...plan,
    columns: plan.columns.map(known),
    constants: plan.constants.map((one) => ({ ...one, choice: known(one.choice) })),
  };
}
