import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import type { FeedWhole } from '@goodword/core/contract';
import type { FeedPlan } from '@goodword/core/feeds';
import { api } from '../app/api';
import { keyOf } from '../app/reading';
import { refresh } from '../app/refresh';

/**
 * What is done with a feed, one thing after the other. Each change is shown at once and builds on what the
 * one before made; of two people the second is told.
 */
export function useFeedChanges(id: number, shown: FeedWhole | undefined) {
  const queryClient = useQueryClient();
  const version = useRef(0);
  const latest = useRef<Partial<FeedPlan> & { name?: string }>({});
  const basedOn = () => Math.max(version.current, shown!.version);
  const key = ['feed', id];
  const settled = {
    mutationKey: key,
    // What is read again while a later change is on its way would show that one undone for a moment.
    onSettled: () =>
      queryClient.isMutating({ mutationKey: key }) > 1 ? undefined : refresh(queryClient, 'feeds'),
    scope: { id: `feed ${id}` },
  };
  const change = useMutation({
    ...settled,
    onMutate: ({ name, ...part }: Partial<FeedPlan> & { name?: string }) => {
      void queryClient.cancelQueries({ queryKey: keyOf('feeds/{id}', { id }) });
      latest.current = { ...latest.current, ...part, ...(name === undefined ? {} : { name }) };
      queryClient.setQueryData(
        keyOf('feeds/{id}', { id }),
        (old: FeedWhole | undefined) =>
          old && { ...old, name: name ?? old.name, plan: { ...old.plan, ...part } },
      );
    },
    mutationFn: async () => {
      const { name, ...part } = latest.current;
      const body = { name: name ?? shown!.name, plan: { ...shown!.plan, ...part }, basedOn: basedOn() };
      version.current = (await api.put('feeds/{id}', { id, body })).version;
    },
    // What could not be kept is not tried once more with the next change.
    onError: () => void (latest.current = {}),
  });
  const turn = useMutation({
    ...settled,
    mutationFn: (to: 'on' | 'off') => api.post(`feeds/{id}/${to}`, { id, body: { basedOn: basedOn() } }),
  });
  const run = useMutation({
    ...settled,
    mutationFn: (how: { trial?: boolean; anyway?: boolean }) =>
      api.post('feeds/{id}/runs', { id, body: { trial: false, anyway: false, ...how } }),
  });
  const stop = useMutation({ ...settled, mutationFn: () => api.post('feeds/{id}/stop', { id }) });
  return { change, turn, run, stop };
}
