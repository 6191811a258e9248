import { Places, type Place } from '../ui/Places';

const PLACES: readonly Place[] = [
  ['/house', 'By place'],
  ['/house/do-not-contact', 'Do not contact'],
  ['/house/texts', 'Answers to texts'],
  ['/house/proof', 'Proof'],
  ['/house/fields', 'Fields'],
  ['/house/files', 'Files'],
];

/** What is set once and obeyed everywhere. */
export const HouseNav = () => <Places label="House rules" places={PLACES} />;
