import { plural, t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { FeedSourceView, SourceKind } from '@goodword/core/contract';
import { api } from '../app/api';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { TableHead } from '../ui/TableHead';
import { SetupNav } from './SetupNav';

const KIND_WORDS: Record<SourceKind, string> = {
  desk: t`A donor database that answers by HTTP and JSON`,
  address: t`A file at an address`,
};

/** Where a system answers, and its token, which is put in and never shown again. */
function SourceForm({ source, onClose }: { source: FeedSourceView | null; onClose: () => void }) {
  const queryClient = useQueryClient();
  const [kind, setKind] = useState<SourceKind>(source?.kind ?? 'desk');
  const [name, setName] = useState(source?.name ?? '');
  const [url, setUrl] = useState(source?.url ?? '');
  const [token, setToken] = useState('');
  const save = useMutation({
    mutationFn: async (): Promise<unknown> =>
      source
        ? api.put('feed-sources/{id}', {
            id: source.id,
            body: { name, url, ...(token === '' ? {} : { token }), basedOn: source.version },
          })
        : api.post('feed-sources', { body: { name, kind, url, token } }),
    onSuccess: () => (onClose(), void refresh(queryClient, 'feed-sources')),
  });
  return (
    <Drawer open onClose={onClose} title={source ? t`Change “${source.name}”` : t`Add a system`}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!save.isPending) save.mutate();
        }}
      >
        {!source && (
          <Labelled label={t`What it is`}>
            <select
              className="input"
              value={kind}
              onChange={({ target }) => setKind(target.value as SourceKind)}
            >
              {(['desk', 'address'] as const).map((one) => (
                <option key={one} value={one}>
                  {KIND_WORDS[one]}
                </option>
              ))}
            </select>
          </Labelled>
        )}
        <Labelled label={t`What you call it`}>
          <input
            className="input"
            autoFocus
            required
            maxLength={120}
            value={name}
            onChange={({ target }) => setName(target.value)}
          />
        </Labelled>
        <Labelled label={t`Its address`}>
          <input
            className="input"
            type="url"
            required
            maxLength={500}
            placeholder="https://"
            value={url}
            onChange={({ target }) => setUrl(target.value)}
          />
        </Labelled>
        <Labelled
          label={t`Token`}
          hint={
            source?.hasToken
              ? t`One is kept. Leave this empty to keep it.`
              : t`Kept encrypted and never shown again. Leave it empty where none is asked for.`
          }
        >
          <input
            className="input"
            type="password"
            autoComplete="off"
            maxLength={500}
            value={token}
            onChange={({ target }) => setToken(target.value)}
          />
        </Labelled>
        <ProblemNote error={save.error} />
        <Button weight="main" type="submit" className="self-start" disabled={save.isPending}>
          {save.isPending ? t`Asking it…` : t`Ask it, and keep it`}
        </Button>
      </form>
    </Drawer>
  );
}

/** Systems that feeds take from. */
export default function SourcesPage() {
  const mayChange = useMay('owner');
  const queryClient = useQueryClient();
  const { data, error } = useQuery(reading('feed-sources'));
  const [editing, setEditing] = useState<FeedSourceView | 'new' | null>(null);
  const [removing, setRemoving] = useState<FeedSourceView | null>(null);
  if (!data) return error ? <ProblemNote error={error} /> : <Loading what={t`sources`} />;
  return (
    <>
      <Heading title={t`Sources`} note={t`Systems that feeds take from`}>
        {mayChange && <Button weight="main" onClick={() => setEditing('new')}>{t`Add a system`}</Button>}
      </Heading>
      <SetupNav />
      <div className="sheet grow overflow-y-auto" tabIndex={0} role="region" aria-label={t`Sources`}>
        {data.length === 0 ? (
          <Empty title={t`No system yet`}>
            <p>{t`Add your donor database, or the address of a file. Then feeds can take from it.`}</p>
          </Empty>
        ) : (
          <table className="w-full">
            <TableHead titles={[t`Source`, t`Where`, t`Token`, t`Feeds`]} acts={t`Change`} />
            <tbody>
              {data.map((source) => (
                <tr key={source.id} className="border-b border-hair">
                  <td className="px-4 py-2">
                    <b>{source.name}</b>
                    <span className="block text-ink2">{KIND_WORDS[source.kind]}</span>
                  </td>
                  <td className="px-4 font-mono text-[12px]">{source.url}</td>
                  <td className="px-4 text-ink2">{source.hasToken ? t`kept` : t`none`}</td>
                  <td className="px-4 text-ink2">
                    {plural(source.feeds, { one: '# feed', other: '# feeds' })}
                  </td>
                  <td className="px-4 text-right whitespace-nowrap">
                    {mayChange && (
                      <>
                        <Button onClick={() => setEditing(source)}>{t`Change`}</Button>{' '}
                        <Button
                          disabled={source.feeds > 0}
                          onClick={() => setRemoving(source)}
                        >{t`Delete`}</Button>
                      </>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
      {editing !== null && (
        <SourceForm source={editing === 'new' ? null : editing} onClose={() => setEditing(null)} />
      )}
      <Confirm
        open={removing !== null}
        onClose={() => setRemoving(null)}
        title={t`Delete “${removing?.name ?? ''}”?`}
        body={t`Its token goes with it. No feed takes from it.`}
        act={t`Delete it`}
        onAct={() =>
          api
            .delete('feed-sources/{id}', { id: removing!.id })
            .then(() => refresh(queryClient, 'feed-sources'))
        }
      />
    </>
  );
}
