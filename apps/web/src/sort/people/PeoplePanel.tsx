import { AS_IT_COMES } from './listing';
import { useState } from 'react';
import type { FieldView, Page, PeopleColumns, SupporterRow } from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import { api } from '../../app/api';
import { useMay } from '../../app/session';
import { PeopleTable } from '../../ui/people';
import type { TableSort } from '../../ui/VirtualTable';
import { BulkBar } from './BulkBar';
import { BulkProgress } from './BulkProgress';
import { countOf, groupOf, useSelection } from './selection';

interface Props {
  label: string;
  /** Who is in the table; null where a search says it, which no rule does. */
  tree: Rule | null;
  fetch?: (after: string | undefined) => Promise<Page<SupporterRow>>;
  pageKey: readonly unknown[];
  narrow?: boolean;
  empty?: React.ReactNode;
  fields?: readonly FieldView[];
  sort?: TableSort<PeopleColumns['by']>;
}

/** People in a table, of whom some or all can be chosen and acted on. */
export function PeoplePanel({
  label,
  tree,
  fetch,
  pageKey,
  narrow = false,
  empty,
  fields = [],
  sort,
}: Props) {
  const organizer = useMay('organizer');
  const [total, setTotal] = useState(0);
  const key = JSON.stringify(pageKey);
  const { chosen, clear, selection } = useSelection(key, total, tree !== null);
  const order = sort ? { by: sort.by, descending: sort.descending } : {};
  const read = async (after: string | undefined) => {
    const page = fetch
      ? await fetch(after)
      : await api.post('segments/people', {
          body: {
            ...AS_IT_COMES,
            tree: tree!,
            fields: fields.map(({ id }) => id),
            ...order,
            ...(after ? { after } : {}),
          },
        });
    setTotal(page.total);
    return page;
  };
  return (
    <div className="flex flex-col min-h-0 grow">
      <BulkProgress />
      {organizer && (
        <BulkBar people={countOf(chosen, total)} group={() => groupOf(chosen, tree)} onDone={clear} />
      )}
      <PeopleTable
        narrow={narrow}
        label={label}
        pageKey={[...pageKey, order, fields.map(({ id }) => id)]}
        fetch={read}
        empty={empty}
        fields={fields}
        {...(organizer ? { selection } : {})}
        {...(sort ? { sort } : {})}
      />
    </div>
  );
}
