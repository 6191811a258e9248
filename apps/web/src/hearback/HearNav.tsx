import { t } from '@lingui/core/macro';
import { Places, type Place } from '../ui/Places';

const PLACES: readonly Place[] = [
  ['/hear-back', t`Messages`],
  ['/hear-back/replies', t`Replies`],
];

/** Messages, and what people wrote back. */
export const HearNav = () => <Places label={t`Hear back`} places={PLACES} />;
