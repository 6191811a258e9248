import { said } from '../../common';
import { whether, type LineKind } from './line-kind';

/** Another segment, as it stands at the moment of reading. */
export interface SegmentLine {
  kind: 'segment';
  segmentId: number;
  in: boolean;
}

function unexpanded(): never {
  throw new Error('expected segments inside a segment to be expanded before they are read (see expand)');
}

/** What such a line reads, asks and says. */
export const segmentLine: LineKind<SegmentLine> = {
  kind: 'segment',
  column: unexpanded,
  named: ({ segmentId }) => [{ kind: 'segment', id: segmentId }],
  plan: unexpanded,
  said: (line, names) =>
    said('line.segment', { yes: whether(line.in), segment: names.segment(line.segmentId) }),
};
