import { t } from '@lingui/core/macro';
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
import { GripVertical } from 'lucide-react';
import { useState } from 'react';
import type { FieldView } from '@goodword/core/contract';
import type { FormDefinition, FormItem } from '@goodword/core/forms';
import { NewFieldSheet } from '../setup/fields/FieldSheet';
import { Drawer } from '../ui/dialogs';
import { askable, changeItem, moveItem, PART_WORDS, withItem } from './draft';
import { draggingWords } from '../ui/dragging';

interface Props {
  form: FormDefinition;
  fields: readonly FieldView[];
  disabled: boolean;
  onChange: (form: FormDefinition) => void;
}

/** What the form asks, in the order in which it asks: dragged, or moved with Space and the arrow keys. */
export function Items({ form, fields, disabled, onChange }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = form.items.map((item) => String(item.of));
  const ended = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id)
      onChange(moveItem(form, ids.indexOf(String(active.id)), ids.indexOf(String(over.id))));
  };
  const itemName = (id: string) =>
    form.items.flatMap((item) => (String(item.of) === id ? [nameOf(item, fields)] : []))[0];
  const more = askable(form, fields);
  const [making, setMaking] = useState(false);
  return (
    <>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={ended}
        accessibility={draggingWords(itemName)}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <ul>
            {form.items.map((item, at) => (
              <ItemRow
                key={String(item.of)}
                item={item}
                name={nameOf(item, fields)}
                disabled={disabled}
                onChange={(change) => onChange(changeItem(form, at, change))}
              />
            ))}
          </ul>
        </SortableContext>
      </DndContext>
      <Drawer
        open={making}
        onClose={() => setMaking(false)}
        title={t`Make a field`}
        note={t`Then ask for it here`}
      >
        <NewFieldSheet without={['file']} onDone={() => setMaking(false)} />
      </Drawer>
      {!disabled && (
        <select
          className="input !w-auto mt-2 self-start"
          aria-label={t`Ask for more`}
          value=""
          onChange={(event) => {
            if (event.target.value === 'new') return setMaking(true);
            const chosen = more.find((one) => String(one.of) === event.target.value);
            if (chosen) onChange(withItem(form, chosen.of, chosen.words, chosen.field));
          }}
        >
          <option value="">{t`Ask for…`}</option>
          {more.map((one) => (
            <option key={String(one.of)} value={String(one.of)}>
              {one.words}
            </option>
          ))}
          <option value="new">{t`a new field…`}</option>
        </select>
      )}
    </>
  );
}

function nameOf(item: FormItem, fields: readonly FieldView[]): string {
  return typeof item.of === 'number'
    ? (fields.find((field) => field.id === item.of)?.name ?? t`a field since deleted`)
    : PART_WORDS[item.of];
}

function ItemRow({
  item,
  name,
  disabled,
  onChange,
}: {
  item: FormItem;
  name: string;
  disabled: boolean;
  onChange: (change: Partial<FormItem> | null) => void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({
    id: String(item.of),
    disabled,
  });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className="bg-sheet border-b border-hair py-2 grid grid-cols-[22px_1fr_auto] gap-2 items-start"
    >
      <button className="pt-2 text-ink3" aria-label={t`Move ${name}`} {...attributes} {...listeners}>
        <GripVertical size={16} aria-hidden="true" />
      </button>
      <div className="grid grid-cols-2 gap-2">
        <input
          className="input"
          aria-label={t`Label of ${name}`}
          value={item.label}
          maxLength={120}
          disabled={disabled}
          onChange={(event) => onChange({ label: event.target.value })}
        />
        {item.show === 'asked' ? (
          <input
            className="input"
            aria-label={t`Help for ${name}`}
            placeholder={t`A word of help`}
            value={item.help}
            maxLength={300}
            disabled={disabled}
            onChange={(event) => onChange({ help: event.target.value })}
          />
        ) : (
          <input
            className="input"
            aria-label={t`Value of ${name}`}
            placeholder={item.show === 'constant' ? t`Always this` : t`Unless the address says so`}
            value={item.value}
            maxLength={300}
            disabled={disabled}
            onChange={(event) => onChange({ value: event.target.value })}
          />
        )}
      </div>
      <div className="flex items-center gap-3">
        <select
          className="input !w-auto"
          aria-label={t`How ${name} is known`}
          value={item.show === 'asked' && item.required ? 'required' : item.show}
          disabled={disabled}
          onChange={(event) => {
            const show = event.target.value as FormItem['show'] | 'required';
            onChange(show === 'required' ? { show: 'asked', required: true } : { show, required: false });
          }}
        >
          <option value="asked">{t`asked`}</option>
          <option value="required">{t`asked, required`}</option>
          <option value="hidden">{t`hidden`}</option>
          <option value="constant">{t`constant`}</option>
        </select>
        {!disabled && (
          <button className="link" aria-label={t`Remove ${name}`} onClick={() => onChange(null)}>
            {t`Remove`}
          </button>
        )}
      </div>
    </li>
  );
}
