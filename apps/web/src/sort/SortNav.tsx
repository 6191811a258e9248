import { t } from '@lingui/core/macro';
import { Places, type PlaceLink } from '../ui/Places';

const PLACES: readonly PlaceLink[] = [
  ['/sort', t`Supporters`],
  ['/sort/segments', t`Segments`],
  ['/sort/groups', t`Lists and tags`],
  ['/sort/campaigns', t`Campaigns`],
  ['/sort/calls', t`Calls`],
];

/** The ways to look at people. */
export const SortNav = () => <Places label={t`Sort`} places={PLACES} />;
