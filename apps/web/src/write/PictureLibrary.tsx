import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useId, useState } from 'react';
import type { ImageView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Confirm } from '../ui/dialogs';

/** A picture more: what is on it, and the file. */
function AddPicture({ onAdded }: { onAdded: () => void }) {
  const queryClient = useQueryClient();
  const [alt, setAlt] = useState('');
  const add = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append('alt', alt);
      form.append('file', file);
      return api.post('images', { files: form });
    },
    onSuccess: () => (setAlt(''), onAdded(), void refresh(queryClient, 'images')),
  });
  return (
    <div className="sheet p-4 flex flex-col gap-3">
      <Labelled label={t`What is on the picture`} hint={t`Read aloud to those who do not see it.`}>
        <input
          className="input"
          value={alt}
          maxLength={300}
          onChange={({ target }) => setAlt(target.value)}
        />
      </Labelled>
      <Labelled label={t`Add a picture`} hint={t`JPEG, PNG, WebP or GIF, at most 8 MB.`}>
        <input
          type="file"
          accept="image/*"
          onChange={({ target }) => target.files?.[0] && add.mutate(target.files[0])}
        />
      </Labelled>
      <ProblemNote error={add.error} />
    </div>
  );
}

/** What one picture is called, what is on it, where it lies, what shows it. */
function Change({
  picture,
  folders,
  onDone,
}: {
  picture: ImageView;
  folders: readonly string[];
  onDone: () => void;
}) {
  const format = useFormat();
  const known = useId();
  const queryClient = useQueryClient();
  const was = { name: picture.name, alt: picture.alt, folder: picture.folder };
  const [words, setWords] = useState(was);
  const done = () => (void refresh(queryClient, 'images'), onDone());
  const save = useMutation({
    mutationFn: () => api.put('images/{id}', { id: picture.id, body: { ...words, was } }),
    onSuccess: done,
  });
  const [removing, setRemoving] = useState(false);
  const line = (part: keyof typeof was, label: string, most: number, list?: string) => (
    <Labelled label={label}>
      <input
        className="input"
        maxLength={most}
        list={list}
        required={part === 'name'}
        value={words[part]}
        onChange={({ target }) => setWords({ ...words, [part]: target.value })}
      />
    </Labelled>
  );
  return (
    <form
      className="sheet p-4 flex flex-col gap-3"
      onSubmit={(event) => (event.preventDefault(), save.mutate())}
    >
      <img src={picture.src} alt="" className="max-h-[140px] self-start" />
      {line('alt', t`What is on the picture`, 300)}
      <div className="grid grid-cols-2 gap-3">
        {line('name', t`Name`, 200)}
        {line('folder', t`Folder`, 60, known)}
      </div>
      <datalist id={known}>
        {folders.map((folder) => (
          <option key={folder} value={folder} />
        ))}
      </datalist>
      <p className="text-ink2 text-[13px]">
        <Trans>
          {picture.width} × {picture.height} pixels, {format.number(Math.ceil(picture.bytes / 1000))} kB
        </Trans>
        {picture.usedBy.length > 0 && (
          <Trans>, shown by {picture.usedBy.map((name) => `“${name}”`).join(', ')}</Trans>
        )}
      </p>
      <ProblemNote error={save.error} />
      <div className="flex gap-2">
        <Button type="submit" weight="main" disabled={save.isPending}>{t`Save`}</Button>
        <Button onClick={onDone}>{t`Leave it`}</Button>
        <Button
          weight="grave"
          className="ml-auto"
          disabled={picture.usedBy.length > 0}
          onClick={() => setRemoving(true)}
        >
          {t`Delete`}
        </Button>
      </div>
      <Confirm
        open={removing}
        onClose={() => setRemoving(false)}
        title={t`Delete “${picture.name}”?`}
        act={t`Delete the picture`}
        body={<p>{t`Nothing that has not left shows it. Mails that have gone show it no more.`}</p>}
        onAct={async () => (await api.delete('images/{id}', { id: picture.id }), done())}
      />
    </form>
  );
}

const holds = (picture: ImageView, typed: string) =>
  `${picture.name} ${picture.alt} ${picture.folder}`.toLowerCase().includes(typed.trim().toLowerCase());

/** Pictures uploaded once and used in many letters, each with words for those who do not see it. */
export function PictureLibrary({ onPick }: { onPick: (src: string, alt: string) => void }) {
  const may = useMay('writer');
  const [typed, setTyped] = useState('');
  const [changing, setChanging] = useState<ImageView | null>(null);
  const { data, isPending, error } = useQuery(reading('images'));
  const folders = [...new Set((data ?? []).map(({ folder }) => folder).filter(Boolean))];
  const found = (data ?? []).filter((picture) => holds(picture, typed));
  if (changing)
    return <Change key={changing.id} picture={changing} folders={folders} onDone={() => setChanging(null)} />;
  return (
    <div className="flex flex-col gap-4 min-h-0">
      {may && <AddPicture onAdded={() => setTyped('')} />}
      <ProblemNote error={error} />
      {isPending && <Loading what={t`pictures`} />}
      {data && data.length > 0 && (
        <input
          type="search"
          className="input"
          aria-label={t`Find a picture`}
          placeholder={t`Name, what is on it, or folder`}
          maxLength={120}
          value={typed}
          onChange={({ target }) => setTyped(target.value)}
        />
      )}
      <ul className="grid grid-cols-3 gap-3 overflow-y-auto">
        {found.map((picture) => (
          <li key={picture.id} className="sheet p-1">
            <button
              type="button"
              className="w-full hover:opacity-80"
              onClick={() => onPick(picture.src, picture.alt)}
            >
              <img
                src={picture.src}
                alt={picture.alt || picture.name}
                className="h-[90px] w-full object-cover"
              />
              <span className="block truncate text-[12px]">{picture.alt || picture.name}</span>
            </button>
            {may && (
              <button
                type="button"
                className="link text-[12px] min-h-[24px]"
                aria-label={t`Change ${picture.alt || picture.name}`}
                onClick={() => setChanging(picture)}
              >
                {t`change`}
              </button>
            )}
          </li>
        ))}
      </ul>
      {data?.length === 0 && <p className="text-ink2">{t`No picture yet.`}</p>}
      {data && data.length > 0 && found.length === 0 && (
        <p className="text-ink2">{t`No picture like that.`}</p>
      )}
    </div>
  );
}
