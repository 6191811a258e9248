import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { BatchView, ListView, Page, SupporterRow, TagView } from '@goodword/core/contract';
import { CHANNEL_WORDS, STATE_WORDS, STATES } from '@goodword/core/permission';
import { get, query } from '../app/api';
import { plural, useFormat } from '../app/format';
import { Button, Empty, Heading } from '../ui/basics';
import { PeopleTable } from '../ui/people';
import { SortNav } from './SortNav';

const FILTERS = ['search', 'tag', 'list', 'batch', 'hold', 'channel', 'state'] as const;

function Choice({
  label,
  value,
  onChange,
  children,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  children: React.ReactNode;
}) {
  return (
    <select aria-label={label} className="input !w-auto max-w-[230px]" value={value} onChange={(event) => onChange(event.target.value)}>
      <option value="">{label}</option>
      {children}
    </select>
  );
}

/** Everybody, found by name, address or number, and cut down by tag, list and permission. The address holds it all. */
export default function Supporters() {
  const [params, setParams] = useSearchParams();
  const format = useFormat();
  const tags = useQuery({ queryKey: ['tags'], queryFn: () => get<TagView[]>('tags') });
  const lists = useQuery({ queryKey: ['lists'], queryFn: () => get<ListView[]>('lists') });
  const batch = useQuery({
    queryKey: ['batch', Number(params.get('batch'))],
    queryFn: () => get<BatchView>(`batches/${params.get('batch')}`),
    enabled: params.has('batch'),
  });
  const [search, setSearch] = useState(params.get('search') ?? '');
  const set = (values: Record<string, string>) =>
    setParams(
      (old) => {
        const next = new URLSearchParams(old);
        for (const [key, value] of Object.entries(values)) {
          if (value) next.set(key, value);
          else next.delete(key);
        }
        return next;
      },
      { replace: true },
    );
  useEffect(() => {
    const timer = setTimeout(() => search !== (params.get('search') ?? '') && set({ search }), 250);
    return () => clearTimeout(timer);
  });
  const filter = Object.fromEntries(FILTERS.map((key) => [key, params.get(key)]));
  const fetch = (after?: string) => get<Page<SupporterRow>>(`supporters${query({ ...filter, after })}`);
  const total = useQuery({
    queryKey: ['supporters-total', filter],
    queryFn: () => get<Page<SupporterRow>>(`supporters${query({ ...filter, limit: 1 })}`),
  }).data?.total;
  const filtered = FILTERS.some((key) => params.has(key));
  const permission = params.has('channel') ? `${params.get('channel')}:${params.get('state')}` : '';
  return (
    <>
      <Heading
        title="Supporters"
        note={
          total === undefined
            ? ''
            : `${format.number(total)} ${plural(total, 'person', 'people')}${batch.data ? ` of the batch ${batch.data.name}` : ''}${params.has('hold') ? ' with an address on hold' : ''}`
        }
      />
      <SortNav />
      <div className="flex gap-2 pb-3">
        <input
          type="search"
          className="input !w-[280px]"
          aria-label="Search by name, email or mobile"
          placeholder="Name, email, or last digits of a number"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <Choice label="Any tag" value={params.get('tag') ?? ''} onChange={(tag) => set({ tag })}>
          {tags.data?.map((tag) => (
            <option key={tag.id} value={tag.id}>
              {tag.name} ({tag.people})
            </option>
          ))}
        </Choice>
        <Choice label="Any list" value={params.get('list') ?? ''} onChange={(list) => set({ list })}>
          {lists.data?.map((list) => (
            <option key={list.id} value={list.id}>
              {list.name} ({list.people})
            </option>
          ))}
        </Choice>
        <Choice
          label="Any standing for appeals"
          value={permission}
          onChange={(value) => set({ channel: value.split(':')[0] ?? '', state: value.split(':')[1] ?? '' })}
        >
          {(['email', 'text'] as const).flatMap((channel) =>
            STATES.map((state) => (
              <option key={`${channel}:${state}`} value={`${channel}:${state}`}>
                {CHANNEL_WORDS[channel]} {STATE_WORDS[state].toLowerCase()}, for appeals
              </option>
            )),
          )}
        </Choice>
        {filtered && <Button onClick={() => (setSearch(''), setParams({}))}>Everybody</Button>}
      </div>
      <PeopleTable
        label="Supporters"
        pageKey={['supporters', filter]}
        fetch={fetch}
        empty={
          filtered ? (
            <Empty title="Nobody fits all of that">
              <p>Take one of the filters away, or search by the beginning of a name, an email, or four digits of a number.</p>
            </Empty>
          ) : (
            <Empty title="Nobody is here yet">
              <p>Bring a file of people in at Gather.</p>
            </Empty>
          )
        }
      />
    </>
  );
}
