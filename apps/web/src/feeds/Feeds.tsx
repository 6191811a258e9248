import { plural, t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { FeedView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { GatherNav } from '../gather/GatherNav';
import { Button, Empty, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { RUN_STATE_WORDS } from './runWords';

/** Begins a feed with what it takes from; its sentences are written on its own page. */
function Begin({ onClose }: { onClose: () => void }) {
  const [name, setName] = useState('');
  const [picked, setPicked] = useState<number | null>(null);
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const mayAdd = useMay('owner');
  const { data: sources = [], error } = useQuery(reading('feed-sources'));
  const sourceId = picked ?? sources[0]?.id ?? null;
  const make = useMutation({
    mutationFn: () => api.post('feeds', { body: { name: name.trim(), sourceId: sourceId! } }),
    onSuccess: ({ id }) => (refresh(queryClient, 'feeds'), void navigate(`/gather/feeds/${id}`)),
  });
  return (
    <Drawer open onClose={onClose} title={t`Begin a feed`} note={t`It is off until you turn it on`}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!make.isPending) make.mutate();
        }}
      >
        <Labelled label={t`What you call it`}>
          <input
            className="input"
            autoFocus
            required
            maxLength={120}
            value={name}
            placeholder={t`Members from the donor desk`}
            onChange={({ target }) => setName(target.value)}
          />
        </Labelled>
        <Labelled label={t`Where it takes from`}>
          <select
            className="input"
            value={sourceId ?? ''}
            onChange={({ target }) => setPicked(Number(target.value))}
          >
            {sources.map((source) => (
              <option key={source.id} value={source.id}>
                {source.name}
              </option>
            ))}
          </select>
        </Labelled>
        {sources.length === 0 && (
          <p className="text-ink2">
            {mayAdd ? (
              <Link className="link" to="/setup/sources">{t`Add a system to take from first`}</Link>
            ) : (
              t`An owner adds the systems to take from, in Setup.`
            )}
          </p>
        )}
        <ProblemNote error={make.error ?? error} />
        <Button
          weight="main"
          type="submit"
          className="self-start"
          disabled={name.trim() === '' || sourceId === null || make.isPending}
        >{t`Write its sentences`}</Button>
      </form>
    </Drawer>
  );
}

function Line({ feed }: { feed: FeedView }) {
  const format = useFormat();
  const { id, name, source, on, words, lacks, problem, nextRunAt, last } = feed;
  const stands = on ? t`on` : lacks > 0 ? t`half done` : problem ? t`stopped by itself` : t`off`;
  return (
    <li className="border-b border-hair last:border-0 px-5 py-3 grid grid-cols-[1fr_260px_130px] gap-4 items-baseline">
      <span>
        <Link className="subtitle hover:underline" to={`/gather/feeds/${id}`}>
          {name}
        </Link>
        <span className="block text-ink2">{t`From ${source}: ${words}`}</span>
        {problem && <span className="block text-madder">{problem}</span>}
      </span>
      <span className="text-ink2">
        {last === null ? (
          t`has not run yet`
        ) : (
          <>
            {t`${format.moment(last.beganAt)}: ${RUN_STATE_WORDS[last.state]}`}
            {last.state === 'done' &&
              `, ${format.number(last.fresh)} ${plural(last.fresh, { one: 'new', other: 'new' })}, ${t`${format.number(last.changed)} changed`}`}
          </>
        )}
        {nextRunAt && <span className="block">{t`next ${format.moment(nextRunAt)}`}</span>}
      </span>
      <b className={on ? 'text-verdigris' : problem ? 'text-madder' : 'text-ink2'}>{stands}</b>
    </li>
  );
}

/** Lists that fill themselves from other systems, each as its sentence. */
export default function Feeds() {
  const may = useMay('organizer');
  const [beginning, setBeginning] = useState(false);
  const { data, error } = useQuery({ ...reading('feeds'), refetchInterval: 5_000 });
  if (!data) return error ? <ProblemNote error={error} /> : <Loading what={t`feeds`} />;
  return (
    <div className="flex flex-col grow">
      <Heading title={t`Feeds`} note={t`Lists that fill themselves from another system`}>
        {may && <Button weight="main" onClick={() => setBeginning(true)}>{t`Begin a feed`}</Button>}
      </Heading>
      <GatherNav />
      <ul className="sheet">
        {data.length === 0 && (
          <li>
            <Empty title={t`No feed yet`}>
              <p>{t`Say once what comes from another system and on what basis; then it comes by itself, and whoever says no there is a no here.`}</p>
            </Empty>
          </li>
        )}
        {data.map((feed) => (
          <Line key={feed.id} feed={feed} />
        ))}
      </ul>
      {beginning && <Begin onClose={() => setBeginning(false)} />}
    </div>
  );
}
