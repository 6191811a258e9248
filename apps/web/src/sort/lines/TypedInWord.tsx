import { useRef, useState } from 'react';
import { Labelled } from '../../ui/basics';

/** What is typed into a word, taken when one is done with it. */
export function TypedInWord<V>({
  label,
  shown,
  hint,
  read,
  onTake,
}: {
  label: string;
  shown: string;
  hint: string;
  /** What is meant; undefined for nothing that can be. */
  read: (typed: string) => V | undefined;
  onTake: (value: V) => void;
}) {
  const [typed, setTyped] = useState(shown);
  const taken = useRef(read(shown));
  const value = read(typed);
  const take = () => {
    if (value === undefined || value === taken.current) return;
    taken.current = value;
    onTake(value);
  };
  return (
    <Labelled label={label} hint={value === undefined ? hint : undefined}>
      <input
        className="input"
        autoFocus
        aria-invalid={value === undefined || undefined}
        value={typed}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
    </Labelled>
  );
}
