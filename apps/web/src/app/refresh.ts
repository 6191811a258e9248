import type { QueryClient } from '@tanstack/react-query';

/**
 * Reads everything on the page again after a change. What is still being read for the first time is begun
 * anew: its answer may be from before the change, and would otherwise be taken for the newest.
 */
export async function refreshAll(queryClient: QueryClient): Promise<void> {
  await queryClient.cancelQueries();
  await queryClient.invalidateQueries();
}
