import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { RulesView } from '@goodword/core/contract';
import { type HouseRules as Rules } from '@goodword/core/permission';
import { rulePurposeWords, CHANNEL_WORDS } from '@goodword/core/words';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { Button, Loading, ProblemNote } from '../ui/basics';
import { readingByPost } from '../app/reading';

/** A change that another owner asked for, to be agreed to or turned down. */
export function Waiting({ waiting, may }: { waiting: NonNullable<RulesView['waiting']>; may: boolean }) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const settle = useMutation({
    mutationFn: (agrees: boolean) => api.post('house-rules/waiting', { body: { agrees } }),
    onSuccess: () => void refresh(queryClient, 'house-rules'),
  });
  return (
    <section
      className="sheet p-4 border-l-[3px] !border-l-ochremark shrink-0"
      aria-label={t`A change that waits`}
    >
      <p>
        <b>{t`Waits for a second owner.`}</b> {waiting.words}
      </p>
      <p className="text-ink2 text-[12.5px]">
        {waiting.by}, {format.moment(waiting.at)}. {waiting.loosens.join(' ')}
      </p>
      <ProblemNote error={settle.error} />
      {may && (
        <div className="flex gap-3 pt-2">
          {!waiting.mine && (
            <Button weight="main" disabled={settle.isPending} onClick={() => settle.mutate(true)}>
              {t`I agree, make the change`}
            </Button>
          )}
          <Button disabled={settle.isPending} onClick={() => settle.mutate(false)}>
            {waiting.mine ? t`Take it back` : t`Turn it down`}
          </Button>
        </div>
      )}
    </section>
  );
}

export function Weighing({
  rules,
  version,
  onDone,
}: {
  rules: Rules;
  version: number;
  onDone: (sent: Rules) => void;
}) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const weighed = useQuery({
    ...readingByPost('house-rules/weigh', { body: { rules } }),
    staleTime: 0,
    gcTime: 0,
  });
  const save = useMutation({
    mutationFn: (sent: Rules) => api.put('house-rules', { body: { rules: sent, basedOn: version } }),
    // Done when the new rules are here: what is clicked before would be lost with the old ones.
    onSuccess: (_none, sent) => refresh(queryClient, 'house-rules').then(() => onDone(sent)),
  });
  if (weighed.error) return <ProblemNote error={weighed.error} />;
  if (!weighed.data) return <Loading what={t`everybody on file`} />;
  const { words, effects, loosens, waits } = weighed.data;
  return (
    <div className="sheet p-5 flex flex-col gap-4 overflow-y-auto">
      <ul className="list-disc pl-5">
        {words.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      {loosens.length > 0 && (
        <section className="border-l-[3px] border-ochremark pl-3" aria-label={t`What it loosens`}>
          <h3 className="subtitle text-ochre">{t`It loosens what the house promises`}</h3>
          <ul className="list-disc pl-5">
            {loosens.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </section>
      )}
      {effects.length === 0 ? (
        <p className="text-ink2">{t`Nobody on file is opened or closed by it today.`}</p>
      ) : (
        <table className="w-full">
          <thead>
            <tr className="text-left text-ink2 text-[13px] border-b border-ink">
              <th className="font-normal py-1">{t`Channel and purpose`}</th>
              <th className="font-normal text-right">{t`May be written to then`}</th>
              <th className="font-normal text-right">{t`May no longer`}</th>
            </tr>
          </thead>
          <tbody>
            {effects.map((effect) => (
              <tr key={`${effect.channel}${effect.askedFor}`} className="border-b border-hair">
                <td className="py-2">
                  {CHANNEL_WORDS[effect.channel]}, {rulePurposeWords(effect.askedFor)}
                </td>
                <td
                  className={`text-right ${effect.opens > 0 ? 'font-semibold text-verdigris' : 'text-ink2'}`}
                >
                  {format.number(effect.opens)}
                </td>
                <td className={`text-right ${effect.closes > 0 ? 'font-semibold text-madder' : 'text-ink2'}`}>
                  {format.number(effect.closes)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <ProblemNote error={save.error} />
      <Button
        weight="main"
        className="self-start"
        disabled={save.isPending}
        onClick={() => save.mutate(rules)}
      >
        {waits ? t`Ask a second owner` : t`Make the change`}
      </Button>
      {waits && (
        <p className="text-ink2">
          <Trans>
            The house wants two owners for a change that loosens. Until another agrees, nothing changes.
          </Trans>
        </p>
      )}
    </div>
  );
}
