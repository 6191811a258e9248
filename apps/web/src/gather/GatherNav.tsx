import { Places, type Place } from '../ui/Places';

const PLACES: readonly Place[] = [
  ['/gather', 'Batches'],
  ['/gather/forms', 'Forms'],
];

/** The two ways in which people come: brought by a file, or by themselves. */
export const GatherNav = () => <Places label="Gather" places={PLACES} />;
