import { BATCH_STATES, intakePlan, intakeDraft, mend, columnChoice } from '../intake';
import { BATCH_KINDS, ROW_VERDICTS, DOUBT_KINDS } from '../../intake';
import { CHANNELS } from '../../permission';
import { shape, part, number, told, mapOf, listOf, text, oneOf, orNull, flag, only } from '../kinds';
import { fileFindings, guess } from './of-core';

/** What bringing in will write, counted over the checked rows. */
export const batchWill = shape('BatchWill', {
  entries: part({
    text: part({
      yes: number,
      no: number,
      asked: number,
    }).optional(),
    email: part({
      yes: number,
      no: number,
      asked: number,
    }).optional(),
    call: part({
      yes: number,
      no: number,
      asked: number,
    }).optional(),
    post: part({
      yes: number,
      no: number,
      asked: number,
    }).optional(),
  }),
  saidNo: told('Addresses that said no before, are on do-not-contact, or are held.', number),
  doNotContact: number,
  onHold: number,
  alreadyYes: number,
  changes: told('Values that change, and values that are new to people who are here.', number),
  tags: number,
  lists: number,
  roster: number,
  signedLongAgo: told(
    'Signed longer ago than the house rule allows to ask for a confirmation, and before the months after which evidence is old.',
    number,
  ),
  places: told('People by place with rules of its own.', mapOf(number)),
  giftsTotal: listOf(
    part({
      currency: text,
      minor: number,
    }),
  ),
});

/** A batch with its plan, what was found in its file, its counts and what waits for a person. */
export const batchView = shape('BatchView', {
  id: number,
  name: text,
  fileName: text,
  state: oneOf(BATCH_STATES),
  what: oneOf(BATCH_KINDS),
  chapterId: told('The chapter that its new people go to.', number),
  rows: number,
  createdAt: text,
  createdBy: text,
  /** What was found in the file; null while it is being read. */
  found: orNull(fileFindings),
  plan: orNull(intakePlan),
  /** What the page keeps of a batch that is not settled. */
  draft: orNull(intakeDraft),
  draftVersion: told('Which save of it that is.', number),
  counts: part({
    no: number.optional(),
    gift: number.optional(),
    new: number.optional(),
    shares: number.optional(),
    update: number.optional(),
    same: number.optional(),
    here: number.optional(),
    hold: number.optional(),
    doubled: number.optional(),
    look: number.optional(),
    skipped: number.optional(),
    aside: number.optional(),
    failed: number.optional(),
  }),
  looks: told(
    'Rows to look at, by why.',
    part({
      'two-people': number.optional(),
      'other-name-same-id': number.optional(),
      'same-name': number.optional(),
      'short-form': number.optional(),
      initial: number.optional(),
      transposed: number.optional(),
      alike: number.optional(),
      'loose-email': number.optional(),
    }),
  ),
  withFaults: told('Rows that come in without one of their cells.', number),
  withHints: told('Rows of which there is something to tell.', number),
  /** What will be written beside people; null before it is checked. */
  will: orNull(batchWill),
  stayNo: told('Rows whose address said no before, and stays no.', number),
  done: number,
  total: number,
  rate: told('Rows a second, while running.', orNull(number)),
  problem: orNull(text),
  canTakeOut: orNull(text),
  fileKept: told('Whether the file is still kept; deleted after the time set in Setup.', flag),
  stayed: told('What of a batch taken out had to stay.', number),
  ofFeed: told('A run of a feed, which goes on by itself.', flag),
});

/** The file as it is read, before anything is settled. */
export const batchPreview = shape('BatchPreview', {
  found: fileFindings,
  guesses: listOf(guess),
  what: oneOf(BATCH_KINDS),
  rows: listOf(listOf(text)),
  mends: listOf(mend),
  columns: listOf(columnChoice),
});

/** Somebody whom a row may be: how likely (0 to 100), and what they have in common, in words. */
export const likelyDouble = shape('LikelyDouble', {
  id: number,
  score: number,
  reasons: listOf(text),
});

/** What a row writes, beside the name. */
export const rowWrites = shape('RowWrites', {
  emails: listOf(text),
  phones: listOf(text),
  post: orNull(text),
  ownId: orNull(text),
  fields: listOf(
    part({
      name: text,
      value: text,
    }),
  ),
  tags: listOf(text),
  lists: listOf(text),
  stage: told('On the roster of the campaign.', orNull(text)),
  chapter: told('The chapter that somebody new joins; null of who is here already.', orNull(text)),
  permission: told(
    'Entries of the ledger; `at` is the address, null for the person. `on` is a day.',
    listOf(
      part({
        channel: oneOf(CHANNELS),
        scope: text,
        state: only('yes', 'no', 'asked'),
        at: orNull(text),
        on: text,
        words: text,
      }),
    ),
  ),
  gift: told(
    'Hundredths of the currency; the day in days since 1970-01-01.',
    orNull(
      part({
        minor: number,
        currency: text,
        day: number,
        ownId: orNull(text),
        appeal: orNull(text),
      }),
    ),
  ),
});

/** One row of a batch: what is in it, its verdict with the reason, whom it meets and by what. */
export const batchRowView = shape('BatchRowView', {
  row: number,
  verdict: oneOf(ROW_VERDICTS),
  firstName: text,
  lastName: text,
  email: orNull(text),
  mobile: orNull(text),
  reason: text,
  hint: text,
  why: orNull(oneOf(DOUBT_KINDS)),
  candidates: listOf(likelyDouble),
  supporterId: orNull(number),
  meets: told(
    'Whom it meets, and by what: somebody who is here or an earlier row of the file. Null also where they are of another chapter than the one in which the reader works.',
    orNull(
      part({
        supporterId: orNull(number),
        row: orNull(number),
        name: text,
        by: text,
      }),
    ),
  ),
  changes: told(
    'What changes, for somebody who is here: from what to what, and addresses that are added.',
    listOf(
      part({
        what: text,
        from: text,
        to: text,
      }),
    ),
  ),
  /** All that it writes, or wrote; null for a row that writes nothing. */
  writes: orNull(rowWrites),
});

/** A row beside the people it may be, field by field. */
export const doubleView = shape('DoubleView', {
  row: number,
  why: orNull(oneOf(DOUBT_KINDS)),
  fields: listOf(
    part({
      key: text,
      name: text,
      row: text,
      theirs: mapOf(text),
    }),
  ),
  people: listOf(
    part({
      id: number,
      score: number,
      reasons: listOf(text),
      name: text,
      supporterId: orNull(number),
      rowNo: orNull(number),
    }),
  ),
});

/** A piece of work in the background. */
export const jobView = shape('JobView', {
  id: number,
  kind: text,
  state: only('failed', 'waiting', 'running', 'done'),
  subject: text,
  link: orNull(text),
  done: orNull(number),
  total: orNull(number),
  unit: told('What these are counts of.', only('people', 'rows', 'steps')),
  rate: orNull(number),
  by: text,
  createdAt: text,
  beganAt: orNull(text),
  endedAt: orNull(text),
  attempts: number,
  error: orNull(text),
});

/** A remembered layout. */
export const layoutView = shape('LayoutView', {
  id: number,
  version: number,
  name: text,
  what: oneOf(BATCH_KINDS),
  header: listOf(text),
  columns: listOf(columnChoice),
  usedAt: text,
  madeBy: orNull(text),
});
