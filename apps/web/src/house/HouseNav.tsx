import { t } from '@lingui/core/macro';
import { Places, type PlaceLink } from '../ui/Places';

const PLACES: readonly PlaceLink[] = [
  ['/house', t`By place`],
  ['/house/do-not-contact', t`Do not contact`],
  ['/house/proof', t`Proof`],
];

/** Rules of permission and sending, obeyed everywhere. */
export const HouseNav = () => <Places label={t`House rules`} places={PLACES} />;
