import { t } from '@lingui/core/macro';

/** The five stations, in the order of the work and of the day. */
export const STATIONS = [
  { path: '/gather', name: t`Gather` },
  { path: '/sort', name: t`Sort` },
  { path: '/write', name: t`Write` },
  { path: '/send', name: t`Send` },
  { path: '/hear-back', name: t`Hear back` },
] as const;
