import type { ThreadsQuery } from '@goodword/core/contract';

export type ThreadsSeen = NonNullable<ThreadsQuery['view']>;

/** Which threads can be looked at, in the order in which they are offered. */
export const THREADS_SEEN: readonly ThreadsSeen[] = ['open', 'mine', 'aside', 'done'];
