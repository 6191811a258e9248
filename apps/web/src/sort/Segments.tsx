import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Loading, ProblemNote } from '../ui/basics';
import { SortNav } from './SortNav';
import { reading } from '../app/reading';

/** Segments, each read as a sentence. */
export default function Segments() {
  const navigate = useNavigate();
  const may = useMay('organizer');
  const { data, error, isPending } = useQuery(reading('segments'));
  if (isPending) return <Loading what={t`segments`} />;
  return (
    <>
      <Heading title={t`Segments`} note={t`Rules that keep themselves up to date`}>
        {may && (
          <Button weight="main" onClick={() => void navigate('/sort/segments/new')}>
            {t`Make a segment`}
          </Button>
        )}
      </Heading>
      <SortNav />
      <ProblemNote error={error} />
      <div className="sheet">
        {data?.length === 0 && (
          <Empty title={t`No segment yet`}>
            <p>
              <Trans>
                Say who you mean in a sentence: who gave before but not this year, who has a birthday soon.
              </Trans>
            </p>
          </Empty>
        )}
        <ul>
          {data?.map((segment) => (
            <li key={segment.id} className="border-b border-hair last:border-0 px-5 py-3">
              <Link className="subtitle hover:underline" to={`/sort/segments/${segment.id}`}>
                {segment.name}
              </Link>
              <p className="text-ink2">
                <Trans>Supporters who {segment.words}</Trans>
              </p>
              {segment.usedBy.length > 0 && (
                <p className="text-[12.5px] text-ink3">
                  <Trans>Used by {segment.usedBy.map((one) => one.name).join(', ')}</Trans>
                </p>
              )}
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}
