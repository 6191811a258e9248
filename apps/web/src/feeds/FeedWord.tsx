import { createContext, useContext, type ReactNode } from 'react';
import { PickWord, Word } from '../sort/lines/Word';

/** Whether the words of a feed can be changed: while it is off, by whoever may. */
export const FeedOpen = createContext(false);

const Fixed = ({ words }: { words: string }) => <b className="text-ink">{words}</b>;

/** A word of a feed's sentence that is one of a few. */
export function FeedPick<V extends string>(props: {
  label: string;
  value: V;
  options: readonly (readonly [V, string])[];
  onPick: (value: V) => void;
}) {
  if (!useContext(FeedOpen))
    return <Fixed words={props.options.find(([one]) => one === props.value)?.[1] ?? '…'} />;
  return <PickWord {...props} />;
}

/** A word of a feed's sentence that opens what it can be. */
export function Open(props: { words: string; label: string; children: (close: () => void) => ReactNode }) {
  return useContext(FeedOpen) ? <Word {...props} /> : <Fixed words={props.words || '…'} />;
}

/** A box to tick within an opened word. */
export function Tick({ on, onTick, children }: { on: boolean; onTick: () => void; children: ReactNode }) {
  return (
    <label className="flex gap-2 items-center px-2 py-1">
      <input type="checkbox" className="accent-[#0F766B]" checked={on} onChange={onTick} />
      {children}
    </label>
  );
}

/** A list with one more or one less. */
export const withOrWithout = <T,>(all: readonly T[], one: T): T[] =>
  all.includes(one) ? all.filter((other) => other !== one) : [...all, one];
