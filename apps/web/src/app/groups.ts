import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import type { ListView, TagView } from '@goodword/core/contract';

import { reading } from './reading';

/**
 * A tag or a list without how many people it has: counting them takes a while where they are many, and few
 * views show it.
 */
export type TagName = Omit<TagView, 'people'>;
export type ListName = Omit<ListView, 'people'>;

export const useTags = (): UseQueryResult<TagName[]> => useQuery(reading('tags', { counted: false }));

export const useLists = (): UseQueryResult<ListName[]> => useQuery(reading('lists', { counted: false }));

/**
 * How many people each tag or list has, by its id; nothing before it is known. What is a minute old will do
 * beside a name.
 */
export function useCounts(kind: 'tags' | 'lists'): ReadonlyMap<number, number> {
  const { data } = useQuery({ ...reading(kind), staleTime: 60_000 });
  return new Map((data ?? []).flatMap(({ id, people }) => (people === undefined ? [] : [[id, people]])));
}
