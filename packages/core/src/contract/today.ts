import type { BatchState } from './intake';
import type { MessageState } from './messages';

/** A batch that somebody began and nobody ended. */
export interface WaitingBatch {
  id: number;
  name: string;
  state: BatchState;
  rows: number;
  /** Who began it, and when. */
  by: string;
  at: string;
}

/** A message on its way. */
export interface LeavingMessage {
  id: number;
  name: string;
  state: MessageState;
  channel: 'email' | 'text';
  when: string | null;
  /**
   * Whom the last look found for it; of one that leaves already, who is still to get it. Null before a look.
   */
  people: number | null;
}

/** What waits and what leaves; for a team in one chapter, of that chapter. */
export interface TodayView {
  batches: WaitingBatch[];
  /** Batches that came in lately and that nobody has looked at since. */
  arrived: { id: number; name: string; at: string; people: number }[];
  messages: LeavingMessage[];
  replies: number;
  /** The one that waits longest. */
  firstReply: { name: string; words: string; message: string | null; at: string } | null;
  unsure: number;
  /** The newest message with an unsure mail, and since when the oldest is unsure. */
  unsureMessageId: number | null;
  unsureSince: string | null;
  onHold: number;
  drafts: number;
  /** The draft that was changed last. */
  draft: { id: number; name: string; at: string } | null;
  /** People whose implied permission for appeals by email lapses within this many days. */
  lapsing: { people: number; days: number };
  /** Texts that plainly ask to stop, held until a person has read them. */
  stops: StopTask[];
  /** People who asked to be erased; only owners see them. */
  erasures: { taskId: number; supporterId: number; name: string; at: string }[];
}

/**
 * What was done since midnight where the organization is: replies settled, people brought in, messages handed
 * over.
 */
export interface DoneView {
  answered: number;
  broughtIn: number;
  sent: number;
}

/** A reply that says stop in its own words. */
export interface StopTask {
  taskId: number;
  supporterId: number | null;
  name: string;
  words: string;
  at: string;
}

/**
 * What the last seven days brought, today among them, and what a week brings usually (null where less than
 * four weeks lie behind). Money in minor units of the organization's currency.
 */
export interface WeekView {
  figures: { kind: 'joined' | 'left' | 'gave' | 'replied'; now: number; usual: number | null }[];
  /** Over how many weeks "usually" is taken. */
  weeks: number;
}
