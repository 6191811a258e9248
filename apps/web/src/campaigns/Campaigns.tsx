import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Loading, ProblemNote } from '../ui/basics';
import { SortNav } from '../sort/SortNav';
import { EditCampaign } from './EditCampaign';
import { TableHead } from '../ui/TableHead';
import { reading } from '../app/reading';

/** Campaigns with how many stand where. */
export default function Campaigns() {
  const format = useFormat();
  const may = useMay('organizer');
  const [making, setMaking] = useState(false);
  const { data, error } = useQuery(reading('campaigns'));
  if (!data) return error ? <ProblemNote error={error} /> : <Loading what={t`campaigns`} />;
  return (
    <>
      <Heading title={t`Sort`} page={t`Campaigns`} note={t`Campaigns and their rosters`}>
        {may && (
          <Button weight="main" onClick={() => setMaking(true)}>
            {t`Make a campaign`}
          </Button>
        )}
      </Heading>
      <SortNav />
      <div className="sheet grow overflow-y-auto" tabIndex={0} role="region" aria-label={t`Campaigns`}>
        {data.length === 0 ? (
          <Empty title={t`There is no campaign yet`}>
            <p>
              <Trans>
                An appeal, a thank-you or an update that runs for a while: its roster holds who is asked, and
                how each of them stands.
              </Trans>
            </p>
          </Empty>
        ) : (
          <table className="w-full">
            <TableHead
              titles={[t`Campaign`, t`Kind`, t`Appeal code`, t`On the roster`, t`Stages`, t`Made`]}
            />
            <tbody>
              {data.map((campaign) => (
                <tr
                  key={campaign.id}
                  className={`border-b border-hair ${campaign.isOpen ? '' : 'text-ink3'}`}
                >
                  <td className="px-4 py-2 font-semibold">
                    <Link className="hover:underline" to={`/sort/campaigns/${campaign.id}`}>
                      {campaign.name}
                    </Link>
                    {!campaign.isOpen && t`, closed`}
                  </td>
                  <td className="px-4">{campaign.kind}</td>
                  <td className="px-4 font-mono text-[12px]">{campaign.appealCode}</td>
                  <td className="px-4">{format.number(campaign.people)}</td>
                  <td className="px-4 text-ink2">
                    {campaign.stages
                      .filter((one) => campaign.counts[one])
                      .map((one) => `${one} ${format.number(campaign.counts[one]!)}`)
                      .join(' · ')}
                  </td>
                  <td className="px-4 text-ink2">
                    {format.moment(campaign.madeAt)}, {campaign.madeBy}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
      {making && <EditCampaign campaign={null} onClose={() => setMaking(false)} />}
    </>
  );
}
