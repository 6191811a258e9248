import { plural, t } from '@lingui/core/macro';
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
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { GripVertical } from 'lucide-react';
import { Link } from 'react-router';
import type { ListView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { Empty, ProblemNote } from '../../ui/basics';
import { WriteToThem } from '../../write/WriteToThem';
import { foldersOf, listMoved } from './folders';
import { draggingWords } from '../../ui/dragging';

function Row({ list, onEdit, onRemove }: { list: ListView; onEdit: () => void; onRemove: () => void }) {
  const format = useFormat();
  const may = useMay('organizer');
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({
    id: list.id,
    disabled: !may,
  });
  const { people = 0 } = list;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className="grid grid-cols-[24px_1fr_auto_auto] gap-3 border-t border-hair py-2 bg-sheet"
    >
      {may ? (
        <button
          className="text-ink3 hover:text-ink cursor-grab self-start pt-[2px]"
          aria-label={t`Move ${list.name}`}
          {...attributes}
          {...listeners}
        >
          <GripVertical size={15} />
        </button>
      ) : (
        <span />
      )}
      <span>
        <b>{list.name}</b>
        <span className="text-ink2">, {list.isPublic ? t`public` : t`internal`}</span>
        {list.description && <span className="block text-ink2 text-[12.5px]">{list.description}</span>}
      </span>
      <Link
        className="link self-start"
        to={`/sort?list=${list.id}`}
        aria-label={t`${plural(people, { one: '# person', other: '# people' })} on ${list.name}`}
      >
        {format.number(people)}
      </Link>
      {may && (
        <span className="whitespace-nowrap flex gap-3 items-baseline">
          <WriteToThem asLink whom={list.name} to={() => ({ ref: { kind: 'list', id: list.id } })} />
          <button className="link text-ink2" onClick={onEdit} aria-label={t`Change ${list.name}`}>
            {t`Change`}
          </button>
          <button className="link text-madder" onClick={onRemove} aria-label={t`Delete ${list.name}`}>
            {t`Delete`}
          </button>
        </span>
      )}
    </li>
  );
}

/**
 * Lists in their folders. Moved within a folder they change their order, on the preference page too; moved
 * into another they lie there.
 */
export function Lists({
  lists,
  onEdit,
  onRemove,
}: {
  lists: readonly ListView[];
  onEdit: (list: ListView) => void;
  onRemove: (list: ListView) => void;
}) {
  const queryClient = useQueryClient();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const move = useMutation({
    mutationFn: async ({ from, to }: { from: ListView; to: ListView }) => {
      if (from.folder !== to.folder)
        await api.put('lists/folder', { body: { ids: [from.id], folder: to.folder } });
      await api.put('lists/order', { body: { ids: listMoved(lists, from.id, to.id) } });
    },
    onSettled: () => refresh(queryClient, 'lists'),
  });
  const ended = ({ active, over }: DragEndEvent) => {
    const of = (id: unknown) => lists.find((list) => list.id === Number(id));
    const [from, to] = [of(active.id), of(over?.id)];
    if (from && to && from !== to) move.mutate({ from, to });
  };
  if (lists.length === 0)
    return (
      <Empty title={t`No lists yet`}>
        <p>
          <Trans>A public list is one that supporters see and agree to; an internal one is for you.</Trans>
        </p>
      </Empty>
    );
  const folders = foldersOf(lists);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={ended}
      accessibility={draggingWords((id) => lists.find((list) => String(list.id) === id)?.name)}
    >
      <SortableContext
        items={folders.flatMap((one) => one.lists.map(({ id }) => id))}
        strategy={verticalListSortingStrategy}
      >
        {folders.map(({ folder, lists: some }) => (
          <section key={folder} aria-label={folder || t`In no folder`} className="pb-2">
            {(folder !== '' || folders.length > 1) && (
              <h3 className="font-semibold text-[13px] text-ink2 pt-3 pb-1">{folder || t`In no folder`}</h3>
            )}
            <ul>
              {some.map((list) => (
                <Row key={list.id} list={list} onEdit={() => onEdit(list)} onRemove={() => onRemove(list)} />
              ))}
            </ul>
          </section>
        ))}
      </SortableContext>
      <ProblemNote error={move.error} />
    </DndContext>
  );
}
