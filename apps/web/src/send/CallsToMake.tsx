import { plural, t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { MessageView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Loading, ProblemNote } from '../ui/basics';
import { Confirm } from '../ui/dialogs';

/** The end of the calls before everybody was reached, or before anybody was. */
function Ending({ message, waiting }: { message: MessageView; waiting: number }) {
  const queryClient = useQueryClient();
  const [asking, setAsking] = useState<'over' | 'stop' | null>(null);
  const over = useMutation({
    mutationFn: () => api.post('messages/{id}/calls/over', { id: message.id }),
    onSettled: () => refresh(queryClient, 'messages'),
  });
  return (
    <>
      <div className="flex flex-wrap gap-3">
        <Button weight="main" onClick={() => setAsking('over')}>{t`The calls are over`}</Button>
        <Button onClick={() => setAsking('stop')}>{t`They will not be called`}</Button>
      </div>
      <p className="text-ink2">{t`Only who was spoken with counts as called, on records and in results.`}</p>
      <ProblemNote error={over.error} />
      <Confirm
        open={asking === 'over'}
        onClose={() => setAsking(null)}
        title={t`The calls of “${message.name}” are over?`}
        act={t`They are over`}
        body={
          <p>
            {plural(waiting, {
              one: 'One person was not reached, and counts as not called.',
              other: '# people were not reached, and count as not called.',
            })}
          </p>
        }
        onAct={async () => over.mutateAsync()}
      />
      <Confirm
        open={asking === 'stop'}
        onClose={() => setAsking(null)}
        title={t`Stop “${message.name}”?`}
        act={t`Stop it`}
        body={<p>{t`Who was not called yet is not called for it. Its lists take no answers any more.`}</p>}
        onAct={async () => (
          await api.post('messages/{id}/stop', { id: message.id }),
          void refresh(queryClient, 'messages')
        )}
      />
    </>
  );
}

/** Calls of a step: its lists, how far each is, and the word that they are over. */
export function CallsToMake({ message }: { message: MessageView }) {
  const format = useFormat();
  const may = useMay('organizer');
  const open = message.state === 'calling' || message.state === 'preparing';
  const { data, error } = useQuery({
    ...reading('messages/{id}/calls', { id: message.id }),
    refetchInterval: (read) => (open ? (read.state.data?.lists.length ? 10_000 : 1_000) : false),
  });
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the lists to call`} />;
  return (
    <>
      <p role="status">
        {message.state === 'stopped' ? (
          t`It was stopped: who was not called yet counts as not called.`
        ) : message.state === 'done' ? (
          t`The calls are over.`
        ) : data.lists.length === 0 ? (
          t`The list to call is being made…`
        ) : (
          <Plural
            value={data.waiting}
            one="One person is still to be called."
            other="# people are still to be called."
          />
        )}
      </p>
      <ul className="w-full">
        {data.lists.map(({ id, name, people, called, again, suppressed }) => (
          <li key={id} className="border-t border-hair py-2 flex flex-wrap gap-x-4 items-baseline">
            {may ? (
              <Link className="link font-semibold grow" to={`/sort/calls/${id}`}>
                {name}
              </Link>
            ) : (
              <span className="font-semibold grow">{name}</span>
            )}
            <span className="text-ink2">
              <Trans>
                {format.number(called)} of {format.number(people - suppressed)} called
              </Trans>
              {again > 0 && t`, ${format.number(again)} to be called again`}
            </span>
          </li>
        ))}
      </ul>
      {message.state === 'calling' && data.lists.length > 0 && may && (
        <Ending message={message} waiting={data.waiting} />
      )}
    </>
  );
}
