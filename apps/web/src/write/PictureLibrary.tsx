import { t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../app/api';
import { Labelled, Loading, ProblemNote } from '../ui/basics';
import { keyOf, reading } from '../app/reading';

/** Pictures uploaded once and used in many letters, each with words for those who do not see it. */
export function PictureLibrary({ onPick }: { onPick: (src: string, alt: string) => void }) {
  const queryClient = useQueryClient();
  const [alt, setAlt] = useState('');
  const { data, isPending, error } = useQuery(reading('images'));
  const add = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append('alt', alt);
      form.append('file', file);
      return api.post('images', { files: form });
    },
    onSuccess: () => (setAlt(''), void queryClient.invalidateQueries({ queryKey: keyOf('images') })),
  });
  return (
    <div className="flex flex-col gap-4 min-h-0">
      <div className="sheet p-4 flex flex-col gap-3">
        <Labelled label={t`What is on the picture`} hint={t`Read aloud to those who do not see it.`}>
          <input
            className="input"
            value={alt}
            maxLength={300}
            onChange={(event) => setAlt(event.target.value)}
          />
        </Labelled>
        <Labelled label={t`Add a picture`} hint={t`JPEG, PNG, WebP or GIF, at most 8 MB.`}>
          <input
            type="file"
            accept="image/*"
            onChange={(event) => event.target.files?.[0] && add.mutate(event.target.files[0])}
          />
        </Labelled>
        <ProblemNote error={add.error ?? error} />
      </div>
      {isPending && <Loading what={t`pictures`} />}
      <ul className="grid grid-cols-3 gap-3 overflow-y-auto">
        {data?.map((picture) => (
          <li key={picture.id}>
            <button
              className="sheet p-1 w-full hover:border-ink"
              onClick={() => onPick(picture.src, picture.alt)}
            >
              <img
                src={picture.src}
                alt={picture.alt || picture.name}
                className="h-[90px] w-full object-cover"
              />
              <span className="block truncate text-[12px]">{picture.alt || picture.name}</span>
            </button>
          </li>
        ))}
      </ul>
      {data?.length === 0 && <p className="text-ink2">{t`No picture yet.`}</p>}
    </div>
  );
}
