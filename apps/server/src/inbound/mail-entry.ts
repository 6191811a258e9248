import type { NewEntry } from '../permission/ledger/entries';
import type { TokenDelivery } from '../unsubscribe/unsubscribe.repository';

/** What closes mail to whoever said so in answer to a mail, or to their provider. */
export const closedByMail = (
  delivery: TokenDelivery,
  { how, words, replyId = null }: { how: 'reply' | 'complaint'; words: string; replyId?: number | null },
): NewEntry => ({
  contactPointId: delivery.contactPointId,
  supporterId: delivery.supporterId,
  channel: 'email',
  scope: 'all',
  state: 'no',
  saidAt: new Date(),
  byPerson: true,
  how,
  words: words.slice(0, 500),
  source: `From “${delivery.messageName}”`,
  deliveryId: delivery.id,
  replyId,
});
