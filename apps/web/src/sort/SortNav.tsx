import { Places, type Place } from '../ui/Places';

const PLACES: readonly Place[] = [
  ['/sort', 'Supporters'],
  ['/sort/segments', 'Segments'],
  ['/sort/groups', 'Lists and tags'],
];

/** The three ways to look at people. */
export const SortNav = () => <Places label="Sort" places={PLACES} />;
