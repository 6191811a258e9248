import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { GripVertical } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { FieldView, PeopleView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useTyped } from '../../app/drafting';
import { useMay } from '../../app/session';
import { Button, ProblemNote } from '../../ui/basics';
import type { TableState } from './tableState';
import { draggingWords } from '../../ui/dragging';
import { keyOf, reading } from '../../app/reading';

const MOST_FIELDS = 6;

function Pop({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button>{words}</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="sheet p-3 w-[290px] max-h-[420px] overflow-y-auto flex flex-col gap-2 z-20"
          sideOffset={6}
          align="end"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function ChosenColumn({ field }: { field: FieldView }) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: field.id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className="flex gap-2 items-center bg-sheet"
    >
      <button
        className="text-ink3 hover:text-ink cursor-grab"
        aria-label={t`Move the column ${field.name}`}
        {...attributes}
        {...listeners}
      >
        <GripVertical size={15} />
      </button>
      <span className="truncate">{field.name}</span>
    </li>
  );
}

/** The chosen ones in their order: dragged, or moved by the arrow keys on a handle taken with Space. */
function ColumnOrder({
  shown,
  onChange,
}: {
  shown: readonly FieldView[];
  onChange: (fields: number[]) => void;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = shown.map(({ id }) => id);
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id)
      onChange(arrayMove(ids, ids.indexOf(Number(active.id)), ids.indexOf(Number(over.id))));
  };
  return (
    <div className="border-t border-hair pt-2">
      <p className="text-ink2 text-[13px] pb-1">{t`In this order:`}</p>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={onDragEnd}
        accessibility={draggingWords((id) => shown.find((field) => String(field.id) === id)?.name)}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <ol className="flex flex-col gap-1">
            {shown.map((field) => (
              <ChosenColumn key={field.id} field={field} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
    </div>
  );
}

/** Which custom fields are shown beside, and in which order. */
export function ColumnsMenu({
  all,
  chosen,
  onChange,
}: {
  all: readonly FieldView[];
  chosen: readonly number[];
  onChange: (fields: number[]) => void;
}) {
  const shown = chosen.flatMap((id) => all.find((field) => field.id === id) ?? []);
  return (
    <Pop words={t`Columns`}>
      <p className="text-ink2 text-[13px]">
        <Trans>Shown beside the name, up to {MOST_FIELDS}.</Trans>
      </p>
      {all.map((field) => (
        <label key={field.id} className="flex gap-2 items-center">
          <input
            type="checkbox"
            checked={chosen.includes(field.id)}
            disabled={!chosen.includes(field.id) && chosen.length >= MOST_FIELDS}
            onChange={(event) =>
              onChange(event.target.checked ? [...chosen, field.id] : chosen.filter((id) => id !== field.id))
            }
          />
          {field.name}
        </label>
      ))}
      {shown.length > 1 && <ColumnOrder shown={shown} onChange={onChange} />}
    </Pop>
  );
}

/** Tables under names, for the whole team. */
export function Views({ now, onOpen }: { now: TableState; onOpen: (view: PeopleView) => void }) {
  const queryClient = useQueryClient();
  const organizer = useMay('organizer');
  const { data } = useQuery(reading('people-views'));
  const draft = useTyped('view:new', '');
  const name = draft.value;
  const again = () => queryClient.invalidateQueries({ queryKey: keyOf('people-views') });
  const keep = useMutation({
    mutationFn: () => {
      const known = data?.find((view) => view.name === name.trim());
      const { tree, by, descending, fields } = now;
      return api.put('people-views', {
        body: {
          name: name.trim(),
          tree: tree!,
          by,
          descending,
          fields,
          basedOn: known?.version ?? null,
        },
      });
    },
    onSuccess: () => (draft.discard(), again()),
    onError: again,
  });
  const forget = useMutation({
    mutationFn: (id: number) => api.delete('people-views/{id}', { id }),
    onSuccess: again,
  });
  return (
    <Pop words={data && data.length > 0 ? t`Views (${data.length})` : t`Views`}>
      {data?.length === 0 && (
        <p className="text-ink2">
          <Trans>No table was kept yet. Filter, choose columns, and keep it here for everybody.</Trans>
        </p>
      )}
      {data?.map((view) => (
        <div key={view.id} className="flex gap-2 items-center">
          <Popover.Close asChild>
            <button className="link text-left grow" onClick={() => onOpen(view)}>
              {view.name}
            </button>
          </Popover.Close>
          {organizer && (
            <button
              className="text-ink3 hover:text-madder text-[13px]"
              onClick={() => forget.mutate(view.id)}
              aria-label={t`Forget ${view.name}`}
            >
              {t`forget`}
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
            aria-label={t`Name of this table`}
            placeholder={t`Save this table as…`}
            value={name}
            maxLength={120}
            onChange={(event) => draft.set(event.target.value)}
          />
          <Button type="submit" disabled={name.trim() === '' || keep.isPending}>
            {data?.some((view) => view.name === name.trim()) ? t`Replace` : t`Save`}
          </Button>
        </form>
      )}
      <ProblemNote error={keep.error ?? forget.error} />
    </Pop>
  );
}
