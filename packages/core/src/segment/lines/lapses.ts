import { said } from '../../common';
import { columnOf, daysPlan } from '../plan';
import { listNamed, subjectSaid, type LineKind, type PermissionSubject } from './line-kind';

/** The implied permission that the person is reached by lapses within so many days from today. */
export interface LapsesLine extends PermissionSubject {
  kind: 'lapses';
  days: number;
}

/** What such a line reads, asks and says. */
export const lapsesLine: LineKind<LapsesLine> = {
  kind: 'lapses',
  column: ({ channel, scope }) => `lapses:${channel}:${scope}`,
  named: listNamed,
  plan: ({ days }, column, { today }) =>
    daysPlan(columnOf(column, 'day').values, { from: today, end: today + days + 1 }),
  said: (line, names) => said('line.lapses', { subject: subjectSaid(line, names), days: line.days }),
};
