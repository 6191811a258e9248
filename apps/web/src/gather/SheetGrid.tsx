import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { useLit } from '../ui/margin';

interface Props {
  header: readonly string[];
  rows: readonly { row: number; cells: readonly string[] }[];
  /** Cells as they are after mends. */
  cellsOf: (row: { row: number; cells: readonly string[] }) => readonly string[];
  /** What is to be said of a cell. */
  wordOf: (row: number, column: number) => { words: string; hint: boolean } | undefined;
  isLeft: (column: number) => boolean;
  head: (column: number) => ReactNode;
  onEdit: (row: number, column: number, value: string) => void;
}

const ROW_NUMBER = 52;

/** Width by what stands in a column, between a card's least and a third of the sheet; in pixels. */
export function widthOf(header: string, sample: readonly string[]): number {
  const longest = [header, ...sample].reduce((most, text) => Math.max(most, Math.min(text.length, 44)), 0);
  return Math.round(Math.max(132, Math.min(340, longest * 7.4 + 28)));
}

const MOVES: Record<string, [number, number]> = {
  ArrowDown: [1, 0],
  ArrowUp: [-1, 0],
  ArrowRight: [0, 1],
  ArrowLeft: [0, -1],
  PageDown: [12, 0],
  PageUp: [-12, 0],
};

function HeadCell({ column, children }: { column: number; children: ReactNode }) {
  const lit = useLit(`column-${column}`);
  return (
    <div role="columnheader" className={`border-r border-hair ${lit.className}`} onMouseEnter={lit.onMouseEnter} onMouseLeave={lit.onMouseLeave}>
      {children}
    </div>
  );
}

/** The file's own cells under its columns. Arrow keys move over cells, Enter edits one, Escape leaves it as it was. */
export function SheetGrid({ header, rows, cellsOf, wordOf, isLeft, head, onEdit }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<[number, number]>([0, 0]);
  const [editing, setEditing] = useState(false);
  const widths = header.map((name, column) =>
    widthOf(
      name,
      rows.slice(0, 100).map(({ cells }) => cells[column] ?? ''),
    ),
  );
  const template = `${ROW_NUMBER}px ${widths.map((width) => `minmax(${width}px, 1fr)`).join(' ')}`;
  const minWidth = ROW_NUMBER + widths.reduce((sum, width) => sum + width, 0);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => 31,
    overscan: 12,
    scrollPaddingStart: 110,
  });
  const lefts = widths.map((_width, i) => ROW_NUMBER + widths.slice(0, i).reduce((sum, width) => sum + width, 0));

  useEffect(() => {
    const box = frame.current;
    const [, column] = at;
    if (!box || document.activeElement !== box) return;
    // The row numbers stay at the left, so a cell is seen only to the right of them.
    if (lefts[column]! - ROW_NUMBER < box.scrollLeft) box.scrollLeft = lefts[column]! - ROW_NUMBER;
    if (lefts[column]! + widths[column]! > box.scrollLeft + box.clientWidth) box.scrollLeft = lefts[column]! + widths[column]! - box.clientWidth;
  }, [at]);

  const onKeyDown = (event: KeyboardEvent) => {
    if (editing || event.target !== frame.current) return;
    const move = event.key === 'Home' ? [0, -999] : event.key === 'End' ? [0, 999] : MOVES[event.key];
    if (event.key === 'Enter' || event.key === 'F2') setEditing(true);
    else if (!move) return;
    else {
      const next: [number, number] = [
        Math.max(0, Math.min(rows.length - 1, at[0] + move[0]!)),
        Math.max(0, Math.min(header.length - 1, at[1] + move[1]!)),
      ];
      setAt(next);
      virtual.scrollToIndex(next[0]);
    }
    event.preventDefault();
  };
  const done = (value: string | null) => {
    setEditing(false);
    const row = rows[at[0]];
    if (value !== null && row && value !== (cellsOf(row)[at[1]] ?? '')) onEdit(row.row, at[1], value);
    frame.current?.focus();
  };
  return (
    <div
      ref={frame}
      className="sheet overflow-auto grow min-h-0 group"
      role="grid"
      aria-label="Columns and the first rows"
      aria-rowcount={rows.length + 1}
      aria-activedescendant={`cell-${at[0]}-${at[1]}`}
      tabIndex={0}
      onKeyDown={onKeyDown}
    >
      <div role="row" className="grid sticky top-0 bg-sheet border-b border-hair z-10" style={{ gridTemplateColumns: template, minWidth }}>
        <div role="columnheader" className="border-r border-hair sticky left-0 bg-sheet">
          <span className="sr-only">Row</span>
        </div>
        {header.map((_name, column) => (
          <HeadCell key={column} column={column}>
            {head(column)}
          </HeadCell>
        ))}
      </div>
      <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative', minWidth }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]!;
          const cells = cellsOf(row);
          return (
            <div
              role="row"
              key={row.row}
              className="absolute left-0 right-0 grid border-b border-hair"
              style={{ gridTemplateColumns: template, height: item.size, transform: `translateY(${item.start}px)` }}
            >
              <div role="rowheader" className="px-2 py-[6px] text-right text-[12px] text-ink3 border-r border-hair sticky left-0 bg-sheet">
                {row.row}
              </div>
              {header.map((_name, column) => {
                const word = wordOf(row.row, column);
                const active = item.index === at[0] && column === at[1];
                const mended = (cells[column] ?? '') !== (row.cells[column] ?? '');
                return (
                  <div
                    role="gridcell"
                    key={column}
                    id={`cell-${item.index}-${column}`}
                    aria-selected={active}
                    title={word?.words ?? cells[column]}
                    onClick={() => (setAt([item.index, column]), frame.current?.focus())}
                    onDoubleClick={() => (setAt([item.index, column]), setEditing(true))}
                    className={`px-3 py-[5px] border-r border-hair overflow-hidden ${isLeft(column) ? 'text-ink3' : ''} ${active ? 'group-focus:shadow-[inset_0_0_0_2px_var(--color-verdigris)]' : ''}`}
                  >
                    {active && editing ? (
                      <CellInput value={cells[column] ?? ''} label={`Row ${row.row}, ${header[column]}`} onDone={done} />
                    ) : (
                      <span className={`block truncate ${word ? (word.hint ? 'cell-hint' : 'merge-fault') : ''} ${mended ? 'font-semibold' : ''}`}>
                        {cells[column]}
                      </span>
                    )}
                  </div>
                );
              })}
            </div>
          );
        })}
      </div>
    </div>
  );
}

function CellInput({ value, label, onDone }: { value: string; label: string; onDone: (value: string | null) => void }) {
  const [text, setText] = useState(value);
  // Leaving by Enter or Escape takes the focus away too: only the first counts.
  const over = useRef(false);
  const end = (last: string | null) => {
    if (over.current) return;
    over.current = true;
    onDone(last);
  };
  return (
    <input
      autoFocus
      aria-label={label}
      className="w-full bg-sheet outline-2 outline-verdigris px-1 -mx-1"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => end(text)}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') end(text);
        if (event.key === 'Escape') end(null);
      }}
    />
  );
}
