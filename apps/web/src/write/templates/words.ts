import { t } from '@lingui/core/macro';
import type { TemplateLine } from '@goodword/core/contract';

/** Whose a template is. */
export function whoseWords({
  isTeam,
  isOwn,
  owner,
}: Pick<TemplateLine, 'isTeam' | 'isOwn' | 'owner'>): string {
  if (isTeam) return t`the team’s`;
  if (isOwn) return t`yours`;
  return owner === null ? t`nobody’s` : t`of ${owner}`;
}
