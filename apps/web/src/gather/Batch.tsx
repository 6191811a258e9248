import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { BatchRowView, BatchView, Page, RowVerdict } from '@goodword/core/contract';
import { call, get, query } from '../app/api';
import { plural, useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Heading, Loading, Problem, Progress } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { usePages } from '../ui/people';
import { VirtualTable, type TableColumn } from '../ui/VirtualTable';
import { BATCH_WORDS } from './Batches';
import { useDraft } from './draft';
import { Steps } from './Steps';
import { refreshAll } from '../app/refresh';

const COUNT_TITLES: Partial<Record<BatchView['state'], string>> = { done: 'What became of the rows', 'taken-out': 'What had become of the rows' };

const MOVING = new Set(['checking', 'bringing', 'taking-out']);

const VERDICTS: [RowVerdict, string, string][] = [
  ['new', 'New people', 'Nobody here has their address'],
  ['shares', 'New people at a shared address', 'A household: the same address, another name'],
  ['update', 'Updated', 'Here already; what is new is added'],
  ['here', 'Here already', 'Left as they are'],
  ['look', 'Need a look', 'The addresses belong to two people'],
  ['failed', 'Not brought in', 'Nobody could be reached by these rows'],
];

function RowsDrawer({ id, verdict, onClose }: { id: number; verdict: RowVerdict; onClose: () => void }) {
  const navigate = useNavigate();
  const { rows, total, more } = usePages<BatchRowView>(['batch-rows', id, verdict], (after) =>
    get<Page<BatchRowView>>(`batches/${id}/rows${query({ verdict, after })}`),
  );
  const unreachable = verdict === 'failed';
  const columns: TableColumn<BatchRowView>[] = [
    { key: 'row', title: 'Row', width: '64px', cell: (row) => row.row },
    { key: 'name', title: 'Name', width: '1fr', cell: (row) => `${row.firstName} ${row.lastName}` },
    ...(unreachable ? [] : [{ key: 'address', title: 'Address', width: '1.2fr', cell: (row: BatchRowView) => row.email ?? row.mobile ?? '' }]),
    { key: 'reason', title: 'What is to be said', width: unreachable ? '3fr' : '1.6fr', cell: (row) => <span title={row.reason}>{row.reason}</span> },
  ];
  const words = VERDICTS.find(([one]) => one === verdict)![1];
  return (
    <Drawer open onClose={onClose} wide title={words} note={`${total} ${plural(total, 'row', 'rows')} of the file`}>
      <VirtualTable
        label={words}
        rows={rows}
        total={total}
        columns={columns}
        idOf={(row) => row.row}
        onMore={more}
        onOpen={(row) => row.supporterId && void navigate(`/sort/supporters/${row.supporterId}`)}
      />
    </Drawer>
  );
}

/** Counts of what becomes, or became, of every row; each opens its rows. */
function Counts({ batch, onOpen }: { batch: BatchView; onOpen: (verdict: RowVerdict) => void }) {
  const format = useFormat();
  return (
    <section className="sheet p-5">
      <h2 className="subtitle pb-2">{COUNT_TITLES[batch.state] ?? 'What will become of the rows'}</h2>
      <ul>
        {VERDICTS.filter(([verdict]) => (batch.counts[verdict] ?? 0) > 0).map(([verdict, words, hint]) => {
          const count = batch.counts[verdict]!;
          const bad = verdict === 'failed' || verdict === 'look';
          return (
            <li key={verdict} className="grid grid-cols-[1fr_220px_90px] items-center gap-4 border-t border-hair py-3">
              <div>
                <p className="font-semibold">{words}</p>
                <p className="text-ink2 text-[12.5px]">{hint}</p>
              </div>
              <div className="h-3 bg-bench rounded-[2px]" aria-hidden="true">
                <div
                  className={`h-3 rounded-[2px] ${bad ? 'bg-madder' : 'bg-verdigris'}`}
                  style={{ width: `${Math.max(1, (count / batch.rows) * 100)}%` }}
                />
              </div>
              <button className="link text-right font-title text-[19px]" onClick={() => onOpen(verdict)}>
                {format.number(count)}
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function useBatchNotes(batch: BatchView | undefined): Note[] {
  if (!batch) return [];
  const notes: Note[] = [];
  const failed = (batch.counts.failed ?? 0) + (batch.counts.look ?? 0);
  if (batch.problem) notes.push({ key: 'problem', tone: 'fault', title: 'It stopped', body: batch.problem });
  if (failed + batch.withFaults > 0) {
    notes.push({
      key: 'mend',
      tone: failed > 0 ? 'fault' : 'doubt',
      title: `${failed + batch.withFaults} rows to mend`,
      body: `${failed} do not come in, ${batch.withFaults} come in without a cell. Mend them in the file and bring it in again: nobody comes in twice.`,
      remedy: { words: 'Download them with the reasons', act: () => void window.open(`/api/batches/${batch.id}/rows-to-mend.csv`) },
    });
  }
  if (batch.stayNo > 0)
    notes.push({
      key: 'no',
      tone: 'doubt',
      title: `${batch.stayNo} said no before, and stay no`,
      body: 'The file says yes for them, but only they can come back, by their own act.',
    });
  if (batch.state === 'checked')
    notes.push({
      key: 'safe',
      tone: 'good',
      title: 'Nothing is changed yet',
      body: 'And a batch can be taken back out as a whole, as long as nothing was sent on its strength.',
    });
  if (batch.state === 'done' && batch.canTakeOut)
    notes.push({ key: 'fixed', tone: 'plain', title: 'It can no longer be taken out', body: batch.canTakeOut });
  return notes;
}

function progressWords(batch: BatchView, format: ReturnType<typeof useFormat>): string {
  const verb = batch.state === 'checking' ? 'checked' : batch.state === 'bringing' ? 'brought in' : 'taken out';
  if (batch.state === 'taking-out') return 'Taking it back out…';
  const left = batch.rate && batch.rate > 0 ? Math.ceil((batch.total - batch.done) / batch.rate) : null;
  return `${format.number(batch.done)} of ${format.number(batch.total)} rows ${verb}${left !== null && batch.state === 'bringing' ? `, ${format.number(Math.round(batch.rate!))} a second, about ${left} ${plural(left, 'second', 'seconds')} left` : ''}. You can leave this page; it goes on.`;
}

/** One batch after its plan is settled: checked, coming in, or done. */
export default function Batch() {
  const id = Number(useParams().id);
  const format = useFormat();
  const navigate = useNavigate();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const reset = useDraft((draft) => draft.reset);
  const hasDraft = useDraft((draft) => draft.file !== null);
  const [open, setOpen] = useState<RowVerdict | null>(null);
  const [taking, setTaking] = useState(false);
  const { data: batch, error } = useQuery({
    queryKey: ['batch', id],
    queryFn: () => get<BatchView>(`batches/${id}`),
    refetchInterval: (read) => (read.state.data && MOVING.has(read.state.data.state) ? 700 : 5_000),
  });
  const act = useMutation({ mutationFn: (what: string) => call('POST', `batches/${id}/${what}`), onSettled: () => refreshAll(queryClient) });
  useMargin(useBatchNotes(batch));
  if (error) return <Problem error={error} />;
  if (!batch) return <Loading what="the batch" />;
  const coming = (batch.counts.new ?? 0) + (batch.counts.shares ?? 0) + (batch.counts.update ?? 0);
  const made = (batch.counts.new ?? 0) + (batch.counts.shares ?? 0);
  const people = `${format.number(coming)} ${plural(coming, 'person', 'people')}`;
  return (
    <div className="flex flex-col grow min-h-0">
      <Heading
        title={batch.name}
        note={`${format.number(batch.rows)} ${plural(batch.rows, 'row', 'rows')} of ${batch.fileName}, ${BATCH_WORDS[batch.state]}`}
      />
      <Steps steps={['File', 'Columns', 'Where they go', 'Permission', 'Check and bring in']} at="Check and bring in" />
      <div className="grow min-h-0 overflow-y-auto flex flex-col gap-4">
        {MOVING.has(batch.state) && (
          <section className="sheet p-5">
            <Progress done={batch.done} total={batch.total} words={progressWords(batch, format)} />
          </section>
        )}
        {batch.state !== 'checking' && Object.keys(batch.counts).length > 0 && <Counts batch={batch} onOpen={setOpen} />}
        {batch.state === 'done' && (
          <p>
            <Link className="link text-ink" to={`/sort?batch=${id}`}>
              See the people of this batch
            </Link>
          </p>
        )}
        <Problem error={act.error} />
      </div>
      {may && (
        <div className="flex justify-end gap-3 pt-3 items-center">
          {batch.state === 'checked' && hasDraft && <Button onClick={() => void navigate('/gather/new')}>Change something</Button>}
          {batch.state === 'checked' && (
            <Button weight="main" disabled={coming === 0 || act.isPending} onClick={() => (act.mutate('bring-in'), reset())}>
              Bring in {people}
            </Button>
          )}
          {batch.state === 'bringing' && <Button onClick={() => act.mutate('stop')}>Stop after these rows</Button>}
          {batch.state === 'stopped' && (
            <Button weight="main" onClick={() => act.mutate('bring-in')}>
              Go on from row {format.number(batch.done + 1)}
            </Button>
          )}
          {(batch.state === 'done' || batch.state === 'stopped') && !batch.canTakeOut && (
            <Button weight="grave" onClick={() => setTaking(true)}>
              Take the batch back out
            </Button>
          )}
        </div>
      )}
      {open && <RowsDrawer id={id} verdict={open} onClose={() => setOpen(null)} />}
      <Confirm
        open={taking}
        onClose={() => setTaking(false)}
        title={`Take “${batch.name}” back out?`}
        act={`Take out ${format.number(made)} ${plural(made, 'person', 'people')}`}
        onAct={() => act.mutateAsync('take-out')}
        body={
          <p>
            {format.number(made)} people go, and {format.number(batch.counts.update ?? 0)} go back to how they were. Tags, list and permission of this
            batch go with them. Later edits, gifts, and every no stay.
          </p>
        }
      />
    </div>
  );
}
