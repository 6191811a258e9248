import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import type { ListView, TagView } from '@goodword/core/contract';
import { get } from './api';

/**
 * A tag or a list without how many people it has: counting them takes a while where they are many, and few
 * views show it.
 */
export type TagName = Omit<TagView, 'people'>;
export type ListName = Omit<ListView, 'people'>;

export const useTags = (): UseQueryResult<TagName[]> =>
  useQuery({ queryKey: ['tags', 'names'], queryFn: () => get<TagName[]>('tags?counted=false') });

export const useLists = (): UseQueryResult<ListName[]> =>
  useQuery({ queryKey: ['lists', 'names'], queryFn: () => get<ListName[]>('lists?counted=false') });

/**
 * How many people each tag or list has, by its id; nothing before it is known. What is a minute old will do
 * beside a name.
 */
export function useCounts(kind: 'tags' | 'lists'): ReadonlyMap<number, number> {
  const { data } = useQuery({
    queryKey: [kind],
    queryFn: () => get<{ id: number; people: number }[]>(kind),
    staleTime: 60_000,
  });
  return new Map((data ?? []).map(({ id, people }) => [id, people]));
}
