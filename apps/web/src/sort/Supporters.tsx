import type { TableSort } from '../ui/VirtualTable';
import type { FieldView, SupporterRow, Page } from '@goodword/core/contract';
import { AS_IT_COMES } from './people/listing';
import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { PeopleColumns, PeopleView } from '@goodword/core/contract';
import { STATES } from '@goodword/core/permission';
import type { Group, Rule } from '@goodword/core/segment';
import { CHANNEL_WORDS, STATE_WORDS } from '@goodword/core/words';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { useLists, useTags, useCounts } from '../app/groups';
import { Button, Empty, Heading, Loading, ProblemNote } from '../ui/basics';
import { asTop } from './lines/sentence';
import { useSubjects } from './lines/subjects';
import { PeoplePanel } from './people/PeoplePanel';
import { remember, remembered, tableState, type Remembered, type TableState } from './people/tableState';
import { ColumnsMenu, Views } from './people/Views';
import { Sentence } from './Sentence';
import { SortNav } from './SortNav';
import { AddPerson } from '../gather/AddPerson';
import { keyOf, reading, readingByPost } from '../app/reading';

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
    <select
      aria-label={label}
      className="input !w-auto max-w-[230px]"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      <option value="">{label}</option>
      {children}
    </select>
  );
}

/** The quick filters beside the search: a tag, a list, a permission for appeals. */
function QuickFilters({
  params,
  set,
}: {
  params: URLSearchParams;
  set: (values: Record<string, string>) => void;
}) {
  const tags = useTags();
  const lists = useLists();
  const [tagged, listed] = [useCounts('tags'), useCounts('lists')];
  const withCount = (name: string, people: number | undefined) =>
    people === undefined ? name : `${name} (${people})`;
  const permission = params.has('channel') ? `${params.get('channel')}:${params.get('state')}` : '';
  return (
    <>
      <Choice label={t`Any tag`} value={params.get('tag') ?? ''} onChange={(tag) => set({ tag })}>
        {tags.data?.map((tag) => (
          <option key={tag.id} value={tag.id}>
            {withCount(tag.name, tagged.get(tag.id))}
          </option>
        ))}
      </Choice>
      <Choice label={t`Any list`} value={params.get('list') ?? ''} onChange={(list) => set({ list })}>
        {lists.data?.map((list) => (
          <option key={list.id} value={list.id}>
            {withCount(list.name, listed.get(list.id))}
          </option>
        ))}
      </Choice>
      <Choice
        label={t`Any permission for appeals`}
        value={permission}
        onChange={(value) => set({ channel: value.split(':')[0] ?? '', state: value.split(':')[1] ?? '' })}
      >
        {(['email', 'text'] as const).flatMap((channel) =>
          STATES.map((state) => (
            <option key={`${channel}:${state}`} value={`${channel}:${state}`}>
              {t`${CHANNEL_WORDS[channel]} ${STATE_WORDS[state].toLowerCase()}, for appeals`}
            </option>
          )),
        )}
      </Choice>
    </>
  );
}

/** The filter written as a sentence, with what each of its lines comes to. */
function SpokenFilter({
  tree,
  onChange,
  onClose,
}: {
  tree: Group;
  onChange: (tree: Group) => void;
  onClose: () => void;
}) {
  const subjects = useSubjects(null);
  const count = useQuery({
    ...readingByPost('segments/count', { body: { tree, reach: false } }),
    placeholderData: keepPreviousData,
  });
  const segment = `/sort/segments/new?tree=${encodeURIComponent(JSON.stringify(tree))}`;
  if (!subjects) return <Loading what={t`what a sentence can speak of`} />;
  return (
    <div className="pb-3">
      <Sentence tree={tree} steps={count.data?.steps} subjects={subjects} onChange={onChange} />
      <p className="flex gap-4 pt-1">
        <Link className="link" to={segment}>
          {t`Save as a segment`}
        </Link>
        <button className="link" onClick={onClose}>
          {t`Clear the sentence`}
        </button>
      </p>
      <ProblemNote error={count.error} />
    </div>
  );
}

function Filters({
  search,
  setSearch,
  state,
  params,
  set,
  tree,
  speak,
  filtered,
  everybody,
  fields,
  keep,
  open,
}: {
  search: string;
  setSearch: (next: string) => void;
  state: TableState;
  params: URLSearchParams;
  set: (values: Record<string, string>) => void;
  tree: Rule | null;
  speak: (next: Rule) => void;
  filtered: boolean;
  everybody: () => void;
  fields: FieldView[];
  keep: (columns: Remembered, values: Record<string, string>) => void;
  open: (view: PeopleView) => void;
}) {
  return (
    <div className="flex gap-2 pb-3 flex-wrap">
      <input
        type="search"
        className="input !w-[280px]"
        aria-label={t`Search by name, email or mobile`}
        placeholder={t`Name, email, or last digits of a number`}
        value={search}
        onChange={(event) => setSearch(event.target.value)}
      />
      {!state.spoken && <QuickFilters params={params} set={set} />}
      {!state.spoken && tree && <Button onClick={() => speak(tree)}>{t`As a sentence`}</Button>}
      {filtered && <Button onClick={everybody}>{t`Everybody`}</Button>}
      <span className="grow" />
      <ColumnsMenu
        all={fields}
        chosen={state.fields}
        onChange={(next) => keep({ fields: next }, { fields: next.join(',') })}
      />
      <Views now={state} onOpen={open} />
    </div>
  );
}

function SupportersTable({
  tree,
  filter,
  sort,
  searched,
  shown,
  filtered,
}: {
  tree: Rule | null;
  filter: { [k: string]: string | null };
  sort: TableSort<PeopleColumns['by']>;
  searched: (after?: string) => Promise<Page<SupporterRow>>;
  shown: FieldView[];
  filtered: boolean;
}) {
  return (
    <PeoplePanel
      label={t`Supporters`}
      tree={tree}
      pageKey={[...keyOf('supporters'), filter, tree]}
      {...(tree ? { sort } : { fetch: searched })}
      fields={tree ? shown : []}
      empty={
        filtered ? (
          <Empty title={t`Nobody fits all of that`}>
            <p>
              <Trans>
                Take one of the filters away, or search by the beginning of a name, an email, or four digits
                of a number.
              </Trans>
            </p>
          </Empty>
        ) : (
          <Empty title={t`Nobody is here yet`}>
            <p>{t`Bring a file of people in at Gather.`}</p>
          </Empty>
        )
      }
    />
  );
}

/** The address with these parts in it, or without those that are empty. */
const withSet = (values: Record<string, string>) => (old: URLSearchParams) => {
  const next = new URLSearchParams(old);
  for (const [key, value] of Object.entries(values)) {
    if (value) next.set(key, value);
    else next.delete(key);
  }
  return next;
};

/** How many there are, in one number for whoever looks at the head of the page. */
const useTotal = (filter: Record<string, string | null>, tree: Rule | null) =>
  useQuery({
    queryKey: [...keyOf('supporters'), 'total', filter, tree],
    queryFn: () =>
      tree
        ? api.post('segments/people', { body: { ...AS_IT_COMES, tree, limit: 1 } })
        : api.get('supporters', { ...filter, limit: 1 }),
    placeholderData: keepPreviousData,
  }).data?.total;

/**
 * Everybody, found by name, address or number, and cut down by quick filters or a sentence. The address holds
 * it all.
 */
export default function Supporters() {
  const [params, setParams] = useSearchParams();
  const format = useFormat();
  const fields = useQuery(reading('fields')).data ?? [];
  const batch = useQuery({
    ...reading('batches/{id}', { id: Number(params.get('batch')) }),
    enabled: params.has('batch'),
  });
  const [search, setSearch] = useState(params.get('search') ?? '');
  const set = (values: Record<string, string>) => setParams(withSet(values), { replace: true });
  useEffect(() => {
    const timer = setTimeout(() => search !== (params.get('search') ?? '') && set({ search }), 250);
    return () => clearTimeout(timer);
  });
  const state = tableState(params, remembered(localStorage));
  const keep = (columns: Remembered, values: Record<string, string>) => (
    remember(localStorage, columns),
    set(values)
  );
  const { tree, descending } = state;
  // A field that was deleted since puts nobody in order.
  const gone = typeof state.by === 'number' && fields.length > 0 && !fields.some(({ id }) => id === state.by);
  const by = gone ? 'name' : state.by;
  const filter = Object.fromEntries(FILTERS.map((key) => [key, params.get(key)]));
  const searched = (after?: string) => api.get('supporters', { ...filter, after });
  const total = useTotal(filter, tree);
  const filtered = state.spoken || FILTERS.some((key) => params.has(key));
  const everybody = () => (setSearch(''), setParams({}));
  const open = (view: PeopleView) => {
    setSearch('');
    setParams({
      tree: JSON.stringify(view.tree),
      by: String(view.by),
      ...(view.descending ? { down: '1' } : {}),
      fields: view.fields.join(','),
    });
  };
  const onSort = (next: PeopleColumns['by']) => {
    const down = next === by && !descending;
    keep({ by: next, descending: down }, { by: String(next), down: down ? '1' : '' });
  };
  const sort = { by, descending, onSort };
  const shown = state.fields.flatMap((id) => fields.find((field) => field.id === id) ?? []);
  const speak = (next: Rule) =>
    set({ tree: JSON.stringify(next), tag: '', list: '', batch: '', channel: '', state: '' });
  return (
    <>
      <Heading
        title={t`Supporters`}
        note={
          total === undefined
            ? ''
            : `${format.number(total)} ${plural(total, { one: 'person', other: 'people' })}${batch.data ? t` of the batch ${batch.data.name}` : ''}${params.has('hold') ? t` with an address on hold` : ''}`
        }
      >
        <AddPerson />
      </Heading>
      <SortNav />
      <Filters
        search={search}
        setSearch={setSearch}
        state={state}
        params={params}
        set={set}
        tree={tree}
        speak={speak}
        filtered={filtered}
        everybody={everybody}
        fields={fields}
        keep={keep}
        open={open}
      />
      {state.spoken && tree && (
        <SpokenFilter tree={asTop(tree)} onChange={speak} onClose={() => set({ tree: '' })} />
      )}
      <SupportersTable
        tree={tree}
        filter={filter}
        sort={sort}
        searched={searched}
        shown={shown}
        filtered={filtered}
      />
    </>
  );
}
