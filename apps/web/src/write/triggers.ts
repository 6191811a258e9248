import type { TagTrigger, TagTriggerEvent } from '@goodword/core/contract';
import { isHandedOver, type Channel } from '@goodword/core/permission';

const MOST = 6;

/** What can be told of a channel: of what people hand over themselves nothing. */
export function triggersOf(channel: Channel): readonly TagTriggerEvent[] {
  return isHandedOver(channel) ? ['clicked', 'replied'] : [];
}

const same = (a: TagTrigger, b: TagTrigger) => a.on === b.on && a.tagId === b.tagId;

/** One of them changed; where that says what another says already, once. */
export function changed(
  triggers: readonly TagTrigger[],
  at: number,
  part: Partial<TagTrigger>,
): TagTrigger[] {
  const next = triggers.map((trigger, i) => (i === at ? { ...trigger, ...part } : trigger));
  return next.filter((trigger, i) => next.findIndex((one) => same(one, trigger)) === i);
}

/**
 * The next sentence to begin with: the first that is not said yet; null where all are, or there are enough.
 */
export function offeredTriggers(
  triggers: readonly TagTrigger[],
  tags: readonly { id: number }[],
  channel: Channel,
): TagTrigger | null {
  if (triggers.length >= MOST) return null;
  const all = triggersOf(channel).flatMap((on) => tags.map(({ id }): TagTrigger => ({ on, tagId: id })));
  return all.find((one) => !triggers.some((trigger) => same(trigger, one))) ?? null;
}
