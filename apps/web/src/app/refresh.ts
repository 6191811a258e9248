import type { QueryClient } from '@tanstack/react-query';
import { AFFECTED, type ChangedRoom } from '@goodword/core/changes';

/** The part of the API that a reading belongs to: what its path begins with. */
const roomOf = (queryKey: readonly unknown[]) => String(queryKey[0]).split('/')[0]!;

/**
 * Reads again what a change in these parts of the API may have changed. What is still being read for the
 * first time is begun anew: its answer may be from before the change, and would otherwise be taken for the
 * newest.
 */
export async function refresh(queryClient: QueryClient, ...changed: ChangedRoom[]): Promise<void> {
  const rooms = new Set(changed.flatMap((room) => [room, ...AFFECTED[room]] as string[]));
  const touched = {
    predicate: ({ queryKey }: { queryKey: readonly unknown[] }) => rooms.has(roomOf(queryKey)),
  };
  await queryClient.cancelQueries(touched);
  await queryClient.invalidateQueries(touched);
}

/** Reads everything again: another chapter sees other people everywhere. */
export async function refreshAll(queryClient: QueryClient): Promise<void> {
  await queryClient.cancelQueries();
  await queryClient.invalidateQueries();
}
