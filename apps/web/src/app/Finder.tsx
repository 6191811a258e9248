import { t } from '@lingui/core/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { FinderHit } from '@goodword/core/contract';
import { ProblemNote } from '../ui/basics';
import { isFresh, useMarked, useWaitingEnter } from '../ui/waitingEnter';
import { STATIONS } from './stations';
import { reading } from './reading';

interface Offered {
  key: string;
  words: string;
  note: string;
  to: string;
}

const TO: Record<FinderHit['kind'], (found: FinderHit) => string> = {
  supporter: ({ id }) => `/sort/supporters/${id}`,
  list: ({ id }) => `/sort?list=${id}`,
  tag: ({ id }) => `/sort?tag=${id}`,
  segment: ({ id }) => `/sort/segments/${id}`,
  campaign: ({ id }) => `/sort/campaigns/${id}`,
  message: ({ id, note }) => (note === 'draft' ? `/write/${id}` : `/hear-back/${id}`),
};

/** Things that can be begun from anywhere. */
const DEEDS: Offered[] = [
  { key: 'do-gather', words: t`Bring in a file`, note: 'begin', to: '/gather/new' },
  { key: 'do-segment', words: t`Make a segment`, note: 'begin', to: '/sort/segments/new' },
  { key: 'do-write', words: t`Write a message`, note: 'begin', to: '/write' },
  { key: 'do-template', words: t`Make a template`, note: 'begin', to: '/write/templates' },
];

/** What the letters mean; not fresh while what is shown still belongs to fewer letters. */
function useFound(text: string): { found: Offered[]; fresh: boolean; error: unknown } {
  const search = text.trim();
  const asked = useQuery({
    ...reading('find', { text: search }),
    enabled: search.length >= 2,
    placeholderData: keepPreviousData,
  });
  const answer = asked.data ?? [];
  const stations = [{ path: '/', name: t`Today` }, ...STATIONS].map(({ path, name }): Offered => ({
    key: path,
    words: name,
    note: 'station',
    to: path,
  }));
  const found = [
    ...[...stations, ...DEEDS].filter((one) => one.words.toLowerCase().includes(search.toLowerCase())),
    ...(search.length < 2 ? [] : answer).map((found): Offered => ({
      key: `${found.kind}${found.id}`,
      words: found.name || t`No name on file`,
      note: found.kind === 'supporter' ? found.note : [found.kind, found.note].filter(Boolean).join(', '),
      to: TO[found.kind](found),
    })),
  ];
  return { found, fresh: search.length < 2 || isFresh(asked), error: search.length < 2 ? null : asked.error };
}

/** Ctrl+K: finds anybody and anything by a few letters. */
export default function Finder({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const { found, fresh, error } = useFound(text);
  const open = (to: string) => {
    onClose();
    void navigate(to);
  };
  const [first] = found;
  const enter = useWaitingEnter(fresh, first && (() => open(first.to)));
  const marked = useMarked(found.map(({ key }) => key));
  return (
    <Command.Dialog
      open
      {...marked}
      onOpenChange={(next) => !next && onClose()}
      label={t`Find`}
      shouldFilter={false}
      overlayClassName="fixed inset-0 z-30 bg-ink/30"
      contentClassName="fixed left-1/2 top-[12%] -translate-x-1/2 w-[560px] sheet p-2 z-30"
    >
      <Command.Input
        value={text}
        onValueChange={(next) => (enter.forget(), setText(next))}
        onKeyDown={enter.onKeyDown}
        placeholder={t`A name, an address, a list, a message`}
        className="input !border-0 text-[16px]"
      />
      <Command.List className="max-h-[50vh] overflow-y-auto border-t border-hair mt-1 pt-1">
        <ProblemNote error={error} />
        {!error && (
          <Command.Empty className="p-3 text-ink2">
            {fresh
              ? t`Nothing of that name. Try a last name, the start of an email, or four digits of a number.`
              : t`Looking…`}
          </Command.Empty>
        )}
        {found.map((one) => (
          <Command.Item
            key={one.key}
            value={one.key}
            onSelect={() => open(one.to)}
            className="flex justify-between gap-4 px-3 py-2 rounded-[3px] data-[selected=true]:bg-bench cursor-pointer"
          >
            <span className="font-semibold truncate">{one.words}</span>
            <span className="text-ink2 truncate">{one.note}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
