import { said } from '../../common';
import { STATES, type PermissionState } from '../../permission';
import { columnOf } from '../plan';
import { listNamed, subjectSaid, type LineKind, type PermissionSubject } from './line-kind';

/** Has a state of permission for a channel and scope. */
export interface PermissionLine extends PermissionSubject {
  kind: 'permission';
  states: PermissionState[];
}

/** What such a line reads, asks and says. */
export const permissionLine: LineKind<PermissionLine> = {
  kind: 'permission',
  column: ({ channel, scope }) => `permission:${channel}:${scope}`,
  named: listNamed,
  plan: ({ states }, column) => ({
    kind: 'table',
    codes: columnOf(column, 'state').codes,
    passes: Uint8Array.from(STATES, (state) => Number(states.includes(state))),
  }),
  said: (line, names) =>
    said('line.permission', {
      states: said('line.states', { states: line.states.map((state) => said(`state.in.${state}`)) }),
      subject: subjectSaid(line, names),
    }),
};
