import { t } from '@lingui/core/macro';
import { Places, type Place } from '../ui/Places';

const PLACES: readonly Place[] = [
  ['/house', t`By place`],
  ['/house/do-not-contact', t`Do not contact`],
  ['/house/proof', t`Proof`],
];

/** Rules of permission and sending, obeyed everywhere. */
export const HouseNav = () => <Places label={t`House rules`} places={PLACES} />;
