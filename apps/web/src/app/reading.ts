import { queryOptions } from '@tanstack/react-query';
import { api, type Brings, type BringsArgs, type PathOf } from './api';

/** The key of everything that is read at a path, or of one reading of it. */
export const keyOf = <P extends PathOf<'get'>>(path: P, bring?: Brings<'get', P>): readonly unknown[] =>
  bring === undefined ? [path] : [path, bring];

/** A reading of the server for `useQuery`, kept under its path and what it asks for. */
export const reading = <P extends PathOf<'get'>>(path: P, ...bring: BringsArgs<'get', P>) =>
  queryOptions({ queryKey: [path, ...bring], queryFn: () => api.get(path, ...bring) });

/** A reading that has to say more than fits in an address. */
export const readingByPost = <P extends PathOf<'post'>>(path: P, ...bring: BringsArgs<'post', P>) =>
  queryOptions({ queryKey: [path, ...bring], queryFn: () => api.post(path, ...bring) });

/** The same reading, made anew where one of these marks is another than before. */
export const anew = <R extends { queryKey: readonly unknown[] }>(
  one: R,
  ...marks: (string | number)[]
): R => ({
  ...one,
  queryKey: [...one.queryKey, ...marks],
});
