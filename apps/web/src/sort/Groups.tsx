import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { DeletionNotice, ListView, TagView } from '@goodword/core/contract';
import { call, get } from '../app/api';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Labelled, Problem } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { SortNav } from './SortNav';
import { refreshAll } from '../app/refresh';

type Group = {
  kind: 'tags' | 'lists';
  id: number | null;
  name: string;
  isPublic: boolean;
  description: string;
  why: string;
  onPreferences: boolean;
  byForm: boolean;
};

function GroupForm({ group, onDone }: { group: Group; onDone: () => void }) {
  const queryClient = useQueryClient();
  const [values, setValues] = useState(group);
  const body = group.kind === 'tags' ? { name: values.name } : pick(values);
  const save = useMutation({
    mutationFn: () => call(group.id === null ? 'POST' : 'PUT', group.id === null ? group.kind : `${group.kind}/${group.id}`, body),
    onSuccess: () => (void refreshAll(queryClient), onDone()),
  });
  return (
    <form className="sheet p-5 flex flex-col gap-4" onSubmit={(event) => (event.preventDefault(), save.mutate())}>
      <Labelled label="Name">
        <input
          className="input"
          required
          maxLength={120}
          autoFocus
          value={values.name}
          onChange={(event) => setValues({ ...values, name: event.target.value })}
        />
      </Labelled>
      {group.kind === 'lists' && (
        <>
          <Tick
            label="Public"
            hint="Supporters see it by name and can agree to it."
            value={values.isPublic}
            onChange={(isPublic) => setValues({ ...values, isPublic })}
          />
          {values.isPublic && (
            <>
              <Tick
                label="Shown on the preference page"
                value={values.onPreferences}
                onChange={(onPreferences) => setValues({ ...values, onPreferences })}
              />
              <Tick label="May be joined by a form" value={values.byForm} onChange={(byForm) => setValues({ ...values, byForm })} />
            </>
          )}
          <Labelled label="What it is" hint="Beside its name, for supporters.">
            <textarea
              className="input"
              value={values.description}
              maxLength={500}
              onChange={(event) => setValues({ ...values, description: event.target.value })}
            />
          </Labelled>
          <Labelled label="Why we write to you" hint="In the footer of every message to this list, and on the preference page.">
            <textarea className="input" value={values.why} maxLength={600} onChange={(event) => setValues({ ...values, why: event.target.value })} />
          </Labelled>
        </>
      )}
      <Problem error={save.error} />
      <Button type="submit" weight="main" className="self-start" disabled={save.isPending}>
        Keep it
      </Button>
    </form>
  );
}

const NOTHING = { isPublic: false, description: '', why: '', onPreferences: true, byForm: true };

function pick({ name, isPublic, description, why, onPreferences, byForm }: Group) {
  return { name, isPublic, description, why, onPreferences, byForm };
}

function Tick({ label, hint, value, onChange }: { label: string; hint?: string; value: boolean; onChange: (value: boolean) => void }) {
  return (
    <label className="flex gap-3 items-start">
      <input type="checkbox" className="mt-1 accent-[#0F766B]" checked={value} onChange={(event) => onChange(event.target.checked)} />
      <span>
        <b>{label}</b>
        {hint && <span className="block text-ink2">{hint}</span>}
      </span>
    </label>
  );
}

/** Deleting says first what goes and what stays, and what stands in the way. */
function Removing({ group, onDone }: { group: Group & { id: number }; onDone: () => void }) {
  const queryClient = useQueryClient();
  const { data: notice } = useQuery({
    queryKey: ['deletion', group.kind, group.id],
    queryFn: () => get<DeletionNotice>(`${group.kind}/${group.id}/deletion`),
    staleTime: 0,
  });
  if (!notice) return null;
  return (
    <Confirm
      open
      onClose={onDone}
      title={`Delete ${group.name}?`}
      act={`Delete ${group.name}`}
      onAct={async () => (await call('DELETE', `${group.kind}/${group.id}`), void refreshAll(queryClient))}
      body={<p>{notice.blocked ? `It can't go yet: ${notice.blocked}` : notice.takes}</p>}
    />
  );
}

function Table({
  kind,
  rows,
  onEdit,
  onRemove,
}: {
  kind: 'tags' | 'lists';
  rows: Group[] & { people?: number }[];
  onEdit: (group: Group) => void;
  onRemove: (group: Group & { id: number }) => void;
}) {
  const format = useFormat();
  const may = useMay('organizer');
  return (
    <table className="w-full">
      <tbody>
        {rows.map((row) => (
          <tr key={row.id} className="border-t border-hair">
            <td className="py-2 pr-3">
              <span className="font-semibold">{row.name}</span>
              {kind === 'lists' && <span className="text-ink2">, {row.isPublic ? 'public' : 'internal'}</span>}
              {row.description && <p className="text-ink2 text-[12.5px]">{row.description}</p>}
            </td>
            <td className="text-right pr-4">
              <Link className="link" to={`/sort?${kind === 'tags' ? 'tag' : 'list'}=${row.id}`}>
                {format.number((row as unknown as { people: number }).people)}
              </Link>
            </td>
            {may && (
              <td className="text-right w-[120px]">
                <button className="link text-ink2 mr-3" onClick={() => onEdit(row)} aria-label={`Change ${row.name}`}>
                  Change
                </button>
                <button className="link text-madder" onClick={() => onRemove(row as Group & { id: number })} aria-label={`Delete ${row.name}`}>
                  Delete
                </button>
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Lists and tags: made, renamed, deleted. */
export default function Groups() {
  const may = useMay('organizer');
  const tags = useQuery({ queryKey: ['tags'], queryFn: () => get<TagView[]>('tags') });
  const lists = useQuery({ queryKey: ['lists'], queryFn: () => get<ListView[]>('lists') });
  const [editing, setEditing] = useState<Group | null>(null);
  const [removing, setRemoving] = useState<(Group & { id: number }) | null>(null);
  const blank = { ...NOTHING, id: null, name: '' };
  const panel = (kind: 'tags' | 'lists', title: string, rows: (TagView | ListView)[] | undefined, hint: string) => (
    <section className="sheet p-5">
      <div className="flex justify-between items-center pb-2">
        <h2 className="subtitle">{title}</h2>
        {may && <Button onClick={() => setEditing({ kind, ...blank })}>{kind === 'tags' ? 'Make a tag' : 'Make a list'}</Button>}
      </div>
      {rows?.length === 0 ? (
        <Empty title="None yet">
          <p>{hint}</p>
        </Empty>
      ) : (
        <Table kind={kind} rows={(rows ?? []).map((row) => ({ ...NOTHING, ...row, kind }))} onEdit={setEditing} onRemove={setRemoving} />
      )}
    </section>
  );
  return (
    <>
      <Heading title="Lists and tags" note="Groups kept by hand" />
      <SortNav />
      <div className="grid grid-cols-2 gap-4 items-start">
        {panel('lists', 'Lists', lists.data, 'A public list is one that supporters see and agree to; an internal one is for you.')}
        {panel('tags', 'Tags', tags.data, 'Short words of your own, put on people by hand or with a batch.')}
      </div>
      <Drawer open={editing !== null} onClose={() => setEditing(null)} title={editing?.id === null ? 'Make it' : `Change ${editing?.name ?? ''}`}>
        {editing && <GroupForm group={editing} onDone={() => setEditing(null)} />}
      </Drawer>
      {removing && <Removing group={removing} onDone={() => setRemoving(null)} />}
    </>
  );
}
