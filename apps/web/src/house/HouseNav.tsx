import { Places, type Place } from '../ui/Places';

const PLACES: readonly Place[] = [
  ['/house', 'By place'],
  ['/house/do-not-contact', 'Do not contact'],
  ['/house/proof', 'Proof'],
];

/** Rules of permission and sending, obeyed everywhere. */
export const HouseNav = () => <Places label="House rules" places={PLACES} />;
