import { said } from '../../common';
import { memberPlan } from '../plan';
import { whether, type LineKind } from './line-kind';

/** Came in or was updated by a batch, or not. */
export interface BatchLine {
  kind: 'batch';
  batchId: number;
  in: boolean;
}

/** What such a line reads, asks and says. */
export const batchLine: LineKind<BatchLine> = {
  kind: 'batch',
  column: ({ batchId }) => `batch:${batchId}`,
  named: ({ batchId }) => [{ kind: 'batch', id: batchId }],
  plan: (line, column) => memberPlan(column, line.in),
  said: (line, names) => said('line.batch', { yes: whether(line.in), batch: names.batch(line.batchId) }),
};
