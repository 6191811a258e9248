import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { CampaignGoal, CampaignPlan, CampaignView } from '@goodword/core/contract';
import { FALL_CAUSES, GOAL_KINDS } from '@goodword/core/campaigns';
import { useFormat } from '../../app/format';
import { reading } from '../../app/reading';
import { Button, Labelled } from '../../ui/basics';
import { DayField } from '../../ui/DayField';
import { PickWord, TypeWord, Word } from '../../sort/lines/Word';
import { CAUSE_WORDS, type PlanPart } from './planning';

const GOAL_WORDS: Record<CampaignGoal['kind'], string> = {
  people: t`people who give`,
  gifts: t`gifts`,
  money: t`money`,
};

/** What a goal says: "$40,000 by 31 Dec 2026". */
export function useGoalWords() {
  const format = useFormat();
  return ({ kind, amount, by }: CampaignGoal) => {
    const much = kind === 'money' ? format.money(amount) : `${format.number(amount)} ${GOAL_WORDS[kind]}`;
    return by === null ? much : t`${much} by ${format.day(by)}`;
  };
}

function GoalForm({
  goal,
  onSave,
}: {
  goal: CampaignGoal | null;
  onSave: (goal: CampaignGoal | null) => void;
}) {
  const [kind, setKind] = useState(goal?.kind ?? 'money');
  const [typed, setTyped] = useState(
    goal ? String(goal.kind === 'money' ? goal.amount / 100 : goal.amount) : '',
  );
  const [by, setBy] = useState(goal?.by ?? '');
  const amount = Math.round(Number(typed.replace(/[\s,]/g, '')) * (kind === 'money' ? 100 : 1));
  const isNumber = typed.trim() !== '' && Number.isFinite(amount) && amount >= 1;
  return (
    <form
      className="flex flex-col gap-2 w-[260px]"
      onSubmit={(event) => {
        event.preventDefault();
        if (isNumber) onSave({ kind, amount, by: by || null });
      }}
    >
      <Labelled label={t`What is wanted`}>
        <select
          className="input"
          value={kind}
          onChange={({ target }) => setKind(target.value as CampaignGoal['kind'])}
        >
          {GOAL_KINDS.map((one) => (
            <option key={one} value={one}>
              {GOAL_WORDS[one]}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label={t`How much`}>
        <input
          className="input"
          inputMode="decimal"
          autoFocus
          value={typed}
          onChange={({ target }) => setTyped(target.value)}
        />
      </Labelled>
      <Labelled label={t`By which day`}>
        <DayField value={by} onChange={setBy} />
      </Labelled>
      <span className="flex gap-2">
        <Button type="submit" disabled={!isNumber}>{t`Keep it`}</Button>
        {goal && <Button onClick={() => onSave(null)}>{t`No goal`}</Button>}
      </span>
    </form>
  );
}

function GoalWord({
  goal,
  onSave,
}: {
  goal: CampaignGoal | null;
  onSave: (goal: CampaignGoal | null) => void;
}) {
  const goalWords = useGoalWords();
  return (
    <Word words={goal ? goalWords(goal) : t`no goal yet`} label={t`Goal`}>
      {(close) => <GoalForm goal={goal} onSave={(next) => (onSave(next), close())} />}
    </Word>
  );
}

/** For whom it is over before it is for all: causes, and stages of its own. */
function EndsWord({
  campaign,
  plan,
  onChange,
}: {
  campaign: CampaignView;
  plan: CampaignPlan;
  onChange: (part: Partial<PlanPart>) => void;
}) {
  const { endsFor, endsAt } = plan;
  const toggled = <V extends string>(all: readonly V[], one: V) =>
    all.includes(one) ? all.filter((other) => other !== one) : [...all, one];
  const words = [
    ...FALL_CAUSES.filter((cause) => endsFor.includes(cause)).map((cause) => CAUSE_WORDS[cause]),
    ...endsAt.map((stage) => t`are at “${stage}”`),
  ];
  const box = (label: string, checked: boolean, onToggle: () => void) => (
    <label key={label} className="flex gap-2 items-center px-2 py-1">
      <input type="checkbox" className="accent-[#0F766B]" checked={checked} onChange={onToggle} />
      {label}
    </label>
  );
  return (
    <Word
      words={words.length === 0 ? t`its last step` : words.join(', ')}
      label={t`When it is over for somebody`}
    >
      {() => (
        <>
          {FALL_CAUSES.map((cause) =>
            box(t`they ${CAUSE_WORDS[cause]}`, endsFor.includes(cause), () =>
              onChange({ endsFor: toggled(endsFor, cause) }),
            ),
          )}
          <hr className="border-hair my-1" />
          {campaign.stages.map((stage) =>
            box(t`they are at “${stage}”`, endsAt.includes(stage), () =>
              onChange({ endsAt: toggled(endsAt, stage) }),
            ),
          )}
        </>
      )}
    </Word>
  );
}

/** The campaign as one sentence: to whom, from when, until what, and what it wants to reach. */
export function PlanFrame({
  campaign,
  plan,
  onChange,
}: {
  campaign: CampaignView;
  plan: CampaignPlan;
  onChange: (part: Partial<PlanPart>) => void;
}) {
  const format = useFormat();
  const segments = useQuery(reading('segments')).data ?? [];
  const joins = [
    [0, t`nobody else`] as const,
    ...segments.map(({ id, name }) => [id, t`whoever comes into ${name}`] as const),
  ];
  return (
    <div className="font-title text-[19px] leading-[2.05] text-ink2 [&_.word]:text-ink pb-2">
      <p>
        <Trans>
          It goes to <b className="text-ink">{format.number(campaign.people)} on its roster</b> and{' '}
          <PickWord
            label={t`Who comes onto it by themselves`}
            value={plan.joinsFrom ?? 0}
            options={joins}
            onPick={(id) => onChange({ joinsFrom: id || null })}
          />
          , from{' '}
          <TypeWord
            label={t`First day`}
            type="date"
            value={plan.firstDay ?? ''}
            shown={plan.firstDay ? format.weekday(plan.firstDay) : t`a day to be chosen`}
            onType={(day) => onChange({ firstDay: day || null })}
          />
          , until they <EndsWord campaign={campaign} plan={plan} onChange={onChange} />.
        </Trans>{' '}
        <Trans>
          It wants <GoalWord goal={plan.goal} onSave={(goal) => onChange({ goal })} />.
        </Trans>
      </p>
    </div>
  );
}
