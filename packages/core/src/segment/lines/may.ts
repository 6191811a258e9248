import { said } from '../../common';
import { memberPlan } from '../plan';
import { listNamed, subjectSaid, whether, type LineKind, type PermissionSubject } from './line-kind';

/** Whether a message may go to the person now: permission, address and house rules together. */
export interface MayLine extends PermissionSubject {
  kind: 'may';
  may: boolean;
}

/** What such a line reads, asks and says. */
export const mayLine: LineKind<MayLine> = {
  kind: 'may',
  column: ({ channel, scope }) => `may:${channel}:${scope}`,
  named: listNamed,
  plan: ({ may }, column) => memberPlan(column, may),
  said: (line, names) => said('line.may', { yes: whether(line.may), subject: subjectSaid(line, names) }),
};
