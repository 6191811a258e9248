import type { FieldView } from '@goodword/core/contract';
import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import type { ChangeField, FieldAdminView } from '@goodword/core/contract';
import { type FieldType } from '@goodword/core/fields';
import { api } from '../../app/api';
import { useDrafting, useTyped } from '../../app/drafting';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { ChoicesPart } from './ChoicesPart';
import { Unsaved } from '../../ui/Unsaved';
import { reading } from '../../app/reading';
import { TypePart, Deleting } from './FieldActs';
import { TYPES, useSaved } from './saving';

function SectionInput({
  values,
  setValues,
  fields,
}: {
  values: { name: string; type: FieldType; fallback: string; section: string; choices: string };
  setValues: (value: {
    name: string;
    type: FieldType;
    fallback: string;
    section: string;
    choices: string;
  }) => void;
  fields: FieldView[];
}) {
  return (
    <>
      <Labelled label={t`Section`} hint={t`Fields of one section stand together.`}>
        <input
          className="input"
          maxLength={80}
          list="known-sections"
          placeholder={t`More`}
          value={values.section}
          onChange={(event) => setValues({ ...values, section: event.target.value })}
        />
      </Labelled>
      <datalist id="known-sections">
        {[...new Set(fields.map((field) => field.section))].map((section) => (
          <option key={section} value={section} />
        ))}
      </datalist>
    </>
  );
}

/** Choices as they are typed, one to a line, each once. */
const choicesIn = (typed: string): string[] => [
  ...new Set(
    typed
      .split('\n')
      .map((one) => one.trim())
      .filter(Boolean),
  ),
];

/** A new field: its name, its type, and what stands in a message where it is empty. */
export function NewFieldSheet({
  onDone,
  without = [],
}: {
  onDone: () => void;
  /** Types that can't be had here. */ without?: readonly FieldType[];
}) {
  const { data: fields = [] } = useQuery(reading('fields'));
  const draft = useTyped('field:new', {
    name: '',
    type: 'text' as FieldType,
    fallback: '',
    section: '',
    choices: '',
  });
  const [values, setValues] = [draft.value, draft.set];
  const choosing = values.type === 'choice' || values.type === 'choices';
  const choices = choosing ? choicesIn(values.choices) : [];
  const make = useSaved(
    () => api.post('fields', { body: { ...values, choices, fallback: values.fallback || null } }),
    () => (draft.discard(), onDone()),
  );
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), make.mutate(undefined))}
    >
      <Labelled label={t`Name`} hint={t`In messages it is written in braces: ${'{Membership renews}'}.`}>
        <input
          className="input"
          required
          autoFocus
          maxLength={120}
          value={values.name}
          onChange={(event) => setValues({ ...values, name: event.target.value })}
        />
      </Labelled>
      <Labelled label={t`Type`}>
        <select
          className="input"
          value={values.type}
          onChange={(event) => setValues({ ...values, type: event.target.value as FieldType })}
        >
          {TYPES.filter(([type]) => !without.includes(type)).map(([type, words]) => (
            <option key={type} value={type}>
              {words}
            </option>
          ))}
        </select>
      </Labelled>
      {choosing && (
        <Labelled label={t`Choices, one to a line`} hint={t`Empty offers what people have.`}>
          <textarea
            className="input"
            rows={4}
            value={values.choices}
            onChange={(event) => setValues({ ...values, choices: event.target.value })}
          />
        </Labelled>
      )}
      <SectionInput values={values} setValues={setValues} fields={fields} />
      <Labelled
        label={t`In a message, where it is empty`}
        hint={t`May be left out; then the writer is told for how many people it would be empty.`}
      >
        <input
          className="input"
          maxLength={200}
          value={values.fallback}
          onChange={(event) => setValues({ ...values, fallback: event.target.value })}
        />
      </Labelled>
      <ProblemNote error={make.error} />
      <Button
        type="submit"
        weight="main"
        className="self-start"
        disabled={values.name.trim() === '' || make.isPending}
      >
        {t`Make the field`}
      </Button>
    </form>
  );
}

function ChoicesInput({ values, set }: { values: ChangeField; set: (change: Partial<ChangeField>) => void }) {
  return (
    <Labelled label={t`Choices, one to a line`} hint={t`Empty offers what people have.`}>
      <textarea
        className="input"
        rows={6}
        value={(values.choices ?? []).join('\n')}
        onChange={(event) =>
          set({ choices: event.target.value === '' ? null : event.target.value.split('\n') })
        }
        onBlur={() =>
          set({
            choices: values.choices && [...new Set(values.choices.map((one) => one.trim()).filter(Boolean))],
          })
        }
      />
    </Labelled>
  );
}

/** Who sees it, and whether a form insists on it. */
function WhoSeesIt({ values, set }: { values: ChangeField; set: (change: Partial<ChangeField>) => void }) {
  return (
    <>
      <input
        type="checkbox"
        className="mt-1 accent-[#0F766B]"
        checked={values.sensitive}
        onChange={(event) => set({ sensitive: event.target.checked })}
      />
      <span>
        <b>{t`Sensitive`}</b>
        <span className="block text-ink2">{t`Owners and organizers alone see it, and can ask for it.`}</span>
      </span>
    </>
  );
}

/** What stands in its place where it is empty, and what is told beside it. */
function WordsOfField({ values, set }: { values: ChangeField; set: (change: Partial<ChangeField>) => void }) {
  return (
    <>
      <Labelled label={t`In a message, where it is empty`}>
        <input
          className="input"
          maxLength={200}
          value={values.fallback ?? ''}
          onChange={(event) => set({ fallback: event.target.value || null })}
        />
      </Labelled>
      <Labelled label={t`What to tell beside it, where it is filled in`}>
        <input
          className="input"
          maxLength={300}
          value={values.help}
          onChange={(event) => set({ help: event.target.value })}
        />
      </Labelled>
    </>
  );
}

/** One field: what it is called, where it stands, who sees it; its type; its end. */
export function FieldSheet({
  field,
  sections,
  onDone,
}: {
  field: FieldAdminView;
  sections: readonly string[];
  onDone: () => void;
}) {
  const { name, section, fallback, help, sensitive, required, choices } = field;
  const server: ChangeField = { name, section, fallback, help, sensitive, required, choices };
  const draft = useDrafting<ChangeField, ChangeField>(`field:${field.id}`, {
    value: server,
    version: server,
  });
  const values = draft.value;
  const save = useSaved(
    (sent: ChangeField) =>
      api.put('house/fields/{id}', { id: field.id, body: { ...sent, was: draft.basedOn } }),
    (sent) => (draft.saved(sent), onDone()),
  );
  const set = (change: Partial<ChangeField>) => draft.set({ ...values, ...change });
  const choosing = field.type === 'choice' || field.type === 'choices';
  return (
    <div className="flex flex-col gap-4 overflow-y-auto">
      <form
        className="sheet p-5 flex flex-col gap-4"
        onSubmit={(event) => (event.preventDefault(), save.mutate(values))}
      >
        <Labelled label={t`Name`} hint={t`In messages: ${`{${values.name}}`}`}>
          <input
            className="input"
            required
            maxLength={120}
            value={values.name}
            onChange={(event) => set({ name: event.target.value })}
          />
        </Labelled>
        <Labelled label={t`Section`} hint={t`Fields of one section stand together on records and forms.`}>
          <input
            className="input"
            required
            maxLength={80}
            list="sections"
            value={values.section}
            onChange={(event) => set({ section: event.target.value })}
          />
        </Labelled>
        <datalist id="sections">
          {sections.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
        <WordsOfField values={values} set={set} />
        {choosing && <ChoicesInput values={values} set={set} />}
        <label className="flex gap-3 items-start">
          <WhoSeesIt values={values} set={set} />
        </label>
        <label className="flex gap-3 items-start">
          <input
            type="checkbox"
            className="mt-1 accent-[#0F766B]"
            checked={values.required}
            onChange={(event) => set({ required: event.target.checked })}
          />
          <span>
            <b>{t`Required on forms`}</b>
            <span className="block text-ink2">{t`Whoever is asked for it on a form has to answer.`}</span>
          </span>
        </label>
        <Unsaved draft={draft} what={t`this field`} />
        {draft.theirs === null && <ProblemNote error={save.error} />}
        <Button
          type="submit"
          weight="main"
          className="self-start"
          disabled={save.isPending || draft.theirs !== null}
        >
          {t`Save`}
        </Button>
      </form>
      {choosing && <ChoicesPart field={field} />}
      <TypePart field={field} onDone={onDone} />
      <Deleting field={field} onDone={onDone} />
    </div>
  );
}
