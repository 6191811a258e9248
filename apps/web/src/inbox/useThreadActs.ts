import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api } from '../app/api';
import { refresh } from '../app/refresh';

/** What is done about a thread, named by the newest reply that was seen. */
export type ThreadAct =
  | { kind: 'read' | 'done' | 'reopen' | 'no'; id: number }
  | { kind: 'aside'; id: number; until: string | null }
  | { kind: 'give'; id: number; to: number | null }
  | { kind: 'note'; id: number; supporterId: number; body: string }
  | { kind: 'settle'; id: number; taskId: number; meant: boolean };

async function run(act: ThreadAct): Promise<void> {
  const { id } = act;
  switch (act.kind) {
    case 'read':
      return api.post('replies/{id}/read', { id });
    case 'no':
      return api.post('replies/{id}/no', { id });
    case 'done':
    case 'reopen':
      return api.post('replies/{id}/handled', { id, body: { handled: act.kind === 'done' } });
    case 'aside':
      return api.post('replies/{id}/aside', { id, body: { until: act.until } });
    case 'give':
      return api.post('replies/{id}/assigned', { id, body: { to: act.to } });
    case 'note':
      return void (await api.post('supporters/{id}/notes', {
        id: act.supporterId,
        body: { body: act.body },
      }));
    case 'settle':
      return api.post('tasks/{id}/settle', {
        id: act.taskId,
        body: { outcome: act.meant ? 'meant' : 'not-meant' },
      });
  }
}

const TOUCHES = { no: 'supporters', note: 'supporters', settle: 'tasks' } as const;

/** Does one of them and reads again what it has changed. */
export function useThreadActs() {
  const queryClient = useQueryClient();
  return useMutation({
    mutationFn: run,
    onSuccess: (_nothing, { kind }) =>
      refresh(queryClient, 'replies', ...(kind in TOUCHES ? [TOUCHES[kind as keyof typeof TOUCHES]] : [])),
  });
}
