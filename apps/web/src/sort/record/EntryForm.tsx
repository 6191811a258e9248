import type { UseFormRegister, Control, UseFormWatch } from 'react-hook-form';
import type { AddEntryBody } from '@goodword/core/contract';
import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { Controller, useForm } from 'react-hook-form';
import type { RecordView } from '@goodword/core/contract';
import { PURPOSES, type Channel, type CollectionMethod } from '@goodword/core/permission';
import { CHANNEL_WORDS, ENTRY_WORDS, COLLECTION_METHOD_WORDS } from '@goodword/core/words';
import { ProblemError, api } from '../../app/api';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { useTyped } from '../../app/drafting';
import { refresh } from '../../app/refresh';
import { channelsFor, HAND_STATES, kept, roadsFor, type HandState } from './entry';
import { localDay } from '../../app/day';
import { useLists } from '../../app/groups';
import { DayField } from '../../ui/DayField';

/** What is typed of an entry, as its inputs have it. */
interface TypedEntry {
  contactPointId: number;
  channel: string;
  scope: string;
  state: string;
  how: string;
  on: string;
  words: string;
  until: string;
  sheet: FileList | undefined;
}

/** What they said, of what, by which way and when. */
function EntryInputs({
  register,
  state,
  record,
  channels,
  roads,
  control,
}: {
  register: UseFormRegister<TypedEntry>;
  state: HandState;
  record: RecordView;
  channels: readonly Channel[];
  roads: readonly CollectionMethod[];
  control: Control<TypedEntry>;
}) {
  const lists = useLists();
  return (
    <div className="grid grid-cols-2 gap-3">
      <Labelled label={t`They said`}>
        <select className="input" {...register('state')}>
          {HAND_STATES.map((one) => (
            <option key={one} value={one}>
              {ENTRY_WORDS[one]}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label={t`To`}>
        {state === 'pause' ? (
          <input className="input" disabled value="everything" readOnly />
        ) : (
          <select className="input" {...register('scope')}>
            <option value="all">{t`everything`}</option>
            <option value="marketing">{t`everything but service`}</option>
            {PURPOSES.map((purpose) => (
              <option key={purpose} value={purpose}>
                {purpose}
              </option>
            ))}
            {lists.data
              ?.filter((list) => list.isPublic)
              .map((list) => (
                <option key={list.id} value={`list:${list.id}`}>
                  {list.name}
                </option>
              ))}
          </select>
        )}
      </Labelled>
      <Labelled label={t`At`}>
        <select className="input" {...register('contactPointId')}>
          {record.contactPoints.map((one) => (
            <option key={one.id} value={one.id}>
              {one.shown}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label={t`By`}>
        <select className="input" {...register('channel')}>
          {channels.map((one) => (
            <option key={one} value={one}>
              {CHANNEL_WORDS[one]}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label={t`How`}>
        <select className="input" {...register('how')}>
          {roads.map((road) => (
            <option key={road} value={road}>
              {COLLECTION_METHOD_WORDS[road]}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label={t`On`}>
        <Controller
          control={control}
          name="on"
          render={({ field: { value, onChange } }) => (
            <DayField required max={localDay()} value={value} onChange={onChange} />
          )}
        />
      </Labelled>
    </div>
  );
}

/** Tells of everything that is typed, so that it is there again after a reload; a file is chosen anew. */
function useKeptWhileTyped(watch: UseFormWatch<TypedEntry>, tell: (values: Partial<TypedEntry>) => void) {
  const latest = useRef(tell);
  latest.current = tell;
  useEffect(() => {
    const kept = watch(({ sheet: _file, ...values }) => latest.current(values));
    return () => kept.unsubscribe();
  }, [watch]);
}

/** One person's word, recorded by hand: dated, with how and in what words. */
export function EntryForm({ record, onDone }: { record: RecordView; onDone: () => void }) {
  const queryClient = useQueryClient();
  const first = record.contactPoints[0]!;
  const typed = useTyped(`entry:${record.id}`, {
    contactPointId: first.id,
    channel: first.kind === 'email' ? 'email' : 'text',
    scope: 'appeals',
    state: 'yes',
    how: 'phone',
    on: localDay(),
    words: '',
    until: '',
  });
  const { register, control, handleSubmit, watch } = useForm<TypedEntry>({
    defaultValues: {
      ...typed.value,
      // The address that it was begun for may be gone.
      contactPointId: record.contactPoints.some(({ id }) => id === Number(typed.value.contactPointId))
        ? typed.value.contactPointId
        : first.id,
      sheet: undefined as FileList | undefined,
    },
  });
  useKeptWhileTyped(watch, (values) => typed.set({ ...typed.value, ...values }));
  const save = useMutation({
    mutationFn: async ({ sheet, ...body }: AddEntryBody & { sheet?: File }) => {
      const evidence = sheet ? { evidenceId: await keepSheet(record.id, sheet) } : {};
      await api.post('supporters/{id}/permission', { id: record.id, body: { ...body, ...evidence } });
    },
    onSuccess: () => (typed.discard(), void refresh(queryClient, 'supporters'), onDone()),
  });
  const point = record.contactPoints.find((one) => one.id === Number(watch('contactPointId')));
  const state = watch('state') as HandState;
  const channels = channelsFor(point?.kind ?? 'email', state);
  const roads = roadsFor(state);
  const submit = handleSubmit(({ until, sheet, ...values }) =>
    save.mutate({
      ...values,
      // A pause holds everything on the channel.
      scope: state === 'pause' ? 'all' : values.scope,
      contactPointId: Number(values.contactPointId),
      channel: kept(values.channel, channels),
      how: kept(values.how, roads),
      ...(state === 'pause' ? { until } : {}),
      ...(sheet?.[0] ? { sheet: sheet[0] } : {}),
    } as AddEntryBody & { sheet?: File }),
  );
  return (
    <form className="sheet p-5 flex flex-col gap-4" onSubmit={(event) => void submit(event)}>
      <EntryInputs
        register={register}
        state={state}
        record={record}
        channels={channels}
        roads={roads}
        control={control}
      />
      {state === 'pause' && (
        <Labelled
          label={t`Until the end of`}
          fault={save.error instanceof ProblemError ? save.error.of('until') : null}
        >
          <Controller
            control={control}
            name="until"
            render={({ field: { value, onChange } }) => (
              <DayField required value={value ?? ''} onChange={onChange} />
            )}
          />
        </Labelled>
      )}
      <Labelled
        label={t`In what words`}
        fault={save.error instanceof ProblemError ? save.error.of('words') : null}
      >
        <textarea className="input min-h-[70px]" {...register('words')} />
      </Labelled>
      <Labelled label={t`The sheet they signed`} hint={t`A picture or a PDF, at most 10 MB`}>
        <input type="file" className="input" accept="image/*,application/pdf" {...register('sheet')} />
      </Labelled>
      <ProblemNote error={save.error} />
      <Button type="submit" weight="main" className="self-start" disabled={save.isPending}>
        {t`Add the entry`}
      </Button>
    </form>
  );
}

async function keepSheet(supporterId: number, sheet: File): Promise<number> {
  const form = new FormData();
  form.append('file', sheet);
  return (await api.post('supporters/{id}/evidence', { id: supporterId, files: form })).id;
}
