import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { LayoutView } from '@goodword/core/contract';
import type { ColumnChoice } from '@goodword/core/intake';
import { api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { useFormat } from '../app/format';
import { useMay, useSession } from '../app/session';
import { Button, Empty, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { columnWords, KIND_WORDS, offerKey, offersFor } from './columnWords';
import { GatherNav } from './GatherNav';
import { TableHead } from '../ui/TableHead';
import { Unsaved } from '../ui/Unsaved';
import { keyOf, reading } from '../app/reading';

/**
 * What was decided for the columns of each source, kept so that the same file next month needs no matching.
 */
export default function Layouts() {
  const format = useFormat();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const { data, error } = useQuery(reading('layouts'));
  const [editing, setEditing] = useState<number | null>(null);
  const [forgetting, setForgetting] = useState<LayoutView | null>(null);
  const again = () => queryClient.invalidateQueries({ queryKey: keyOf('layouts') });
  if (!data) return error ? <ProblemNote error={error} /> : <Loading what={t`layouts`} />;
  return (
    <>
      <Heading
        title={t`Remembered layouts`}
        note={t`Offered by themselves when a file with the same headers comes again`}
      />
      <GatherNav />
      <div
        className="sheet grow overflow-y-auto"
        tabIndex={0}
        role="region"
        aria-label={t`Remembered layouts`}
      >
        {data.length === 0 ? (
          <Empty title={t`No layout is remembered yet`}>
            <p>{t`Bring in a file: how its columns were matched is remembered by itself.`}</p>
          </Empty>
        ) : (
          <table className="w-full">
            <TableHead titles={[t`Layout`, t`For`, t`Headers`, t`Last used`]} acts={t`Change`} />
            <tbody>
              {data.map((layout) => (
                <tr key={layout.id} className="border-b border-hair">
                  <td className="px-4 py-2 font-semibold">{layout.name}</td>
                  <td className="px-4 text-ink2">{KIND_WORDS[layout.what][0]}</td>
                  <td
                    className="px-4 font-mono text-[12px] max-w-[380px] truncate"
                    title={layout.header.join(', ')}
                  >
                    {layout.header.join(', ')}
                  </td>
                  <td className="px-4 text-ink2">
                    {format.moment(layout.usedAt)}
                    {layout.madeBy ? `, ${layout.madeBy}` : ''}
                  </td>
                  <td className="px-4 text-right whitespace-nowrap">
                    {may && (
                      <>
                        <Button onClick={() => setEditing(layout.id)}>{t`Change`}</Button>{' '}
                        <Button onClick={() => setForgetting(layout)}>{t`Forget`}</Button>
                      </>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
      {data.some(({ id }) => id === editing) && (
        <EditLayout
          layout={data.find(({ id }) => id === editing)!}
          onClose={() => (setEditing(null), void again())}
        />
      )}
      <Confirm
        open={forgetting !== null}
        onClose={() => setForgetting(null)}
        title={t`Forget “${forgetting?.name ?? ''}”?`}
        act={t`Forget it`}
        onAct={() => api.delete('layouts/{id}', { id: forgetting!.id }).then(again)}
        body={
          <p>
            <Trans>
              The batches that used it stay as they are. The next file with these headers is matched by a
              guess again.
            </Trans>
          </p>
        }
      />
    </>
  );
}

function EditLayout({ layout, onClose }: { layout: LayoutView; onClose: () => void }) {
  const { organization } = useSession();
  const fields = useQuery(reading('fields'));
  const queryClient = useQueryClient();
  const draft = useDrafting(`layout:${layout.id}`, {
    value: { name: layout.name, columns: layout.columns },
    version: layout.version,
  });
  const { name, columns } = draft.value;
  const setName = (next: string) => draft.set({ name: next, columns });
  const setColumns = (next: ColumnChoice[]) => draft.set({ name, columns: next });
  const save = useMutation({
    mutationFn: (sent: typeof draft.value) =>
      api.put('layouts/{id}', {
        id: layout.id,
        body: { ...sent, name: sent.name.trim(), basedOn: draft.basedOn },
      }),
    onSuccess: (_none, sent) => (draft.saved(sent), onClose()),
    // Somebody was quicker: what they saved is fetched, and both are shown.
    onError: () => queryClient.invalidateQueries({ queryKey: keyOf('layouts') }),
  });
  if (!fields.data) return null;
  const offers = offersFor('', fields.data, layout.what).known.flatMap(([, some]) => some);
  return (
    <Drawer open onClose={onClose} title={t`Change the layout`}>
      <form
        className="flex flex-col gap-3 min-h-0"
        onSubmit={(event) => (event.preventDefault(), save.mutate(draft.value))}
      >
        <Labelled label={t`Name`}>
          <input
            className="input"
            value={name}
            maxLength={120}
            onChange={(event) => setName(event.target.value)}
          />
        </Labelled>
        <div className="overflow-y-auto min-h-0 flex flex-col gap-2">
          {layout.header.map((header, i) => (
            <label key={i} className="grid grid-cols-2 gap-3 items-center">
              <span className="font-mono text-[12px] truncate">{header}</span>
              <select
                className="input"
                aria-label={t`Column ${header}`}
                value={offerKey(columns[i]!)}
                onChange={(event) => {
                  const offer = offers.find((one) => one.key === event.target.value);
                  setColumns(columns.map((old, at) => (at === i ? (offer?.choice ?? { to: 'leave' }) : old)));
                }}
              >
                <option value="leave">{t`Leave out`}</option>
                {columns[i]!.to === 'newField' && (
                  <option value="newField">
                    {columnWords(columns[i]!, fields.data, organization.country)[0]}
                  </option>
                )}
                {offers.map((offer) => (
                  <option key={offer.key} value={offer.key}>
                    {offer.words}
                  </option>
                ))}
              </select>
            </label>
          ))}
        </div>
        <Unsaved draft={draft} what={t`this layout`} />
        {draft.theirs === null && <ProblemNote error={save.error} />}
        <Button
          weight="main"
          type="submit"
          className="self-start"
          disabled={name.trim() === '' || save.isPending}
        >
          {t`Save`}
        </Button>
      </form>
    </Drawer>
  );
}
