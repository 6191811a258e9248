import type { QueryClient } from '@tanstack/react-query';
import { create } from 'zustand';
import type { BulkView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { refresh } from '../../app/refresh';

/** The act on a group that is followed on screen, wherever the person goes meanwhile. */
export const useFollowed = create<{ bulk: BulkView | null }>(() => ({ bulk: null }));

const RUNS = new Set<BulkView['state']>(['waiting', 'running', 'undoing']);
export const isRunning = (bulk: BulkView) => RUNS.has(bulk.state);

/** Follows an act until it ends, and has everything that is shown read anew then. */
export function followBulk(id: number, queryClient: QueryClient): void {
  const look = async () => {
    const bulk = await api.get('bulk/{id}', { id }).catch(() => null);
    if (!bulk) return void setTimeout(() => void look(), 3000);
    useFollowed.setState({ bulk });
    if (isRunning(bulk)) setTimeout(() => void look(), 500);
    else void refresh(queryClient, 'bulk', 'supporters');
  };
  void look();
}

export function forgetBulk(): void {
  useFollowed.setState({ bulk: null });
}
