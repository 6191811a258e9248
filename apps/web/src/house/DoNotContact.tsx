import type { UseInfiniteQueryResult, InfiniteData } from '@tanstack/react-query';
import { keyOf } from '../app/reading';
import { t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { DncRow } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { useTyped } from '../app/drafting';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { HouseNav } from './HouseNav';
import { TableHead } from '../ui/TableHead';

const KINDS: Record<DncRow['kind'], string> = {
  email: t`Address`,
  mobile: t`Number`,
  domain: t`Domain`,
  range: t`Numbers`,
};
const HOW: Record<string, string> = {
  hand: t`by hand`,
  file: t`by file`,
  complaint: t`by a complaint`,
  erasure: t`kept after erasure`,
};

function DncTable({
  pages,
  total,
  search,
  rows,
  mayRemove,
  setRemoving,
}: {
  pages: UseInfiniteQueryResult<
    InfiniteData<{ rows: DncRow[]; next: string | null; total: number }, unknown>,
    Error
  >;
  total: number | undefined;
  search: string;
  rows: DncRow[] | undefined;
  mayRemove: boolean;
  setRemoving: (next: DncRow | null) => void;
}) {
  const format = useFormat();
  return (
    <div className="sheet grow overflow-y-auto" tabIndex={0} role="region" aria-label={t`Do not contact`}>
      {pages.isPending ? (
        <Loading what={t`the list`} />
      ) : total === 0 ? (
        <Empty title={search ? t`Nothing like it is on the list` : t`Nothing is on the list`}>
          <p>
            <Trans>
              Who says no stands in the ledger. This list is for what must stay closed whoever asks: a
              complaint, a whole domain, a range of numbers.
            </Trans>
          </p>
        </Empty>
      ) : (
        <table className="w-full">
          <TableHead titles={[t`What`, t`Kind`, t`How`, t`Note`, t`Since`]} acts={t`Change`} />
          <tbody>
            {rows?.map((row) => (
              <tr key={row.id} className="border-b border-hair">
                <td className="px-4 py-2 font-semibold">
                  {row.shown ?? (
                    <span className="text-ink2 font-normal">{t`only its keyed hash is left`}</span>
                  )}
                </td>
                <td className="px-4">{KINDS[row.kind]}</td>
                <td className="px-4">{HOW[row.how] ?? row.how}</td>
                <td className="px-4 text-ink2">{row.note}</td>
                <td className="px-4 text-ink2">
                  {format.day(row.at)}
                  {row.by && `, ${row.by}`}
                </td>
                <td className="px-4 text-right">
                  {mayRemove && (
                    <button
                      className="link"
                      aria-label={t`Remove ${row.shown ?? t`the entry`}`}
                      onClick={() => setRemoving(row)}
                    >
                      {t`Remove`}
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {pages.hasNextPage && (
        <div className="p-3">
          <Button onClick={() => void pages.fetchNextPage()}>
            <Trans>Show more of {format.number(total ?? 0)}</Trans>
          </Button>
        </div>
      )}
    </div>
  );
}

/** What is never written to, whoever brings it in again. */
export default function DoNotContact() {
  const queryClient = useQueryClient();
  const [search, setSearch] = useState('');
  const [adding, setAdding] = useState(false);
  const [removing, setRemoving] = useState<DncRow | null>(null);
  const [mayAdd, mayRemove] = [useMay('organizer'), useMay('owner')];
  const pages = useInfiniteQuery({
    queryKey: [...keyOf('do-not-contact'), search],
    queryFn: ({ pageParam }) => api.get('do-not-contact', { search, after: pageParam, limit: 100 }),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
  });
  const rows = pages.data?.pages.flatMap((page) => page.rows);
  const total = pages.data?.pages[0]?.total;
  return (
    <>
      <Heading
        title={t`House rules`}
        page={t`Do not contact`}
        note={t`Addresses, domains and numbers that are never written to`}
      >
        {mayAdd && (
          <Button weight="main" onClick={() => setAdding(true)}>
            {t`Add to it`}
          </Button>
        )}
      </Heading>
      <HouseNav />
      <input
        className="input !w-[320px] mb-3"
        aria-label={t`Search do-not-contact`}
        placeholder={t`Address, domain, number or note`}
        value={search}
        onChange={(event) => setSearch(event.target.value)}
      />
      <ProblemNote error={pages.error} />
      <DncTable
        pages={pages}
        total={total}
        search={search}
        rows={rows}
        mayRemove={mayRemove}
        setRemoving={setRemoving}
      />
      <Drawer
        open={adding}
        onClose={() => setAdding(false)}
        title={t`Never write to`}
        note={t`One a line, or a file with the address in its first column`}
      >
        <Adding />
      </Drawer>
      {removing && (
        <Confirm
          open
          onClose={() => setRemoving(null)}
          title={t`Remove ${removing.shown ?? t`it`} from the list?`}
          body={
            <p>
              <Trans>
                Addresses that nothing else closes are open again. What people said in the ledger stays as it
                is.
              </Trans>
            </p>
          }
          act={t`Remove it`}
          onAct={async () => (
            await api.delete('do-not-contact/{id}', { id: removing.id }),
            void refresh(queryClient, 'do-not-contact')
          )}
        />
      )}
    </>
  );
}

function Adding() {
  const queryClient = useQueryClient();
  const draft = useTyped('do-not-contact', { lines: '', note: '' });
  const { lines, note } = draft.value;
  const file = useRef<HTMLInputElement>(null);
  const add = useMutation({
    mutationFn: (from: File | null) => {
      if (!from) return api.post('do-not-contact', { body: { lines, note } });
      const form = new FormData();
      form.append('file', from);
      return api.post('do-not-contact/file', { files: form });
    },
    onSuccess: (_added, from) => {
      if (!from) draft.saved({ lines, note });
      return refresh(queryClient, 'do-not-contact');
    },
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-4 overflow-y-auto"
      onSubmit={(event) => (event.preventDefault(), add.mutate(null))}
    >
      <Labelled
        label={t`Addresses, domains, numbers, ranges`}
        hint={t`someone@example.org, @example.net, +1 206 555 0100, +12065550100 - +12065550149`}
      >
        <textarea
          className="input font-mono min-h-[150px]"
          autoFocus
          value={lines}
          onChange={(event) => draft.set({ lines: event.target.value, note })}
        />
      </Labelled>
      <Labelled label={t`Why`}>
        <input
          className="input"
          maxLength={300}
          value={note}
          onChange={(event) => draft.set({ lines, note: event.target.value })}
        />
      </Labelled>
      <ProblemNote error={add.error} />
      {add.data && (
        <div role="status" className="border-l-[3px] border-verdigris pl-3">
          <p>
            <Trans>
              {add.data.added} added, {add.data.already} there already; {add.data.closed}{' '}
              <Plural value={add.data.closed} one="address" other="addresses" /> on file closed.
            </Trans>
          </p>
          {add.data.refused.map((one) => (
            <p key={one.line} className="text-madder">
              <Trans>
                Line {one.line}, “{one.text}”: {one.reason}.
              </Trans>
            </p>
          ))}
        </div>
      )}
      <div className="flex gap-2">
        <Button type="submit" weight="main" disabled={lines.trim() === '' || add.isPending}>
          {t`Add them`}
        </Button>
        <Button onClick={() => file.current?.click()}>{t`Take a file`}</Button>
        <input
          ref={file}
          type="file"
          hidden
          accept=".csv,.txt,text/csv,text/plain"
          aria-label={t`File of addresses`}
          onChange={(event) => event.target.files?.[0] && add.mutate(event.target.files[0])}
        />
      </div>
    </form>
  );
}
