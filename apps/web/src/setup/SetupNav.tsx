import { useMay } from '../app/session';
import { Places, type Place } from '../ui/Places';

const EVERYBODY: readonly Place[] = [
  ['/setup', 'Organization'],
  ['/setup/you', 'You'],
];
const OWNERS: readonly Place[] = [
  ['/setup', 'Organization'],
  ['/setup/team', 'Team'],
  ['/setup/you', 'You'],
];

/** Who we are: the organization, the team, oneself. */
export const SetupNav = () => <Places label="Setup" places={useMay('owner') ? OWNERS : EVERYBODY} />;
