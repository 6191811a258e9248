import { Places, type Place } from '../ui/Places';

const PLACES: readonly Place[] = [
  ['/sort', 'Supporters'],
  ['/sort/segments', 'Segments'],
  ['/sort/groups', 'Lists and tags'],
  ['/sort/campaigns', 'Campaigns'],
  ['/sort/calls', 'Calls'],
];

/** The ways to look at people. */
export const SortNav = () => <Places label="Sort" places={PLACES} />;
