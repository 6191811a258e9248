import type { Drafting } from '../app/drafting';
import type { UseMutationResult } from '@tanstack/react-query';
import { AS_IT_COMES } from './people/listing';
import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useDeferredValue, useEffect, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { SegmentCount, SegmentView } from '@goodword/core/contract';
import type { Group } from '@goodword/core/segment';
import { api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Loading, ProblemNote } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { Unsaved } from '../ui/Unsaved';
import { NarrowingChart, type ChartStep } from '../ui/NarrowingChart';
import { PeopleTable } from '../ui/people';
import { asTop, replaceAt, treeFrom } from './lines/sentence';
import { useSubjects } from './lines/subjects';
import { PeoplePanel } from './people/PeoplePanel';
import { SegmentOverTime } from './SegmentOverTime';
import { Sentence } from './Sentence';
import { refresh } from '../app/refresh';
import { WriteToThem } from '../write/WriteToThem';
import { keyOf, reading, readingByPost } from '../app/reading';

function segmentNotes(
  count: SegmentCount | undefined,
  usedBy: SegmentView['usedBy'],
  take: (line: number) => void,
): Note[] {
  const notes: Note[] = [];
  count?.steps.forEach((step, i) => {
    const before = i === 0 ? count.everybody : count.steps[i - 1]!.left;
    if (before > 0 && step.left === before)
      notes.push({
        key: `idle-${i}`,
        tone: 'doubt',
        title: t`Line ${i + 1} takes nobody out`,
        body: t`Everyone before it passes it too.`,
        remedy: { words: t`Remove the line`, act: () => take(i) },
      });
    if (step.left === 0 && before > 0)
      notes.push({
        key: `none-${i}`,
        tone: 'fault',
        title: t`Nobody passes line ${i + 1}`,
        body: t`${step.words.charAt(0).toUpperCase()}${step.words.slice(1)}: ${step.alone} alone do.`,
      });
  });
  if (usedBy.length > 0)
    notes.push({
      key: 'used',
      tone: 'plain',
      title: t`Used by ${usedBy.map((one) => one.name).join(', ')}`,
      body: t`It can't be deleted until ${plural(usedBy.length, { one: 'that message has', other: 'those messages have' })} another group.`,
    });
  return notes;
}

function SegmentHead({
  name,
  setName,
  data,
  history,
  undo,
  id,
  setOverTime,
  setRemoving,
  changed,
  draft,
  save,
}: {
  name: string;
  setName: (next: string) => void;
  data: SegmentCount | undefined;
  history: Group[];
  undo: () => void;
  id: number | null;
  setOverTime: (next: boolean) => void;
  setRemoving: (next: boolean) => void;
  changed: boolean;
  draft: Drafting<{ name: string; tree: Group }, number>;
  save: UseMutationResult<{ id: number }, Error, { name: string; tree: Group }, unknown>;
}) {
  const format = useFormat();
  const may = useMay('organizer');
  return (
    <Heading
      page={t`Segment: ${name || t`a new one`}`}
      title={
        <input
          aria-label={t`Name of the segment`}
          className="bg-transparent border-b-2 border-transparent hover:border-hair focus:border-ink outline-none w-[420px] max-w-full"
          value={name}
          maxLength={120}
          placeholder={t`Name this segment`}
          onChange={(event) => setName(event.target.value)}
        />
      }
      note={
        data
          ? t`${format.number(data.total)} ${plural(data.total, { one: 'person', other: 'people' })}, always up to date`
          : ''
      }
    >
      {history.length > 0 && <Button onClick={undo}>{t`Undo`}</Button>}
      {id !== null && <Button onClick={() => setOverTime(true)}>{t`Over time`}</Button>}
      {may && id !== null && <Button onClick={() => setRemoving(true)}>{t`Delete`}</Button>}
      {id !== null && !changed && <WriteToThem whom={name} to={() => ({ ref: { kind: 'segment', id } })} />}
      {may && (
        <Button
          weight="main"
          disabled={!changed || draft.theirs !== null || name.trim() === '' || save.isPending}
          onClick={() => save.mutate(draft.value)}
        >
          {t`Save the segment`}
        </Button>
      )}
    </Heading>
  );
}

/** Who is in it, and how each line narrows. */
function SegmentPeople({
  asked,
  data,
  steps,
  reach,
}: {
  asked: Group;
  data: SegmentCount | undefined;
  steps: ChartStep[];
  reach: { email: number; text: number; neither: number } | null | undefined;
}) {
  const format = useFormat();
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-4 pt-4 grow min-h-[260px] max-[900px]:grid-cols-1 max-[900px]:min-h-[800px]">
      <PeoplePanel
        narrow
        label={t`People in the segment`}
        pageKey={[...keyOf('segments'), 'people', asked]}
        tree={asked}
        empty={
          <Empty title={t`Nobody is in it`}>
            <p>{t`The Margin says at which line the last one is lost.`}</p>
          </Empty>
        }
      />
      <section className="sheet p-4 overflow-y-auto" tabIndex={0} aria-label={t`How each line narrows it`}>
        <h2 className="subtitle pb-3">{t`How each line narrows it`}</h2>
        {data && <NarrowingChart everybody={data.everybody} steps={steps} />}
        {reach && (
          <p className="text-ink2 pt-4">
            <Trans>
              For appeals, email reaches <b className="text-ink">{format.number(reach.email)}</b>, text{' '}
              <b className="text-ink">{format.number(reach.text)}</b>, neither{' '}
              <b className="text-ink">{format.number(reach.neither)}</b>.
            </Trans>
          </p>
        )}
      </section>
    </div>
  );
}

/** Who is left after one of its lines. */
function LeftAfter({
  opened,
  setOpened,
  data,
  asked,
}: {
  opened: number | null;
  setOpened: (next: number | null) => void;
  data: SegmentCount | undefined;
  asked: Group;
}) {
  return (
    <Drawer
      open={opened !== null}
      onClose={() => setOpened(null)}
      wide
      title={t`Left after line ${(opened ?? 0) + 1}`}
      note={data?.steps[opened ?? 0]?.words}
    >
      {opened !== null && (
        <PeopleTable
          narrow
          label={t`Left after line ${opened + 1}`}
          pageKey={[...keyOf('segments'), 'left', asked, opened]}
          fetch={(after) =>
            api.post('segments/people', {
              body: {
                ...AS_IT_COMES,
                tree: { ...asked, rules: asked.rules.slice(0, opened + 1) },
                ...(after ? { after } : {}),
              },
            })
          }
        />
      )}
    </Drawer>
  );
}

/** The narrowing from everybody to who is left after the last line; each line opens its people. */
const chartOf = (data: SegmentCount, onOpen: (line: number) => void): ChartStep[] => [
  { key: 'all', words: t`Everybody`, left: data.everybody, tone: 'start' },
  ...data.steps.map((step, i): ChartStep => ({
    key: String(i),
    words: `${i + 1} ${step.words}`,
    left: step.left,
    tone: i === data.steps.length - 1 ? 'end' : 'step',
    onOpen: () => onOpen(i),
  })),
];

function DeleteSegment({
  removing,
  setRemoving,
  start,
  id,
}: {
  removing: boolean;
  setRemoving: (next: boolean) => void;
  start: { name: string; tree: Group; usedBy: SegmentView['usedBy']; version: number };
  id: number | null;
}) {
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  return (
    <Confirm
      open={removing}
      onClose={() => setRemoving(false)}
      title={t`Delete “${start.name}”?`}
      act={t`Delete the segment`}
      body={<p>{t`The rule goes. Its people, and everything sent by it, stay.`}</p>}
      onAct={async () => (
        await api.delete('segments/{id}', { id: id! }),
        void refresh(queryClient, 'segments'),
        void navigate('/sort/segments')
      )}
    />
  );
}

function Builder({
  id,
  start,
}: {
  id: number | null;
  start: { name: string; tree: Group; usedBy: SegmentView['usedBy']; version: number };
}) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const subjects = useSubjects(id);
  const draft = useDrafting(
    id === null ? `segment:new:${start.name}:${JSON.stringify(start.tree)}` : `segment:${id}`,
    {
      value: { name: start.name, tree: start.tree },
      version: start.version,
    },
  );
  const { name, tree } = draft.value;
  const setName = (next: string) => draft.set({ name: next, tree });
  const setTree = (next: Group) => draft.set({ name, tree: next });
  const [history, setHistory] = useState<Group[]>([]);
  const [removing, setRemoving] = useState(false);
  const [overTime, setOverTime] = useState(false);
  const [opened, setOpened] = useState<number | null>(null);
  const asked = useDeferredValue(tree);
  const count = useQuery({
    ...readingByPost('segments/count', { body: { tree: asked, reach: false } }),
    placeholderData: keepPreviousData,
  });
  // Whom a message would reach is counted beside, so that typing does not wait for it.
  const reach = useQuery({
    ...readingByPost('segments/count', { body: { tree: asked, reach: true } }),
    placeholderData: keepPreviousData,
  }).data?.reach;
  const save = useMutation({
    mutationFn: (sent: { name: string; tree: Group }): Promise<{ id: number }> =>
      id === null
        ? api.post('segments', { body: sent })
        : api.put('segments/{id}', { id, body: { ...sent, basedOn: draft.basedOn } }),
    onSuccess: async (saved, sent) => {
      await refresh(queryClient, 'segments');
      draft.saved(sent);
      setHistory([]);
      void navigate(`/sort/segments/${saved.id}`, { replace: true });
    },
    // Somebody was quicker: what they saved is fetched, and both are shown.
    onError: () => queryClient.invalidateQueries({ queryKey: keyOf('segments') }),
  });
  const change = (next: Group) => (setHistory([...history, tree]), setTree(next));
  const undo = () => (setTree(history.at(-1)!), setHistory(history.slice(0, -1)));
  useMargin(segmentNotes(count.data, start.usedBy, (line) => change(replaceAt(tree, line, null))));
  if (!subjects) return <Loading what={t`what a segment can speak of`} />;
  const changed = draft.isChanged || (id === null && tree.rules.length > 0);
  const data = count.data;
  const steps = data ? chartOf(data, setOpened) : [];
  return (
    <>
      <SegmentHead
        name={name}
        setName={setName}
        data={data}
        history={history}
        undo={undo}
        id={id}
        setOverTime={setOverTime}
        setRemoving={setRemoving}
        changed={changed}
        draft={draft}
        save={save}
      />
      <Unsaved draft={draft} what={t`this segment`} />
      <ProblemNote error={draft.theirs === null ? (save.error ?? count.error) : count.error} />
      <Sentence tree={tree} steps={data?.steps} subjects={subjects} onChange={change} />
      <SegmentPeople asked={asked} data={data} steps={steps} reach={reach} />
      <LeftAfter opened={opened} setOpened={setOpened} data={data} asked={asked} />
      {id !== null && (
        <SegmentOverTime
          id={id}
          name={start.name}
          open={overTime}
          onClose={() => setOverTime(false)}
          onTake={(version) => (change(asTop(version.tree)), setName(version.name), setOverTime(false))}
        />
      )}
      <DeleteSegment removing={removing} setRemoving={setRemoving} start={start} id={id} />
    </>
  );
}

/** A segment as a sentence whose underlined words open, with its people and how each line narrows. */
export default function Segment() {
  const { id } = useParams();
  const { data, error } = useQuery({ ...reading('segments'), enabled: id !== 'new' });
  const [missing, setMissing] = useState(false);
  const [params] = useSearchParams();
  const found = data?.find((segment) => segment.id === Number(id));
  useEffect(() => setMissing(data !== undefined && !found), [data, found]);
  if (id === 'new')
    return (
      <Builder
        key="new"
        id={null}
        start={{ name: params.get('name') ?? '', tree: treeFrom(params.get('tree')), usedBy: [], version: 0 }}
      />
    );
  if (error) return <ProblemNote error={error} />;
  if (missing)
    return (
      <Empty title={t`There is no such segment`}>
        <p>{t`It may have been deleted, or belongs to another chapter.`}</p>
      </Empty>
    );
  if (!found) return <Loading what={t`the segment`} />;
  return (
    <Builder
      key={found.id}
      id={found.id}
      start={{ name: found.name, tree: asTop(found.tree), usedBy: found.usedBy, version: found.version }}
    />
  );
}
