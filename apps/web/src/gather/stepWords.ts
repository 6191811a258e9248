import { t } from '@lingui/core/macro';
import type { BatchStep } from './draft';

/** The last step, which every kind of file has. */
export const CHECK = 'check';

export const STEP_WORDS: Record<BatchStep | typeof CHECK, string> = {
  File: t`File`,
  Columns: t`Columns`,
  'Where they go': t`Where they go`,
  Permission: t`Permission`,
  Matches: t`Matches`,
  [CHECK]: t`Check and bring in`,
};
