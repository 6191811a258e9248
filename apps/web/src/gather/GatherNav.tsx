import { t } from '@lingui/core/macro';
import { Places, type PlaceLink } from '../ui/Places';

const PLACES: readonly PlaceLink[] = [
  ['/gather', t`Batches`],
  ['/gather/forms', t`Forms`],
  ['/gather/feeds', t`Feeds`],
  ['/gather/layouts', t`Remembered layouts`],
  ['/gather/work', t`Work under way`],
];

/** The ways in which people come, and what is kept and done for them. */
export const GatherNav = () => <Places label={t`Gather`} places={PLACES} />;
