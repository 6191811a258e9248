import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { SenderView } from '@goodword/core/contract';
import { USUAL_WARM_UP, type MailLimits } from '@goodword/core/delivery';
import { api } from '../app/api';
import { localDay } from '../app/day';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { DayField } from '../ui/DayField';

const NO_LIMITS: MailLimits = { perHour: null, perDay: null, warmUp: null };

/** Numbers as somebody lists them; null where one is none. */
function amountsIn(typed: string): number[] | null {
  const parts = typed.split(/[\s,;]+/).filter(Boolean);
  const amounts = parts.map(Number);
  const all = amounts.every((one) => Number.isInteger(one) && one >= 0 && one <= 10_000_000);
  return all && amounts.length > 0 && amounts.length <= 60 ? amounts : null;
}

/** From which day a new domain is made known, and with how many mails on each. */
function WarmUp({
  warmUp,
  typed,
  set,
  setTyped,
}: {
  warmUp: NonNullable<MailLimits['warmUp']>;
  typed: string;
  set: (warmUp: MailLimits['warmUp']) => void;
  setTyped: (typed: string) => void;
}) {
  const amounts = amountsIn(typed);
  return (
    <>
      <Labelled label={t`From which day`}>
        <DayField value={warmUp.from} onChange={(from) => set({ ...warmUp, from: from || localDay() })} />
      </Labelled>
      <Labelled
        label={t`Mails on each day`}
        hint={
          amounts === null
            ? t`Numbers with spaces between them, one for each day, 60 at most.`
            : plural(amounts.length, {
                one: '# day; after it as many as above.',
                other: '# days; after them as many as above.',
              })
        }
      >
        <textarea
          className="input min-h-[60px]"
          aria-invalid={amounts === null || undefined}
          value={typed}
          onChange={({ target }) => setTyped(target.value)}
        />
      </Labelled>
      <p className="text-ink2 text-[13px]">
        {t`Who has clicked or replied before gets it first. Doubling each day is common practice; providers publish no table.`}
      </p>
    </>
  );
}

/** How much mail may leave in an hour and a day, and how a new domain is made known. */
export function SenderLimits({ view }: { view: SenderView }) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const may = useMay('owner');
  const kept = view.limits ?? NO_LIMITS;
  const [draft, setDraft] = useState(kept);
  const [typed, setTyped] = useState((kept.warmUp?.amounts ?? USUAL_WARM_UP).join(' '));
  const set = (part: Partial<MailLimits>) => setDraft((was) => ({ ...was, ...part }));
  const amounts = amountsIn(typed);
  const sent = draft.warmUp ? { ...draft, warmUp: { ...draft.warmUp, amounts: amounts ?? [] } } : draft;
  const save = useMutation({
    mutationFn: () => api.put('sender/limits', { body: sent }),
    onSuccess: () => refresh(queryClient, 'sender'),
  });
  const most = (label: string, key: 'perHour' | 'perDay') => (
    <Labelled label={label} hint={t`Empty for no limit.`}>
      <input
        className="input"
        type="number"
        min={1}
        disabled={!may}
        value={draft[key] ?? ''}
        onChange={({ target }) => set({ [key]: target.value === '' ? null : Number(target.value) })}
      />
    </Labelled>
  );
  return (
    <form
      className="sheet p-5 flex flex-col gap-3"
      aria-labelledby="sender-limits"
      onSubmit={(event) => (event.preventDefault(), save.mutate())}
    >
      <h2 id="sender-limits" className="subtitle">{t`How much mail may leave`}</h2>
      {view.mailsLeft !== null && (
        <p>
          <Trans>{format.number(view.mailsLeft)} more may leave just now.</Trans>
        </p>
      )}
      <div className="grid grid-cols-2 gap-3">
        {most(t`In an hour at most`, 'perHour')}
        {most(t`In a day at most`, 'perDay')}
      </div>
      <label className="flex gap-2 items-center">
        <input
          type="checkbox"
          className="accent-[#0F766B]"
          disabled={!may}
          checked={draft.warmUp !== null}
          onChange={({ target }) =>
            set({ warmUp: target.checked ? { from: localDay(), amounts: [...USUAL_WARM_UP] } : null })
          }
        />
        {t`The domain is new: few mails on the first days`}
      </label>
      {draft.warmUp && may && (
        <WarmUp warmUp={draft.warmUp} typed={typed} set={(warmUp) => set({ warmUp })} setTyped={setTyped} />
      )}
      <ProblemNote error={save.error} />
      {may ? (
        <Button
          type="submit"
          className="self-start"
          disabled={
            JSON.stringify(sent) === JSON.stringify(kept) ||
            (draft.warmUp !== null && amounts === null) ||
            save.isPending
          }
        >
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
