import type { NewEntry } from '../permission/ledger/entries';

/**
 * A no that a person has read in somebody's own words: it closes the channel at the address it was written
 * from; of a number that several share, for each of them, since nobody knows who wrote it.
 */
export function noReadInReply(said: {
  contactPointId: number | null;
  kind: 'email' | 'mobile';
  supporterId: number | null;
  /** Whose the number is. */
  sharers: readonly number[];
  words: string;
  saidAt: Date;
  replyId: number | null;
}): NewEntry[] {
  const { contactPointId, words, saidAt, replyId } = said;
  const people = said.kind === 'mobile' && said.sharers.length > 0 ? said.sharers : [said.supporterId];
  return people.map((supporterId) => ({
    contactPointId,
    supporterId,
    channel: said.kind === 'email' ? 'email' : 'text',
    scope: 'all',
    state: 'no',
    saidAt,
    byPerson: true,
    how: 'reply',
    words,
    source: 'In their own words, read by a person',
    replyId,
  }));
}
