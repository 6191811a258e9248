import { plural, t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { TagView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { Button, Empty, Labelled, ProblemNote } from '../../ui/basics';
import { WriteToThem } from '../../write/WriteToThem';
import { reading } from '../../app/reading';

/** Two tags become one: what that does is said before it is done. */
export function JoinTags({
  tag,
  tags,
  onDone,
}: {
  tag: TagView;
  tags: readonly TagView[];
  onDone: () => void;
}) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const [into, setInto] = useState('');
  const merge = useMutation({
    mutationFn: () => api.post('tags/{id}/join', { id: tag.id, body: { intoId: Number(into) } }),
    onSuccess: () => (void refresh(queryClient, 'tags'), onDone()),
  });
  const other = tags.find(({ id }) => id === Number(into));
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), merge.mutate())}
    >
      <Labelled label={t`The tag that stays`}>
        <select className="input" autoFocus value={into} onChange={(event) => setInto(event.target.value)}>
          <option value="">{t`Choose…`}</option>
          {tags
            .filter(({ id }) => id !== tag.id)
            .map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
        </select>
      </Labelled>
      {other && (
        <p className="text-ink2">
          <Trans>
            {format.number(tag.people ?? 0)}{' '}
            <Plural value={tag.people ?? 0} one="person has" other="people have" /> {tag.name}; each has{' '}
            {other.name} afterwards. Segments and messages that ask for {tag.name} ask for {other.name}. This
            can’t be parted again.
          </Trans>
        </p>
      )}
      <ProblemNote error={merge.error} />
      <Button type="submit" weight="main" className="self-start" disabled={!other || merge.isPending}>
        {other ? t`Merge ${tag.name} with ${other.name}` : t`Merge them`}
      </Button>
    </form>
  );
}

/** How the chapters use a tag, by their people. */
export function TagUses({ tag }: { tag: TagView }) {
  const format = useFormat();
  const { data, error } = useQuery(reading('tags/{id}/use', { id: tag.id }));
  return (
    <div className="sheet p-5">
      <ProblemNote error={error} />
      {data?.length === 0 && <p className="text-ink2">{t`Nobody has it yet.`}</p>}
      <dl>
        {data?.map(({ chapter, people }) => (
          <div key={chapter} className="flex justify-between border-b border-hair py-2">
            <dt>{chapter}</dt>
            <dd className="tabular-nums">{format.number(people)}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}

export type TagAction = 'edit' | 'join' | 'use' | 'remove';

/** Tags with how many people have each, and whose they are. */
export function Tags({
  tags,
  onDo,
}: {
  tags: readonly TagView[];
  onDo: (action: TagAction, tag: TagView) => void;
}) {
  const format = useFormat();
  const may = useMay('organizer');
  if (tags.length === 0)
    return (
      <Empty title={t`No tags yet`}>
        <p>{t`Short words of your own, put on people by hand or with a batch.`}</p>
      </Empty>
    );
  return (
    <ul>
      {tags.map((tag) => (
        <li key={tag.id} className="grid grid-cols-[1fr_auto_auto] gap-4 border-t border-hair py-2">
          <span>
            <b>{tag.name}</b>
            {(tag.chapter ?? (tag.handedDown ? null : t`not handed down`)) && (
              <span className="text-ink2 text-[12.5px]">, {tag.chapter ?? t`not handed down`}</span>
            )}
          </span>
          <span>
            <Link
              className="link"
              to={`/sort?tag=${tag.id}`}
              aria-label={t`${plural(tag.people ?? 0, { one: '# person', other: '# people' })} with ${tag.name}`}
            >
              {format.number(tag.people ?? 0)}
            </Link>
          </span>
          {may && (
            <span className="whitespace-nowrap flex gap-3">
              <WriteToThem asLink whom={tag.name} to={() => ({ ref: { kind: 'tag', id: tag.id } })} />
              <button
                className="link text-ink2"
                onClick={() => onDo('use', tag)}
                aria-label={t`Chapters using ${tag.name}`}
              >
                {t`By chapter`}
              </button>
              <button
                className="link text-ink2"
                onClick={() => onDo('edit', tag)}
                aria-label={t`Change ${tag.name}`}
              >
                {t`Change`}
              </button>
              <button
                className="link text-ink2"
                onClick={() => onDo('join', tag)}
                aria-label={t`Merge ${tag.name} with another`}
              >
                {t`Merge with…`}
              </button>
              <button
                className="link text-madder"
                onClick={() => onDo('remove', tag)}
                aria-label={t`Delete ${tag.name}`}
              >
                {t`Delete`}
              </button>
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
