import { t } from '@lingui/core/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useState } from 'react';
import type { FinderHit } from '@goodword/core/contract';
import { ProblemNote } from './basics';
import { isFresh, useMarked, useWaitingEnter } from './waitingEnter';
import { reading } from '../app/reading';

/** Chooses one supporter by a few letters of a name, an address or last digits; arrows and Enter choose. */
export function PersonPicker({
  label,
  without,
  focused = true,
  onPick,
}: {
  label: string;
  without?: number;
  /** Whether it is typed into at once. */
  focused?: boolean;
  onPick: (person: { id: number; name: string }) => void;
}) {
  const [text, setText] = useState('');
  const search = text.trim();
  const asked = useQuery({
    ...reading('find', { text: search }),
    enabled: search.length >= 2,
    placeholderData: keepPreviousData,
  });
  const people =
    search.length < 2
      ? []
      : (asked.data ?? []).filter(({ kind, id }) => kind === 'supporter' && id !== without);
  const pick = (person: FinderHit) => onPick({ id: person.id, name: person.name || t`No name on file` });
  const [first] = people;
  const fresh = search.length < 2 || isFresh(asked);
  const enter = useWaitingEnter(fresh, first && (() => pick(first)));
  const marked = useMarked(people.map(({ id }) => String(id)));
  return (
    <Command shouldFilter={false} label={label} className="sheet p-2" {...marked}>
      <Command.Input
        className="input"
        autoFocus={focused}
        placeholder={t`Name, email or last digits`}
        value={text}
        onValueChange={(next) => (enter.forget(), setText(next))}
        onKeyDown={enter.onKeyDown}
        aria-label={label}
      />
      <Command.List className="max-h-[300px] overflow-y-auto">
        <ProblemNote error={asked.error} />
        {search.length >= 2 && people.length === 0 && fresh && !asked.error && (
          <p className="p-3 text-ink2">{t`Nobody by that name or address.`}</p>
        )}
        {people.map((person) => (
          <Command.Item
            key={person.id}
            value={String(person.id)}
            className="px-3 py-2 rounded-[3px] cursor-pointer data-[selected=true]:bg-bench"
            onSelect={() => pick(person)}
          >
            <span className="font-semibold">{person.name || t`No name on file`}</span>{' '}
            <span className="text-ink2">{person.note}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
