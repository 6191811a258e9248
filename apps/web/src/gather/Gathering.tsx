import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useDeferredValue, useEffect, useRef, useState } from 'react';
import { useBeforeUnload, useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import type { BatchView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Heading, Loading, ProblemNote } from '../ui/basics';
import { Confirm } from '../ui/dialogs';
import Batch from './Batch';
import { ColumnsStep } from './ColumnsStep';
import { stepsOf, useDraft, type BatchStep } from './draft';
import { FileStep } from './FileStep';
import { GroupsStep } from './GroupsStep';
import { MatchesStep } from './MatchesStep';
import { PermissionStep } from './PermissionStep';
import { Steps } from './Steps';
import { useHouse, type HouseVocabulary } from './useHouse';
import { reading } from '../app/reading';

/**
 * A file on its way in: what it is, what its columns are, where its people go, what they agreed to, whom they
 * may be.
 */
export default function Gathering() {
  const id = Number(useParams().id ?? 0);
  const { house, error } = useHouse();
  const may = useMay('organizer');
  const changing = useLocation().search.includes('change');
  const own = useDraft((draft) => draft.batchId);
  const batch = useQuery({ ...reading('batches/{id}', { id }), enabled: id > 0 && own !== id });
  if (!house && error) return <ProblemNote error={error} />;
  if (!house) return <Loading what={t`your fields`} />;
  if (id === 0 || own === id) return <Wizard house={house} id={id} />;
  if (batch.error) return <ProblemNote error={batch.error} />;
  if (!batch.data) return <Loading what={t`the batch`} />;
  // A file holds more than is shown to everybody.
  const open =
    may &&
    (['reading', 'unreadable', 'draft'].includes(batch.data.state) ||
      (changing && batch.data.state === 'checked'));
  return open ? <Opened house={house} batch={batch.data} /> : <Batch />;
}

/** The step stands in the address, so that Back goes one step back, and forward again. */
function useStepInHistory(step: BatchStep, go: (step: BatchStep) => void, ready: boolean): void {
  const [params, setParams] = useSearchParams();
  const at = params.get('step');
  const pushed = useRef<string | null>(null);
  useEffect(() => {
    if (!ready) return;
    // The first one is where this began: there is nothing before it to go back to.
    const replace = pushed.current === null;
    pushed.current = step;
    if (at === step) return;
    setParams((now) => (now.set('step', step), now), { replace });
  }, [step, ready]);
  useEffect(() => {
    if (!ready || at === null || at === step || pushed.current === null || at === pushed.current) return;
    pushed.current = at;
    go(at as BatchStep);
  }, [at]);
}

/** A batch that somebody began, taken up where it was left. */
function Opened({ house, batch }: { house: HouseVocabulary; batch: BatchView }) {
  const open = useDraft((draft) => draft.open);
  const problem = useDraft((draft) => draft.problem);
  useEffect(() => {
    void open(batch, house);
    // Once for each batch; what is read anew of the house meanwhile changes nothing about the file.
  }, [batch.id]);
  return problem ? <p role="alert">{problem}</p> : <Loading what={t`the file`} />;
}

/** Somebody else saved it meanwhile: whose version stays. */
function TwoVersions({
  newer,
  open,
  house,
  keepMine,
}: {
  newer: { words: string; theirs: BatchView };
  open: (batch: BatchView, house: HouseVocabulary, theirsStays?: boolean) => Promise<void>;
  house: HouseVocabulary;
  keepMine: () => Promise<void>;
}) {
  return (
    <div
      role="alert"
      className="border-l-[3px] border-madder pl-3 py-1 my-2 flex flex-wrap items-center gap-3"
    >
      <p className="grow">
        <b>{t`Two versions.`}</b> {newer.words}
      </p>
      <Button onClick={() => void open(newer.theirs, house, true)}>{t`Theirs stays`}</Button>
      <Button onClick={() => void keepMine()}>{t`Mine stays`}</Button>
    </div>
  );
}

/** The file could not be read: another one, or none. */
function Unreadable({
  problem,
  reset,
  setThrowing,
}: {
  problem: string;
  reset: () => void;
  setThrowing: (next: boolean) => void;
}) {
  const navigate = useNavigate();
  return (
    <section className="sheet p-6 flex flex-col items-start gap-4">
      <p role="alert" className="text-madder font-semibold">
        {problem}
      </p>
      <p className="text-ink2">
        <Trans>Nobody has come in. The file stays under Gather until you throw it away.</Trans>
      </p>
      <div className="flex gap-2">
        <Button weight="main" onClick={() => (reset(), void navigate('/gather/new'))}>
          {t`Choose another file`}
        </Button>
        <Button onClick={() => setThrowing(true)}>{t`Throw this one away`}</Button>
      </div>
    </section>
  );
}

/** The file did not reach the server. */
function NotThereYet({ unsent, send }: { unsent: string; send: () => Promise<void> }) {
  return (
    <div role="alert" className="flex items-center gap-3 pt-2">
      <p className="text-madder font-semibold">
        <Trans>The server does not have this file yet. {unsent}</Trans>
      </p>
      <Button className="whitespace-nowrap" onClick={() => void send()}>
        {t`Hand it over again`}
      </Button>
    </div>
  );
}

function ThrowAway({
  throwing,
  setThrowing,
  discard,
}: {
  throwing: boolean;
  setThrowing: (next: boolean) => void;
  discard: () => Promise<void>;
}) {
  return (
    <Confirm
      open={throwing}
      onClose={() => setThrowing(false)}
      title={t`Throw this batch away?`}
      act={t`Throw the batch away`}
      onAct={discard}
      body={
        <p>
          <Trans>
            The file and what you settled about it go. Nobody has come in yet, so nothing else changes.
          </Trans>
        </p>
      }
    />
  );
}

function Wizard({ house, id }: { house: HouseVocabulary; id: number }) {
  const format = useFormat();
  const navigate = useNavigate();
  const {
    step,
    go,
    file,
    analysis,
    reading,
    batchId,
    reset,
    save,
    send,
    parts,
    problem,
    unsent,
    newer,
    keepMine,
    open,
  } = useDraft();
  const { key: place } = useLocation();
  const onlyHere = file !== null && batchId === null;
  // Whoever closes the page before the server has the file is asked first.
  useBeforeUnload(useCallback((event) => onlyHere && event.preventDefault(), [onlyHere]));
  useEffect(() => {
    if (batchId === null || id !== 0) return;
    const at = new URLSearchParams({ change: '1', ...(analysis ? { step } : {}) });
    void navigate(`/gather/${batchId}?${at.toString()}`, { replace: true });
    // A step that is taken in the same moment goes by the address that was there before, and back to it.
  }, [batchId, id, place]);
  useStepInHistory(step, go, analysis !== null);
  useEffect(() => {
    const left = () => void save(true).catch(() => undefined);
    addEventListener('pagehide', left);
    return () => removeEventListener('pagehide', left);
  }, [save]);
  const [throwing, setThrowing] = useState(false);
  const discard = async () => {
    await api.delete('batches/{id}', { id: batchId! });
    reset();
    void navigate('/gather');
  };
  const steps = stepsOf(parts.what);
  const unread = batchId !== null && !analysis && !reading && problem !== null;
  // A step is drawn in pieces between which the page answers; until it is there, the one before stays.
  const shown = useDeferredValue(analysis ? step : 'File');
  const leave = () =>
    void save()
      .catch(() => undefined)
      .then(() => (reset(), navigate('/gather')));
  const rows = analysis
    ? t`${format.number(analysis.found.rows)} ${plural(analysis.found.rows, { one: 'row', other: 'rows' })}${analysis.whole ? '' : t` so far`} under the header`
    : null;
  return (
    <div className="flex flex-col grow min-h-0">
      <Heading
        title={file?.name ?? t`Bring people in`}
        note={reading ?? rows ?? t`People who agreed to hear from you`}
      >
        {batchId !== null && analysis && (
          <>
            <Button onClick={() => setThrowing(true)}>{t`Throw it away`}</Button>
            <Button onClick={leave}>{t`Save and close`}</Button>
          </>
        )}
      </Heading>
      <Steps of={steps} at={step} onGo={go} />
      {newer && <TwoVersions newer={newer} open={open} house={house} keepMine={keepMine} />}
      {unread && <Unreadable problem={problem} reset={reset} setThrowing={setThrowing} />}
      {!analysis && batchId !== null && reading ? (
        <Loading what={t`the file`} />
      ) : (
        !unread && (shown === 'File' || !analysis) && <FileStep house={house} />
      )}
      {analysis && shown === 'Columns' && <ColumnsStep house={house} />}
      {analysis && shown === 'Where they go' && <GroupsStep />}
      {analysis && shown === 'Permission' && <PermissionStep />}
      {analysis && shown === 'Matches' && <MatchesStep />}
      {analysis && problem && (
        <p role="alert" className="text-madder font-semibold pt-2">
          {problem}
        </p>
      )}
      {unsent && <NotThereYet unsent={unsent} send={send} />}
      <ThrowAway throwing={throwing} setThrowing={setThrowing} discard={discard} />
    </div>
  );
}
