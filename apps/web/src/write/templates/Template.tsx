import { t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useId, useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { CheckedWords, MessageFault, SaveTemplateBody, TemplateView } from '@goodword/core/contract';
import { blanksIn } from '@goodword/core/letter';
import { registryOf, type Registry } from '@goodword/core/merge';
import { api } from '../../app/api';
import { useLists, type ListName } from '../../app/groups';
import { SAVE_STATE_WORDS, useKeeping } from '../../app/keeping';
import { keyOf, reading } from '../../app/reading';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { Button, Heading, Labelled, Loading, ProblemNote } from '../../ui/basics';
import { Confirm } from '../../ui/dialogs';
import { useMargin, type Note } from '../../ui/margin';
import { NewerVersion } from '../../ui/NewerVersion';
import { AskedFor } from '../AskedFor';
import { ownNotes } from '../OwnHtml';
import { mendedWords } from '../mend';
import { WordsEditor } from '../WordsEditor';
import { WordVersions } from '../WordVersions';
import { TemplatePreview } from './TemplatePreview';
import { KIND_OF_WORDS } from '../../app/channels';
import { whoseWords } from './words';

type Kept = Required<Omit<SaveTemplateBody, 'basedOn'>>;

function keptOf(template: TemplateView): Kept {
  const { name, folder, purpose, listId, note, subject, preheader, letter, text, locale, ask, plainly } =
    template;
  return { name, folder, purpose, listId, note, subject, preheader, letter, text, locale, ask, plainly };
}

function useTemplateNotes(
  template: TemplateView,
  words: Kept,
  checked: CheckedWords | undefined,
  saving: string | null,
  mend: (fault: MessageFault) => void,
  seeVersions: () => void,
): void {
  const blanks = blanksIn(words);
  const notes: Note[] = (checked?.faults ?? []).map((fault, i) => ({
    key: `${i}-${fault.message}`,
    tone: 'fault',
    title: t`${fault.excerpt ?? ''} can't be filled`,
    body: fault.message,
    remedy: fault.suggestion
      ? { words: t`Write ${`{${fault.suggestion}}`}`, act: () => mend(fault) }
      : undefined,
  }));
  for (const doubt of checked?.doubts ?? [])
    notes.push({ key: doubt, tone: 'doubt', title: t`Worth a second look`, body: doubt });
  notes.push(...ownNotes(words.letter));
  if (blanks.length > 0)
    notes.push({
      key: 'blanks',
      tone: 'plain',
      title: t`Blanks to fill in each time`,
      body: t`No message leaves before they are: ${blanks.slice(0, 5).join(' · ')}`,
    });
  if (template.uses > 0)
    notes.push({
      key: 'uses',
      tone: 'plain',
      title: t`Messages keep their words`,
      body: t`What is changed here changes none that came from it.`,
    });
  if (!template.mayChange)
    notes.push({
      key: 'not-yours',
      tone: 'plain',
      title: t`Not yours to change`,
      body: t`Make one of your own of it, and change that.`,
    });
  notes.push({
    key: 'saved',
    tone: 'plain',
    title: saving ?? t`What it said before`,
    remedy: { words: t`What changed`, act: seeVersions },
  });
  useMargin(notes);
}

/** The words as typed, kept with the server; tells what is wrong with them once they are saved. */
function useTemplateWords(
  template: TemplateView,
  setSaved: (checked: CheckedWords) => void,
  setStamp: (stamp: string) => void,
) {
  const queryClient = useQueryClient();
  const { id } = template;
  return useKeeping<Kept>(
    `template:${id}`,
    { value: keptOf(template), version: template.version },
    {
      async save(next, basedOn, leaving) {
        const done = await (leaving ? api.putAtLast : api.put)('templates/{id}', {
          id,
          body: { ...next, basedOn },
        });
        setSaved(done);
        return done.version;
      },
      async load() {
        const now = await api.get('templates/{id}', { id });
        return { value: keptOf(now), version: now.version };
      },
      onSaved(next, version) {
        queryClient.setQueryData(
          keyOf('templates/{id}', { id }),
          (old: TemplateView | undefined) => old && { ...old, ...next, version },
        );
        setStamp(`${id}:${version}`);
        void queryClient.invalidateQueries({ queryKey: keyOf('templates') });
      },
    },
  );
}

/** Whose it is, put away, made another of, deleted. */
function Acts({ template, flush }: { template: TemplateView; flush: () => Promise<void> }) {
  const organizer = useMay('organizer');
  const writer = useMay('writer');
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const [removing, setRemoving] = useState(false);
  const uses = useQuery({ ...reading('templates/{id}/uses', { id: template.id }), enabled: removing });
  const was = { isTeam: template.isTeam, archived: template.archived };
  const stand = useMutation({
    mutationFn: async (wanted: Partial<typeof was>) => {
      await flush();
      return api.put('templates/{id}/standing', { id: template.id, body: { ...was, ...wanted, was } });
    },
    onSettled: () => refresh(queryClient, 'templates'),
  });
  const duplicate = useMutation({
    mutationFn: async () => {
      await flush();
      const { folder, channel, purpose, listId, note } = template;
      const name = t`${template.name.slice(0, 110)}, a copy`;
      return api.post('templates', {
        body: { name, folder, channel, purpose, listId, note, from: { templateId: template.id } },
      });
    },
    onSuccess: ({ id }) => (refresh(queryClient, 'templates'), void navigate(`/write/templates/${id}`)),
  });
  return (
    <>
      {template.mayChange && organizer && (
        <Button once disabled={stand.isPending} onClick={() => stand.mutate({ isTeam: !template.isTeam })}>
          {template.isTeam ? t`Not the team’s` : t`Make it the team’s`}
        </Button>
      )}
      {writer && (
        <Button
          once
          disabled={duplicate.isPending}
          onClick={() => duplicate.mutate()}
        >{t`Make another of it`}</Button>
      )}
      {template.mayChange && (
        <Button
          once
          disabled={stand.isPending}
          onClick={() => stand.mutate({ archived: !template.archived })}
        >
          {template.archived ? t`Bring it back` : t`Archive`}
        </Button>
      )}
      {template.mayChange && <Button onClick={() => setRemoving(true)}>{t`Delete`}</Button>}
      <ProblemNote error={stand.error ?? duplicate.error} />
      <Confirm
        open={removing}
        onClose={() => setRemoving(false)}
        title={t`Delete “${template.name}”?`}
        act={t`Delete the template`}
        body={<WhatStays uses={uses.data} error={uses.error} />}
        onAct={async () => (
          await api.delete('templates/{id}', { id: template.id }),
          void refresh(queryClient, 'templates'),
          void navigate('/write/templates')
        )}
      />
    </>
  );
}

function WhatStays({
  uses,
  error,
}: {
  uses: { open: { id: number; name: string }[]; gone: number } | undefined;
  error: unknown;
}) {
  if (error) return <ProblemNote error={error} />;
  if (!uses) return <p>{t`Looking what uses it…`}</p>;
  if (uses.open.length === 0 && uses.gone === 0) return <p>{t`No message came from it.`}</p>;
  const names = uses.open.slice(0, 6).map(({ name }) => `“${name}”`);
  const rest = uses.open.length - names.length;
  return (
    <p>
      {names.length > 0 && (
        <Trans>
          {names.join(', ')}
          {rest > 0 && t` and ${rest} more`} began with it.{' '}
        </Trans>
      )}
      {uses.gone > 0 && (
        <>
          <Plural
            value={uses.gone}
            one="One message that has gone came from it."
            other="# messages that have gone came from it."
          />{' '}
        </>
      )}
      {t`All keep their words.`}
    </p>
  );
}

function About({
  template,
  words,
  mayType,
  lists,
  set,
}: {
  template: TemplateView;
  words: Kept;
  mayType: boolean;
  lists: ListName[];
  set: (part: Partial<Kept>) => void;
}) {
  const known = useId();
  const { data: all = [] } = useQuery(reading('templates'));
  const folders = [...new Set(all.map(({ folder }) => folder).filter(Boolean))];
  return (
    <div className="grid grid-cols-[170px_1fr_auto] gap-3 pb-3 items-end">
      <Labelled label={t`Folder`}>
        <input
          className="input"
          readOnly={!mayType}
          maxLength={60}
          list={known}
          value={words.folder}
          onChange={({ target }) => set({ folder: target.value })}
        />
      </Labelled>
      <datalist id={known}>
        {folders.map((folder) => (
          <option key={folder} value={folder} />
        ))}
      </datalist>
      <Labelled label={t`When to use it`}>
        <input
          className="input"
          readOnly={!mayType}
          maxLength={500}
          value={words.note}
          onChange={({ target }) => set({ note: target.value })}
        />
      </Labelled>
      <label className="flex items-center gap-2 text-ink2">
        <Trans>{KIND_OF_WORDS[template.channel]} for</Trans>
        <AskedFor
          label={t`What permission it asks for`}
          disabled={!mayType}
          value={words}
          lists={lists}
          onChange={set}
        />
      </label>
    </div>
  );
}

function Editor({
  template,
  registry,
  lists,
}: {
  template: TemplateView;
  registry: Registry;
  lists: ListName[];
}) {
  const editable = template.mayChange && !template.archived;
  const [saved, setSaved] = useState<CheckedWords>();
  const found = useQuery(reading('templates/{id}/faults', { id: template.id }));
  const [stamp, setStamp] = useState(template.updatedAt);
  const [drawn, setDrawn] = useState(0);
  const [seesTheirs, setSeesTheirs] = useState(false);
  const [seesVersions, setSeesVersions] = useState(false);
  const [kept, keeper] = useTemplateWords(template, setSaved, setStamp);
  const words = seesTheirs && kept.theirs ? kept.theirs.value : kept.value;
  const mayType = editable && !seesTheirs;
  const set = (part: Partial<Kept>) => keeper.set({ ...keeper.snapshot().value, ...part });
  const redraw = () => setDrawn((old) => old + 1);
  const mend = (fault: MessageFault) => (keeper.set(mendedWords(keeper.snapshot().value, fault)), redraw());
  useTemplateNotes(
    template,
    words,
    saved ?? found.data,
    editable ? SAVE_STATE_WORDS[kept.saveState] : null,
    mend,
    () => setSeesVersions(true),
  );
  return (
    <div className="flex flex-col grow min-h-0">
      <Heading
        page={t`Template: ${words.name}`}
        title={
          <input
            aria-label={t`Name of the template`}
            className="bg-transparent border-b-2 border-transparent hover:border-hair focus:border-ink outline-none w-[340px] max-w-full"
            readOnly={!mayType}
            maxLength={120}
            value={words.name}
            onChange={({ target }) => set({ name: target.value })}
          />
        }
        note={template.archived ? t`Template, archived` : t`Template, ${whoseWords(template)}`}
      >
        <Acts template={template} flush={() => keeper.flush()} />
      </Heading>
      <About template={template} words={words} mayType={mayType} lists={lists} set={set} />
      <NewerVersion
        kept={kept}
        keeper={keeper}
        seesTheirs={seesTheirs}
        onSee={(theirs) => (setSeesTheirs(theirs), redraw())}
      />
      <div className="grid grid-cols-[1fr_minmax(330px,38%)] gap-4 grow min-h-0 max-[1180px]:grid-cols-1 max-[1180px]:grid-rows-[600px_460px] max-[1180px]:min-h-[1076px]">
        <div className="flex flex-col gap-3 min-h-0">
          <WordsEditor
            channel={template.channel}
            words={words}
            registry={registry}
            editable={mayType}
            drawn={drawn}
            set={set}
          />
        </div>
        <TemplatePreview template={template} stamp={stamp} />
      </div>
      <WordVersions
        of="template"
        id={template.id}
        open={seesVersions}
        onClose={() => setSeesVersions(false)}
        onTake={mayType ? (taken) => (set(taken), redraw(), setSeesVersions(false)) : null}
      />
    </div>
  );
}

/** Words that are kept, beside how somebody would read them. */
export default function Template() {
  const id = Number(useParams().id);
  const template = useQuery({ ...reading('templates/{id}', { id }), staleTime: Infinity });
  const names = useQuery(reading('merge-fields'));
  const lists = useLists();
  const registry = useMemo(() => (names.data ? registryOf(names.data) : null), [names.data]);
  if (template.error) return <ProblemNote error={template.error} />;
  if (!template.data || !registry || !lists.data) return <Loading what={t`the template`} />;
  return <Editor key={id} template={template.data} registry={registry} lists={lists.data} />;
}
