import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import type { Wait } from '@goodword/core/automations';
import type { AutomationStep, AutomationWhole, SaveAutomationBody } from '@goodword/core/contract';
import { api } from '../app/api';
import { keyOf } from '../app/reading';
import { refresh } from '../app/refresh';

/** What is changed of an automatic message itself. */
export type AutomationPart = Omit<SaveAutomationBody, 'basedOn'>;

/**
 * Changes of an automatic message and its messages, one after the other. Each is shown at once, and each of
 * several in haste builds on what the one before made; of two people the second is told.
 */
export function useChanging(id: number, shown: AutomationWhole | undefined) {
  const queryClient = useQueryClient();
  const made = useRef(new Map<number, number>());
  const latest = useRef<Partial<AutomationPart>>({});
  const basedOn = (of: number, version: number) => Math.max(made.current.get(of) ?? 0, version);
  const shows = (change: (old: AutomationWhole) => AutomationWhole) =>
    queryClient.setQueryData(
      keyOf('automations/{id}', { id }),
      (old: AutomationWhole | undefined) => old && change(old),
    );
  const done = {
    onSettled: () => refresh(queryClient, 'automations'),
    scope: { id: `automation ${id}` },
  };
  const sentence = useMutation({
    ...done,
    onMutate: (part: Partial<AutomationPart>) => {
      latest.current = { ...latest.current, ...part };
      shows((old) => ({ ...old, ...part }));
    },
    mutationFn: async () => {
      const { name, cause, again, stops, unless, version } = shown!;
      const body = { name, cause, again, stops, unless, ...latest.current, basedOn: basedOn(0, version) };
      made.current.set(0, (await api.put('automations/{id}', { id, body })).version);
    },
    // What could not be kept is not tried once more with the next change.
    onError: () => void (latest.current = {}),
  });
  const wait = useMutation({
    ...done,
    onMutate: ({ step, wait: next }: WaitChange) =>
      void shows((old) => ({
        ...old,
        steps: old.steps.map((one) => (one.messageId === step.messageId ? { ...one, wait: next } : one)),
      })),
    mutationFn: async ({ step: { messageId, version }, wait: next }: WaitChange) => {
      const body = { wait: next, basedOn: basedOn(messageId, version) };
      const saved = await api.put('automations/{id}/steps/{stepId}', { id, stepId: messageId, body });
      made.current.set(messageId, saved.version);
    },
  });
  const takeOut = useMutation({
    ...done,
    mutationFn: (stepId: number) => api.delete('automations/{id}/steps/{stepId}', { id, stepId }),
  });
  const off = useMutation({
    ...done,
    mutationFn: () => api.post('automations/{id}/off', { id, body: { basedOn: basedOn(0, shown!.version) } }),
  });
  return { sentence, wait, takeOut, off };
}

interface WaitChange {
  step: AutomationStep;
  wait: Wait;
}
