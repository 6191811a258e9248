import { t } from '@lingui/core/macro';
import type { TemplateLine } from '@goodword/core/contract';
import type { Channel } from '@goodword/core/permission';

/** What words of each channel are, where one is kept. */
export const KIND_OF_WORDS: Record<Channel, string> = {
  email: t`Email`,
  text: t`Text`,
  post: t`Letter on paper`,
  call: t`Call script`,
};

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
