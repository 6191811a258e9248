import { t } from '@lingui/core/macro';
import { useVirtualizer, type VirtualItem } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';

export interface TableColumn<Row> {
  key: string;
  title: string;
  /** CSS grid track. */
  width: string;
  cell: (row: Row) => ReactNode;
  /** What the server orders by, where people can be put in order by this column. */
  sortKey?: string | number;
}

/** Which rows are chosen, and how that changes. */
export interface TableSelection<Row> {
  has: (row: Row) => boolean;
  toggle: (row: Row) => void;
  /** All, none or some of everybody, also of those who are not loaded. */
  state: 'all' | 'some' | 'none';
  toggleAll: () => void;
}

export interface TableSort<By extends string | number = string | number> {
  by: By;
  descending: boolean;
  onSort(by: By): void;
}

interface Props<Row> {
  label: string;
  rows: readonly Row[];
  total: number;
  columns: readonly TableColumn<Row>[];
  idOf: (row: Row) => string | number;
  onOpen?: (row: Row) => void;
  /** Asked for when the end of what is loaded comes near. */
  onMore?: () => void;
  /** What type-ahead looks at. */
  wordOf?: (row: Row) => string;
  /** What its box is called, where that is more than what type-ahead looks at. */
  nameOf?: (row: Row) => string;
  rowHeight?: number;
  selection?: TableSelection<Row>;
  sort?: TableSort;
}

/** Height of the header that stays on top while the rows move under it. */
const HEADER = 37;

const STEPS: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: 12, PageUp: -12 };

/** The head of a column: words, or a button where people can be put in order by it. */
function Head<Row>({ column, sort }: { column: TableColumn<Row>; sort: TableSort | undefined }) {
  const { sortKey } = column;
  if (!sort || sortKey === undefined) return <>{column.title}</>;
  const mark = sort.by !== sortKey ? '' : sort.descending ? ' ↓' : ' ↑';
  return (
    <button
      className="hover:text-ink font-semibold"
      onClick={() => sort.onSort(sortKey)}
      title={t`Put in order by ${column.title}`}
    >
      {column.title}
      {mark}
    </button>
  );
}

/** The box that chooses all, half-filled where some are. */
function AllBox({
  label,
  state,
  onToggle,
}: {
  label: string;
  state: 'all' | 'some' | 'none';
  onToggle: () => void;
}) {
  return (
    <input
      type="checkbox"
      aria-label={t`Choose all of ${label}`}
      checked={state === 'all'}
      ref={(box) => {
        if (box) box.indeterminate = state === 'some';
      }}
      onChange={onToggle}
    />
  );
}

/** The heads of the columns, with the order that they are in. */
function Heads<Row>({
  template,
  selection,
  label,
  columns,
  sort,
}: {
  template: string;
  selection: TableSelection<Row> | undefined;
  label: string;
  columns: readonly TableColumn<Row>[];
  sort: TableSort<string | number> | undefined;
}) {
  return (
    <div
      role="row"
      aria-rowindex={1}
      className="grid sticky top-0 z-10 bg-sheet border-b border-ink text-[13px] text-ink2"
      style={{ gridTemplateColumns: template }}
    >
      {selection && (
        <div role="columnheader" className="pl-4 py-2">
          <AllBox label={label} state={selection.state} onToggle={selection.toggleAll} />
        </div>
      )}
      {columns.map((column) => (
        <div
          role="columnheader"
          key={column.key}
          className="px-4 py-2 truncate"
          aria-sort={
            sort && sort.by === column.sortKey ? (sort.descending ? 'descending' : 'ascending') : undefined
          }
        >
          <Head column={column} sort={sort} />
        </div>
      ))}
    </div>
  );
}

/** One row, where it stands in the whole table. */
function TableRow<Row>({
  idOf,
  row,
  item,
  at,
  setAt,
  onOpen,
  template,
  selection,
  nameOf,
  wordOf,
  columns,
}: {
  idOf: (row: Row) => string | number;
  row: Row;
  item: VirtualItem;
  at: number;
  setAt: (next: number) => void;
  onOpen: ((row: Row) => void) | undefined;
  template: string;
  selection: TableSelection<Row> | undefined;
  nameOf: ((row: Row) => string) | undefined;
  wordOf: ((row: Row) => string) | undefined;
  columns: readonly TableColumn<Row>[];
}) {
  return (
    <div
      id={`row-${idOf(row)}`}
      role="row"
      aria-rowindex={item.index + 2}
      aria-selected={item.index === at}
      onClick={() => (setAt(item.index), onOpen?.(row))}
      className={`absolute left-0 right-0 grid items-center border-b border-hair ${onOpen ? 'cursor-pointer hover:bg-[#f4f6f5]' : ''} ${item.index === at ? 'group-focus-visible:bg-[#eaf3f1] group-focus-visible:shadow-[inset_3px_0_0_var(--color-verdigris)]' : ''}`}
      style={{
        gridTemplateColumns: template,
        height: item.size,
        transform: `translateY(${item.start}px)`,
      }}
    >
      {selection && (
        <div role="gridcell" className="pl-4" onClick={(event) => event.stopPropagation()}>
          <input
            type="checkbox"
            tabIndex={-1}
            aria-label={t`Choose ${(nameOf ?? wordOf)?.(row) ?? t`this row`}`}
            checked={selection.has(row)}
            onChange={() => selection.toggle(row)}
          />
        </div>
      )}
      {columns.map((column) => (
        <div role="gridcell" key={column.key} className="px-4 truncate">
          {column.cell(row)}
        </div>
      ))}
    </div>
  );
}

/** Goes to the first row whose word begins with what is typed in one go. */
function useTypeAhead<Row>(
  rows: readonly Row[],
  wordOf: ((row: Row) => string) | undefined,
  go: (to: number) => void,
) {
  const typed = useRef({ text: '', at: 0 });
  return (key: string) => {
    const now = Date.now();
    typed.current = { text: now - typed.current.at < 900 ? typed.current.text + key : key, at: now };
    const found = rows.findIndex((row) =>
      wordOf?.(row).toLowerCase().startsWith(typed.current.text.toLowerCase()),
    );
    if (found >= 0) go(found);
  };
}

/**
 * A table that draws only the rows on screen. Arrow keys move, Enter opens, Space chooses, typing jumps to a
 * name.
 */
export function VirtualTable<Row>(props: Props<Row>) {
  const {
    label,
    rows,
    total,
    columns,
    idOf,
    onOpen,
    onMore,
    wordOf,
    nameOf,
    rowHeight = 36,
    selection,
    sort,
  } = props;
  const frame = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState(0);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    scrollPaddingStart: HEADER,
  });
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  const template = [...(selection ? ['36px'] : []), ...columns.map((column) => column.width)].join(' ');

  useEffect(() => {
    if (onMore && rows.length < total && last >= rows.length - 30) onMore();
  }, [last, rows.length, total, onMore]);

  const go = (to: number) => {
    const next = Math.max(0, Math.min(rows.length - 1, to));
    setAt(next);
    virtual.scrollToIndex(next);
  };
  const jump = useTypeAhead(rows, wordOf, go);
  const onKeyDown = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (step !== undefined) go(at + step);
    else if (event.key === 'Home') go(0);
    else if (event.key === 'End') go(rows.length - 1);
    else if (event.target !== frame.current) return;
    else if (event.key === 'Enter' && rows[at]) onOpen?.(rows[at]);
    else if (event.key === ' ' && selection && rows[at]) selection.toggle(rows[at]);
    else if (event.key.length === 1 && !event.ctrlKey && !event.altKey && !event.metaKey && event.key !== '?')
      return jump(event.key);
    else return;
    event.preventDefault();
  };

  const active = rows[at] ? `row-${idOf(rows[at])}` : undefined;
  return (
    <div
      ref={frame}
      role="grid"
      aria-label={label}
      aria-rowcount={total + 1}
      aria-activedescendant={active}
      tabIndex={0}
      onKeyDown={onKeyDown}
      className="group min-h-0 grow sheet overflow-y-auto"
    >
      <Heads template={template} selection={selection} label={label} columns={columns} sort={sort} />
      <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {items.map((item) => {
          const row = rows[item.index]!;
          return (
            <TableRow
              key={idOf(row)}
              idOf={idOf}
              row={row}
              item={item}
              at={at}
              setAt={setAt}
              onOpen={onOpen}
              template={template}
              selection={selection}
              nameOf={nameOf}
              wordOf={wordOf}
              columns={columns}
            />
          );
        })}
      </div>
    </div>
  );
}
