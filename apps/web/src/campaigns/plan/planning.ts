import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { isoDay, parseIsoDay } from '@goodword/core/common';
import type { CampaignPlan, StepView } from '@goodword/core/contract';
import { clockWords } from '@goodword/core/permission';
import { useRef } from 'react';
import { api } from '../../app/api';
import { keyOf } from '../../app/reading';
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

/**
 * Changes of a plan and its steps, one after the other. Each is shown at once, and each of several in haste
 * builds on what the one before made; of two people the second is told.
 */
export function usePlanning(id: number, plan: CampaignPlan | undefined) {
  const queryClient = useQueryClient();
  const made = useRef(new Map<number, number>());
  const basedOn = (of: number, shown: number) => Math.max(made.current.get(of) ?? 0, shown);
  const shows = (change: (old: CampaignPlan) => CampaignPlan) =>
    queryClient.setQueryData(
      keyOf('campaigns/{id}/plan', { id }),
      (old: CampaignPlan | undefined) => old && change(old),
    );
  const done = { onSettled: () => refresh(queryClient, 'campaigns'), scope: { id: `plan ${id}` } };
  const frame = useMutation({
    ...done,
    onMutate: (part: Partial<PlanPart>) => void shows((old) => ({ ...old, ...part })),
    mutationFn: async (part: Partial<PlanPart>) => {
      const { firstDay, goal, endsFor, endsAt, joinsFrom, version } = plan!;
      const body = { firstDay, goal, endsFor, endsAt, joinsFrom, ...part, basedOn: basedOn(0, version) };
      made.current.set(0, (await api.put('campaigns/{id}/plan', { id, body })).version);
    },
  });
  const step = useMutation({
    ...done,
    onMutate: ({ of, part }: StepChange) =>
      void shows((old) => ({
        ...old,
        steps: old.steps.map((one) => (one.messageId === of.messageId ? { ...one, ...part } : one)),
      })),
    mutationFn: async ({ of: { messageId, ...was }, part }: StepChange) => {
      const { day, minutes, ownTime, rule } = { ...was, ...part };
      const body = { day, minutes, ownTime, rule, basedOn: basedOn(messageId, was.version) };
      const { version } = await api.put('campaigns/{id}/steps/{stepId}', { id, stepId: messageId, body });
      made.current.set(messageId, version);
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

interface StepChange {
  of: StepView;
  part: Partial<StepPart>;
}

/** Causes that end a campaign for somebody, as they stand in its sentence. */
export const CAUSE_WORDS = { gave: t`give`, replied: t`reply`, left: t`opt out` } as const;
