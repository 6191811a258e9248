import { plural, t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { SERIES_LIMITS, type Wait } from '@goodword/core/automations';
import type { AutomationStep, AutomationWhole } from '@goodword/core/contract';
import { api } from '../app/api';
import { ACT_WORDS } from '../app/channels';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { MESSAGE_STATE_WORDS } from '../send/Outgoing';
import { onceOf } from '../ui/once';
import { Word } from '../sort/lines/Word';
import { WaitWord, waitWords } from './WaitWord';

/** How it stands with one of its messages, and what can be done about it. */
function Standing({
  id,
  step,
  changes,
  busy,
  onTakeOut,
}: {
  id: number;
  step: AutomationStep;
  changes: boolean;
  busy: boolean;
  onTakeOut: () => void;
}) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const { messageId, state, lacks } = step;
  const anew = useMutation({
    mutationFn: () => api.post('automations/{id}/steps/{stepId}/anew', { id, stepId: messageId }),
    onSuccess: (made) => (refresh(queryClient, 'automations'), void navigate(`/write/${made.id}`)),
  });
  return (
    <>
      <p className="font-sans text-[13px] flex flex-wrap items-baseline gap-x-4 gap-y-3 pt-2 leading-normal">
        {state === 'draft' ? (
          <>
            <Link className="link" to={`/write/${messageId}`}>
              {lacks.length === 0 ? t`Read it` : t`Write it`}
            </Link>
            <Link className="link" to={`/send/${messageId}`}>{t`Test it`}</Link>
            {changes && (
              <button className="link" disabled={busy} onClick={onceOf(onTakeOut)}>{t`Take it out`}</button>
            )}
          </>
        ) : (
          <>
            <span className="text-verdigris">{MESSAGE_STATE_WORDS[state]}</span>
            <Link className="link" to={`/hear-back/${messageId}`}>{t`What became of it`}</Link>
            {changes && (
              <button
                className="link"
                disabled={anew.isPending}
                onClick={onceOf(() => anew.mutate())}
              >{t`Write it anew`}</button>
            )}
          </>
        )}
      </p>
      {lacks.map((lack) => (
        <p key={lack} className="font-sans text-[13px] text-ochre leading-normal">
          {lack}
        </p>
      ))}
      <ProblemNote error={anew.error} />
    </>
  );
}

/** One of its messages as a sentence. */
export function AutomaticStep({
  id,
  nth,
  step,
  ofDay,
  changes,
  busy,
  onWait,
  onTakeOut,
}: {
  id: number;
  nth: number;
  step: AutomationStep;
  /** What it waits for happens on a day, not at a moment. */
  ofDay: boolean;
  changes: boolean;
  busy: boolean;
  onWait: (wait: Wait) => void;
  onTakeOut: () => void;
}) {
  const format = useFormat();
  return (
    <li
      className="grid grid-cols-[30px_1fr_120px] gap-x-2 border-t border-hair py-4"
      id={`step-${step.messageId}`}
    >
      <span className="text-[12px] text-ink3 pt-2">{nth}</span>
      <div className="font-title text-[19px] leading-[1.8] text-ink2 [&_.word]:text-ink">
        <p>
          {nth > 1 && `${t`and then`} `}
          {changes ? (
            <WaitWord wait={step.wait} ofDay={ofDay} onChange={onWait} />
          ) : (
            <b className="text-ink">{waitWords(step.wait, ofDay)}</b>
          )}
          , {ACT_WORDS[step.channel]}{' '}
          <Link className="text-ink font-bold hover:underline" to={`/write/${step.messageId}`}>
            {step.name}
          </Link>
        </p>
        <Standing id={id} step={step} changes={changes} busy={busy} onTakeOut={onTakeOut} />
      </div>
      <p className="text-right">
        <b className="font-title text-[19px] block">{format.number(step.went)}</b>
        <span className="text-ink2 text-[12.5px]">
          {plural(step.went, { one: 'has got it', other: 'have got it' })}
        </span>
      </p>
    </li>
  );
}

/** A message more: what goes out and what it is called; its words are written on its own page. */
export function AddMessage({ id, automation }: { id: number; automation: AutomationWhole }) {
  const queryClient = useQueryClient();
  const [name, setName] = useState('');
  const [channel, setChannel] = useState<'email' | 'text'>('email');
  const isFirst = automation.steps.length === 0;
  const add = useMutation({
    mutationFn: () =>
      api.post('automations/{id}/steps', {
        id,
        body: { name: name.trim(), channel, wait: firstWait(automation) },
      }),
    onSuccess: async () => {
      await refresh(queryClient, 'automations');
      setName('');
    },
  });
  if (automation.steps.length >= SERIES_LIMITS.steps) return null;
  return (
    <span className="[&_.word]:!border [&_.word]:!border-dashed [&_.word]:!border-[#8b989d] [&_.word]:rounded-paper [&_.word]:!px-3 [&_.word]:text-[14px] [&_.word]:font-semibold">
      <Word words={isFirst ? t`send what…` : t`and then…`} label={t`Add a message`}>
        {(close) => (
          <form
            className="flex flex-col gap-2 w-[280px]"
            onSubmit={(event) => {
              event.preventDefault();
              if (!add.isPending) add.mutate(undefined, { onSuccess: close });
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
                onChange={({ target }) => setChannel(target.value as 'email' | 'text')}
              >
                <option value="email">{t`an email`}</option>
                <option value="text">{t`a text`}</option>
              </select>
            </Labelled>
            <ProblemNote error={add.error} />
            <Button
              weight="main"
              type="submit"
              className="self-start"
              disabled={name.trim() === '' || add.isPending}
            >{t`Add the message`}</Button>
          </form>
        )}
      </Word>
    </span>
  );
}

/** What happens on a day is told in its morning; a second message comes some days later. */
function firstWait({ steps, cause: { kind } }: AutomationWhole): Wait {
  if (steps.length > 0) return { n: 3, unit: 'days', at: 600 };
  if (kind === 'date' || kind === 'lapses' || kind === 'quiet') return { n: 0, unit: 'days', at: 600 };
  return kind === 'gift' ? { n: 2, unit: 'hours', at: null } : { n: 0, unit: 'minutes', at: null };
}
