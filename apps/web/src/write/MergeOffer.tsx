import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useEffect, useState, type KeyboardEvent } from 'react';
import type { MergeName, Registry } from '@goodword/core/merge';
import { offeredFields, type Brace } from './braces';

/** What a field that offers merge fields needs: its keys, what it says of itself, and the list. */
export interface FieldOffer {
  names: MergeName[];
  at: number;
  /** True where the key was for the list. */
  onKey: (event: Pick<KeyboardEvent, 'key'>) => boolean;
}

/**
 * Merge fields that fit what is being typed. Arrows move, Enter and Tab put one in, Escape puts the list away
 * until the next brace.
 */
export function useOffer(brace: Brace | null, registry: Registry, pick: (name: string) => void): FieldOffer {
  const [at, setAt] = useState(0);
  const [away, setAway] = useState<number | null>(null);
  const open = brace !== null && brace.from !== away;
  const names = open ? offeredFields(registry.names, brace.typed) : [];
  useEffect(() => setAt(0), [brace?.typed, brace?.from]);
  useEffect(() => {
    if (brace === null) setAway(null);
  }, [brace]);
  const onKey = ({ key }: Pick<KeyboardEvent, 'key'>) => {
    if (names.length === 0) return false;
    if (key === 'ArrowDown' || key === 'ArrowUp')
      setAt((at + (key === 'ArrowDown' ? 1 : names.length - 1)) % names.length);
    else if (key === 'Enter' || key === 'Tab') pick(names[at]!.name);
    else if (key === 'Escape') setAway(brace!.from);
    else return false;
    return true;
  };
  return { names, at: Math.min(at, names.length - 1), onKey };
}

export const optionId = (list: string, at: number) => `${list}-${at}`;

/** The list itself, under what is typed. */
export function MergeOffer({
  id,
  offer,
  onPick,
  style,
}: {
  id: string;
  offer: FieldOffer;
  onPick: (name: string) => void;
  style?: React.CSSProperties;
}) {
  const chosen = optionId(id, offer.at);
  useEffect(() => {
    // What it gives back (a promise in newer browsers) is no way to undo it.
    document.getElementById(chosen)?.scrollIntoView?.({ block: 'nearest' });
  }, [chosen]);
  if (offer.names.length === 0) return null;
  return (
    <ul
      id={id}
      role="listbox"
      aria-label={t`Merge fields`}
      className="absolute left-0 top-full mt-1 sheet p-1 max-h-[220px] min-w-[240px] overflow-y-auto z-20 text-[14px] leading-normal"
      style={style}
    >
      {offer.names.map(({ key, name, fallback }, i) => (
        <li
          key={key}
          id={optionId(id, i)}
          role="option"
          aria-selected={i === offer.at}
          className={`px-3 py-[4px] rounded-[3px] cursor-pointer ${i === offer.at ? 'bg-bench' : ''}`}
          // Before the field loses the caret.
          onMouseDown={(event) => (event.preventDefault(), onPick(name))}
        >
          {name}
          {fallback && (
            <span className="text-ink2">
              <Trans>, or “{fallback}”</Trans>
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
