import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useState } from 'react';
import { useLists, useTags, type ListName } from '../app/groups';
import { useSession } from '../app/session';
import { Button, Labelled } from '../ui/basics';
import { useMargin } from '../ui/margin';
import { stepsOf, useDraft } from './draft';
import { STEP_WORDS } from './stepWords';
import { Roster } from './RosterPart';

const CHIP =
  'rounded-paper border px-3 py-1 cursor-pointer focus-within:outline-2 focus-within:outline-verdigris';
const NEW_CHIP = 'rounded-paper border border-dashed border-verdigris px-3 py-1';

/** Where the people of the batch go: its name, lists in folders, tags, a campaign's roster. */
export function GroupsStep() {
  const { parts, name, rename, go } = useDraft();
  useMargin([
    {
      key: 'batch',
      tone: 'plain',
      title: t`The batch is a group by itself`,
      body: t`Its people can be found, tagged and written to later without any list.`,
    },
  ]);
  const steps = stepsOf(parts.what);
  const next = steps[steps.indexOf('Where they go') + 1]!;
  return (
    <>
      <div className="sheet grow min-h-0 overflow-y-auto p-6 grid grid-cols-2 gap-x-8 gap-y-6 content-start">
        <Labelled
          label={t`Name of the batch`}
          hint={t`As it stands in the history, and as a group in segments.`}
        >
          <input
            className="input"
            value={name}
            maxLength={120}
            onChange={(event) => rename(event.target.value)}
          />
        </Labelled>
        <Where />
        <Roster />
        <Tags />
        <Lists />
      </div>
      <div className="flex justify-between pt-3">
        <Button onClick={() => go('Columns')}>{t`Back to columns`}</Button>
        <Button weight="main" onClick={() => go(next)}>
          <Trans>Next: {STEP_WORDS[next].toLowerCase()}</Trans>
        </Button>
      </div>
    </>
  );
}

function Tags() {
  const { parts, set, name } = useDraft();
  const tags = useTags();
  const [typed, setTyped] = useState('');
  const toggle = (id: number) =>
    set({
      tagIds: parts.tagIds.includes(id) ? parts.tagIds.filter((one) => one !== id) : [...parts.tagIds, id],
    });
  const put = (text: string) => {
    const word = text.trim();
    const known = tags.data?.find((tag) => tag.name.toLowerCase() === word.toLowerCase());
    if (known && !parts.tagIds.includes(known.id)) toggle(known.id);
    if (!known && word && !parts.newTags.includes(word)) set({ newTags: [...parts.newTags, word] });
    setTyped('');
  };
  const origin = name
    .replace(/,[^,]*$/, '')
    .trim()
    .toLowerCase();
  const offered =
    origin !== '' &&
    !parts.newTags.includes(origin) &&
    !tags.data?.some((tag) => tag.name.toLowerCase() === origin);
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="subtitle pb-2">{t`Tags`}</legend>
      <div className="flex flex-wrap gap-2">
        {tags.data?.map((tag) => (
          <label
            key={tag.id}
            className={`${CHIP} ${parts.tagIds.includes(tag.id) ? 'bg-ink text-white border-ink' : 'border-[#8b989d]'}`}
          >
            <input
              type="checkbox"
              className="sr-only"
              checked={parts.tagIds.includes(tag.id)}
              onChange={() => toggle(tag.id)}
            />
            {tag.name}
          </label>
        ))}
        <Gone what={t`tag`} ids={parts.tagIds} known={tags.data} onDrop={toggle} />
        {parts.newTags.map((tag) => (
          <button
            key={tag}
            className={NEW_CHIP}
            onClick={() => set({ newTags: parts.newTags.filter((one) => one !== tag) })}
            aria-label={t`Do not make the tag ${tag}`}
          >
            <Trans>{tag}, new</Trans>
          </button>
        ))}
      </div>
      <form className="flex gap-2 pt-1" onSubmit={(event) => (event.preventDefault(), put(typed))}>
        <input
          className="input"
          aria-label={t`A new tag`}
          placeholder={t`A new tag`}
          value={typed}
          maxLength={120}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button type="submit" className="whitespace-nowrap" disabled={typed.trim() === ''}>
          {t`Add`}
        </Button>
      </form>
      {offered && (
        <p className="text-ink2">
          {t`Where they come from:`}{' '}
          <button className="link text-ink" onClick={() => put(origin)}>
            <Trans>tag them “{origin}”</Trans>
          </button>
        </p>
      )}
    </fieldset>
  );
}

/** What a batch of another day names that has been deleted since: it can only be taken off. */
function Gone({
  what,
  ids,
  known,
  onDrop,
}: {
  what: string;
  ids: readonly number[];
  known: readonly { id: number }[] | undefined;
  onDrop: (id: number) => void;
}) {
  if (!known) return null;
  return ids
    .filter((id) => !known.some((one) => one.id === id))
    .map((id) => (
      <button
        key={id}
        className="rounded-paper border border-madder text-madder px-3 py-1"
        onClick={() => onDrop(id)}
      >
        A <Trans>{what} that is no longer there: remove it</Trans>
      </button>
    ));
}

/** Lists by folder, the loose ones first. */
export function byFolder(lists: readonly ListName[]): [string, ListName[]][] {
  const folders = new Map<string, ListName[]>();
  for (const list of lists) folders.set(list.folder, [...(folders.get(list.folder) ?? []), list]);
  return [...folders].sort(([a], [b]) => Number(a !== '') - Number(b !== '') || a.localeCompare(b));
}

function Lists() {
  const { parts, set } = useDraft();
  const lists = useLists();
  const [typed, setTyped] = useState({ name: '', folder: '' });
  const toggle = (id: number) =>
    set({
      listIds: parts.listIds.includes(id)
        ? parts.listIds.filter((one) => one !== id)
        : [...parts.listIds, id],
    });
  const add = () => {
    set({ newLists: [...parts.newLists, { name: typed.name.trim(), folder: typed.folder.trim() }] });
    setTyped({ name: '', folder: typed.folder });
  };
  const folders = byFolder(lists.data ?? []);
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="subtitle pb-1">{t`Lists`}</legend>
      <p className="text-ink2">{t`Being on a list is not permission. That comes next.`}</p>
      <Gone what={t`list`} ids={parts.listIds} known={lists.data} onDrop={toggle} />
      {folders.map(([folder, some]) => (
        <div key={folder}>
          {folder && <p className="font-semibold text-[13px] pt-1">{folder}</p>}
          {some.map((list) => (
            <label key={list.id} className="flex gap-2 items-center py-[2px]">
              <input
                type="checkbox"
                className="accent-[#0F766B]"
                checked={parts.listIds.includes(list.id)}
                onChange={() => toggle(list.id)}
              />
              {list.name}
              {list.isPublic && (
                <span className="text-ink2 text-[12.5px]">{t`public: needs their agreement to it`}</span>
              )}
            </label>
          ))}
        </div>
      ))}
      {parts.newLists.map((list) => (
        <button
          key={`${list.folder}/${list.name}`}
          className={`${NEW_CHIP} self-start`}
          aria-label={t`Do not make the list ${list.name}`}
          onClick={() => set({ newLists: parts.newLists.filter((one) => one !== list) })}
        >
          <Trans>
            {list.folder ? `${list.folder} / ` : ''}
            {list.name}, new
          </Trans>
        </button>
      ))}
      <form className="flex gap-2 pt-1" onSubmit={(event) => (event.preventDefault(), add())}>
        <input
          className="input"
          aria-label={t`A new list`}
          placeholder={t`A new list`}
          value={typed.name}
          maxLength={120}
          onChange={(event) => setTyped({ ...typed, name: event.target.value })}
        />
        <input
          className="input !w-[130px]"
          aria-label={t`In the folder`}
          placeholder={t`Folder`}
          list="folders"
          value={typed.folder}
          maxLength={80}
          onChange={(event) => setTyped({ ...typed, folder: event.target.value })}
        />
        <datalist id="folders">
          {folders.map(([folder]) => (
            <option key={folder} value={folder} />
          ))}
        </datalist>
        <Button
          type="submit"
          disabled={
            typed.name.trim() === '' || parts.newLists.some((list) => list.name === typed.name.trim())
          }
        >
          {t`Make`}
        </Button>
      </form>
    </fieldset>
  );
}

/** The chapter that new people go to: chosen by who works in all, told to who works in one. */
function Where() {
  const { parts, set, columns } = useDraft();
  const { chapter, chapters } = useSession();
  if (chapters.length < 2 || parts.what === 'here' || parts.what === 'refusals') return null;
  if (chapter) {
    return (
      <div>
        <p className="font-semibold">
          <Trans>New people belong to {chapter.name}</Trans>
        </p>
        <p className="text-ink2">{t`The chapter in which you work.`}</p>
      </div>
    );
  }
  const hasColumn = columns.some(({ to }) => to === 'chapter');
  const rest = hasColumn || parts.byPlace;
  return (
    <div className="flex flex-col gap-3">
      <Labelled
        label={rest ? t`Whoever has no chapter so joins` : t`New people belong to`}
        hint={
          hasColumn
            ? t`A column of the file names the chapter. They are looked for in all chapters first; whoever is here stays in their own.`
            : t`They are looked for in all chapters first; whoever is here stays in their own.`
        }
      >
        <select
          className="input"
          value={parts.chapterId ?? chapters[0]!.id}
          onChange={(event) => set({ chapterId: Number(event.target.value) })}
        >
          {chapters.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </Labelled>
      <label className="flex gap-2 items-start">
        <input
          type="checkbox"
          className="mt-1"
          checked={parts.byPlace}
          onChange={(event) => set({ byPlace: event.target.checked })}
        />
        <span>
          {t`By where they live`}
          <span className="block text-ink2 text-[12.5px]">{t`By region, country or postcode, as Setup says of each chapter.`}</span>
        </span>
      </label>
    </div>
  );
}
