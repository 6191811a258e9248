import { t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { MessageView } from '@goodword/core/contract';
import { goStanding, mayGo, type GoAct, type GoStanding } from '@goodword/core/team';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { keyOf, reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useSession } from '../app/session';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';

const ACTS: Record<GoAct, { words: string; note: string | null }> = {
  ask: { words: t`Hand over for a go`, note: t`What should be looked at` },
  withdraw: { words: t`Take that back`, note: null },
  agree: { words: t`Agree to these words`, note: null },
  back: { words: t`Send back…`, note: t`What should be different` },
};

/** How it stands, with who said so. */
function standingWords(
  standing: GoStanding,
  by: string,
  when: string,
  version: number,
): { words: string; isGood: boolean } | null {
  switch (standing) {
    case 'none':
      return null;
    case 'asked':
      return { words: t`Waits for a go: ${by} handed it over, ${when}`, isGood: false };
    case 'back':
      return { words: t`Sent back by ${by}, ${when}`, isGood: false };
    case 'agreed':
      return { words: t`${by} agreed to these words, ${when}`, isGood: true };
    case 'changed':
      return { words: t`Changed since ${by} agreed to version ${version}, ${when}`, isGood: false };
  }
}

/**
 * A draft that somebody else should read before it leaves: how it stands, and what can be done about it.
 * Until somebody hands it over it is one button for whoever can't send it themselves.
 */
export function GoLine({ message, flush }: { message: MessageView; flush: () => Promise<void> }) {
  const queryClient = useQueryClient();
  const format = useFormat();
  const { teammate } = useSession();
  const { data: mates = [] } = useQuery(reading('session/teammates'));
  const [asking, setAsking] = useState<GoAct | null>(null);
  const [note, setNote] = useState('');
  const { id, go } = message;
  const say = useMutation({
    mutationFn: async (act: GoAct) => {
      await flush();
      const { version } = queryClient.getQueryData<MessageView>(keyOf('messages/{id}', { id })) ?? message;
      const body = { do: act, note: ACTS[act].note === null ? '' : note, version };
      return api.post('messages/{id}/go', { id, body });
    },
    onSuccess: () => (setAsking(null), setNote('')),
    onSettled: () => refresh(queryClient, 'messages'),
  });
  if (message.state !== 'draft') return null;
  const standing = goStanding(go, message.version);
  const by = mates.find((mate) => mate.id === go?.by)?.name ?? t`somebody who is gone`;
  const said = standingWords(standing, by, go ? format.moment(go.at) : '', go?.version ?? 0);
  const offered = (Object.keys(ACTS) as GoAct[]).filter((act) => mayGo(act, go, teammate));
  // Whoever may send needs nobody's go, unless one was asked for.
  const acts = go === null && teammate.role !== 'writer' ? [] : offered;
  if (!said && acts.length === 0) return null;
  return (
    <section
      className="sheet px-4 py-2 mb-3 flex flex-wrap items-center gap-x-4 gap-y-2"
      aria-label={t`A go for these words`}
    >
      {said && (
        <p role="status" className="grow">
          <b className={said.isGood ? 'text-verdigris' : ''}>{said.words}</b>
          {go?.note && ` “${go.note}”`}
        </p>
      )}
      {acts.map((act) => (
        <Button
          key={act}
          once
          className={said ? '' : 'ml-auto'}
          disabled={say.isPending}
          onClick={() => (ACTS[act].note === null ? say.mutate(act) : setAsking(act))}
        >
          {ACTS[act].words}
        </Button>
      ))}
      {asking === null && <ProblemNote error={say.error} />}
      <Drawer
        open={asking !== null}
        onClose={() => setAsking(null)}
        title={asking ? ACTS[asking].words.replace('…', '') : ''}
        note={t`“${message.name}”`}
      >
        {asking && (
          <form
            className="sheet p-5 flex flex-col gap-4"
            onSubmit={(event) => (event.preventDefault(), say.mutate(asking))}
          >
            <Labelled label={ACTS[asking].note ?? ''}>
              <textarea
                className="input min-h-[120px]"
                autoFocus
                required={asking === 'back'}
                maxLength={500}
                value={note}
                onChange={({ target }) => setNote(target.value)}
              />
            </Labelled>
            <ProblemNote error={say.error} />
            <Button type="submit" weight="main" className="self-start" disabled={say.isPending}>
              {ACTS[asking].words.replace('…', '')}
            </Button>
          </form>
        )}
      </Drawer>
    </section>
  );
}
