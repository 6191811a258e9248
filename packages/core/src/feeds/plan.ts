import { said, type Code, type Said } from '../common';
import {
  columnFaults,
  EMPTY_PLAN,
  type ColumnChoice,
  type IntakePlan,
  type MatchKey,
  type NoCloses,
} from '../intake';
import { SENDING_CHANNELS, type Scope, type SendingChannel } from '../permission';
import type { FeedWhen } from './when';

/** On what basis people of a feed may be written to on one channel. */
export type FeedBasis =
  | { said: 'nothing' }
  | {
      said: 'yes';
      /** For all of them, or for those whose consent column says yes. */
      from: 'everyone' | 'column';
      scopes: Scope[];
      /** Why they may be written to, as it stands in the ledger. */
      words: string;
      /** Who vouches for it. */
      voucher: string;
    };

/** What becomes of people who are there no longer. */
export type Gone = { do: 'stay' } | { do: 'leave' } | { do: 'tag'; tagId: number };

/** A column over there and what it becomes here. */
export interface FeedColumn {
  name: string;
  choice: ColumnChoice;
}

/** A record type or filter over there, with what it was called when it was chosen. */
export interface NamedThere {
  key: string;
  name: string;
}

/** Everything that a feed says: kept half done, and run when nothing of it is missing. */
export interface FeedPlan {
  /** What is taken: a record type over there, of everybody or of a filter that is kept there. */
  take: { type: NamedThere; filter: NamedThere | null } | null;
  columns: FeedColumn[];
  /** The column that tells one record from another. */
  key: string | null;
  matching: MatchKey[];
  existing: IntakePlan['existing'];
  listIds: number[];
  tagIds: number[];
  roster: IntakePlan['roster'];
  /** Null as long as nobody has said. */
  permission: Record<SendingChannel, FeedBasis> | null;
  no: NoCloses;
  gone: Gone;
  /** Who says no here is told over there. */
  tell: boolean;
  when: FeedWhen;
}

/** What a feed starts from: nothing is taken, nobody may be written to, a no closes what was agreed to. */
export const EMPTY_FEED: FeedPlan = {
  take: null,
  columns: [],
  key: null,
  matching: ['externalId', 'email', 'mobile'],
  existing: 'update',
  listIds: [],
  tagIds: [],
  roster: null,
  permission: null,
  no: 'agreed',
  gone: { do: 'stay' },
  tell: false,
  when: { atOnce: false, every: { unit: 'days', n: 1, at: 120 }, zone: null },
};

/** Which of its sentences something is missing in. */
export type FeedSentence = 'take' | 'columns' | 'permission' | 'gone' | 'when';

/** What keeps a feed from being turned on: in which sentence, and why. */
export interface FeedFault {
  sentence: FeedSentence;
  said: Said;
}

/**
 * The column that a feed gives to what comes, behind those of the source: the day somebody first came. It is
 * when they agreed where the source has no day of its own.
 */
export const FIRST_CAME: FeedColumn = { name: 'Since', choice: { to: 'signedOn' } };

const isConsent = ({ choice }: FeedColumn) => choice.to === 'consent' || choice.to === 'refusal';

/** Columns whose word is about permission, by their place. */
export const permissionColumns = (plan: Pick<FeedPlan, 'columns'>): number[] =>
  plan.columns.flatMap((column, i) => (isConsent(column) ? [i] : []));

/** What is missing before a feed may be run; empty where nothing is. */
export function feedFaults(plan: FeedPlan): FeedFault[] {
  const faults: FeedFault[] = [];
  const tell = (sentence: FeedSentence, code: Code, values?: Said['values']) =>
    faults.push({ sentence, said: said(code, values) });
  if (plan.take === null) tell('take', 'feed.take');
  const used = plan.columns.filter(({ choice }) => choice.to !== 'leave');
  if (used.length === 0) tell('columns', 'feed.columns');
  else {
    for (const fault of columnFaults({
      what: 'people',
      columns: plan.columns.map((one) => one.choice),
      constants: [],
    }))
      faults.push({ sentence: 'columns', said: fault.said });
    if (plan.key === null || !plan.columns.some(({ name }) => name === plan.key)) tell('columns', 'feed.key');
  }
  if (plan.permission === null) tell('permission', 'feed.permission');
  else
    for (const channel of SENDING_CHANNELS) {
      const agreed = plan.permission[channel];
      if (agreed.said === 'nothing') continue;
      const values = { channel: said(`channel.${channel}`) };
      if (agreed.scopes.length === 0) tell('permission', 'plan.scopes', values);
      if (agreed.words.trim().length < 10) tell('permission', 'plan.words', values);
      if (agreed.voucher.trim() === '') tell('permission', 'plan.voucher', values);
      const has = plan.columns.some(({ choice }) => choice.to === 'consent' && choice.channel === channel);
      if (agreed.from === 'column' && !has) tell('permission', 'plan.column', values);
    }
  if (plan.gone.do === 'leave' && plan.listIds.length === 0) tell('gone', 'feed.leave');
  if (!plan.when.atOnce && plan.when.every === null) tell('when', 'feed.when');
  return faults;
}

/**
 * The plan of the batch that one run of a feed is. `today` is an ISO day: that of a refusal that nothing
 * dates.
 */
export function intakePlanOf(plan: FeedPlan, today: string): IntakePlan {
  const agreed = plan.permission;
  const channel = (one: SendingChannel): IntakePlan['permission'][SendingChannel] => {
    const said = agreed?.[one] ?? { said: 'nothing' };
    return said.said === 'nothing' ? said : { ...said, how: 'feed', on: today };
  };
  const hasDay = plan.columns.some(({ choice }) => choice.to === 'signedOn');
  return {
    ...EMPTY_PLAN,
    reading: { keepAside: true },
    columns: [...plan.columns.map(({ choice }) => choice), hasDay ? { to: 'leave' } : FIRST_CAME.choice],
    permission: { email: channel('email'), text: channel('text') },
    matching: plan.matching,
    existing: plan.existing,
    listIds: plan.listIds,
    tagIds: plan.tagIds,
    roster: plan.roster,
    feed: { no: plan.no },
  };
}
