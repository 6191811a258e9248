import { t } from '@lingui/core/macro';
import type { RunCause, RunState } from '@goodword/core/contract';

/** How a run stands, in a word or two. */
export const RUN_STATE_WORDS: Record<RunState, string> = {
  reading: t`reading`,
  checking: t`checking`,
  bringing: t`coming in`,
  done: t`came in`,
  nothing: t`nothing to do`,
  tried: t`tried, nothing written`,
  held: t`stopped before writing`,
  failed: t`failed, nothing written`,
  stopped: t`stopped half-way`,
  'taken-out': t`taken back out`,
};

/** What set a run going. */
export const RUN_CAUSE_WORDS: Record<RunCause, string> = {
  clock: '',
  hand: t`by hand`,
  hook: t`at once`,
  trial: t`a trial`,
};

/** Runs that are under way. */
export const isUnderWay = (state: RunState): boolean =>
  state === 'reading' || state === 'checking' || state === 'bringing';
