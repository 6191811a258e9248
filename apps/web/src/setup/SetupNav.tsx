import { t } from '@lingui/core/macro';
import { useMay } from '../app/session';
import { Places, type PlaceLink } from '../ui/Places';

const PLACES: readonly PlaceLink[] = [
  ['/setup', t`Organization`],
  ['/setup/team', t`Team`],
  ['/setup/fields', t`Fields`],
  ['/setup/answers', t`Automatic answers`],
  ['/setup/letters', t`Letters`],
  ['/setup/files', t`Files`],
  ['/setup/you', t`You`],
];

/** What is set once: who we are, the team, oneself, and what is asked, answered and kept. */
export function SetupNav() {
  const isOwner = useMay('owner');
  return <Places label={t`Setup`} places={PLACES.filter(([to]) => isOwner || to !== '/setup/team')} />;
}
