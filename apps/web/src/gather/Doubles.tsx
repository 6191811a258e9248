import { plural, t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { BatchView, DecideRowsBody } from '@goodword/core/contract';
import { type DoubtKind } from '@goodword/core/intake';
import { DOUBT_WORDS } from '@goodword/core/words';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { anew, reading } from '../app/reading';

/** Rows that may be somebody who is here: settled all of a kind in one stroke, or one by one side by side. */
export function Doubles({
  batch,
  start,
  onStart,
}: {
  batch: BatchView;
  start: string | null;
  onStart: (why: string | null) => void;
}) {
  const format = useFormat();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const settle = useMutation({
    mutationFn: (decision: Decision) =>
      api.post('batches/{id}/decisions', { id: batch.id, body: { keep: [], ...decision } }),
    onSettled: () => refresh(queryClient, 'batches'),
  });
  return (
    <section className="sheet p-5" aria-labelledby="looks-title">
      <h2 className="subtitle pb-2" id="looks-title">
        {t`Perhaps people who are here`}
      </h2>
      <ul>
        {(Object.entries(batch.looks) as [DoubtKind, number][]).map(([why, count]) => (
          <li key={why} className="flex items-center gap-3 border-t border-hair py-[9px]">
            <span className="grow">
              <b>{DOUBT_WORDS[why]}</b>{' '}
              <span className="text-ink2">
                {format.number(count)} {plural(count, { one: 'row', other: 'rows' })}
              </span>
            </span>
            {may && (
              <>
                <Button onClick={() => onStart(why)}>
                  <Trans>
                    Look at <Plural value={count} one="it" other="each" />
                  </Trans>
                </Button>
                <Button disabled={settle.isPending} onClick={() => settle.mutate({ why, as: 'merge' })}>
                  <Trans>
                    Merge <Plural value={count} one="it" other="all" />
                  </Trans>
                </Button>
                <Button disabled={settle.isPending} onClick={() => settle.mutate({ why, as: 'new' })}>
                  <Trans>
                    Keep <Plural value={count} one="both" other="all apart" />
                  </Trans>
                </Button>
                <Button disabled={settle.isPending} onClick={() => settle.mutate({ why, as: 'skip' })}>
                  <Trans>
                    Skip <Plural value={count} one="it" other="all" />
                  </Trans>
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
      <ProblemNote error={settle.error} />
      {start && (
        <OneByOne
          batch={batch}
          why={start === 'all' ? null : (start as DoubtKind)}
          onClose={() => onStart(null)}
        />
      )}
    </section>
  );
}

/** What is decided; all fields are taken from the row where nothing is said of them. */
type Decision = Omit<DecideRowsBody, 'keep'> & { keep?: string[] };

function OneByOne({ batch, why, onClose }: { batch: BatchView; why: DoubtKind | null; onClose: () => void }) {
  const queryClient = useQueryClient();
  const [settled, setSettled] = useState<number[]>([]);
  const next = useQuery(
    anew(reading('batches/{id}/rows', { id: batch.id, verdict: 'look', why, limit: 1 }), settled.length),
  );
  const row = next.data?.rows[0];
  const close = () => (refresh(queryClient, 'batches'), onClose());
  const settle = useMutation({
    mutationFn: (decision: Decision) =>
      api.post('batches/{id}/decisions', {
        id: batch.id,
        body: { rows: [row!.row], keep: [], ...decision },
      }),
    onSuccess: () => setSettled([...settled, row!.row]),
  });
  const undo = useMutation({
    mutationFn: () => api.delete('batches/{id}/rows/{row}/decision', { id: batch.id, row: settled.at(-1)! }),
    onSuccess: () => setSettled(settled.slice(0, -1)),
  });
  return (
    <Drawer
      open
      wide
      onClose={close}
      title={t`Is it the same person?`}
      note={t`${next.data?.total ?? 0} to settle${settled.length > 0 ? t`, ${settled.length} settled` : ''}`}
    >
      {settled.length > 0 && (
        <p className="pb-2">
          <button className="link" disabled={undo.isPending} onClick={() => undo.mutate()}>
            <Trans>Undo the last one, row {settled.at(-1)}</Trans>
          </button>
        </p>
      )}
      <ProblemNote error={settle.error ?? undo.error} />
      {next.isPending ? (
        <Loading what={t`the next row`} />
      ) : row ? (
        <SideBySide
          key={row.row}
          batchId={batch.id}
          row={row.row}
          busy={settle.isPending}
          onSettle={settle.mutate}
        />
      ) : (
        <p>{t`All of them are settled.`}</p>
      )}
    </Drawer>
  );
}

/** The row and the person beside each other; which fields stay is chosen. */
function FieldsBeside({
  row,
  person,
  fields,
  keep,
  toggle,
}: {
  row: number;
  person: {
    id: number;
    score: number;
    reasons: string[];
    name: string;
    supporterId: number | null;
    rowNo: number | null;
  };
  fields: { key: string; name: string; row: string; theirs: { [key: string]: string } }[];
  keep: string[];
  toggle: (key: string) => void;
}) {
  return (
    <div className="sheet overflow-y-auto min-h-0" tabIndex={0} role="region" aria-label={t`Field by field`}>
      <table className="w-full">
        <thead>
          <tr className="text-left text-[13px] text-ink2 border-b border-ink">
            <th className="px-3 py-2 font-normal">{t`Field`}</th>
            <th className="px-3 font-normal">
              <Trans>Row {row}</Trans>
            </th>
            <th className="px-3 font-normal">
              {person.supporterId ? t`${person.name}, here already` : t`Row ${person.rowNo!}`}
            </th>
            <th className="px-3 font-normal">{t`When merged`}</th>
          </tr>
        </thead>
        <tbody>
          {fields
            .filter((field) => field.row !== '' || (field.theirs[person.id] ?? '') !== '')
            .map((field) => {
              const theirs = field.theirs[person.id] ?? '';
              const differs = field.row !== '' && theirs !== '' && field.row !== theirs;
              const added = field.key === 'email' || field.key === 'mobile';
              return (
                <tr key={field.key} className="border-b border-hair align-top">
                  <td className="px-3 py-2 text-ink2">{field.name}</td>
                  <td className={`px-3 ${differs ? 'font-semibold' : ''}`}>{field.row}</td>
                  <td className={`px-3 ${differs ? 'font-semibold' : ''}`}>{theirs}</td>
                  <td className="px-3">
                    {differs && (
                      <label className="flex gap-2 items-center py-2">
                        <input
                          type="checkbox"
                          className="accent-[#0F766B]"
                          checked={!keep.includes(field.key)}
                          onChange={() => toggle(field.key)}
                        />
                        {added ? t`add the row’s` : t`take the row’s`}
                      </label>
                    )}
                  </td>
                </tr>
              );
            })}
        </tbody>
      </table>
    </div>
  );
}

/** The row beside each person it may be, field by field; for a merge each field can stay theirs. */
function SideBySide({
  batchId,
  row,
  busy,
  onSettle,
}: {
  batchId: number;
  row: number;
  busy: boolean;
  onSettle: (decision: Decision) => void;
}) {
  const look = useQuery(reading('batches/{id}/rows/{row}', { id: batchId, row }));
  const [chosen, setChosen] = useState(0);
  const [keep, setKeep] = useState<string[]>([]);
  if (look.error) return <ProblemNote error={look.error} />;
  if (!look.data) return <Loading what={t`the row`} />;
  const { people, fields, why } = look.data;
  const person = people[chosen];
  if (!person) return <p>{t`Nobody is left whom it could be.`}</p>;
  const toggle = (key: string) =>
    setKeep(keep.includes(key) ? keep.filter((one) => one !== key) : [...keep, key]);
  return (
    <div className="flex flex-col gap-3 min-h-0 grow">
      {why && <p className="text-ink2">{DOUBT_WORDS[why]}</p>}
      {people.length > 1 && (
        <div role="radiogroup" aria-label={t`Who it may be`} className="flex flex-wrap gap-2">
          {people.map((one, i) => (
            <label
              key={one.id}
              className={`rounded-paper border px-3 py-1 cursor-pointer ${i === chosen ? 'bg-ink text-white border-ink' : 'border-[#8b989d]'}`}
            >
              <input
                type="radio"
                className="sr-only"
                name="who"
                checked={i === chosen}
                onChange={() => (setChosen(i), setKeep([]))}
              />
              {one.name}, {one.score}
            </label>
          ))}
        </div>
      )}
      <p>
        <b>
          <Trans>{person.score} of 100:</Trans>
        </b>{' '}
        {person.reasons.join(', ')}.
      </p>
      <FieldsBeside row={row} person={person} fields={fields} keep={keep} toggle={toggle} />
      <div className="flex gap-2">
        <Button
          weight="main"
          disabled={busy}
          onClick={() => onSettle({ as: 'merge', supporterId: person.id, keep })}
        >
          {t`The same: merge`}
        </Button>
        <Button disabled={busy} onClick={() => onSettle({ as: 'new' })}>
          {t`Two people: keep both`}
        </Button>
        <Button disabled={busy} onClick={() => onSettle({ as: 'skip' })}>
          {t`Skip the row`}
        </Button>
      </div>
    </div>
  );
}
