import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { ListView, MessageView, Page, SegmentView, SupporterRow, TagView } from '@goodword/core/contract';
import { personName } from '../ui/people';
import { get, query } from './api';
import { STATIONS } from './stations';

interface Found {
  key: string;
  words: string;
  note: string;
  to: string;
}

function useFound(text: string): Found[] {
  const search = text.trim();
  const people = useQuery({
    queryKey: ['find', search],
    queryFn: () => get<Page<SupporterRow>>(`supporters${query({ search, limit: 8 })}`),
    enabled: search.length >= 2,
  });
  const lists = useQuery({ queryKey: ['lists'], queryFn: () => get<ListView[]>('lists') });
  const tags = useQuery({ queryKey: ['tags'], queryFn: () => get<TagView[]>('tags') });
  const segments = useQuery({ queryKey: ['segments'], queryFn: () => get<SegmentView[]>('segments') });
  const messages = useQuery({ queryKey: ['messages'], queryFn: () => get<MessageView[]>('messages') });
  const like = (word: string) => word.toLowerCase().includes(search.toLowerCase());
  const stations = [{ path: '/', name: 'Today' }, ...STATIONS].map(({ path, name }) => ({ key: path, words: name, note: 'station', to: path }));
  return [
    ...stations.filter((one) => like(one.words)),
    ...(people.data?.rows ?? []).map((row) => ({
      key: `p${row.id}`,
      words: personName(row),
      note: row.email ?? row.mobile ?? 'supporter',
      to: `/sort/supporters/${row.id}`,
    })),
    ...(lists.data ?? [])
      .filter((one) => like(one.name))
      .map((one) => ({ key: `l${one.id}`, words: one.name, note: 'list', to: `/sort?list=${one.id}` })),
    ...(tags.data ?? [])
      .filter((one) => like(one.name))
      .map((one) => ({ key: `t${one.id}`, words: one.name, note: 'tag', to: `/sort?tag=${one.id}` })),
    ...(segments.data ?? [])
      .filter((one) => like(one.name))
      .map((one) => ({ key: `s${one.id}`, words: one.name, note: 'segment', to: `/sort/segments/${one.id}` })),
    ...(messages.data ?? [])
      .filter((one) => like(one.name))
      .map((one) => ({
        key: `m${one.id}`,
        words: one.name,
        note: `message, ${one.state}`,
        to: one.state === 'draft' ? `/write/${one.id}` : `/hear-back/${one.id}`,
      })),
  ].slice(0, 30);
}

/** Ctrl+K: finds anybody and anything by a few letters. */
export default function Finder({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const found = useFound(text);
  const open = (to: string) => {
    onClose();
    void navigate(to);
  };
  return (
    <Command.Dialog
      open
      onOpenChange={(next) => !next && onClose()}
      label="Find"
      shouldFilter={false}
      overlayClassName="fixed inset-0 bg-ink/30"
      contentClassName="fixed left-1/2 top-[12%] -translate-x-1/2 w-[560px] sheet p-2 z-30"
    >
      <Command.Input
        value={text}
        onValueChange={setText}
        placeholder="A name, an address, a list, a message"
        className="input !border-0 text-[16px]"
      />
      <Command.List className="max-h-[50vh] overflow-y-auto border-t border-hair mt-1 pt-1">
        <Command.Empty className="p-3 text-ink2">
          Nothing of that name. Try a last name, the start of an email, or four digits of a number.
        </Command.Empty>
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
