import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { CheckedWords, MessageFault, MessageView } from '@goodword/core/contract';
import { registryOf, type Registry } from '@goodword/core/merge';
import { api } from '../app/api';
import { SAVE_STATE_WORDS, useKeeping } from '../app/keeping';
import { useMay } from '../app/session';
import { Button, Loading, ProblemNote } from '../ui/basics';
import { Confirm } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { NewerVersion } from '../ui/NewerVersion';
import { mendedWords, type WordsOfMessage } from './mend';
import { ownNotes } from './OwnHtml';
import { PreviewPane } from './PreviewPane';
import { Proofs, type ProofReader } from './Proofs';
import { TagTriggers } from './TagTriggers';
import { WordsEditor } from './WordsEditor';
import { WordVersions } from './WordVersions';
import { refresh } from '../app/refresh';
import { useLists, type ListName } from '../app/groups';
import { keyOf, reading } from '../app/reading';
import { DraftHead } from './DraftHead';
import { GoLine } from './GoLine';
import { WordNotes } from './WordNotes';
import { WordingsLine } from '../wordings/WordingsLine';

function wordsOf(message: MessageView): WordsOfMessage {
  const { name, purpose, listId, subject, preheader, letter, text, senderId, locale, ask, plainly } = message;
  return { name, purpose, listId, subject, preheader, letter, text, senderId, locale, ask, plainly };
}

function useWriteNotes(
  letter: MessageView['letter'],
  checked: CheckedWords | undefined,
  template: MessageView['template'],
  saving: string | null,
  mend: (fault: MessageFault) => void,
  seeVersions: () => void,
): void {
  const { faults, doubts = [] } = checked ?? {};
  const notes: Note[] = (faults ?? []).map((fault, i) => ({
    key: `${i}-${fault.message}`,
    tone: fault.excerpt ? 'fault' : 'doubt',
    title: fault.excerpt ? t`${fault.excerpt} can't be filled` : fault.message,
    body: fault.excerpt ? fault.message : undefined,
    remedy: fault.suggestion
      ? { words: t`Write ${`{${fault.suggestion}}`}`, act: () => mend(fault) }
      : undefined,
  }));
  for (const doubt of doubts)
    notes.push({ key: doubt, tone: 'doubt', title: t`Worth a second look`, body: doubt });
  notes.push(...ownNotes(letter));
  if (faults?.length === 0)
    notes.push({
      key: 'good',
      tone: 'good',
      title: t`The words are in order`,
      body: t`Every merge field is known.`,
    });
  if (template)
    notes.push({
      key: 'template',
      tone: 'plain',
      title: template.name === null ? t`From a template` : t`From the template ${template.name}`,
      body:
        template.name === null
          ? t`It has been deleted since. The words here stay.`
          : t`Its version ${template.version}. What is changed there does not change this.`,
    });
  notes.push({
    key: 'saved',
    tone: 'plain',
    title: saving ?? t`What it said before`,
    remedy: { words: t`What changed`, act: seeVersions },
  });
  useMargin(notes);
}

function NoLongerADraft({ message }: { message: MessageView }) {
  return (
    <p role="status" className="border-l-[3px] border-verdigris pl-3 py-1 mb-3">
      <Trans>
        <b>{message.state === 'scheduled' ? t`It is on its way.` : t`It has been sent.`}</b> Its words stay as
        they are
        {message.state === 'scheduled'
          ? t`; to change them, take it back first.`
          : t`, and are shown here to be read.`}{' '}
        <Link
          className="link"
          to={message.state === 'scheduled' ? `/send/${message.id}` : `/hear-back/${message.id}`}
        >
          {message.state === 'scheduled' ? t`When it leaves` : t`What came of it`}
        </Link>
      </Trans>
    </p>
  );
}

/** The words on the left, as they will be read on the right. */
function DraftDesk({
  message,
  words,
  registry,
  mayType,
  set,
  drawn,
  editable,
  goOn,
  stamp,
  flush,
}: {
  message: MessageView;
  words: WordsOfMessage;
  registry: Registry;
  mayType: boolean;
  set: (part: Partial<WordsOfMessage>) => void;
  drawn: number;
  editable: boolean;
  goOn: () => Promise<void>;
  stamp: string;
  flush: () => Promise<void>;
}) {
  const maySend = useMay('organizer');
  const [proof, setProof] = useState<ProofReader | null>(null);
  return (
    <>
      <div className="grid grid-cols-[1fr_minmax(330px,38%)] gap-4 grow min-h-0 max-[1180px]:grid-cols-1 max-[1180px]:grid-rows-[600px_460px] max-[1180px]:min-h-[1076px]">
        <div className="flex flex-col gap-3 min-h-0">
          <WordsEditor
            channel={message.channel}
            words={words}
            registry={registry}
            editable={mayType}
            drawn={drawn}
            set={set}
          />
          <div className="flex flex-wrap items-center justify-between gap-3 pt-2">
            <TagTriggers message={message} />
            {editable && (
              <Button weight="main" className="ml-auto order-2" onClick={() => void goOn()}>
                {maySend ? t`Next: who gets it` : t`See who would get it`}
              </Button>
            )}
            {/* Stands before the next step, and is reached after it. */}
            <span className="order-1">
              <WordNotes id={message.id} words={words} />
            </span>
          </div>
        </div>
        <PreviewPane message={message} stamp={stamp} proof={proof} onChoose={() => setProof(null)} />
      </div>
      {editable && (
        <div className="pt-3">
          <Proofs message={message} stamp={stamp} shown={proof} flush={flush} onPick={setProof} />
        </div>
      )}
    </>
  );
}

/** The words as typed, kept with the server; tells what is wrong with them, and once they are saved. */
function useWords(
  message: MessageView,
  setSaved: (checked: CheckedWords) => void,
  setStamp: (stamp: string) => void,
) {
  const queryClient = useQueryClient();
  return useKeeping<WordsOfMessage>(
    `message:${message.id}`,
    { value: wordsOf(message), version: message.version },
    {
      async save(next, basedOn, leaving) {
        const done = await (leaving ? api.putAtLast : api.put)('messages/{id}', {
          id: message.id,
          body: { ...next, basedOn },
        });
        setSaved(done);
        return done.version;
      },
      async load() {
        const now = await api.get('messages/{id}', { id: message.id });
        return { value: wordsOf(now), version: now.version };
      },
      onSaved(next, version) {
        queryClient.setQueryData(
          keyOf('messages/{id}', { id: message.id }),
          (old: MessageView | undefined) => old && { ...old, ...next, version },
        );
        setStamp(`${message.id}:${version}`);
        void queryClient.invalidateQueries({ queryKey: keyOf('messages') });
        void queryClient.invalidateQueries({ queryKey: keyOf('messages/{id}', { id: message.id }) });
      },
    },
  );
}

function DeleteDraft({
  removing,
  setRemoving,
  message,
}: {
  removing: boolean;
  setRemoving: (next: boolean) => void;
  message: MessageView;
}) {
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  return (
    <Confirm
      open={removing}
      onClose={() => setRemoving(false)}
      title={t`Delete “${message.name}”?`}
      act={t`Delete the draft`}
      body={<p>{t`The draft goes. Nobody has got it.`}</p>}
      onAct={async () => (
        await api.delete('messages/{id}', { id: message.id }),
        void refresh(queryClient, 'messages'),
        void navigate(message.wordingOf === null ? '/write' : `/write/${message.wordingOf}`)
      )}
    />
  );
}

function Editor({
  message,
  registry,
  lists,
}: {
  message: MessageView;
  registry: Registry;
  lists: ListName[];
}) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const may = useMay('writer');
  const editable = may && message.state === 'draft';
  // Until they are known, nothing is said to be in order.
  const [saved, setSaved] = useState<CheckedWords>();
  const found = useQuery(reading('messages/{id}/faults', { id: message.id }));
  const checked = saved ?? found.data;
  const [stamp, setStamp] = useState(message.updatedAt);
  const [drawn, setDrawn] = useState(0);
  const [removing, setRemoving] = useState(false);
  const [seesTheirs, setSeesTheirs] = useState(false);
  const [kept, keeper] = useWords(message, setSaved, setStamp);
  const words = seesTheirs && kept.theirs ? kept.theirs.value : kept.value;
  const mayType = editable && !seesTheirs;
  const set = (part: Partial<WordsOfMessage>) => keeper.set({ ...keeper.snapshot().value, ...part });
  const redraw = () => setDrawn((old) => old + 1);
  const mend = (fault: MessageFault) => (keeper.set(mendedWords(keeper.snapshot().value, fault)), redraw());
  const [seesVersions, setSeesVersions] = useState(false);
  const saving = editable ? SAVE_STATE_WORDS[kept.saveState] : null;
  useWriteNotes(words.letter, checked, message.template, saving, mend, () => setSeesVersions(true));
  const test = useMutation({
    mutationFn: async () => {
      await keeper.flush();
      return api.post('messages/{id}/test', { id: message.id, body: { asId: null, listId: null } });
    },
    onSuccess: () => queryClient.invalidateQueries({ queryKey: keyOf('messages/{id}', { id: message.id }) }),
  });
  const goOn = async () => {
    // What is wrong with saving is told above; one stays here with it.
    await keeper.flush().then(
      () => void navigate(`/send/${message.wordingOf ?? message.id}`),
      () => undefined,
    );
  };
  return (
    <div className="flex flex-col grow min-h-0">
      <DraftHead
        words={words}
        mayType={mayType}
        set={set}
        message={message}
        lists={lists}
        editable={editable}
        setRemoving={setRemoving}
        test={test}
      />
      {message.state !== 'draft' && <NoLongerADraft message={message} />}
      <WordingsLine message={message} flush={() => keeper.flush()} />
      <GoLine message={message} flush={() => keeper.flush()} />
      <NewerVersion
        kept={kept}
        keeper={keeper}
        seesTheirs={seesTheirs}
        onSee={(theirs) => (setSeesTheirs(theirs), redraw())}
      />
      <ProblemNote error={test.error} />
      <DraftDesk
        message={message}
        words={words}
        registry={registry}
        mayType={mayType}
        set={set}
        drawn={drawn}
        editable={editable}
        goOn={goOn}
        stamp={stamp}
        flush={() => keeper.flush()}
      />
      <WordVersions
        of="message"
        id={message.id}
        open={seesVersions}
        onClose={() => setSeesVersions(false)}
        onTake={mayType ? (taken) => (set(taken), redraw(), setSeesVersions(false)) : null}
      />
      <DeleteDraft removing={removing} setRemoving={setRemoving} message={message} />
    </div>
  );
}

/** One message being written, beside how somebody will read it. */
export default function Draft() {
  const id = Number(useParams().id);
  const message = useQuery({ ...reading('messages/{id}', { id }), staleTime: Infinity });
  const names = useQuery(reading('merge-fields'));
  const lists = useLists();
  const registry = useMemo(() => (names.data ? registryOf(names.data) : null), [names.data]);
  if (message.error) return <ProblemNote error={message.error} />;
  if (!message.data || !registry || !lists.data) return <Loading what={t`the message`} />;
  return <Editor key={id} message={message.data} registry={registry} lists={lists.data} />;
}
