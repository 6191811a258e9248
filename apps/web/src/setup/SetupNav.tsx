import { useMay } from '../app/session';
import { Places, type Place } from '../ui/Places';

const PLACES: readonly Place[] = [
  ['/setup', 'Organization'],
  ['/setup/team', 'Team'],
  ['/setup/fields', 'Fields'],
  ['/setup/answers', 'Automatic answers'],
  ['/setup/files', 'Files'],
  ['/setup/you', 'You'],
];

/** What is set once: who we are, the team, oneself, and what is asked, answered and kept. */
export function SetupNav() {
  const isOwner = useMay('owner');
  return <Places label="Setup" places={PLACES.filter(([to]) => isOwner || to !== '/setup/team')} />;
}
