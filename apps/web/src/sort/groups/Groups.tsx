import { t } from '@lingui/core/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ListView, TagView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { refresh } from '../../app/refresh';
import { useMay, useSession } from '../../app/session';
import { Button, Heading, ProblemNote } from '../../ui/basics';
import { Confirm, Drawer } from '../../ui/dialogs';
import { SortNav } from '../SortNav';
import { ListForm, TagForm } from './GroupForm';
import { Lists } from './Lists';
import { JoinTags, Tags, TagUses, type TagAction } from './Tags';
import { reading } from '../../app/reading';

/** Deleting says first what goes and what stays, and what stands in the way. */
function Removing({
  kind,
  id,
  name,
  onDone,
}: {
  kind: 'tags' | 'lists';
  id: number;
  name: string;
  onDone: () => void;
}) {
  const queryClient = useQueryClient();
  const { data: notice } = useQuery({ ...reading(`${kind}/{id}/deletion`, { id }), staleTime: 0 });
  if (!notice) return null;
  return (
    <Confirm
      open
      onClose={onDone}
      title={t`Delete ${name}?`}
      act={notice.blocked ? null : t`Delete ${name}`}
      onAct={async () => (await api.delete(`${kind}/{id}`, { id }), void refresh(queryClient, kind))}
      body={<p>{notice.blocked ? t`It can't go yet: ${notice.blocked}` : notice.takes}</p>}
    />
  );
}

type Doing =
  | { what: 'list'; list: ListView | null }
  | { what: 'new-tag' }
  | { what: TagAction; tag: TagView }
  | { what: 'remove-list'; list: ListView };

function titleOf(doing: Doing): string {
  switch (doing.what) {
    case 'list':
      return doing.list ? t`Change ${doing.list.name}` : t`Make a list`;
    case 'new-tag':
      return t`Make a tag`;
    case 'edit':
      return t`Change ${doing.tag.name}`;
    case 'join':
      return t`Merge ${doing.tag.name} with another tag`;
    case 'use':
      return t`${doing.tag.name}, by chapter`;
    case 'remove':
    case 'remove-list':
      return '';
  }
}

/** Lists in their folders, and tags: groups kept by hand. */
export default function Groups() {
  const may = useMay('organizer');
  const { chapter } = useSession();
  const tags = useQuery(reading('tags'));
  const lists = useQuery(reading('lists'));
  const [doing, setDoing] = useState<Doing | null>(null);
  const done = () => setDoing(null);
  const folders = [...new Set((lists.data ?? []).map((list) => list.folder).filter(Boolean))];
  const drawn = doing !== null && doing.what !== 'remove' && doing.what !== 'remove-list' ? doing : null;
  return (
    <>
      <Heading title={t`Lists and tags`} note={t`Groups kept by hand`} />
      <SortNav />
      <ProblemNote error={tags.error ?? lists.error} />
      <div className="grid grid-cols-2 gap-4 items-start overflow-y-auto">
        <section className="sheet p-5" aria-label={t`Lists`}>
          <div className="flex justify-between items-center pb-2">
            <h2 className="subtitle">{t`Lists`}</h2>
            {may && <Button onClick={() => setDoing({ what: 'list', list: null })}>{t`Make a list`}</Button>}
          </div>
          {lists.data && (
            <Lists
              lists={lists.data}
              onEdit={(list) => setDoing({ what: 'list', list })}
              onRemove={(list) => setDoing({ what: 'remove-list', list })}
            />
          )}
        </section>
        <section className="sheet p-5" aria-label={t`Tags`}>
          <div className="flex justify-between items-center pb-2">
            <h2 className="subtitle">{t`Tags`}</h2>
            {may && <Button onClick={() => setDoing({ what: 'new-tag' })}>{t`Make a tag`}</Button>}
          </div>
          {tags.data && <Tags tags={tags.data} onDo={(what, tag) => setDoing({ what, tag })} />}
        </section>
      </div>
      <Drawer open={drawn !== null} onClose={done} title={drawn ? titleOf(drawn) : ''}>
        {drawn?.what === 'list' && (
          <ListForm
            list={lists.data?.find(({ id }) => id === drawn.list?.id) ?? drawn.list}
            folders={folders}
            onDone={done}
          />
        )}
        {drawn?.what === 'new-tag' && <TagForm tag={null} above={chapter === null} onDone={done} />}
        {drawn?.what === 'edit' && <TagForm tag={drawn.tag} above={chapter === null} onDone={done} />}
        {drawn?.what === 'join' && <JoinTags tag={drawn.tag} tags={tags.data ?? []} onDone={done} />}
        {drawn?.what === 'use' && <TagUses tag={drawn.tag} />}
      </Drawer>
      {doing?.what === 'remove' && (
        <Removing kind="tags" id={doing.tag.id} name={doing.tag.name} onDone={done} />
      )}
      {doing?.what === 'remove-list' && (
        <Removing kind="lists" id={doing.list.id} name={doing.list.name} onDone={done} />
      )}
    </>
  );
}
