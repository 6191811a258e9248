import type { TagTrigger, TagTriggerEvent } from '@goodword/core/contract';
import type { SendingChannel } from '@goodword/core/permission';

const MOST = 6;

/** What can be told of a channel: links in texts are not tracked. */
export function deedsOf(channel: SendingChannel): readonly TagTriggerEvent[] {
  return channel === 'email' ? ['followed', 'replied'] : ['replied'];
}

const same = (a: TagTrigger, b: TagTrigger) => a.on === b.on && a.tagId === b.tagId;

/** One of them changed; where that says what another says already, once. */
export function changed(deeds: readonly TagTrigger[], at: number, part: Partial<TagTrigger>): TagTrigger[] {
  const next = deeds.map((deed, i) => (i === at ? { ...deed, ...part } : deed));
  return next.filter((deed, i) => next.findIndex((one) => same(one, deed)) === i);
}

/** The next sentence to begin with: the first that is not said yet; null where all are, or there are enough. */
export function offeredTriggers(deeds: readonly TagTrigger[], tags: readonly { id: number }[], channel: SendingChannel): TagTrigger | null {
  if (deeds.length >= MOST) return null;
  const all = deedsOf(channel).flatMap((on) => tags.map(({ id }): TagTrigger => ({ on, tagId: id })));
  return all.find((one) => !deeds.some((deed) => same(deed, one))) ?? null;
}
