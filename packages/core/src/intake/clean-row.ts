import { type Day, type Said } from '../common';
import { type FieldValue } from '../fields';
import { type Channel, type SendingChannel } from '../permission';
import { type CleanAddress } from './clean';
import type { PostalAddress } from './places';
import { type RefusalStatus } from './statuses';

/** Something wrong with one cell; the row may still come in without it. */
export interface CellFault {
  column: number;
  reason: Said;
}

/** A gift as its row tells it; amount in hundredths of its currency, negative for a refund. */
export interface GiftCells {
  amount: number | null;
  currency: string | null;
  on: Day | null;
  ownId: string | null;
  appeal: string | null;
  recurring: boolean;
}

/** A row of a file as values, with all that could not be read and all that is worth telling. */
export interface CleanRow {
  firstName: string;
  lastName: string;
  email: CleanAddress | null;
  mobile: CleanAddress | null;
  /** Further addresses of the same person. */
  moreEmails: CleanAddress[];
  moreMobiles: CleanAddress[];
  externalId: string | null;
  post: PostalAddress | null;
  tags: string[];
  stage: string | null;
  /** The chapter that the row names, as it is written there. */
  chapter: string | null;
  signedOn: Day | null;
  signedWords: string | null;
  status: RefusalStatus | 'fine' | null;
  gift: GiftCells;
  values: { column: number; value: FieldValue }[];
  /** What the consent column says, where there is one with a word in it. */
  consent: Partial<Record<SendingChannel, boolean>>;
  /** Channels that a column of refusals says no to. */
  refused: Set<Channel>;
  /** Cells that are left out, with the reason. */
  faults: CellFault[];
  /** What is worth telling though the cell is kept. */
  hints: CellFault[];
  /** Why the row can't come in at all; null when it can. */
  fatal: Said | null;
}

/** A postal address of which nothing is known. */
export const EMPTY_POST: PostalAddress = { street: '', city: '', region: '', postcode: '', country: '' };

/** A row of which nothing is known yet. */
export function emptyRow(): CleanRow {
  const gift: GiftCells = {
    amount: null,
    currency: null,
    on: null,
    ownId: null,
    appeal: null,
    recurring: false,
  };
  const lists = { moreEmails: [], moreMobiles: [], tags: [], values: [], faults: [], hints: [] };
  const facts = {
    externalId: null,
    post: null,
    stage: null,
    chapter: null,
    signedOn: null,
    signedWords: null,
    status: null,
    fatal: null,
  };
  return {
    firstName: '',
    lastName: '',
    email: null,
    mobile: null,
    ...lists,
    ...facts,
    gift,
    consent: {},
    refused: new Set(),
  };
}
