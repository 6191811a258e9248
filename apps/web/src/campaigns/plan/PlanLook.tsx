import { plural, t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { CampaignLook, CampaignPlan, LastLook } from '@goodword/core/contract';
import { verdictWords } from '@goodword/core/words';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { refresh } from '../../app/refresh';
import { Button, ProblemNote } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';

/** What still keeps a step from being set going. */
function lacks(look: LastLook, isReady: boolean): string | null {
  if (look.faults.length > 0) return look.faults[0]!.message;
  if (!isReady) return t`No test of it has gone out.`;
  if (look.reached === 0) return t`Nobody would get it now.`;
  if (look.second !== null && !look.second.holds) return t`Another organizer has to agree to it first.`;
  return null;
}

function Gets({ gets }: { gets: readonly number[] }) {
  const format = useFormat();
  const steps = gets.length - 1;
  const all = Math.max(1, ...gets);
  return (
    <section aria-label={t`Who gets how many`}>
      <h3 className="subtitle pb-1">{t`Who gets how many`}</h3>
      <ul className="flex flex-col gap-1">
        {gets.map((people, n) => (
          <li key={n} className="grid grid-cols-[120px_1fr_80px] gap-3 items-center">
            <span>
              {n === 0 ? t`none` : t`${n} of ${plural(steps, { one: '# step', other: '# steps' })}`}
            </span>
            <span className="h-3 bg-bench rounded-[2px]" aria-hidden="true">
              <span
                className={`block h-3 rounded-[2px] ${n === 0 ? 'bg-madder' : 'bg-verdigris'}`}
                style={{ width: `${(people / all) * 100}%` }}
              />
            </span>
            <b className="text-right">{format.number(people)}</b>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The last look over all steps that are not set going, and setting them going. */
export function PlanLook({
  id,
  plan,
  look,
  onClose,
}: {
  id: number;
  plan: CampaignPlan;
  look: CampaignLook | null;
  onClose: () => void;
}) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const going = useMutation({
    mutationFn: () =>
      api.post('campaigns/{id}/plan/go', {
        id,
        body: { looks: look!.steps.map(({ messageId, look: { digest } }) => ({ messageId, digest })) },
      }),
    onSuccess: onClose,
    onSettled: () => refresh(queryClient, 'campaigns'),
  });
  const stepOf = (messageId: number) => plan.steps.find((step) => step.messageId === messageId);
  const open = (look?.steps ?? []).map(({ messageId, look: own }) => ({
    ...{ messageId, own, step: stepOf(messageId) },
    lacks: lacks(own, stepOf(messageId)?.isReady ?? false),
  }));
  const isReady = plan.firstDay !== null && open.length > 0 && open.every((one) => one.lacks === null);
  return (
    <Drawer
      open={look !== null}
      onClose={onClose}
      wide
      title={t`Last look at the campaign`}
      note={t`As of now; who gets each step is looked at anew when it leaves`}
    >
      {look && (
        <div className="flex flex-col gap-5 overflow-y-auto">
          <ol className="flex flex-col">
            {open.map(({ messageId, own, step, lacks: lack }) => (
              <li key={messageId} className="border-t border-hair py-3">
                <p className="flex justify-between gap-4">
                  <b>{step?.name}</b>
                  <b>{t`${format.number(own.reached)} of ${format.number(own.group)}`}</b>
                </p>
                <p className="text-ink2">
                  {step?.at ? format.moment(step.at) : t`no day yet`}
                  {own.suppressed.map(({ reason, people }) => (
                    <span key={reason}>
                      {'; '}
                      {verdictWords(reason, step?.channel ?? 'email')}: {format.number(people)}
                    </span>
                  ))}
                </p>
                {lack !== null && (
                  <p className="text-madder">
                    {lack} <Link className="link" to={`/send/${messageId}`}>{t`See to it`}</Link>
                  </p>
                )}
              </li>
            ))}
          </ol>
          <Gets gets={look.gets} />
          {plan.firstDay === null && <p className="text-madder">{t`Choose the first day first.`}</p>}
          <ProblemNote error={going.error} />
          <Button
            weight="main"
            className="self-start"
            disabled={!isReady || going.isPending}
            onClick={() => going.mutate()}
          >
            {t`Set ${plural(open.length, { one: '# step', other: '# steps' })} going`}
          </Button>
        </div>
      )}
    </Drawer>
  );
}
