import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { isoDay, parseIsoDay } from '@goodword/core/common';
import type { CampaignPlan, StepView } from '@goodword/core/contract';
import { clockWords } from '@goodword/core/permission';
import { api } from '../../app/api';
import { refresh } from '../../app/refresh';

/** What is changed of a plan itself. */
export type PlanPart = Pick<CampaignPlan, 'firstDay' | 'goal' | 'endsFor' | 'endsAt' | 'joinsFrom'>;
/** What is changed of a step. */
export type StepPart = Pick<StepView, 'day' | 'minutes' | 'ownTime' | 'rule'>;

/** The ISO day of a step, where the first one is known. */
export const dayOfStep = (firstDay: string | null, day: number): string | null =>
  firstDay === null ? null : isoDay(parseIsoDay(firstDay)! + day);

/** When a step leaves within its day: `10:00`. */
export const timeOfStep = (minutes: number): string => clockWords(minutes);

/** Changes of a plan and its steps, one after the other. */
export function usePlanning(id: number, plan: CampaignPlan | undefined) {
  const queryClient = useQueryClient();
  const done = { onSettled: () => refresh(queryClient, 'campaigns'), scope: { id: `plan ${id}` } };
  const frame = useMutation({
    ...done,
    mutationFn: (part: Partial<PlanPart>) => {
      const { firstDay, goal, endsFor, endsAt, joinsFrom, version } = plan!;
      const body = { firstDay, goal, endsFor, endsAt, joinsFrom, ...part, basedOn: version };
      return api.put('campaigns/{id}/plan', { id, body });
    },
  });
  const step = useMutation({
    ...done,
    mutationFn: ({ of: { messageId, ...was }, part }: { of: StepView; part: Partial<StepPart> }) => {
      const { day, minutes, ownTime, rule } = { ...was, ...part };
      return api.put('campaigns/{id}/steps/{stepId}', {
        ...{ id, stepId: messageId },
        body: { day, minutes, ownTime, rule, basedOn: was.version },
      });
    },
  });
  const takeOut = useMutation({
    ...done,
    mutationFn: (stepId: number) => api.delete('campaigns/{id}/steps/{stepId}', { id, stepId }),
  });
  const takeBack = useMutation({
    ...done,
    mutationFn: (messageId: number) => api.post('messages/{id}/unschedule', { id: messageId }),
  });
  return { frame, step, takeOut, takeBack };
}

/** Causes that end a campaign for somebody, as they stand in its sentence. */
export const CAUSE_WORDS = { gave: t`give`, replied: t`reply`, left: t`opt out` } as const;
