import { Places, type Place } from '../ui/Places';

const PLACES: readonly Place[] = [
  ['/gather', 'Batches'],
  ['/gather/forms', 'Forms'],
  ['/gather/layouts', 'Remembered layouts'],
  ['/gather/work', 'Work under way'],
];

/** The ways in which people come, and what is kept and done for them. */
export const GatherNav = () => <Places label="Gather" places={PLACES} />;
