import { t } from '@lingui/core/macro';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import { useNavigate } from 'react-router';
import type { Page, SupporterRow } from '@goodword/core/contract';
import { useFormat } from '../app/format';
import { Loading, ProblemNote } from './basics';
import { ChannelChip } from './permission';
import { VirtualTable, type TableColumn, type TableSelection, type TableSort } from './VirtualTable';

/** Pages of a list that is read by key, one after the other. */
export function usePages<Row>(
  key: readonly unknown[],
  fetch: (after: string | undefined) => Promise<Page<Row>>,
  options: { enabled?: boolean; refetchInterval?: number } = {},
) {
  const pages = useInfiniteQuery({
    queryKey: key,
    queryFn: ({ pageParam }) => fetch(pageParam),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
    ...options,
  });
  const rows = useMemo(() => pages.data?.pages.flatMap((page) => page.rows) ?? [], [pages.data]);
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  const more = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);
  return {
    rows,
    total: pages.data?.pages.at(-1)?.total ?? 0,
    more,
    isPending: pages.isPending,
    error: pages.error,
  };
}

export function personName(person: { firstName: string; lastName: string }): string {
  return `${person.firstName} ${person.lastName}`.trim() || t`No name on file`;
}

/** A table of supporters, wherever people are behind a number. */
export function PeopleTable({
  label,
  pageKey,
  fetch,
  narrow,
  empty,
  fields = [],
  selection,
  sort,
}: {
  label: string;
  pageKey: readonly unknown[];
  fetch: (after: string | undefined) => Promise<Page<SupporterRow>>;
  narrow?: boolean;
  empty?: React.ReactNode;
  /** Custom fields shown beside. */
  fields?: readonly { id: number; name: string }[];
  selection?: TableSelection<SupporterRow>;
  sort?: TableSort;
}) {
  const navigate = useNavigate();
  const format = useFormat();
  const { rows, total, more, isPending, error } = usePages(pageKey, fetch);
  const columns: TableColumn<SupporterRow>[] = [
    {
      key: 'name',
      title: t`Supporter`,
      sortKey: 'name',
      width: narrow ? 'minmax(130px,1.3fr)' : 'minmax(170px,1.2fr)',
      cell: (row) => <span className="font-semibold">{personName(row)}</span>,
    },
    ...(narrow
      ? []
      : [
          {
            key: 'email',
            title: t`Email`,
            width: 'minmax(180px,1.3fr)',
            cell: (row: SupporterRow) => row.email ?? '',
          },
          { key: 'mobile', title: t`Mobile`, width: '150px', cell: (row: SupporterRow) => row.mobile ?? '' },
        ]),
    {
      key: 'gift',
      title: t`Last gift`,
      width: '140px',
      cell: (row) =>
        row.lastGift ? `${format.money(row.lastGift.amount)}, ${format.month(row.lastGift.on)}` : '',
    },
    ...fields.map((field) => ({
      key: `field-${field.id}`,
      title: field.name,
      width: 'minmax(110px,1fr)',
      sortKey: field.id,
      cell: (row: SupporterRow) => row.values[field.id] ?? '',
    })),
    { key: 'tags', title: t`Tags`, width: '60px', cell: (row) => (row.tags === 0 ? '' : row.tags) },
    {
      key: 'may',
      title: t`May write by`,
      width: '258px',
      cell: (row) => (
        <span className="flex gap-1">
          <ChannelChip channel="email" state={row.may.email} />
          <ChannelChip channel="text" state={row.may.text} />
        </span>
      ),
    },
  ];
  if (error) return <ProblemNote error={error} />;
  if (isPending) return <Loading what={t`supporters`} />;
  if (total === 0 && empty) return <div className="sheet grow">{empty}</div>;
  return (
    <VirtualTable
      label={label}
      rows={rows}
      total={total}
      columns={columns}
      idOf={(row) => row.id}
      onOpen={(row) => void navigate(`/sort/supporters/${row.id}`)}
      onMore={more}
      wordOf={(row) => row.lastName || row.firstName}
      nameOf={(row) => [personName(row), row.email ?? row.mobile].filter(Boolean).join(', ')}
      {...(selection ? { selection } : {})}
      {...(sort ? { sort } : {})}
    />
  );
}
