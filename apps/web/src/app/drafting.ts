import { useEffect, useRef, useState } from 'react';
import { useSession } from './session';
import { isSame, readStored, writeStored } from './stored';

/**
 * Something that is typed now and saved by a press later. Until then it is kept in the browser, and is there
 * again after a click elsewhere, a reload or a closed tab. Where somebody saved something newer meanwhile,
 * both are kept: nothing is written over what was not seen.
 */
export interface Drafting<T, V = number> {
  value: T;
  /** The version of the server's that this was begun from; it goes along with the save. */
  basedOn: V;
  isChanged: boolean;
  /** What somebody saved since this was begun; null where there is no such. */
  theirs: T | null;
  set(value: T): void;
  /** What is typed goes, and the server's stands. */
  discard(): void;
  /** The server has this; what was typed since it was sent stays, on top of it. */
  saved(sent: T): void;
  /** What is typed stands, to be saved over theirs. */
  keepMine(): void;
}

interface Stored<T, V> {
  value: T;
  basedOn: V;
}

const PREFIX = 'gw-draft:';

/** The version counts saves; what is small is its own, as it stood. */
export function useDrafting<T, V = number>(name: string, server: { value: T; version: V }): Drafting<T, V> {
  const key = `${PREFIX}${useSession().teammate.id}:${name}`;
  const [typed, setTyped] = useState<Stored<T, V> | null>(() => readStored<Stored<T, V>>(key));
  const own = useRef(key);
  if (own.current !== key) {
    own.current = key;
    setTyped(readStored<Stored<T, V>>(key));
  }
  const changed = typed !== null && !isSame(typed.value, server.value);
  // Whoever typed and put it back has typed nothing.
  useEffect(() => {
    if (typed !== null && !changed) writeStored(key, null);
  }, [key, typed, changed]);
  const now = useRef({ typed, version: server.version });
  now.current = { typed, version: server.version };
  const keep = (next: Stored<T, V> | null) => {
    now.current.typed = next;
    setTyped(next);
    writeStored(key, next);
  };
  const basedOn = changed ? typed.basedOn : server.version;
  return {
    value: changed ? typed.value : server.value,
    basedOn,
    isChanged: changed,
    theirs: changed && !isSame(typed.basedOn, server.version) ? server.value : null,
    set: (value) => keep({ value, basedOn }),
    discard: () => keep(null),
    saved: (sent) => {
      const { typed: later, version } = now.current;
      keep(later === null || isSame(later.value, sent) ? null : { value: later.value, basedOn: version });
    },
    keepMine: () => typed && keep({ value: typed.value, basedOn: server.version }),
  };
}

/** What is typed into a small sheet that makes something: kept in the browser until it is made. */
export function useTyped<T>(name: string, empty: T): Drafting<T> {
  return useDrafting(name, { value: empty, version: 0 });
}
