import { keyOf } from './reading';
import { useQuery } from '@tanstack/react-query';
import type { SessionView } from '@goodword/core/contract';
import { roleReaches, type Role } from '@goodword/core/team';
import { keepCsrf, api } from './api';
import { keepZone } from './day';

async function load(): Promise<SessionView> {
  const session = await api.get('session');
  keepCsrf(session.csrf);
  keepZone(session.organization.timeZone);
  return session;
}

export const sessionQuery = {
  queryKey: keyOf('session'),
  queryFn: load,
  staleTime: 60_000,
  retry: false,
} as const;

/** Who is signed in; the frame shows nothing else before it is known. */
export function useSession(): SessionView {
  const { data } = useQuery(sessionQuery);
  if (!data) throw new Error('expected a session inside the frame');
  return data;
}

export function useMay(role: Role): boolean {
  return roleReaches(useSession().teammate.role, role);
}
