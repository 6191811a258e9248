import { plural, t } from '@lingui/core/macro';
import { useState } from 'react';
import type { BatchRowView, BatchView, RowsOnly } from '@goodword/core/contract';
import type { RowVerdict } from '@goodword/core/intake';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { Drawer } from '../ui/dialogs';
import { rowChangeWords, meetsWords, RowStory } from './RowStory';
import { usePages } from '../ui/people';
import { VirtualTable, type TableColumn } from '../ui/VirtualTable';

/** Which rows are looked at: those of a verdict, or those of which something is to be told. */
export interface Opened {
  verdict?: RowVerdict;
  only?: RowsOnly;
  words: string;
}

const TITLES: Partial<Record<BatchView['state'], string>> = {
  done: t`What became of the rows`,
  'taken-out': t`What had become of the rows`,
};

const VERDICTS: [RowVerdict, string, string][] = [
  ['new', t`New people`, t`Nobody here has their address`],
  ['shares', t`New people at a shared address`, t`A household: the same address, another name`],
  ['update', t`Updated`, t`Here already; what is new is added`],
  ['same', t`Already the same`, t`Here already, and the file says nothing new`],
  ['here', t`Here already`, t`Left as they are`],
  ['no', t`Opted out`, t`A no is recorded, or the address goes on do-not-contact`],
  ['hold', t`Bounced`, t`The address is held, or goes on do-not-contact`],
  ['gift', t`Gifts`, t`Of people who are here`],
  ['doubled', t`Gifts that are here already`, t`Left out, so that nothing counts twice`],
  ['look', t`Held for a look`, t`Perhaps somebody who is here`],
  ['skipped', t`Left out by you`, t`Settled side by side`],
  ['aside', t`No people`, t`Blank lines, totals, the header once more`],
  ['failed', t`Not coming in`, t`With the reason for each`],
];
const BAD: ReadonlySet<RowVerdict> = new Set(['failed', 'look']);
/** Rows that meet somebody. */
const MEETING: ReadonlySet<RowVerdict | undefined> = new Set([
  undefined,
  'shares',
  'update',
  'same',
  'here',
  'gift',
  'doubled',
]);
const QUIET: ReadonlySet<RowVerdict> = new Set(['aside', 'same', 'here', 'skipped', 'doubled']);

/** Counts of what becomes, or became, of every row; each opens its rows, for whom `onOpen` is given. */
export function Counts({ batch, onOpen }: { batch: BatchView; onOpen: ((opened: Opened) => void) | null }) {
  const format = useFormat();
  return (
    <section className="sheet p-5">
      <h2 className="subtitle pb-2">{TITLES[batch.state] ?? t`What will become of the rows`}</h2>
      <ul>
        {VERDICTS.filter(([verdict]) => (batch.counts[verdict] ?? 0) > 0).map(([verdict, words, hint]) => {
          const count = batch.counts[verdict]!;
          const ink = BAD.has(verdict) ? 'bg-madder' : QUIET.has(verdict) ? 'bg-[#87a59e]' : 'bg-verdigris';
          return (
            <li
              key={verdict}
              className="grid grid-cols-[1fr_220px_90px] items-center gap-4 border-t border-hair py-[9px]"
            >
              <div>
                <p className="font-semibold">{words}</p>
                <p className="text-ink2 text-[12.5px]">{hint}</p>
              </div>
              <div className="h-3 bg-bench rounded-[2px]" aria-hidden="true">
                <div
                  className={`h-3 rounded-[2px] ${ink}`}
                  style={{ width: `${Math.max(1, (count / batch.rows) * 100)}%` }}
                />
              </div>
              <BatchCount
                count={format.number(count)}
                words={words}
                className="text-right text-[19px]"
                onOpen={onOpen && (() => onOpen({ verdict, words }))}
              />
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** A number that opens what is behind it; only a number for whoever may not see that. */
export function BatchCount({
  count,
  words,
  className,
  onOpen,
}: {
  count: string;
  words: string;
  className: string;
  onOpen: (() => void) | null;
}) {
  if (!onOpen) return <span className={`font-title ${className}`}>{count}</span>;
  return (
    <button className={`link font-title ${className}`} aria-label={`${count}: ${words}`} onClick={onOpen}>
      {count}
    </button>
  );
}

function InOneLine({ words }: { words: string }) {
  return <span title={words}>{words}</span>;
}

export function RowsDrawer({
  batch,
  opened,
  onClose,
}: {
  batch: BatchView;
  opened: Opened;
  onClose: () => void;
}) {
  const [chosen, setChosen] = useState<number | null>(null);
  const { rows, total, more } = usePages<BatchRowView>(
    ['batch-rows', batch.id, opened.verdict ?? opened.only, batch.state],
    (after) =>
      api.get('batches/{id}/rows', { id: batch.id, verdict: opened.verdict, only: opened.only, after }),
  );
  const story = rows.find((row) => row.row === chosen) ?? rows[0];
  const bare = opened.verdict === 'failed' || opened.verdict === 'aside';
  const columns: TableColumn<BatchRowView>[] = [
    { key: 'row', title: t`Row`, width: '64px', cell: (row) => row.row },
    { key: 'name', title: t`Name`, width: '1fr', cell: (row) => `${row.firstName} ${row.lastName}` },
    ...(bare
      ? []
      : [
          {
            key: 'address',
            title: t`Address`,
            width: '1.2fr',
            cell: (row: BatchRowView) => row.email ?? row.mobile ?? '',
          },
        ]),
    ...(MEETING.has(opened.verdict)
      ? [
          {
            key: 'meets',
            title: t`Meets`,
            width: '1.3fr',
            cell: (row: BatchRowView) => <InOneLine words={meetsWords(row)} />,
          },
        ]
      : []),
    {
      key: 'reason',
      title: t`What changes`,
      width: bare ? '3fr' : '1.8fr',
      cell: (row) => <InOneLine words={rowChangeWords(row)} />,
    },
  ];
  return (
    <Drawer
      open
      onClose={onClose}
      wide
      title={opened.words}
      note={t`${total} ${plural(total, { one: 'row', other: 'rows' })} of the file`}
    >
      <VirtualTable
        label={opened.words}
        rows={rows}
        total={total}
        columns={columns}
        idOf={(row) => row.row}
        onMore={more}
        onOpen={(row) => setChosen(row.row)}
      />
      {story && <RowStory row={story} past={batch.state === 'done' || batch.state === 'taken-out'} />}
    </Drawer>
  );
}
