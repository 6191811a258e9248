import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { FieldView, PeopleView } from '@goodword/core/contract';
import { call, get } from '../../app/api';
import { useMay } from '../../app/session';
import { Button, Problem } from '../../ui/basics';
import type { TableState } from './tableState';

const MOST_FIELDS = 6;

function Pop({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button>{words}</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="sheet p-3 w-[290px] max-h-[420px] overflow-y-auto flex flex-col gap-2 z-20" sideOffset={6} align="end">
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Which custom fields are shown beside; they stand in the order in which they were chosen. */
export function Columns({ all, chosen, onChange }: { all: readonly FieldView[]; chosen: readonly number[]; onChange: (fields: number[]) => void }) {
  return (
    <Pop words="Columns">
      <p className="text-ink2 text-[13px]">Shown beside the name, up to {MOST_FIELDS}, in the order you tick them.</p>
      {all.map((field) => (
        <label key={field.id} className="flex gap-2 items-center">
          <input
            type="checkbox"
            checked={chosen.includes(field.id)}
            disabled={!chosen.includes(field.id) && chosen.length >= MOST_FIELDS}
            onChange={(event) => onChange(event.target.checked ? [...chosen, field.id] : chosen.filter((id) => id !== field.id))}
          />
          {field.name}
        </label>
      ))}
    </Pop>
  );
}

/** Tables under names, for the whole team. */
export function Views({ now, onOpen }: { now: TableState; onOpen: (view: PeopleView) => void }) {
  const queryClient = useQueryClient();
  const organizer = useMay('organizer');
  const { data } = useQuery({ queryKey: ['people-views'], queryFn: () => get<PeopleView[]>('people-views') });
  const [name, setName] = useState('');
  const again = () => queryClient.invalidateQueries({ queryKey: ['people-views'] });
  const keep = useMutation({
    mutationFn: () => call('PUT', 'people-views', { name, tree: now.tree, by: now.by, descending: now.descending, fields: now.fields }),
    onSuccess: () => (setName(''), again()),
  });
  const forget = useMutation({ mutationFn: (id: number) => call('DELETE', `people-views/${id}`), onSuccess: again });
  return (
    <Pop words={data && data.length > 0 ? `Views (${data.length})` : 'Views'}>
      {data?.length === 0 && <p className="text-ink2">No table was kept yet. Filter, choose columns, and keep it here for everybody.</p>}
      {data?.map((view) => (
        <div key={view.id} className="flex gap-2 items-center">
          <Popover.Close asChild>
            <button className="link text-left grow" onClick={() => onOpen(view)}>
              {view.name}
            </button>
          </Popover.Close>
          {organizer && (
            <button className="text-ink3 hover:text-madder text-[13px]" onClick={() => forget.mutate(view.id)} aria-label={`Forget ${view.name}`}>
              forget
            </button>
          )}
        </div>
      ))}
      {organizer && now.tree && (
        <form
          className="flex gap-2 border-t border-hair pt-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) keep.mutate();
          }}
        >
          <input
            className="input"
            aria-label="Name of this table"
            placeholder="Keep this table as…"
            value={name}
            maxLength={120}
            onChange={(event) => setName(event.target.value)}
          />
          <Button type="submit" disabled={name.trim() === '' || keep.isPending}>
            Keep
          </Button>
        </form>
      )}
      <Problem error={keep.error ?? forget.error} />
    </Pop>
  );
}
