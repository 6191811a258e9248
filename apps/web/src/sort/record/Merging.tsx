import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { MergePreview, RecordView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { refresh } from '../../app/refresh';
import { Button, Loading, ProblemNote } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';
import { PersonPicker } from '../../ui/PersonPicker';
import { personName } from '../../ui/people';
import { reading } from '../../app/reading';

type Choice = 'kept' | 'gone';

function SideBySide({
  preview,
  chosen,
  choose,
}: {
  preview: MergePreview;
  chosen: (key: string) => Choice;
  choose: (key: string, side: Choice) => void;
}) {
  const format = useFormat();
  const head = (side: MergePreview['kept']) => (
    <th className="text-left py-2 pr-3 font-normal" scope="col">
      <b>{side.name}</b>
      <span className="block text-ink2 text-[12.5px]">
        <Trans>with us since {format.day(side.since)}</Trans>
      </span>
    </th>
  );
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-ink align-bottom">
          <th className="w-[130px]" />
          {head(preview.kept)}
          {head(preview.gone)}
        </tr>
      </thead>
      <tbody>
        {preview.lines.map((line) => (
          <tr key={line.key} className="border-b border-hair align-top">
            <th className="text-left font-normal text-ink2 py-2 pr-2">{line.label}</th>
            {(['kept', 'gone'] as const).map((side) => (
              <td key={side} className="py-2 pr-3">
                {line.kept === line.gone ? (
                  line[side]
                ) : (
                  <label className="flex gap-2 items-start">
                    <input
                      type="radio"
                      className="mt-1 accent-[#0F766B]"
                      name={line.key}
                      checked={chosen(line.key) === side}
                      onChange={() => choose(line.key, side)}
                      aria-label={`${line.label}: ${line[side] || t`nothing`}`}
                    />
                    <span className={chosen(line.key) === side ? 'font-semibold' : 'text-ink2'}>
                      {line[side] || t`nothing`}
                    </span>
                  </label>
                )}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Choosing({ record, other, onDone }: { record: RecordView; other: number; onDone: () => void }) {
  const queryClient = useQueryClient();
  const [keep, setKeep] = useState<Record<string, Choice>>({});
  const { data: preview, error } = useQuery({
    ...reading('supporters/{id}/merging', { id: record.id, withId: other }),
    staleTime: 0,
  });
  const merge = useMutation({
    mutationFn: () => api.post('supporters/{id}/merging', { id: record.id, body: { goneId: other, keep } }),
    onSuccess: () => (void refresh(queryClient, 'supporters'), onDone()),
  });
  if (error) return <ProblemNote error={error} />;
  if (!preview) return <Loading what={t`both records`} />;
  const chosen = (key: string): Choice => keep[key] ?? preview.lines.find((line) => line.key === key)!.usual;
  return (
    <div className="sheet p-5 flex flex-col gap-4 overflow-y-auto">
      <p className="text-ink2">
        <Trans>
          Where the two differ, choose what stays.{' '}
          {preview.comesOver.length > 0 && t`What comes over: ${preview.comesOver.join(', ')}.`} What they
          agreed to and refused stays as it is, at each address.
        </Trans>
      </p>
      <SideBySide
        preview={preview}
        chosen={chosen}
        choose={(key, side) => setKeep({ ...keep, [key]: side })}
      />
      <ProblemNote error={merge.error} />
      <p className="text-ink2">{t`They can be parted again later, on this record.`}</p>
      <Button weight="main" className="self-start" disabled={merge.isPending} onClick={() => merge.mutate()}>
        <Trans>Bring the record of {preview.gone.name} into this one</Trans>
      </Button>
    </div>
  );
}

/** Two records of one person become one: first who, then what stays. */
export function Merging({
  record,
  open,
  onClose,
}: {
  record: RecordView;
  open: boolean;
  onClose: () => void;
}) {
  const [other, setOther] = useState<number | null>(null);
  const close = () => (setOther(null), onClose());
  return (
    <Drawer
      open={open}
      onClose={close}
      wide
      title={t`Merge with…`}
      note={t`${personName(record)} stays; the other record goes`}
    >
      {other === null ? (
        <PersonPicker
          label={t`The other record of this person`}
          without={record.id}
          onPick={({ id }) => setOther(id)}
        />
      ) : (
        <Choosing record={record} other={other} onDone={close} />
      )}
    </Drawer>
  );
}
