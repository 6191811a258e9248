import { useQueryClient, type QueryCache } from '@tanstack/react-query';
import { useCallback, useLayoutEffect, useRef, useSyncExternalStore } from 'react';
import { create } from 'zustand';

/** Errors that some part of the page tells where they belong. */
const useTold = create<{ errors: ReadonlySet<unknown> }>(() => ({ errors: new Set() }));

/** Whoever shows an error says so; what nobody shows is told above the page (see `useUntold`). */
export function useTelling(error: unknown): void {
  useLayoutEffect(() => {
    if (!error) return;
    useTold.setState(({ errors }) => ({ errors: new Set(errors).add(error) }));
    return () =>
      useTold.setState(({ errors }) => ({ errors: new Set([...errors].filter((one) => one !== error)) }));
  }, [error]);
}

export const sentenceOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

const failedIn = (cache: QueryCache): unknown[] =>
  cache
    .getAll()
    .flatMap((query) => (query.isActive() && query.state.status === 'error' ? [query.state.error] : []));

/**
 * Why parts of what is on the page could not be read, where no part says so itself: what is missing must not
 * look like none.
 */
export function useUntold(): { errors: unknown[]; again: () => void } {
  const queries = useQueryClient();
  const cache = queries.getQueryCache();
  const last = useRef<unknown[]>([]);
  const failed = useSyncExternalStore(
    useCallback((changed) => cache.subscribe(changed), [cache]),
    () => {
      const now = failedIn(cache);
      if (now.length !== last.current.length || now.some((error, i) => error !== last.current[i]))
        last.current = now;
      return last.current;
    },
  );
  const told = useTold(({ errors }) => errors);
  const words = new Set([...told].map(sentenceOf));
  // One sentence once, however many questions it answers.
  const untold = new Map(failed.map((error) => [sentenceOf(error), error]));
  return {
    errors: [...untold].filter(([sentence]) => !words.has(sentence)).map(([, error]) => error),
    again: () =>
      void queries.refetchQueries({ type: 'active', predicate: ({ state }) => state.status === 'error' }),
  };
}
