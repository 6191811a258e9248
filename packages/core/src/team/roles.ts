/** Roles from the one that may least to the one that may most. */
export const ROLES = ['viewer', 'writer', 'organizer', 'owner'] as const;
/** In rising order: each may do what those before it may. */
export type Role = (typeof ROLES)[number];

/** Whether a role may what another may. */
export function roleReaches(role: Role, needed: Role): boolean {
  return ROLES.indexOf(role) >= ROLES.indexOf(needed);
}
