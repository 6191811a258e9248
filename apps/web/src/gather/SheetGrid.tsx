import { t } from '@lingui/core/macro';
import { useVirtualizer, type Virtualizer } from '@tanstack/react-virtual';
import {
  memo,
  useCallback,
  useEffect,
  startTransition,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
} from 'react';
import { useLit } from '../ui/margin';

interface SheetRow {
  row: number;
  cells: readonly string[];
}

interface Props {
  header: readonly string[];
  rows: readonly SheetRow[];
  /** Cells as they are after mends. */
  cellsOf: (row: SheetRow) => readonly string[];
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

type Watched = Virtualizer<HTMLDivElement, Element>;

/*
 * The frame is watched and not measured: to ask a page for a size right after it has changed makes it lay all
 * of it out on the spot, in one go with drawing it, where it would have done so by itself a moment later.
 */
function watchSize(
  { scrollElement: frame }: Watched,
  tell: (size: { width: number; height: number }) => void,
) {
  if (!frame) return;
  const observer = new ResizeObserver(
    ([entry]) => entry && tell({ width: entry.contentRect.width, height: entry.contentRect.height }),
  );
  observer.observe(frame);
  return () => observer.disconnect();
}

function watchScroll({ scrollElement: frame }: Watched, tell: (offset: number, scrolling: boolean) => void) {
  if (!frame) return;
  tell(0, false);
  const going = () => tell(frame.scrollTop, true);
  const over = () => tell(frame.scrollTop, false);
  frame.addEventListener('scroll', going, { passive: true });
  frame.addEventListener('scrollend', over, { passive: true });
  return () => {
    frame.removeEventListener('scroll', going);
    frame.removeEventListener('scrollend', over);
  };
}

/** To where it stands already nothing is scrolled: that too would ask for a layout. */
function scroll(
  offset: number,
  { behavior }: { behavior?: ScrollBehavior },
  { scrollElement, scrollOffset }: Watched,
): void {
  if (offset !== (scrollOffset ?? 0))
    scrollElement?.scrollTo({ top: offset, ...(behavior ? { behavior } : {}) });
}

function HeadCell({ column, flex, children }: { column: number; flex: string; children: ReactNode }) {
  const lit = useLit(`column-${column}`);
  return (
    <div
      role="columnheader"
      style={{ flex }}
      className={`min-w-0 border-r border-hair ${lit.className}`}
      onMouseEnter={lit.onMouseEnter}
      onMouseLeave={lit.onMouseLeave}
    >
      {children}
    </div>
  );
}

interface RowProps {
  row: SheetRow;
  index: number;
  start: number;
  height: number;
  tracks: readonly string[];
  header: readonly string[];
  cellsOf: Props['cellsOf'];
  wordOf: Props['wordOf'];
  isLeft: Props['isLeft'];
  /**
   * The column of the cell that the keys stand on, and whether it is being edited; null where they stand in
   * another row.
   */
  active: number | null;
  editing: boolean;
  onPick: (at: [number, number], edit: boolean) => void;
  onDone: (value: string | null) => void;
}

/**
 * One row; drawn anew only when something about it has changed, so that moving over cells costs two rows and
 * not thirty.
 */
const Row = memo(function Row({
  row,
  index,
  start,
  height,
  tracks,
  header,
  cellsOf,
  wordOf,
  isLeft,
  active,
  editing,
  onPick,
  onDone,
}: RowProps) {
  const cells = cellsOf(row);
  return (
    <div
      role="row"
      className="absolute left-0 right-0 flex border-b border-hair"
      style={{ height, transform: `translateY(${start}px)`, contain: 'strict' }}
    >
      <div
        role="rowheader"
        style={{ width: ROW_NUMBER }}
        className="shrink-0 px-2 py-[6px] text-right text-[12px] text-ink3 border-r border-hair sticky left-0 bg-sheet"
      >
        {row.row}
      </div>
      {header.map((name, column) => {
        const word = wordOf(row.row, column);
        const at = active === column;
        const mended = (cells[column] ?? '') !== (row.cells[column] ?? '');
        const said = word ? (word.hint ? 'cell-hint' : 'merge-fault') : '';
        return (
          <div
            role="gridcell"
            key={column}
            id={`cell-${index}-${column}`}
            aria-selected={at}
            title={word?.words ?? cells[column]}
            onClick={() => onPick([index, column], false)}
            onDoubleClick={() => onPick([index, column], true)}
            style={{ flex: tracks[column] }}
            className={`min-w-0 px-3 py-[5px] border-r border-hair truncate ${isLeft(column) ? 'text-ink3' : ''} ${said} ${mended ? 'font-semibold' : ''} ${at ? 'group-focus:shadow-[inset_0_0_0_2px_var(--color-verdigris)]' : ''}`}
          >
            {at && editing ? (
              <CellInput value={cells[column] ?? ''} label={t`Row ${row.row}, ${name}`} onDone={onDone} />
            ) : (
              cells[column]
            )}
          </div>
        );
      })}
    </div>
  );
});

/** The heads of the columns, which stay in sight. */
function HeadRow({
  minWidth,
  header,
  tracks,
  head,
}: {
  minWidth: number;
  header: readonly string[];
  tracks: string[];
  head: (column: number) => ReactNode;
}) {
  return (
    <div role="row" className="flex sticky top-0 bg-sheet border-b border-hair z-10" style={{ minWidth }}>
      <div
        role="columnheader"
        className="border-r border-hair sticky left-0 bg-sheet shrink-0"
        style={{ width: ROW_NUMBER }}
      >
        <span className="sr-only">{t`Row`}</span>
      </div>
      {header.map((_name, column) => (
        <HeadCell key={column} column={column} flex={tracks[column]!}>
          {head(column)}
        </HeadCell>
      ))}
    </div>
  );
}

/** How wide each column is, by its header and its first values; what is over is shared out by width. */
function useTracks(header: Props['header'], rows: Props['rows']) {
  const widths = useMemo(
    () =>
      header.map((name, column) =>
        widthOf(
          name,
          rows.slice(0, 100).map(({ cells }) => cells[column] ?? ''),
        ),
      ),
    [header, rows],
  );
  const minWidth = ROW_NUMBER + widths.reduce((sum, width) => sum + width, 0);
  const tracks = useMemo(() => widths.map((width) => `${width} 0 ${width}px`), [widths]);
  return { widths, minWidth, tracks };
}

/** Moves the frame so far that the column that one is in is seen whole. */
function useColumnInSight(
  frame: RefObject<HTMLDivElement | null>,
  at: readonly [number, number],
  widths: readonly number[],
) {
  const lefts = widths.map(
    (_width, i) => ROW_NUMBER + widths.slice(0, i).reduce((sum, width) => sum + width, 0),
  );

  useEffect(() => {
    const box = frame.current;
    const [, column] = at;
    if (!box || document.activeElement !== box) return;
    // The row numbers stay at the left, so a cell is seen only to the right of them.
    if (lefts[column]! - ROW_NUMBER < box.scrollLeft) box.scrollLeft = lefts[column]! - ROW_NUMBER;
    if (lefts[column]! + widths[column]! > box.scrollLeft + box.clientWidth)
      box.scrollLeft = lefts[column]! + widths[column]! - box.clientWidth;
  }, [at]);
}

/**
 * The file's own cells under its columns. Arrow keys move over cells, Enter edits one, Escape leaves it as it
 * was.
 */
export function SheetGrid({ header, rows, cellsOf, wordOf, isLeft, head, onEdit }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<[number, number]>([0, 0]);
  const [editing, setEditing] = useState(false);
  const { widths, minWidth, tracks } = useTracks(header, rows);
  // The heads are on the page before the cells: laying out both at once would hold it up for longer than one
  // notices.
  const [headed, setHeaded] = useState(false);
  useEffect(() => startTransition(() => setHeaded(true)), []);
  const virtual = useVirtualizer<HTMLDivElement, Element>({
    observeElementRect: watchSize,
    observeElementOffset: watchScroll,
    scrollToFn: scroll,
    count: headed ? rows.length : 0,
    getScrollElement: () => frame.current,
    estimateSize: () => 31,
    overscan: 4,
    // About what it will be, so that the cells are drawn with all else and not once more when the frame has
    // been measured.
    initialRect: { width: 960, height: 500 },
    scrollPaddingStart: 110,
  });
  useColumnInSight(frame, at, widths);

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
  const onPick = useCallback((where: [number, number], edit: boolean) => {
    setAt(where);
    if (edit) setEditing(true);
    else frame.current?.focus();
  }, []);
  const done = (value: string | null) => {
    setEditing(false);
    const row = rows[at[0]];
    if (value !== null && row && value !== (cellsOf(row)[at[1]] ?? '')) onEdit(row.row, at[1], value);
    frame.current?.focus();
  };
  // A row that is not edited has no use for what ends an edit, and is not drawn anew for it.
  const latest = useRef(done);
  latest.current = done;
  const onDone = useCallback((value: string | null) => latest.current(value), []);
  return (
    <div
      ref={frame}
      className="sheet overflow-auto grow min-h-0 group"
      role="grid"
      aria-label={t`Columns and the first rows`}
      aria-rowcount={rows.length + 1}
      aria-activedescendant={`cell-${at[0]}-${at[1]}`}
      tabIndex={0}
      onKeyDown={onKeyDown}
    >
      <HeadRow minWidth={minWidth} header={header} tracks={tracks} head={head} />
      <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative', minWidth }}>
        {virtual.getVirtualItems().map((item) => (
          <Row
            key={rows[item.index]!.row}
            row={rows[item.index]!}
            index={item.index}
            start={item.start}
            height={item.size}
            tracks={tracks}
            header={header}
            cellsOf={cellsOf}
            wordOf={wordOf}
            isLeft={isLeft}
            active={item.index === at[0] ? at[1] : null}
            editing={editing && item.index === at[0]}
            onPick={onPick}
            onDone={onDone}
          />
        ))}
      </div>
    </div>
  );
}

function CellInput({
  value,
  label,
  onDone,
}: {
  value: string;
  label: string;
  onDone: (value: string | null) => void;
}) {
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
      // To put the caret somewhere is not to pick the cell, which would take the focus away.
      onClick={(event) => event.stopPropagation()}
      onDoubleClick={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') end(text);
        if (event.key === 'Escape') end(null);
      }}
    />
  );
}
