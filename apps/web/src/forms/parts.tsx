import type { UseMutationResult } from '@tanstack/react-query';
import type { Drafting } from '../app/drafting';
import { t } from '@lingui/core/macro';
import { type ReactNode } from 'react';
import type { FormView } from '@goodword/core/contract';
import { LANGUAGES, type FormDefinition, type Language } from '@goodword/core/forms';
import { LANGUAGE_WORDS } from '../app/languages';
import { useSession } from '../app/session';
import { useLists, useTags } from '../app/groups';
import { Button, Heading, Labelled } from '../ui/basics';

export function FormHead({
  view,
  setShowing,
  disabled,
  changed,
  open,
  draft,
  save,
}: {
  view: FormView;
  setShowing: (next: boolean) => void;
  disabled: boolean;
  changed: boolean;
  open: UseMutationResult<void, Error, void, unknown>;
  draft: Drafting<{ name: string; slug: string; form: FormDefinition }, number>;
  save: UseMutationResult<
    { faults: { field: string; message: string }[] },
    Error,
    { name: string; slug: string; form: FormDefinition },
    unknown
  >;
}) {
  return (
    <Heading
      title={view.name}
      page={t`Form: ${view.name}`}
      note={t`${view.open ? t`Open` : t`Closed`}, version ${view.version}`}
    >
      <Button onClick={() => setShowing(true)}>{t`Where it lives`}</Button>
      {!disabled && (
        <>
          <Button disabled={changed || open.isPending} onClick={() => open.mutate()}>
            {view.open ? t`Close it` : t`Open it`}
          </Button>
          <Button
            weight="main"
            disabled={!changed || draft.theirs !== null || save.isPending}
            onClick={() => save.mutate(draft.value)}
          >
            {t`Save a new version`}
          </Button>
        </>
      )}
    </Heading>
  );
}

/** What stands at the top of the page, and its language. */
export function PagePart({
  form,
  disabled,
  set,
}: {
  form: FormDefinition;
  disabled: boolean;
  set: (change: Partial<FormDefinition>) => void;
}) {
  const { organization } = useSession();
  return (
    <Part title={t`The page`}>
      <div className="grid grid-cols-2 gap-3">
        <Labelled label={t`Title`}>
          <input
            className="input"
            value={form.title}
            maxLength={120}
            disabled={disabled}
            onChange={(event) => set({ title: event.target.value })}
          />
        </Labelled>
        <Labelled label={t`Language of the page`}>
          <select
            className="input"
            value={form.language}
            disabled={disabled}
            onChange={(event) => set({ language: event.target.value as Language })}
          >
            {LANGUAGES.filter(
              (one) => one === form.language || (organization.languages ?? LANGUAGES).includes(one),
            ).map((language) => (
              <option key={language} value={language}>
                {LANGUAGE_WORDS[language]}
              </option>
            ))}
          </select>
        </Labelled>
      </div>
      <Labelled label={t`A word before it`}>
        <textarea
          className="input"
          value={form.intro}
          maxLength={1000}
          disabled={disabled}
          onChange={(event) => set({ intro: event.target.value })}
        />
      </Labelled>
    </Part>
  );
}

/** What follows when it was sent: thanks, and the mail that asks to confirm. */
export function AfterwardsPart({
  form,
  disabled,
  set,
}: {
  form: FormDefinition;
  disabled: boolean;
  set: (change: Partial<FormDefinition>) => void;
}) {
  return (
    <Part title={t`Afterwards`}>
      <div className="grid grid-cols-2 gap-3">
        <Labelled label={t`Words on the button`}>
          <input
            className="input"
            value={form.button}
            maxLength={60}
            disabled={disabled}
            onChange={(event) => set({ button: event.target.value })}
          />
        </Labelled>
        <Labelled label={t`Or go on to a page of yours`} hint="https://…">
          <input
            className="input"
            type="url"
            value={form.thanks.redirect ?? ''}
            disabled={disabled}
            onChange={(event) => set({ thanks: { ...form.thanks, redirect: event.target.value || null } })}
          />
        </Labelled>
      </div>
      <Labelled label={t`Words of thanks`}>
        <textarea
          className="input"
          value={form.thanks.words}
          maxLength={1000}
          disabled={disabled}
          onChange={(event) => set({ thanks: { ...form.thanks, words: event.target.value } })}
        />
      </Labelled>
      <Labelled label={t`Ask to confirm by email`}>
        <select
          className="input"
          value={form.confirm.email}
          disabled={disabled}
          onChange={(event) =>
            set({ confirm: { ...form.confirm, email: event.target.value as 'rule' | 'always' } })
          }
        >
          <option value="always">{t`always`}</option>
          <option value="rule">{t`where the house rule of the place says so, and whoever said no before`}</option>
        </select>
      </Labelled>
      <Labelled label={t`Subject of that mail`}>
        <input
          className="input"
          value={form.confirm.subject}
          maxLength={150}
          disabled={disabled}
          onChange={(event) => set({ confirm: { ...form.confirm, subject: event.target.value } })}
        />
      </Labelled>
      <Labelled
        label={t`Its words`}
        hint={t`The button and what they ticked follow by themselves. It goes once, and one reminder after three days.`}
      >
        <textarea
          className="input min-h-[70px]"
          value={form.confirm.words}
          maxLength={1500}
          disabled={disabled}
          onChange={(event) => set({ confirm: { ...form.confirm, words: event.target.value } })}
        />
      </Labelled>
    </Part>
  );
}

/** The chapter, lists and tags of people who come by this form. */
export function JoinPart({
  form,
  disabled,
  set,
}: {
  form: FormDefinition;
  disabled: boolean;
  set: (change: Partial<FormDefinition>) => void;
}) {
  const { chapters } = useSession();
  const lists = useLists();
  const tags = useTags();
  return (
    <Part title={t`Where people go`}>
      <Labelled label={t`New people join the chapter`}>
        <select
          className="input"
          value={form.chapterId}
          disabled={disabled}
          onChange={(event) => set({ chapterId: Number(event.target.value) })}
        >
          {chapters.map((chapter) => (
            <option key={chapter.id} value={chapter.id}>
              {chapter.name}
            </option>
          ))}
        </select>
      </Labelled>
      <Choose
        label={t`Add to the lists`}
        all={lists.data ?? []}
        chosen={form.listIds}
        disabled={disabled}
        onChange={(listIds) => set({ listIds })}
      />
      <Choose
        label={t`Add the tags`}
        all={tags.data ?? []}
        chosen={form.tagIds}
        disabled={disabled}
        onChange={(tagIds) => set({ tagIds })}
      />
    </Part>
  );
}

/** What it is called, and where it is found. */
export function AddressPart({
  name,
  disabled,
  setName,
  slug,
  setSlug,
  form,
  set,
}: {
  name: string;
  disabled: boolean;
  setName: (next: string) => void;
  slug: string;
  setSlug: (next: string) => void;
  form: FormDefinition;
  set: (change: Partial<FormDefinition>) => void;
}) {
  const { organization } = useSession();
  return (
    <Part title={t`Its name and address`}>
      <div className="grid grid-cols-3 gap-3">
        <Labelled label={t`Name`}>
          <input
            className="input"
            value={name}
            maxLength={120}
            disabled={disabled}
            onChange={(event) => setName(event.target.value)}
          />
        </Labelled>
        <Labelled label={t`Address ends in`} hint={`…/join/${slug}`}>
          <input
            className="input"
            value={slug}
            maxLength={60}
            disabled={disabled}
            onChange={(event) => setSlug(event.target.value)}
          />
        </Labelled>
        <Labelled label={t`Keyword by text`} hint={t`Texted to ${organization.textFrom}`}>
          <input
            className="input"
            value={form.keyword ?? ''}
            maxLength={20}
            disabled={disabled}
            onChange={(event) => set({ keyword: event.target.value.toUpperCase() || null })}
          />
        </Labelled>
      </div>
      <Labelled label={t`Pages that may frame it`} hint={t`One a line, such as https://www.example.org`}>
        <textarea
          className="input font-mono"
          value={form.embedOn.join('\n')}
          disabled={disabled}
          onChange={(event) =>
            set({
              embedOn: event.target.value
                .split('\n')
                .map((line) => line.trim())
                .filter(Boolean),
            })
          }
        />
      </Labelled>
    </Part>
  );
}

export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="pb-6">
      <h2 className="subtitle border-b border-ink pb-1">{title}</h2>
      <div className="flex flex-col gap-3 pt-3">{children}</div>
    </section>
  );
}

function Choose({
  label,
  all,
  chosen,
  disabled,
  onChange,
}: {
  label: string;
  all: readonly { id: number; name: string }[];
  chosen: number[];
  disabled: boolean;
  onChange: (ids: number[]) => void;
}) {
  return (
    <fieldset disabled={disabled}>
      <legend className="font-semibold text-[13px]">{label}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1 pt-1">
        {all.map((one) => (
          <label key={one.id} className="flex gap-2 items-center">
            <input
              type="checkbox"
              className="accent-[#0F766B]"
              checked={chosen.includes(one.id)}
              onChange={(event) =>
                onChange(event.target.checked ? [...chosen, one.id] : chosen.filter((id) => id !== one.id))
              }
            />
            {one.name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
