import { Places, type Place } from '../ui/Places';

const PLACES: readonly Place[] = [
  ['/hear-back', 'Messages'],
  ['/hear-back/replies', 'Replies'],
];

/** Messages, and what people wrote back. */
export const HearNav = () => <Places label="Hear back" places={PLACES} />;
