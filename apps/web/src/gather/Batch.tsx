import type { UseMutationResult } from '@tanstack/react-query';
import { plural, t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { BatchView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { useMay, useSession } from '../app/session';
import { Button, Heading, Loading, ProblemNote, Progress } from '../ui/basics';
import { Confirm } from '../ui/dialogs';
import { useMargin } from '../ui/margin';
import { BATCH_WORDS } from './Batches';
import { batchNotes } from './batchNotes';
import { Counts, RowsDrawer, type Opened } from './BatchCounts';
import { WhatItWrites } from './BatchWill';
import { stepsOf } from './draft';
import { Doubles } from './Doubles';
import { Steps } from './Steps';
import { CHECK } from './stepWords';
import { WriteToThem } from '../write/WriteToThem';
import { reading } from '../app/reading';

const MOVING = new Set(['reading', 'checking', 'bringing', 'taking-out']);
/** Something about it is being worked out at this moment. */
const isMoving = ({ state, will }: BatchView) => MOVING.has(state) || (state === 'checked' && will === null);

function progressWords(batch: BatchView, format: ReturnType<typeof useFormat>): string {
  const verb = batch.state === 'checking' ? 'checked' : t`brought in`;
  if (batch.state === 'taking-out')
    return batch.total > 0
      ? t`Taking it back out: step ${batch.done + 1} of ${batch.total}. You can leave this page; it goes on.`
      : t`It waits its turn to be taken out…`;
  const left = batch.rate && batch.rate > 0 ? Math.ceil((batch.total - batch.done) / batch.rate) : null;
  return t`${format.number(batch.done)} of ${format.number(batch.total)} rows ${verb}${left !== null && batch.state === 'bringing' ? t`, ${format.number(Math.round(batch.rate!))} a second, about ${left} ${plural(left, { one: 'second', other: 'seconds' })} left` : ''}. You can leave this page; it goes on.`;
}

/** What the main button does, with its number. */
function actWords(batch: BatchView, format: ReturnType<typeof useFormat>): { words: string; count: number } {
  const { counts } = batch;
  const sum = (...some: (keyof typeof counts)[]) =>
    some.reduce((total, one) => total + (counts[one] ?? 0), 0);
  const made = sum('new', 'shares');
  switch (batch.what) {
    case 'people':
      return {
        count: made + sum('update'),
        words: t`Bring in ${format.number(made + sum('update'))} ${plural(made + sum('update'), { one: 'person', other: 'people' })}`,
      };
    case 'here':
      return {
        count: sum('update'),
        words: t`Put ${format.number(sum('update'))} ${plural(sum('update'), { one: 'person', other: 'people' })} there`,
      };
    case 'refusals':
      return {
        count: sum('no', 'hold'),
        words: t`Record ${format.number(sum('no', 'hold'))} ${plural(sum('no', 'hold'), { one: 'refusal', other: 'refusals' })}`,
      };
    case 'gifts':
      return {
        count: sum('gift') + made,
        words: t`Record ${format.number(sum('gift') + made)} ${plural(sum('gift') + made, { one: 'gift', other: 'gifts' })}`,
      };
  }
}

/** What can be done with the batch as it stands. */
function BatchActs({
  batch,
  id,
  main,
  act,
  setTaking,
}: {
  batch: BatchView;
  id: number;
  main: { words: string; count: number };
  act: UseMutationResult<void, Error, 'bring-in' | 'stop' | 'take-out', unknown>;
  setTaking: (next: boolean) => void;
}) {
  const navigate = useNavigate();
  const format = useFormat();
  if (batch.ofFeed)
    return (
      <p className="pt-3 text-ink2">
        <Trans>
          It is a run of a feed: it comes in, and is taken back out, on the{' '}
          <Link className="link" to="/gather/feeds">
            page of the feed
          </Link>
          .
        </Trans>
      </p>
    );
  return (
    <div className="flex justify-end gap-3 pt-3 items-center">
      {batch.state === 'checked' && (
        <Button onClick={() => void navigate(`/gather/${id}?change=1`)}>{t`Change something`}</Button>
      )}
      {batch.state === 'checked' && (
        <Button
          weight="main"
          disabled={main.count === 0 || act.isPending}
          onClick={() => act.mutate('bring-in')}
        >
          {main.words}
        </Button>
      )}
      {batch.state === 'checking' && <Button onClick={() => act.mutate('stop')}>{t`Stop checking`}</Button>}
      {batch.state === 'bringing' && (
        <Button onClick={() => act.mutate('stop')}>{t`Stop after these rows`}</Button>
      )}
      {batch.state === 'stopped' && (
        <Button weight="main" onClick={() => act.mutate('bring-in')}>
          <Trans>Go on from row {format.number(batch.done + 1)}</Trans>
        </Button>
      )}
      {(batch.state === 'done' || batch.state === 'stopped') && (
        <Button weight="grave" onClick={() => setTaking(true)}>
          {t`Take the batch back out`}
        </Button>
      )}
    </div>
  );
}

/** One batch after its plan is settled: checked, coming in, or done. */
export default function Batch() {
  const id = Number(useParams().id);
  const format = useFormat();
  const may = useMay('organizer');
  const { chapters } = useSession();
  const queryClient = useQueryClient();
  const [opened, setOpened] = useState<Opened | null>(null);
  const [looking, setLooking] = useState<string | null>(null);
  const [taking, setTaking] = useState(false);
  const { data: batch, error } = useQuery({
    ...reading('batches/{id}', { id }),
    refetchInterval: (read) => (read.state.data && isMoving(read.state.data) ? 700 : 5_000),
  });
  const act = useMutation({
    mutationFn: (what: 'bring-in' | 'stop' | 'take-out') => api.post(`batches/{id}/${what}`, { id }),
    onSettled: () => refresh(queryClient, 'batches'),
  });
  const state = batch?.state;
  // What could not be done in the state before is no trouble in this one.
  const { reset } = act;
  useEffect(() => reset(), [state, reset]);
  useEffect(() => {
    if (state === 'done') void api.post('batches/{id}/seen', { id }).catch(() => undefined);
  }, [state, id]);
  useMargin(batchNotes(batch, may ? { open: setOpened, look: setLooking } : null));
  if (error) return <ProblemNote error={error} />;
  if (!batch) return <Loading what={t`the batch`} />;
  const main = actWords(batch, format);
  const where = chapters.length > 1 && chapters.find((chapter) => chapter.id === batch.chapterId)?.name;
  return (
    <div className="flex flex-col grow min-h-0">
      <Heading
        title={batch.name}
        page={t`Batch: ${batch.name}`}
        note={t`${format.number(batch.rows)} ${plural(batch.rows, { one: 'row', other: 'rows' })} of ${batch.fileName}${where ? t`, for ${where}` : ''}, ${BATCH_WORDS[batch.state]}`}
      />
      {!batch.ofFeed && <Steps of={stepsOf(batch.what)} at={CHECK} />}
      <div
        className="grow min-h-0 overflow-y-auto flex flex-col gap-4"
        tabIndex={0}
        role="region"
        aria-label={t`What becomes of the rows`}
      >
        {MOVING.has(batch.state) && (
          <section className="sheet p-5">
            <Progress done={batch.done} total={batch.total} words={progressWords(batch, format)} />
          </section>
        )}
        {!['checking', 'reading'].includes(batch.state) && Object.keys(batch.counts).length > 0 && (
          <>
            <Counts batch={batch} onOpen={may ? setOpened : null} />
            {(batch.counts.look ?? 0) > 0 && batch.state === 'checked' && may && (
              <Doubles batch={batch} start={looking} onStart={setLooking} />
            )}
            {batch.will && ['checked', 'bringing', 'stopped', 'done'].includes(batch.state) && (
              <WhatItWrites batch={batch} will={batch.will} onOpen={may ? setOpened : null} />
            )}
            {!batch.will && batch.state === 'checked' && (
              <p className="text-ink2" role="status">
                {t`Counting what will be written…`}
              </p>
            )}
          </>
        )}
        {batch.state === 'done' && <Downloads batch={batch} may={may} />}
        <ProblemNote error={act.error} />
      </div>
      {may && <BatchActs batch={batch} id={id} main={main} act={act} setTaking={setTaking} />}
      {opened && may && <RowsDrawer batch={batch} opened={opened} onClose={() => setOpened(null)} />}
      {taking && (
        <TakingOut batch={batch} onClose={() => setTaking(false)} onAct={() => act.mutateAsync('take-out')} />
      )}
    </div>
  );
}

function TakingOut({
  batch,
  onClose,
  onAct,
}: {
  batch: BatchView;
  onClose: () => void;
  onAct: () => Promise<unknown>;
}) {
  const format = useFormat();
  const notice = useQuery(reading('batches/{id}/take-out', { id: batch.id }));
  const staying = notice.data?.staying ?? 0;
  const { update: updated = 0 } = batch.counts;
  const goes = (batch.counts.new ?? 0) + (batch.counts.shares ?? 0) - staying;
  return (
    <Confirm
      open
      onClose={onClose}
      title={t`Take “${batch.name}” back out?`}
      act={t`Take out ${format.number(goes)} ${plural(goes, { one: 'person', other: 'people' })}`}
      onAct={onAct}
      body={
        <p>
          <Trans>
            {format.number(goes)} <Plural value={goes} one="person goes" other="people go" />, and{' '}
            {format.number(updated)} <Plural value={updated} one="goes" other="go" /> back to how they were.
            Tags, lists, stages and permission of this batch go with them.{' '}
            {staying > 0 &&
              t`${format.number(staying)} ${plural(staying, { one: 'stays', other: 'stay' })}, because something happened to ${plural(staying, { one: 'this person', other: 'these people' })} since: a message, a gift or an edit. `}
            Later edits, gifts, and every no stay.
          </Trans>
        </p>
      }
    />
  );
}

function Downloads({ batch, may }: { batch: BatchView; may: boolean }) {
  const mend = (batch.counts.failed ?? 0) + (batch.counts.look ?? 0) + batch.withFaults > 0;
  const sheet = (kind: string, form: string) => `/api/batches/${batch.id}/${kind}.${form}`;
  return (
    <p className="flex flex-wrap gap-x-6 gap-y-2">
      <Link className="link text-ink" to={`/sort?batch=${batch.id}`}>
        {t`See the people of this batch`}
      </Link>
      <WriteToThem asLink whom={batch.name} to={() => ({ ref: { kind: 'batch', id: batch.id } })} />
      {!may ? (
        <span className="text-ink2">
          <Trans>Its rows are for organizers: a file holds more than is shown to everybody.</Trans>
        </span>
      ) : batch.fileKept ? (
        <>
          <span>
            <Trans>
              Rows that came in, with our ids:{' '}
              <a className="link" href={sheet('brought-in', 'csv')}>
                CSV
              </a>
              ,{' '}
              <a className="link" href={sheet('brought-in', 'xlsx')}>
                XLSX
              </a>
            </Trans>
          </span>
          {mend && (
            <span>
              <Trans>
                Rows with errors:{' '}
                <a className="link" href={sheet('rows-to-mend', 'csv')}>
                  CSV
                </a>
                ,{' '}
                <a className="link" href={sheet('rows-to-mend', 'xlsx')}>
                  XLSX
                </a>
              </Trans>
            </span>
          )}
        </>
      ) : (
        <span className="text-ink2">{t`Its file was deleted after the time set in Setup.`}</span>
      )}
    </p>
  );
}
