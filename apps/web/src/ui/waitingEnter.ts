import { useEffect, useState, type KeyboardEvent } from 'react';

/**
 * Enter that is pressed before the answer to what was typed is there: it chooses the first of that answer
 * when it comes, and not what still stands there for fewer letters.
 *
 * `fresh`: what is shown belongs to what is typed. `first` chooses the first of it; undefined where there is
 * none.
 */
export function useWaitingEnter(
  fresh: boolean,
  first: (() => void) | undefined,
): { onKeyDown: (event: KeyboardEvent) => void; forget: () => void } {
  const [waits, setWaits] = useState(false);
  useEffect(() => {
    if (!waits || !fresh) return;
    setWaits(false);
    first?.();
  });
  return {
    onKeyDown: (event) => {
      if (event.key !== 'Enter' || fresh) return;
      event.preventDefault();
      event.stopPropagation();
      setWaits(true);
    },
    forget: () => setWaits(false),
  };
}

/** Whether an answer that may be one of before is the one to what is asked now. */
export function isFresh({
  isPlaceholderData,
  isFetching,
  isPending,
}: {
  isPlaceholderData: boolean;
  isFetching: boolean;
  isPending: boolean;
}): boolean {
  return !isPlaceholderData && !(isFetching && isPending);
}

/**
 * What is marked among `keys`: the first as soon as there is one, whatever was marked among those for fewer
 * letters. Left to itself the list marks nothing when several of its lines vanish at once, and Enter does
 * nothing.
 */
export function useMarked(keys: string[]): { value: string; onValueChange: (key: string) => void } {
  const [marked, setMarked] = useState('');
  return { value: keys.includes(marked) ? marked : (keys[0] ?? ''), onValueChange: setMarked };
}
