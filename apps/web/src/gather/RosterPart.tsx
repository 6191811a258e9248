import type { PlanParts } from './draft';
import type { CampaignView } from '@goodword/core/contract';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { FIRST_STAGES } from '@goodword/core/campaigns';
import { api } from '../app/api';
import { Button, ProblemNote } from '../ui/basics';
import { useDraft } from './draft';
import { keyOf, reading } from '../app/reading';

function CampaignChoice({
  parts,
  open,
  set,
  chosen,
}: {
  parts: PlanParts;
  open: CampaignView[];
  set: (parts: Partial<PlanParts>) => void;
  chosen: CampaignView | undefined;
}) {
  return (
    <div className="flex gap-2">
      <select
        className="input"
        aria-label={t`Campaign`}
        value={parts.roster?.campaignId ?? ''}
        onChange={(event) => {
          const campaign = open.find((one) => one.id === Number(event.target.value));
          set({ roster: campaign ? { campaignId: campaign.id, stage: campaign.stages[0]! } : null });
        }}
      >
        <option value="">{t`No roster`}</option>
        {open.map((campaign) => (
          <option key={campaign.id} value={campaign.id}>
            {campaign.name}
          </option>
        ))}
      </select>
      {chosen && parts.roster && (
        <select
          className="input !w-[150px]"
          aria-label={t`Stage`}
          value={parts.roster.stage}
          onChange={(event) => set({ roster: { campaignId: chosen.id, stage: event.target.value } })}
        >
          {chosen.stages.map((stage) => (
            <option key={stage}>{stage}</option>
          ))}
        </select>
      )}
    </div>
  );
}

/**
 * A campaign's roster, the campaign picked and never spelled; a column of stages goes before the one for all.
 */
export function Roster() {
  const { parts, set, columns } = useDraft();
  const queryClient = useQueryClient();
  const campaigns = useQuery(reading('campaigns'));
  const [making, setMaking] = useState<string | null>(null);
  const make = useMutation({
    mutationFn: (name: string) =>
      api.post('campaigns', {
        body: {
          name,
          kind: 'appeal',
          appealCode: null,
          stages: FIRST_STAGES,
        },
      }),
    onSuccess: async ({ id }) => {
      await queryClient.invalidateQueries({ queryKey: keyOf('campaigns') });
      set({ roster: { campaignId: id, stage: FIRST_STAGES[0]! } });
      setMaking(null);
    },
  });
  const open = campaigns.data?.filter((one) => one.isOpen || one.id === parts.roster?.campaignId) ?? [];
  const chosen = open.find((one) => one.id === parts.roster?.campaignId);
  const fromColumn = columns.some(({ to }) => to === 'stage');
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="subtitle pb-1">{t`A campaign's roster`}</legend>
      <CampaignChoice parts={parts} open={open} set={set} chosen={chosen} />
      {chosen && fromColumn && (
        <p className="text-ink2">{t`The column of stages goes before it, row by row.`}</p>
      )}
      {making === null ? (
        <p className="text-ink2">
          <button className="link text-ink" onClick={() => setMaking('')}>
            {t`Make a campaign`}
          </button>{' '}
          <Trans>
            or{' '}
            <Link to="/sort/campaigns" className="link text-ink">
              see them all
            </Link>
          </Trans>
        </p>
      ) : (
        <form
          className="flex gap-2"
          onSubmit={(event) => (event.preventDefault(), make.mutate(making.trim()))}
        >
          <input
            autoFocus
            className="input"
            aria-label={t`Name of the campaign`}
            value={making}
            maxLength={120}
            onChange={(event) => setMaking(event.target.value)}
          />
          <Button type="submit" disabled={making.trim() === '' || make.isPending}>
            {t`Make it`}
          </Button>
        </form>
      )}
      <ProblemNote error={make.error} />
    </fieldset>
  );
}
