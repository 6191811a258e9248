import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { STEP_LIMITS } from '@goodword/core/campaigns';
import type { CampaignPlan, StepView } from '@goodword/core/contract';
import { parseClock } from '@goodword/core/fields';
import { api } from '../../app/api';
import { refresh } from '../../app/refresh';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { Word } from '../../sort/lines/Word';

const CHANNELS: [StepView['channel'], string][] = [
  ['email', t`an email`],
  ['text', t`a text`],
  ['post', t`a letter`],
  ['call', t`a list to call`],
];

/** A step more: what goes out, when, and what it is called; its words are written on its own page. */
export function AddStep({ id, plan }: { id: number; plan: CampaignPlan }) {
  const queryClient = useQueryClient();
  const last = plan.steps.at(-1);
  const [name, setName] = useState('');
  const [channel, setChannel] = useState<StepView['channel']>('email');
  const [day, setDay] = useState<string | null>(null);
  const [time, setTime] = useState('10:00');
  const days = day ?? String(last ? last.day + 3 : 0);
  const minutes = parseClock(time);
  const isDay = /^\d{1,3}$/.test(days) && Number(days) <= STEP_LIMITS.days;
  const add = useMutation({
    mutationFn: () =>
      api.post('campaigns/{id}/steps', {
        id,
        body: { name: name.trim(), channel, day: Number(days), minutes: minutes!, ownTime: false },
      }),
    onSuccess: async () => {
      await refresh(queryClient, 'campaigns');
      setName('');
      setDay(null);
    },
  });
  if (plan.steps.length >= STEP_LIMITS.steps) return null;
  return (
    <span className="[&_.word]:!border [&_.word]:!border-dashed [&_.word]:!border-[#8b989d] [&_.word]:rounded-paper [&_.word]:!px-3 [&_.word]:text-[14px] [&_.word]:font-semibold">
      <Word words={last ? t`and then…` : t`add the first step…`} label={t`Add a step`}>
        {(close) => (
          <form
            className="flex flex-col gap-2 w-[280px]"
            onSubmit={(event) => {
              event.preventDefault();
              add.mutate(undefined, { onSuccess: close });
            }}
          >
            <Labelled label={t`What it is called`}>
              <input
                className="input"
                autoFocus
                required
                maxLength={120}
                value={name}
                onChange={({ target }) => setName(target.value)}
              />
            </Labelled>
            <Labelled label={t`What goes out`}>
              <select
                className="input"
                value={channel}
                onChange={({ target }) => setChannel(target.value as StepView['channel'])}
              >
                {CHANNELS.map(([value, words]) => (
                  <option key={value} value={value}>
                    {words}
                  </option>
                ))}
              </select>
            </Labelled>
            <Labelled
              label={t`Days after the first one`}
              hint={isDay ? undefined : t`A number of days, at most ${STEP_LIMITS.days}.`}
            >
              <input
                className="input"
                inputMode="numeric"
                value={days}
                onChange={({ target }) => setDay(target.value)}
              />
            </Labelled>
            <Labelled
              label={t`Time of day`}
              hint={minutes === null ? t`This is no time. Write it like 17:30.` : undefined}
            >
              <input className="input" value={time} onChange={({ target }) => setTime(target.value)} />
            </Labelled>
            <ProblemNote error={add.error} />
            <Button
              weight="main"
              type="submit"
              className="self-start"
              disabled={name.trim() === '' || !isDay || minutes === null || add.isPending}
            >
              {t`Add the step`}
            </Button>
          </form>
        )}
      </Word>
    </span>
  );
}
