import { said } from '../../common';
import { columnOf } from '../plan';
import { whether, type LineKind } from './line-kind';

/** On a campaign's roster, with one of these stages; with any where none is named. */
export interface RosterLine {
  kind: 'roster';
  campaignId: number;
  stages: string[];
  on: boolean;
}

/** What such a line reads, asks and says. */
export const rosterLine: LineKind<RosterLine> = {
  kind: 'roster',
  column: ({ campaignId }) => `roster:${campaignId}`,
  named: ({ campaignId }) => [{ kind: 'campaign', id: campaignId }],
  plan: (line, column) => {
    const { codes, stages } = columnOf(column, 'stage');
    const isOn = (stage: string, code: number) =>
      code > 0 && (line.stages.length === 0 || line.stages.includes(stage));
    return {
      kind: 'table',
      codes,
      passes: Uint8Array.from(['', ...stages], (stage, code) => Number(isOn(stage, code) === line.on)),
    };
  },
  said: (line, names) => {
    const roster = { yes: whether(line.on), campaign: names.campaign(line.campaignId) };
    if (line.stages.length === 0) return said('line.roster', roster);
    return said('line.roster-at', { ...roster, stages: said('line.states', { states: line.stages }) });
  },
};
