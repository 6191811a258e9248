import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { SenderView } from '@goodword/core/contract';
import { NUMBER_KINDS, REGISTRATIONS, type TextNumber } from '@goodword/core/delivery';
import { api } from '../app/api';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { NUMBER_WORDS, REGISTRATION_WORDS } from './senderWords';

/** The number that texts come from: its kind, how it is registered, and how fast it may go. */
export function SenderNumber({ number }: { number: NonNullable<SenderView['number']> }) {
  const queryClient = useQueryClient();
  const may = useMay('owner');
  const { kind, registration, perSecond } = number;
  const [draft, setDraft] = useState<TextNumber>({ kind, registration, perSecond });
  const set = (part: Partial<TextNumber>) => setDraft((was) => ({ ...was, ...part }));
  const isChanged =
    draft.kind !== kind || draft.registration !== registration || draft.perSecond !== perSecond;
  const save = useMutation({
    mutationFn: () => api.put('sender/number', { body: draft }),
    onSuccess: () => refresh(queryClient, 'sender'),
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-3"
      aria-labelledby="sender-number"
      onSubmit={(event) => (event.preventDefault(), save.mutate())}
    >
      <h2 id="sender-number" className="subtitle">{t`Texts come from ${number.number}`}</h2>
      <div className="grid grid-cols-2 gap-3">
        <Labelled label={t`It is`}>
          <select
            className="input"
            disabled={!may}
            value={draft.kind ?? ''}
            onChange={({ target }) => set({ kind: (target.value || null) as TextNumber['kind'] })}
          >
            <option value="">{t`not said`}</option>
            {NUMBER_KINDS.map((one) => (
              <option key={one} value={one}>
                {NUMBER_WORDS[one]}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled label={t`With the carriers it is`}>
          <select
            className="input"
            disabled={!may}
            value={draft.registration ?? ''}
            onChange={({ target }) =>
              set({ registration: (target.value || null) as TextNumber['registration'] })
            }
          >
            <option value="">{t`not said`}</option>
            {REGISTRATIONS.map((one) => (
              <option key={one} value={one}>
                {REGISTRATION_WORDS[one]}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled label={t`Texts a second at most`} hint={t`As your gateway says; empty for no limit.`}>
          <input
            className="input"
            type="number"
            min={1}
            max={1000}
            disabled={!may}
            value={draft.perSecond ?? ''}
            onChange={({ target }) => set({ perSecond: target.value === '' ? null : Number(target.value) })}
          />
        </Labelled>
      </div>
      <ProblemNote error={save.error} />
      {may ? (
        <Button type="submit" className="self-start" disabled={!isChanged || save.isPending}>
          {t`Save`}
        </Button>
      ) : (
        <p className="text-ink2">
          <Trans>An owner can change this.</Trans>
        </p>
      )}
    </form>
  );
}
