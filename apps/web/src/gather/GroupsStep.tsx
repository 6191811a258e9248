import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ListView, TagView } from '@goodword/core/contract';
import { get } from '../app/api';
import { Button, Labelled } from '../ui/basics';
import { useMargin } from '../ui/margin';
import { useDraft } from './draft';

/** Where the people of the batch go: tags, one list, and what happens to those who are here already. */
export function GroupsStep() {
  const { groups, setGroups, go } = useDraft();
  const tags = useQuery({ queryKey: ['tags'], queryFn: () => get<TagView[]>('tags') });
  const lists = useQuery({ queryKey: ['lists'], queryFn: () => get<ListView[]>('lists') });
  const [newTag, setNewTag] = useState('');
  useMargin([
    {
      key: 'batch',
      tone: 'plain',
      title: 'The batch is a group by itself',
      body: 'Its people can be found, tagged and written to later without any list.',
    },
  ]);
  const toggle = (id: number) =>
    setGroups({ tagIds: groups.tagIds.includes(id) ? groups.tagIds.filter((one) => one !== id) : [...groups.tagIds, id] });
  const addTag = () => {
    const name = newTag.trim();
    const known = tags.data?.find((tag) => tag.name.toLowerCase() === name.toLowerCase());
    if (known && !groups.tagIds.includes(known.id)) toggle(known.id);
    if (!known && name && !groups.newTags.includes(name)) setGroups({ newTags: [...groups.newTags, name] });
    setNewTag('');
  };
  return (
    <>
      <div className="sheet grow min-h-0 overflow-y-auto p-6 grid grid-cols-2 gap-8 content-start">
        <fieldset className="flex flex-col gap-2">
          <legend className="subtitle pb-2">Tags</legend>
          <div className="flex flex-wrap gap-2">
            {tags.data?.map((tag) => (
              <label
                key={tag.id}
                className={`rounded-paper border px-3 py-1 cursor-pointer focus-within:outline-2 focus-within:outline-verdigris ${groups.tagIds.includes(tag.id) ? 'bg-ink text-white border-ink' : 'border-[#8b989d]'}`}
              >
                <input type="checkbox" className="sr-only" checked={groups.tagIds.includes(tag.id)} onChange={() => toggle(tag.id)} />
                {tag.name}
              </label>
            ))}
            {groups.newTags.map((name) => (
              <button
                key={name}
                className="rounded-paper border border-dashed border-verdigris px-3 py-1"
                onClick={() => setGroups({ newTags: groups.newTags.filter((one) => one !== name) })}
                aria-label={`Do not make the tag ${name}`}
              >
                {name}, new
              </button>
            ))}
          </div>
          <form className="flex gap-2 pt-1" onSubmit={(event) => (event.preventDefault(), addTag())}>
            <input
              className="input"
              aria-label="A new tag"
              placeholder="A new tag"
              value={newTag}
              maxLength={120}
              onChange={(event) => setNewTag(event.target.value)}
            />
            <Button type="submit" disabled={newTag.trim() === ''}>
              Put on
            </Button>
          </form>
        </fieldset>
        <div className="flex flex-col gap-4">
          <Labelled label="List" hint="Being on a list is not permission. That comes next.">
            <select
              className="input"
              value={groups.listId ?? ''}
              onChange={(event) => setGroups({ listId: event.target.value ? Number(event.target.value) : null, newList: null })}
            >
              <option value="">No list</option>
              {lists.data?.map((list) => (
                <option key={list.id} value={list.id}>
                  {list.name}
                  {list.isPublic ? ', public' : ''}
                </option>
              ))}
            </select>
          </Labelled>
          <Labelled label="Or a new list" hint="Kept internal until you make it public.">
            <input
              className="input"
              value={groups.newList ?? ''}
              maxLength={120}
              onChange={(event) => setGroups({ newList: event.target.value || null, listId: event.target.value ? null : groups.listId })}
            />
          </Labelled>
          <fieldset className="flex flex-col gap-1 pt-2">
            <legend className="subtitle pb-1">People who are here already</legend>
            {(
              [
                ['update', 'Update them', 'A value that is there replaces; an empty one never erases. Tags, list and permission are added.'],
                ['leave', 'Leave them as they are', 'Only new people come in.'],
              ] as const
            ).map(([value, words, hint]) => (
              <label key={value} className="flex gap-3 items-start py-1">
                <input
                  type="radio"
                  name="existing"
                  className="mt-1 accent-[#0F766B]"
                  checked={groups.existing === value}
                  onChange={() => setGroups({ existing: value })}
                />
                <span>
                  <b>{words}</b>
                  <span className="block text-ink2">{hint}</span>
                </span>
              </label>
            ))}
          </fieldset>
        </div>
      </div>
      <div className="flex justify-between pt-3">
        <Button onClick={() => go('Columns')}>Back to columns</Button>
        <Button weight="main" onClick={() => go('Permission')}>
          Next: permission
        </Button>
      </div>
    </>
  );
}
