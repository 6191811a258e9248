import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { FIELD_TYPES, type FieldType } from '@goodword/core/fields';
import type { ColumnChoice } from '@goodword/core/intake';
import { FIELD_TYPE_WORDS } from '@goodword/core/words';
import { Button, Labelled } from '../ui/basics';
import { Drawer } from '../ui/dialogs';

type Made = Extract<ColumnChoice, { to: 'newField' }>;

/**
 * A field made on the spot: its name, section, type, choices, and what stands in a message where it is empty.
 */
export function NewField({
  start,
  values,
  onClose,
  onMake,
}: {
  start: Made;
  values: readonly string[];
  onClose: () => void;
  onMake: (made: Made) => void;
}) {
  const [made, setMade] = useState<Made>(start);
  const offered = [...new Set(values.filter((value) => value.trim() !== ''))].slice(0, 30);
  const set = (part: Partial<Made>) => setMade({ ...made, ...part });
  const plain = made.name.trim().replace(/[{},"“”\\]/g, '');
  return (
    <Drawer
      open
      onClose={onClose}
      title={t`Make a field`}
      note={t`It is made when the batch comes in, and goes again if the batch is taken back out and nothing else uses it.`}
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => (event.preventDefault(), onMake({ ...made, name: plain }))}
      >
        <Labelled label={t`Name`} hint={t`As people read it, and as it is written in a message.`}>
          <input
            className="input"
            value={made.name}
            maxLength={60}
            onChange={(event) => set({ name: event.target.value })}
          />
        </Labelled>
        <Labelled label={t`Section`} hint={t`Where it stands on the record.`}>
          <input
            className="input"
            value={made.section ?? ''}
            placeholder={t`More`}
            maxLength={80}
            onChange={(event) => set({ section: event.target.value })}
          />
        </Labelled>
        <Labelled label={t`Type`}>
          <select
            className="input"
            value={made.type}
            onChange={(event) =>
              set({
                type: event.target.value as FieldType,
                ...(event.target.value === 'choice' && !made.choices ? { choices: offered } : {}),
              })
            }
          >
            {FIELD_TYPES.map((type) => (
              <option key={type} value={type}>
                {FIELD_TYPE_WORDS[type]}
              </option>
            ))}
          </select>
        </Labelled>
        {made.type === 'choice' && (
          <Labelled label={t`Choices`} hint={t`One a line.`}>
            <textarea
              className="input min-h-[120px]"
              value={(made.choices ?? []).join('\n')}
              onChange={(event) => set({ choices: event.target.value.split('\n').slice(0, 200) })}
            />
          </Labelled>
        )}
        <Labelled
          label={t`Where it is empty`}
          hint={t`Stands in a message in its place, if nothing else is said there.`}
        >
          <input
            className="input"
            value={made.fallback ?? ''}
            maxLength={200}
            onChange={(event) => set({ fallback: event.target.value })}
          />
        </Labelled>
        <Button weight="main" type="submit" className="self-start" disabled={plain === ''}>
          {t`Match the column to it`}
        </Button>
      </form>
    </Drawer>
  );
}
