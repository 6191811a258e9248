import { roleReaches, type Role } from '../team';

/** Whose a template is. */
export interface TemplateOwnership {
  /** The teammate who made it; null where they are gone. */
  ownerId: number | null;
  /** One that an organizer said is the team's. */
  isTeam: boolean;
}

/** Whoever asks. `id` is null for the program itself. */
export interface TemplateReader {
  id: number | null;
  role: Role;
}

const isOwn = ({ ownerId }: TemplateOwnership, { id }: TemplateReader) => ownerId !== null && ownerId === id;

/** The team's are everybody's, one's own are one's own; whoever sees to the team's sees all. */
export function maySeeTemplate(template: TemplateOwnership, reader: TemplateReader): boolean {
  return template.isTeam || isOwn(template, reader) || roleReaches(reader.role, 'organizer');
}

/** A writer changes their own as long as it is not the team's; an organizer changes all. */
export function mayChangeTemplate(template: TemplateOwnership, reader: TemplateReader): boolean {
  if (roleReaches(reader.role, 'organizer')) return true;
  return roleReaches(reader.role, 'writer') && isOwn(template, reader) && !template.isTeam;
}

/** Which are the team's is said by an organizer. */
export function maySayTeams(reader: TemplateReader): boolean {
  return roleReaches(reader.role, 'organizer');
}
