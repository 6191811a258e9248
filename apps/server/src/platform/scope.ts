import type { Role } from '@goodword/core/contract';

/** Whose data a caller may touch. Every query is made with one in hand. */
export interface AccessScope {
  organizationId: number;
  /** Null: all chapters of the organization. */
  chapterId: number | null;
  /** The teammate acting; null for the program itself. */
  actorId: number | null;
  role: Role;
  /** The one chapter that the teammate is bound to; null for whoever may work in all. */
  boundTo: number | null;
}

/** The program acting on its own in an organization: jobs, hooks, ways out. */
export function programScope(organizationId: number, chapterId: number | null = null): AccessScope {
  return { organizationId, chapterId, actorId: null, role: 'owner', boundTo: null };
}
