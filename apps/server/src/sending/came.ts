import type { Channel, Verdict } from '@goodword/core/permission';
import { heldBackWords } from '@goodword/core/words';
import type { Tables } from '../platform/tables/generated';
import { sentence } from '../platform/words';

/** What is kept of a delivery that says what became of it. */
export type CameOf = Pick<Tables['delivery'], 'state' | 'verdict' | 'door_verdict' | 'detail' | 'sent_at'>;

/** What was decided of somebody last: at the door, else as it was written down. */
export const lastVerdict = ({ verdict, door_verdict }: CameOf) => (door_verdict ?? verdict) as Verdict;

/** What became of a message at one person, in words. */
export function cameWords(delivery: CameOf, channel: Channel): string {
  const verdict = lastVerdict(delivery);
  if (verdict !== 'send') return heldBackWords(verdict, channel, delivery.detail);
  if (delivery.sent_at) return sentence(channel === 'call' ? 'path.called' : 'path.came');
  if (delivery.state === 'kept') return sentence('path.kept');
  if (delivery.state === 'undecided') return sentence('path.undecided');
  if (delivery.state === 'ready') return sentence(channel === 'call' ? 'path.waits-call' : 'path.waits');
  return delivery.detail ?? delivery.state;
}
