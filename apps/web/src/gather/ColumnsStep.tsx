import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { DELIMITERS, ENCODING_WORDS, ENCODINGS, type Delimiter, type Encoding, type FileReading, type KnownField } from '@goodword/core/intake';
import { plural, useFormat } from '../app/format';
import { Button } from '../ui/basics';
import { useLit, useMargin, type Note } from '../ui/margin';
import { ColumnCard } from './ColumnCard';
import { useDraft } from './draft';
import type { Judgement } from './intake.worker';

/** The notes of this step: what can't be read, which order dates are in, what is new. */
function useColumnNotes(country: string): Note[] {
  const { analysis, columns, judgement, choose } = useDraft();
  if (!analysis) return [];
  const notes: Note[] = [];
  columns.forEach((choice, column) => {
    const header = analysis.header[column] || 'A column without header';
    const faults = judgement?.faultsByColumn[column] ?? 0;
    const first = judgement?.first.filter((fault) => fault.column === column) ?? [];
    if (faults > 0) {
      const rows = first.map((fault) => fault.row).join(', ');
      notes.push({
        key: `fault-${column}`,
        tone: 'fault',
        anchor: `column-${column}`,
        title: `${faults} ${plural(faults, 'cell', 'cells')} of “${header}” can't be read`,
        body: `Rows ${rows}${faults > first.length ? ' and more' : ''}: ${first[0]?.reason ?? ''}.`,
        remedy: { words: 'Leave the column out', act: () => choose(column, { to: 'leave' }, country) },
      });
    }
    if ((choice.to === 'field' || choice.to === 'newField') && choice.type === 'date') {
      const order = choice.order ?? 'day-first';
      const other = order === 'day-first' ? 'month-first' : 'day-first';
      const known = analysis.profiles[column]?.order;
      const iso = analysis.preview.every((row) => !/^\d{1,2}[/.-]/.test(row[column] ?? ''));
      if (!iso) {
        notes.push({
          key: `order-${column}`,
          tone: known ? 'good' : 'doubt',
          anchor: `column-${column}`,
          title: `“${header}”: day first or month first?`,
          body: known
            ? `The values only work ${order.replace('-', ' ')}, so all are read that way.`
            : `Nothing in the values tells. They are read ${order.replace('-', ' ')}.`,
          remedy: { words: `Read ${other.replace('-', ' ')}`, act: () => choose(column, { ...choice, order: other }, country) },
        });
      }
    }
  });
  const failed = judgement?.failedRows ?? [];
  if (judgement && judgement.failed > 0) {
    notes.push({
      key: 'failed',
      tone: 'fault',
      title: `${judgement.failed} ${plural(judgement.failed, 'row', 'rows')} can't come in as ${plural(judgement.failed, 'it is', 'they are')}`,
      body: `Row ${failed.map((row) => row.row).join(', ')}${judgement.failed > failed.length ? ' and more' : ''}. They can be downloaded with the reason, mended, and brought in again.`,
    });
  }
  notes.push({
    key: 'safe',
    tone: 'plain',
    title: 'Nothing is changed yet',
    body: 'People come in when you bring the batch in, and a batch can be taken back out as a whole.',
  });
  return notes;
}

function HeadCell({ column, children }: { column: number; children: React.ReactNode }) {
  const lit = useLit(`column-${column}`);
  return (
    <div role="columnheader" className={`border-r border-hair ${lit.className}`} onMouseEnter={lit.onMouseEnter} onMouseLeave={lit.onMouseLeave}>
      {children}
    </div>
  );
}

/** Three counts and their bar: ready, with a doubt, not as they are. */
export function Tally({ judgement }: { judgement: Judgement | null }) {
  const format = useFormat();
  if (!judgement) return <p className="text-ink2 grow">Reading the values…</p>;
  const { ready, look, failed } = judgement;
  return (
    <div className="grow" role="status">
      <div className="flex h-2 gap-[2px]" aria-hidden="true">
        <div className="bg-verdigris" style={{ flexGrow: ready }} />
        <div className="bg-ochremark" style={{ flexGrow: look }} />
        <div className="bg-madder" style={{ flexGrow: failed }} />
      </div>
      <p className="pt-1 text-ink2">
        <b className="text-ink">{format.number(ready)}</b> ready · <b className="text-ink">{format.number(look)}</b> come in without a cell ·{' '}
        <b className="text-ink">{format.number(failed)}</b> can't come in as they are
      </p>
    </div>
  );
}

/** Columns matched to fields over their values, as they stand in the file. */
export function ColumnsStep({ fields, country }: { fields: KnownField[]; country: string }) {
  const { analysis, columns, judgement, choose, go } = useDraft();
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: analysis?.preview.length ?? 0,
    getScrollElement: () => frame.current,
    estimateSize: () => 31,
    overscan: 10,
  });
  useMargin(useColumnNotes(country));
  if (!analysis) return null;
  const template = `44px repeat(${analysis.header.length}, minmax(132px, 1fr))`;
  return (
    <>
      <ReadAs fields={fields} country={country} />
      <div ref={frame} className="sheet overflow-auto grow min-h-0" role="table" aria-label="Columns and the first rows" tabIndex={0}>
        <div
          role="row"
          className="grid sticky top-0 bg-sheet border-b border-hair z-10"
          style={{ gridTemplateColumns: template, minWidth: 44 + analysis.header.length * 132 }}
        >
          <div role="columnheader" className="border-r border-hair">
            <span className="sr-only">Row</span>
          </div>
          {analysis.header.map((header, column) => (
            <HeadCell key={column} column={column}>
              <ColumnCard
                column={column}
                header={header}
                choice={columns[column]!}
                fields={fields}
                country={country}
                rows={analysis.rows}
                filled={analysis.profiles[column]!.filled}
                faults={judgement?.faultsByColumn[column] ?? 0}
                onChoose={(choice) => choose(column, withOrder(choice, analysis.profiles[column]!.order), country)}
              />
            </HeadCell>
          ))}
        </div>
        <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative', minWidth: 44 + analysis.header.length * 132 }}>
          {virtual.getVirtualItems().map((item) => (
            <div
              role="row"
              key={item.index}
              className="absolute left-0 right-0 grid border-b border-hair"
              style={{ gridTemplateColumns: template, height: item.size, transform: `translateY(${item.start}px)` }}
            >
              <div role="rowheader" className="px-2 py-[6px] text-right text-[12px] text-ink3 border-r border-hair">
                {item.index + 1}
              </div>
              {analysis.header.map((_name, column) => {
                const fault = judgement?.cells[`${item.index}:${column}`];
                const left = columns[column]!.to === 'leave';
                return (
                  <div
                    role="cell"
                    key={column}
                    className={`px-3 py-[5px] truncate border-r border-hair ${left ? 'text-ink3' : ''} ${fault ? 'merge-fault' : ''}`}
                    title={fault ?? analysis.preview[item.index]![column]}
                  >
                    {analysis.preview[item.index]![column]}
                  </div>
                );
              })}
            </div>
          ))}
        </div>
      </div>
      <div className="flex items-center gap-4 pt-3">
        <Tally judgement={judgement} />
        <Button weight="main" onClick={() => go('Where they go')}>
          Next: where they go
        </Button>
      </div>
    </>
  );
}

const SEPARATORS: Record<Delimiter, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'pipes' };

/** How the file is read, found by itself and changeable: letters that look wrong are read anew as something else. */
function ReadAs({ fields, country }: { fields: KnownField[]; country: string }) {
  const { file, analysis, readAs, take } = useDraft();
  if (!analysis || !file) return null;
  const again = (change: FileReading) => void take(file, fields, country, { ...readAs, ...change });
  return (
    <p className="pb-2 flex items-center gap-2 text-ink2">
      {analysis.sure ? 'Read as' : 'Read, by a guess, as'}
      <select
        className="input !w-auto !min-h-[30px] !py-[3px]"
        aria-label="Encoding"
        value={analysis.encoding}
        onChange={(event) => again({ encoding: event.target.value as Encoding })}
      >
        {ENCODINGS.map((encoding) => (
          <option key={encoding} value={encoding}>
            {ENCODING_WORDS[encoding]}
          </option>
        ))}
      </select>
      cut at
      <select
        className="input !w-auto !min-h-[30px] !py-[3px]"
        aria-label="Separator"
        value={analysis.delimiter}
        onChange={(event) => again({ delimiter: event.target.value as Delimiter })}
      >
        {DELIMITERS.map((delimiter) => (
          <option key={delimiter} value={delimiter}>
            {SEPARATORS[delimiter]}
          </option>
        ))}
      </select>
    </p>
  );
}

function withOrder(choice: ReturnType<typeof useDraft.getState>['columns'][number], order: 'day-first' | 'month-first' | null) {
  return (choice.to === 'field' || choice.to === 'newField') && order ? { ...choice, order } : choice;
}
