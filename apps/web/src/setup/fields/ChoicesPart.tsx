import { plural, t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { FieldAdminView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { refresh } from '../../app/refresh';
import { Button, ProblemNote } from '../../ui/basics';
import { reading } from '../../app/reading';

/** Every choice with how many people have it; renamed for all of them, or made one with another. */
export function ChoicesPart({ field }: { field: FieldAdminView }) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const [renaming, setRenaming] = useState<{ from: string; to: string } | null>(null);
  const { data = [] } = useQuery(reading('house/fields/{id}/choices', { id: field.id }));
  const rename = useMutation({
    mutationFn: (change: { from: string; to: string }) =>
      api.post('house/fields/{id}/choices/rename', { id: field.id, body: change }),
    onSuccess: () => (setRenaming(null), void refresh(queryClient, 'house')),
  });
  if (data.length === 0) return null;
  const merges =
    renaming !== null && data.some(({ choice }) => choice === renaming.to.trim() && choice !== renaming.from);
  return (
    <section className="sheet p-5" aria-label={t`Choices that people have`}>
      <h2 className="subtitle pb-1">{t`Choices that people have`}</h2>
      <ul>
        {data.map(({ choice, people }) => (
          <li key={choice} className="border-t border-hair py-2">
            {renaming?.from === choice ? (
              <form
                className="flex flex-col gap-2"
                onSubmit={(event) => (event.preventDefault(), rename.mutate(renaming))}
              >
                <div className="flex gap-2">
                  <input
                    className="input"
                    autoFocus
                    aria-label={t`New name of ${choice}`}
                    list="choices-of-field"
                    maxLength={120}
                    value={renaming.to}
                    onChange={(event) => setRenaming({ ...renaming, to: event.target.value })}
                  />
                  <Button
                    type="submit"
                    weight="main"
                    disabled={renaming.to.trim() === '' || renaming.to.trim() === choice || rename.isPending}
                  >
                    {merges ? t`Make them one` : t`Rename`}
                  </Button>
                </div>
                <p className="text-ink2 text-[12.5px]">
                  {merges
                    ? t`${format.number(people)} ${plural(people, { one: 'person moves', other: 'people move' })} to “${renaming.to.trim()}”, which others have already. That can’t be parted again.`
                    : t`For ${format.number(people)} ${plural(people, { one: 'person', other: 'people' })}. The name of another choice makes the two one.`}
                </p>
                <ProblemNote error={rename.error} />
              </form>
            ) : (
              <span className="flex justify-between">
                <span>{choice}</span>
                <span className="text-ink2">
                  {format.number(people)}{' '}
                  <button
                    className="link ml-3"
                    aria-label={t`Rename ${choice}`}
                    onClick={() => setRenaming({ from: choice, to: choice })}
                  >
                    {t`Rename or merge with another`}
                  </button>
                </span>
              </span>
            )}
          </li>
        ))}
      </ul>
      <datalist id="choices-of-field">
        {data.map(({ choice }) => (
          <option key={choice} value={choice} />
        ))}
      </datalist>
    </section>
  );
}
