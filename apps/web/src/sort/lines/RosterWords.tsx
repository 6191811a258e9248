import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { RosterLine } from '@goodword/core/segment';
import { byId, type LineEditor, type LineProps } from './subjects';
import { PickWord, YesNoWord } from './Word';

/** On a campaign's roster or not, at any stage or at one. */
function RosterWords({ line, subjects, onChange }: LineProps<RosterLine>) {
  const stages = subjects.campaigns.find((campaign) => campaign.id === line.campaignId)?.stages ?? [];
  return (
    <>
      <YesNoWord value={line.on} yes={t`are`} no={t`are not`} onPick={(on) => onChange({ ...line, on })} />{' '}
      <Trans>
        on the roster of{' '}
        <PickWord
          label={t`Campaign`}
          value={line.campaignId}
          options={byId(subjects.campaigns)}
          onPick={(campaignId) => onChange({ ...line, campaignId, stages: [] })}
        />{' '}
        as
      </Trans>{' '}
      <PickWord
        label={t`Stage`}
        value={line.stages[0] ?? ''}
        options={[['', 'anything'], ...stages.map((stage) => [stage, stage] as const)]}
        onPick={(stage) => onChange({ ...line, stages: stage === '' ? [] : [stage] })}
      />
    </>
  );
}

export const rosterEditor: LineEditor<RosterLine> = {
  Words: RosterWords,
  offer: t`are on a campaign’s roster`,
  begin: ({ campaigns: [campaign] }) =>
    campaign && { kind: 'roster', campaignId: campaign.id, stages: [], on: true },
};
