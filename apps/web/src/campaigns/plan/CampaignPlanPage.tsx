import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { CampaignExpected, CampaignLook, CampaignPlan } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { reading } from '../../app/reading';
import { useMay } from '../../app/session';
import { Button, Heading, Loading, ProblemNote } from '../../ui/basics';
import { useMargin, type Note } from '../../ui/margin';
import { AddStep } from './AddStep';
import { PathOfPerson } from './PathOfPerson';
import { PlanFrame, useGoalWords } from './PlanFrame';
import { PlanLook } from './PlanLook';
import { PlanStep } from './PlanStep';
import { usePlanning } from './planning';

/** What there is to say of a plan beside it. */
function planNotes(plan: CampaignPlan, expected: CampaignExpected | undefined): Note[] {
  const notes: Note[] = [];
  if (plan.firstDay === null)
    notes.push({
      ...{ key: 'day', tone: 'doubt', title: t`It has no first day yet` },
      body: t`Steps are counted from it: choose it in the sentence.`,
    });
  for (const { messageId, name, at, state } of plan.steps) {
    const anchor = `step-${messageId}`;
    if (state === 'draft' && at !== null && Date.parse(at) <= Date.now())
      notes.push({
        ...{ key: `past-${messageId}`, tone: 'fault', anchor },
        title: t`“${name}” would leave at a time that is over`,
        body: t`Choose a later day for it.`,
      });
  }
  const out = Math.max(
    0,
    ...(expected?.steps ?? []).map(
      ({ suppressed }) => suppressed.find(({ reason }) => reason === 'fell-out')?.people ?? 0,
    ),
  );
  if (out > 0)
    notes.push({
      ...{ key: 'out', tone: 'plain' },
      title: plural(out, {
        one: '# person on its roster gets none of it now',
        other: '# people on its roster get none of it now',
      }),
      body: t`It is over for them, as its sentence says, or another appeal is asking them.`,
    });
  return notes;
}

/** A campaign as a plan: one sentence for it, one for each step, and how it reaches one person. */
export default function CampaignPlanPage() {
  const id = Number(useParams().id);
  const format = useFormat();
  const goalWords = useGoalWords();
  const may = useMay('organizer');
  const campaign = useQuery(reading('campaigns/{id}', { id }));
  // What the clock does to steps that are set going; nothing moves by itself before.
  const plan = useQuery({
    ...reading('campaigns/{id}/plan', { id }),
    refetchInterval: ({ state: { data } }) =>
      data?.steps.some(({ state }) => !['draft', 'stopped', 'done'].includes(state)) ? 10_000 : false,
  });
  const expected = useQuery(reading('campaigns/{id}/plan/expected', { id }));
  const { frame, step, takeOut, takeBack } = usePlanning(id, plan.data);
  const [seen, setSeen] = useState<CampaignLook | null>(null);
  const look = useMutation({
    mutationFn: () => api.post('campaigns/{id}/plan/look', { id }),
    onSuccess: setSeen,
  });
  useMargin(plan.data ? planNotes(plan.data, expected.data) : []);
  const error = campaign.error ?? plan.error;
  if (error) return <ProblemNote error={error} />;
  if (!campaign.data || !plan.data) return <Loading what={t`the campaign`} />;
  const { name, appealCode } = campaign.data;
  const { steps, goal, reached } = plan.data;
  const isOpen = steps.some(({ state }) => state === 'draft');
  const soFar = goal?.kind === 'money' ? format.money(reached) : format.number(reached);
  return (
    <div className="flex flex-col gap-4 grow">
      <Heading
        title={name}
        page={t`Plan: ${name}`}
        note={[
          goal && t`${soFar} of ${goalWords(goal)}`,
          appealCode && t`appeal code ${appealCode}`,
          plural(steps.length, { 0: 'no steps yet', one: '# step', other: '# steps' }),
        ]
          .filter(Boolean)
          .join(', ')}
      >
        <Link className="link self-center" to={`/sort/campaigns/${id}`}>
          {t`Its roster`}
        </Link>
        {may && isOpen && (
          <Button weight="main" disabled={look.isPending} onClick={() => look.mutate()}>
            {look.isPending ? t`Looking…` : t`Last look at all steps`}
          </Button>
        )}
      </Heading>
      <section className="sheet px-6 py-4" aria-label={t`The plan`}>
        {may ? (
          <PlanFrame campaign={campaign.data} plan={plan.data} onChange={(part) => frame.mutate(part)} />
        ) : (
          <p className="pb-3">
            <Trans>It goes to the {format.number(campaign.data.people)} on its roster.</Trans>
          </p>
        )}
        <ProblemNote
          error={frame.error ?? step.error ?? takeOut.error ?? takeBack.error ?? look.error ?? expected.error}
        />
        <ol>
          {steps.map((one, i) => (
            <PlanStep
              key={one.messageId}
              nth={i + 1}
              step={one}
              plan={plan.data}
              expected={expected.data?.steps.find(({ messageId }) => messageId === one.messageId)}
              may={may}
              acts={{
                change: (part) => step.mutate({ of: one, part }),
                takeOut: () => takeOut.mutate(one.messageId),
                takeBack: () => takeBack.mutate(one.messageId),
                busy: takeOut.isPending || takeBack.isPending,
              }}
            />
          ))}
        </ol>
        {may && (
          <p className="border-t border-hair pt-3">
            <AddStep id={id} plan={plan.data} />
          </p>
        )}
      </section>
      {steps.length > 0 && <PathOfPerson id={id} plan={plan.data} />}
      <PlanLook id={id} plan={plan.data} look={seen} onClose={() => setSeen(null)} />
    </div>
  );
}
