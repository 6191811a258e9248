import { t } from '@lingui/core/macro';
import { Places, type PlaceLink } from '../ui/Places';

const PLACES: readonly PlaceLink[] = [
  ['/write', t`Being written`],
  ['/write/templates', t`Templates`],
];

/** What is being written, and the words that are kept for it. */
export const WriteNav = () => <Places label={t`Write`} places={PLACES} />;
