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
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ArrowDown, ArrowUp, GripVertical } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { FieldAdminView } from '@goodword/core/contract';
import { FIELD_TYPE_WORDS } from '@goodword/core/words';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { Button, Empty, Heading, Loading, ProblemNote } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';
import { useMargin } from '../../ui/margin';
import { SetupNav } from '../SetupNav';
import { FieldSheet, NewFieldSheet } from './FieldSheet';
import { moved, sectionMoved, sectionPut, fieldSections } from './order';
import { draggingWords } from '../../ui/dragging';
import { keyOf, reading } from '../../app/reading';

function Row({ field, onOpen }: { field: FieldAdminView; onOpen: () => void }) {
  const format = useFormat();
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: field.id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className="grid grid-cols-[28px_minmax(0,1.4fr)_130px_minmax(0,1.2fr)_110px_auto] gap-3 items-center border-b border-hair px-4 py-2 bg-sheet"
    >
      <button
        className="text-ink3 hover:text-ink cursor-grab"
        aria-label={t`Move ${field.name}`}
        {...attributes}
        {...listeners}
      >
        <GripVertical size={16} />
      </button>
      <span className="truncate">
        <b>{field.name}</b>
        {field.sensitive && (
          <span className="text-ochre text-[12.5px] pl-2">{t`owners and organizers only`}</span>
        )}
      </span>
      <span className="text-ink2">{FIELD_TYPE_WORDS[field.type]}</span>
      <code className="truncate text-[13px]">
        {field.mergeName.slice(0, -1)}
        {field.fallback ? t`, or "${field.fallback}"` : ''}
        {'}'}
      </code>
      <span className="text-ink2 tabular-nums">
        {format.number(field.people)} {plural(field.people, { one: 'person', other: 'people' })}
      </span>
      <Button onClick={onOpen} aria-label={t`Open ${field.name}`}>
        {t`Open`}
      </Button>
    </li>
  );
}

interface SectionProps {
  name: string;
  up: (() => void) | null;
  down: (() => void) | null;
  children: ReactNode;
}

/** A section under its name, moved as a whole: dragged, or a step at a time. */
function Section({ name, up, down, children }: SectionProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: name });
  const step = (words: string, act: (() => void) | null, icon: ReactNode) => (
    <button
      disabled={act === null}
      className="w-6 h-6 grid place-items-center disabled:opacity-30"
      aria-label={t`Move ${name} ${words}`}
      onClick={() => act?.()}
    >
      {icon}
    </button>
  );
  return (
    <section
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className="bg-sheet"
      aria-label={name}
    >
      <h2 className="flex items-center gap-2 px-4 pt-4 pb-1 font-semibold text-[13px] text-ink2 border-b border-hair">
        <button
          className="text-ink3 hover:text-ink cursor-grab"
          aria-label={t`Move the section ${name}`}
          {...attributes}
          {...listeners}
        >
          <GripVertical size={16} />
        </button>
        <span className="grow">{name}</span>
        {step('up', up, <ArrowUp size={15} />)}
        {step('down', down, <ArrowDown size={15} />)}
      </h2>
      {children}
    </section>
  );
}

function FieldSections({
  data,
  sensors,
  onSectionEnd,
  sections,
  put,
  onDragEnd,
  nameOf,
  setOpen,
}: {
  data: FieldAdminView[];
  sensors: ReturnType<typeof useSensors>;
  onSectionEnd: (event: DragEndEvent) => unknown;
  sections: { name: string; fields: FieldAdminView[] }[];
  put: (ids: number[]) => void;
  onDragEnd: (event: DragEndEvent) => unknown;
  nameOf: (id: string) => string | undefined;
  setOpen: (next: number | 'new' | null) => void;
}) {
  return (
    <div className="sheet grow overflow-y-auto" tabIndex={0} role="region" aria-label={t`Fields`}>
      {data.length === 0 && (
        <Empty title={t`No fields of your own yet`}>
          <p>
            <Trans>
              Whatever you know of supporters beside name and addresses: when a membership renews, a favourite
              crossing, a shirt size.
            </Trans>
          </p>
        </Empty>
      )}
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={onSectionEnd}
        accessibility={draggingWords((id) => id)}
      >
        <SortableContext items={sections.map(({ name }) => name)} strategy={verticalListSortingStrategy}>
          {sections.map((section, i) => (
            <Section
              key={section.name}
              name={section.name}
              up={i > 0 ? () => put(sectionMoved(data, section.name, -1)) : null}
              down={i < sections.length - 1 ? () => put(sectionMoved(data, section.name, 1)) : null}
            >
              <DndContext
                sensors={sensors}
                collisionDetection={closestCenter}
                onDragEnd={onDragEnd}
                accessibility={draggingWords(nameOf)}
              >
                <SortableContext
                  items={section.fields.map((field) => field.id)}
                  strategy={verticalListSortingStrategy}
                >
                  <ul>
                    {section.fields.map((field) => (
                      <Row key={field.id} field={field} onOpen={() => setOpen(field.id)} />
                    ))}
                  </ul>
                </SortableContext>
              </DndContext>
            </Section>
          ))}
        </SortableContext>
      </DndContext>
    </div>
  );
}

/** The organization's own fields, by section, in the order in which they stand everywhere. */
export default function Fields() {
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const { data, error } = useQuery({ ...reading('house/fields'), enabled: may });
  const [open, setOpen] = useState<number | 'new' | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const order = useMutation({
    mutationFn: (ids: number[]) => api.put('house/fields/order', { body: { ids } }),
    onSettled: () => refresh(queryClient, 'house'),
  });
  useMargin([
    {
      key: 'dates',
      tone: 'plain',
      title: t`Give dates the type date`,
      body: t`“30 days before”, “within the next month” and anniversaries can be asked of dates alone, not of texts that look like one.`,
    },
  ]);
  if (!may)
    return <Empty title={t`Fields are kept by organizers`}>{t`Ask one of them for a new field.`}</Empty>;
  if (!data) return error ? <ProblemNote error={error} /> : <Loading what={t`the fields`} />;
  const put = (ids: number[]) => {
    queryClient.setQueryData(
      keyOf('house/fields'),
      [...data].sort((a, b) => ids.indexOf(a.id) - ids.indexOf(b.id)),
    );
    order.mutate(ids);
  };
  const onDragEnd = ({ active, over }: DragEndEvent) =>
    over && active.id !== over.id && put(moved(data, Number(active.id), Number(over.id)));
  const onSectionEnd = ({ active, over }: DragEndEvent) =>
    over && active.id !== over.id && put(sectionPut(data, String(active.id), String(over.id)));
  const nameOf = (id: string) => data.find((field) => String(field.id) === id)?.name;
  const sections = fieldSections(data);
  const opened = data.find((field) => field.id === open);
  return (
    <>
      <Heading
        title={t`Setup`}
        page={t`Fields`}
        note={t`${data.length} ${plural(data.length, { one: 'field', other: 'fields' })} of your own`}
      >
        <Button weight="main" onClick={() => setOpen('new')}>
          {t`Make a field`}
        </Button>
      </Heading>
      <SetupNav />
      <ProblemNote error={order.error} />
      <FieldSections
        data={data}
        sensors={sensors}
        onSectionEnd={onSectionEnd}
        sections={sections}
        put={put}
        onDragEnd={onDragEnd}
        nameOf={nameOf}
        setOpen={setOpen}
      />
      <Drawer
        open={opened !== undefined}
        onClose={() => setOpen(null)}
        title={opened?.name ?? ''}
        note={opened ? FIELD_TYPE_WORDS[opened.type] : ''}
      >
        {opened && (
          <FieldSheet
            key={opened.id}
            field={opened}
            sections={sections.map(({ name }) => name)}
            onDone={() => setOpen(null)}
          />
        )}
      </Drawer>
      <Drawer open={open === 'new'} onClose={() => setOpen(null)} title={t`A field of your own`}>
        {open === 'new' && <NewFieldSheet onDone={() => setOpen(null)} />}
      </Drawer>
    </>
  );
}
