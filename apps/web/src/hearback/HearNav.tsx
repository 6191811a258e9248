import { t } from '@lingui/core/macro';
import { Places, type PlaceLink } from '../ui/Places';

const PLACES: readonly PlaceLink[] = [
  ['/hear-back', t`Messages`],
  ['/hear-back/replies', t`Replies`],
];

/** Messages, and what people wrote back. */
export const HearNav = () => <Places label={t`Hear back`} places={PLACES} />;
