import { plural, t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { FeedWhole } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Heading, Loading, ProblemNote } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { useFeedChanges } from './changing';
import { FeedRuns } from './FeedRuns';
import { FeedSentences } from './FeedSentences';
import { isUnderWay } from './runWords';

/** What there is to say of a feed beside it. */
function notesOf(feed: FeedWhole, takeAsItIs: (() => void) | null, seeTelling: () => void): Note[] {
  const { lacks, problem, runs, on, telling, source } = feed;
  const [last] = runs;
  const notes: Note[] = [];
  if (problem !== null)
    notes.push({
      ...{ key: 'problem', tone: 'fault', title: t`It stopped by itself` },
      body: t`${problem}. Nothing of it was written. When it is right, turn it on again.`.replace('..', '.'),
      ...(last?.state === 'held' && takeAsItIs
        ? { remedy: { words: t`It is right: take it as it is`, act: takeAsItIs } }
        : {}),
    });
  if (lacks.length > 0)
    notes.push({
      ...{ key: 'lacks', tone: 'doubt', title: t`Half done` },
      body: `${lacks.map(({ words }) => words).join(' ')} ${t`It is kept as it is; anybody can go on with it.`}`,
    });
  if (last && last.looks > 0)
    notes.push({
      ...{ key: 'looks', tone: 'doubt' },
      title: plural(last.looks, { one: '# row waits for a look', other: '# rows wait for a look' }),
      body: t`They may be people who are here already. They wait in a batch of their own.`,
    });
  if (last && last.notTaken > 0)
    notes.push({
      ...{ key: 'not-taken', tone: 'doubt' },
      title: plural(last.notTaken, { one: '# row was not taken', other: '# rows were not taken' }),
      body: t`Open the number to see why of each, and to download them.`,
    });
  if (telling.waiting > 0)
    notes.push({
      ...{ key: 'telling', tone: telling.problem === null ? 'plain' : 'doubt' },
      title: plural(telling.waiting, {
        one: `# no is still to be told to ${source.name}`,
        other: `# noes are still to be told to ${source.name}`,
      }),
      body: telling.problem ?? t`They go in their order, each once.`,
      remedy: { words: t`See them`, act: seeTelling },
    });
  else if (telling.told > 0)
    notes.push({
      ...{ key: 'told', tone: 'good' },
      title: plural(telling.told, {
        one: `# no was told to ${source.name}`,
        other: `# noes were told to ${source.name}`,
      }),
    });
  if (on)
    notes.push({
      ...{ key: 'on', tone: 'plain', title: t`It is on` },
      body: t`To change its sentences turn it off. What came stays.`,
    });
  return notes;
}

/** Noes that its source is still to be told of. */
function StillToTell({ id, source, onClose }: { id: number; source: string; onClose: () => void }) {
  const format = useFormat();
  const { data, error } = useQuery(reading('feeds/{id}/notices', { id }));
  return (
    <Drawer
      open
      onClose={onClose}
      title={t`Still to be told to ${source}`}
      note={t`The oldest first, each once`}
    >
      <ProblemNote error={error} />
      <ul className="sheet overflow-y-auto" tabIndex={0}>
        {(data ?? []).map((one) => (
          <li key={one.id} className="border-b border-hair last:border-0 px-4 py-2">
            <Link className="font-semibold hover:underline" to={`/sort/supporters/${one.supporterId}`}>
              {one.name || one.record}
            </Link>
            <span className="block text-ink2">{t`No to ${one.words}, ${format.moment(one.at)}`}</span>
            {one.problem && <span className="block text-madder">{one.problem}</span>}
          </li>
        ))}
      </ul>
    </Drawer>
  );
}

/** A feed: its sentences over its runs. */
export default function FeedPage() {
  const id = Number(useParams().id);
  const format = useFormat();
  const may = useMay('organizer');
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const { data, error } = useQuery({
    ...reading('feeds/{id}', { id }),
    refetchInterval: ({ state: { data: now } }) =>
      now?.runs.some((run) => isUnderWay(run.state)) ? 700 : 5_000,
  });
  const { change, turn, run, stop } = useFeedChanges(id, data);
  const [removing, setRemoving] = useState(false);
  const remove = useMutation({
    mutationFn: () => api.delete('feeds/{id}', { id }),
    onSuccess: () => (void navigate('/gather/feeds'), void refresh(queryClient, 'feeds')),
  });
  const [telling, setTelling] = useState(false);
  useMargin(
    data ? notesOf(data, may ? () => run.mutate({ anyway: true }) : null, () => setTelling(true)) : [],
  );
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the feed`} />;
  const { name, on, onSince, nextRunAt, lacks, runs } = data;
  const running = runs.some(({ state }) => isUnderWay(state));
  const isReady = lacks.length === 0 && !running;
  const note = on
    ? t`a feed, on since ${format.moment(onSince ?? '')}`
    : lacks.length > 0
      ? t`a feed, half done`
      : t`a feed, off`;
  return (
    <div className="flex flex-col gap-4 grow">
      <Heading title={name} page={t`Feed: ${name}`} note={note}>
        {may && !on && !running && <Button onClick={() => setRemoving(true)}>{t`Delete it`}</Button>}
      </Heading>
      <section className="sheet px-6 py-4" aria-label={t`What the feed does`}>
        <FeedSentences feed={data} changes={may && !on} onChange={(part) => change.mutate(part)} />
        {nextRunAt && <p className="text-ink2 pt-1">{t`It looks next on ${format.moment(nextRunAt)}.`}</p>}
        <ProblemNote error={change.error ?? turn.error ?? run.error ?? stop.error} />
        {may && (
          <div className="flex flex-wrap gap-3 pt-4 items-center">
            {running ? (
              <Button onClick={() => stop.mutate()}>{t`Stop this run`}</Button>
            ) : (
              <Button
                once
                disabled={!isReady || run.isPending}
                onClick={() => run.mutate({})}
              >{t`Run now`}</Button>
            )}
            {on ? (
              <Button
                once
                disabled={turn.isPending}
                onClick={() => turn.mutate('off')}
              >{t`Turn it off`}</Button>
            ) : (
              <Button
                weight="main"
                disabled={lacks.length > 0 || turn.isPending}
                onClick={() => turn.mutate('on')}
              >{t`Turn it on`}</Button>
            )}
            <button
              className="link text-ink disabled:opacity-50"
              disabled={!isReady || run.isPending}
              onClick={() => run.mutate({ trial: true })}
            >{t`Try it without writing anything`}</button>
          </div>
        )}
      </section>
      <FeedRuns feed={data} />
      {telling && <StillToTell id={id} source={data.source.name} onClose={() => setTelling(false)} />}
      <Confirm
        open={removing}
        onClose={() => setRemoving(false)}
        title={t`Delete “${name}”?`}
        body={t`Its history goes, and what it knows of the records over there. Whom it brought in stays, as do the batches.`}
        act={t`Delete it`}
        onAct={() => remove.mutateAsync()}
      />
    </div>
  );
}
