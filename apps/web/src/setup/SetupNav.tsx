import { t } from '@lingui/core/macro';
import { useMay } from '../app/session';
import { Places, type PlaceLink } from '../ui/Places';

const PLACES: readonly PlaceLink[] = [
  ['/setup', t`Organization`],
  ['/setup/sender', t`Sender`],
  ['/setup/sources', t`Sources`],
  ['/setup/team', t`Team`],
  ['/setup/fields', t`Fields`],
  ['/setup/answers', t`Automatic answers`],
  ['/setup/letters', t`Letters`],
  ['/setup/files', t`Files`],
  ['/setup/you', t`You`],
];

/** What is set once: who we are, the team, oneself, and what is asked, answered and kept. */
export function SetupNav() {
  const may: Record<string, boolean> = {
    '/setup/team': useMay('owner'),
    '/setup/sender': useMay('organizer'),
    '/setup/sources': useMay('organizer'),
  };
  return <Places label={t`Setup`} places={PLACES.filter(([to]) => may[to] ?? true)} />;
}
