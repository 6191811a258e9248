import { useEffect, useRef, useState } from 'react';
import { useSession } from './session';

/**
 * Something that is typed now and saved by a press later. Until then it is kept in the browser, and is there again after a
 * click elsewhere, a reload or a closed tab. Where somebody saved something newer meanwhile, both are kept: nothing is
 * written over what was not seen.
 */
export interface Drafting<T> {
  value: T;
  /** The version of the server's that this was begun from; it goes along with the save. */
  basedOn: number;
  isChanged: boolean;
  /** What somebody saved since this was begun; null where there is no such. */
  theirs: T | null;
  set(value: T): void;
  /** What is typed goes, and the server's stands; also after it was saved. */
  discard(): void;
  /** What is typed stands, to be saved over theirs. */
  keepMine(): void;
}

interface Stored<T> {
  value: T;
  basedOn: number;
}

const PREFIX = 'gw-draft:';

export function useDrafting<T>(name: string, server: { value: T; version: number }): Drafting<T> {
  const key = `${PREFIX}${useSession().teammate.id}:${name}`;
  const [typed, setTyped] = useState<Stored<T> | null>(() => read<T>(key));
  const own = useRef(key);
  if (own.current !== key) {
    own.current = key;
    setTyped(read<T>(key));
  }
  const changed = typed !== null && !same(typed.value, server.value);
  // Whoever typed and put it back has typed nothing.
  useEffect(() => {
    if (typed !== null && !changed) write<T>(key, null);
  }, [key, typed, changed]);
  const keep = (next: Stored<T> | null) => {
    setTyped(next);
    write(key, next);
  };
  const basedOn = changed ? typed.basedOn : server.version;
  return {
    value: changed ? typed.value : server.value,
    basedOn,
    isChanged: changed,
    theirs: changed && typed.basedOn !== server.version ? server.value : null,
    set: (value) => keep({ value, basedOn }),
    discard: () => keep(null),
    keepMine: () => typed && keep({ value: typed.value, basedOn: server.version }),
  };
}

function same(one: unknown, other: unknown): boolean {
  return one === other || JSON.stringify(one) === JSON.stringify(other);
}

function read<T>(key: string): Stored<T> | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as Stored<T> | null;
  } catch {
    return null;
  }
}

function write<T>(key: string, stored: Stored<T> | null): void {
  try {
    if (stored === null) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(stored));
  } catch {
    // A browser that keeps nothing, or is full: it is kept as long as the page is open.
  }
}
