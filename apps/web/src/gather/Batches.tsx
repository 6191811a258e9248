import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { BatchState, BatchView } from '@goodword/core/contract';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Loading, ProblemNote } from '../ui/basics';
import { KIND_WORDS } from './columnWords';
import { useDraft } from './draft';
import { GatherNav } from './GatherNav';
import { TableHead } from '../ui/TableHead';
import { DayField } from '../ui/DayField';
import { STEP_WORDS } from './stepWords';
import type { BatchStep } from './draft';
import { reading } from '../app/reading';

export const BATCH_WORDS: Record<BatchState, string> = {
  reading: t`being read`,
  unreadable: t`could not be read`,
  draft: t`not settled yet`,
  checking: t`being checked`,
  checked: t`checked, not in yet`,
  bringing: t`coming in`,
  stopped: t`stopped half-way`,
  done: t`brought in`,
  'taking-out': t`being taken out`,
  'taken-out': t`taken back out`,
  failed: 'failed',
};

/** What a half-done batch waits for. */
function waitsFor(batch: BatchView): string {
  if (batch.state === 'draft')
    return t`waits at: ${STEP_WORDS[(batch.draft?.step ?? 'Columns') as BatchStep].toLowerCase()}`;
  const { look = 0 } = batch.counts;
  if (batch.state === 'checked' && look > 0) return t`checked, ${look} to look at`;
  return BATCH_WORDS[batch.state];
}

const FILTER = 'input !w-auto !min-h-[32px] !py-[3px]';

/** Narrows the history by person, day, source and state; the address holds what is chosen. */
function Filters({ params, set }: { params: URLSearchParams; set: (name: string, value: string) => void }) {
  const team = useQuery(reading('session/teammates'));
  return (
    <div className="flex flex-wrap gap-2 pb-3 items-center text-ink2">
      <select
        className={FILTER}
        aria-label={t`State`}
        value={params.get('state') ?? ''}
        onChange={(event) => set('state', event.target.value)}
      >
        <option value="">{t`All batches`}</option>
        <option value="open">{t`Not finished`}</option>
        <option value="done">{t`Finished`}</option>
      </select>
      <select
        className={FILTER}
        aria-label={t`Brought in by`}
        value={params.get('by') ?? ''}
        onChange={(event) => set('by', event.target.value)}
      >
        <option value="">{t`by anyone`}</option>
        {team.data?.map((one) => (
          <option key={one.id} value={one.id}>
            {t`by ${one.name}`}
          </option>
        ))}
      </select>
      <label>
        {t`from`}{' '}
        <DayField
          className={`${FILTER} !w-[140px]`}
          value={params.get('from') ?? ''}
          onChange={(day) => set('from', day)}
        />
      </label>
      <label>
        {t`to`}{' '}
        <DayField
          className={`${FILTER} !w-[140px]`}
          value={params.get('to') ?? ''}
          onChange={(day) => set('to', day)}
        />
      </label>
      <input
        className={`${FILTER} !w-[200px]`}
        aria-label={t`Name or file`}
        placeholder={t`Name or file`}
        value={params.get('source') ?? ''}
        onChange={(event) => set('source', event.target.value)}
      />
    </div>
  );
}

/** All batches, newest first. */
export default function Batches() {
  const navigate = useNavigate();
  const may = useMay('organizer');
  const reset = useDraft((draft) => draft.reset);
  const [params, setParams] = useSearchParams();
  const set = (name: string, value: string) =>
    setParams(
      (old) => {
        if (value) old.set(name, value);
        else old.delete(name);
        return old;
      },
      { replace: true },
    );
  const asked = Object.fromEntries(params);
  const { data, error, isPending } = useQuery({
    ...reading('batches', { ...asked }),
    refetchInterval: 4_000,
  });
  if (isPending) return <Loading what={t`batches`} />;
  const begin = () => (reset(), void navigate('/gather/new'));
  return (
    <>
      <Heading title={t`Gather`} note={t`Batches of people, each brought in with its permission`}>
        {may && (
          <Button weight="main" onClick={begin}>
            {t`Bring in a file`}
          </Button>
        )}
      </Heading>
      <GatherNav />
      <Filters params={params} set={set} />
      <ProblemNote error={error} />
      <div className="sheet grow overflow-y-auto" tabIndex={0} role="region" aria-label={t`Batches`}>
        {data?.length === 0 ? (
          <Empty
            title={params.size > 0 ? t`No batch fits that` : t`Nobody has been brought in by a file yet`}
          >
            <p>
              <Trans>
                Take the sign-up sheet of your last event: one header row, one person a row. You will see what
                becomes of every row before anything is changed.
              </Trans>
            </p>
            {may && (
              <Link className="link text-ink" to="/gather/new" onClick={reset}>
                {t`Bring in the first file`}
              </Link>
            )}
          </Empty>
        ) : (
          <BatchTable batches={data ?? []} />
        )}
      </div>
    </>
  );
}

function BatchTable({ batches }: { batches: readonly BatchView[] }) {
  const format = useFormat();
  return (
    <table className="w-full">
      <TableHead titles={[t`Batch`, t`What`, t`State`, t`Rows`, t`New`, t`Updated`, t`Not in`, t`Began`]} />
      <tbody>
        {batches.map((batch) => (
          <tr key={batch.id} className="border-b border-hair">
            <td className="px-4 py-2 font-semibold">
              <Link className="hover:underline" to={`/gather/${batch.id}`}>
                {batch.name}
              </Link>
            </td>
            <td className="px-4 text-ink2">{KIND_WORDS[batch.what][0]}</td>
            <td className="px-4">{waitsFor(batch)}</td>
            <td className="px-4">{format.number(batch.rows)}</td>
            <td className="px-4">{format.number((batch.counts.new ?? 0) + (batch.counts.shares ?? 0))}</td>
            <td className="px-4">{format.number(batch.counts.update ?? 0)}</td>
            <td className="px-4">{format.number((batch.counts.failed ?? 0) + (batch.counts.look ?? 0))}</td>
            <td className="px-4 text-ink2">
              {format.moment(batch.createdAt)}, {batch.createdBy}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
