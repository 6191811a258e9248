import type { FeedRunView } from '@goodword/core/contract';
import type { RunRow } from './runs.repository';

/** A run as it is shown. */
export const runView = (run: RunRow): FeedRunView => ({
  ...{
    id: run.id,
    cause: run.cause,
    state: run.state,
    batchId: run.batch_id,
    looksBatchId: run.looks_batch_id,
  },
  ...{ beganAt: run.began_at.toISOString(), endedAt: run.ended_at?.toISOString() ?? null },
  ...{ beganBy: run.began_by_name, fresh: run.fresh, changed: run.changed, same: run.same, gone: run.gone },
  ...{ looks: run.looks, notTaken: run.not_taken, problem: run.problem },
});
