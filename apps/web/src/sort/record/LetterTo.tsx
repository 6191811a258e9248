import type { PersonalMessageBody } from '@goodword/core/contract';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { RecordView, ThreadView } from '@goodword/core/contract';
import type { LetterDoc } from '@goodword/core/letter';
import { registryOf, type Registry } from '@goodword/core/merge';
import { PURPOSES, type Purpose, type SendingChannel } from '@goodword/core/permission';
import { api } from '../../app/api';
import { useTyped } from '../../app/drafting';
import { refresh } from '../../app/refresh';
import { Button, Labelled, Loading, ProblemNote } from '../../ui/basics';
import { personName } from '../../ui/people';
import { LetterEditor } from '../../write/LetterEditor';
import { MergeField } from '../../write/MergeField';
import { TextEditor } from '../../write/TextEditor';
import { BeginWith, type BegunFrom } from '../../write/templates/BeginWith';
import { beginningWords } from '../../write/templates/beginningWords';
import { answerSubject, BLANK_SUBJECT, blankLetter, startFrom, type PersonalWords } from './personal';
import { reading } from '../../app/reading';

const PURPOSE_HINTS: Record<Purpose, string> = {
  news: t`what is going on`,
  appeals: t`anything that asks`,
  volunteering: t`help with hands`,
  service: t`about something they did themselves`,
};

/** What the message would meet, said before it is written: the same verdict as for any other. */
function Verdict({ id, channel, purpose }: { id: number; channel: SendingChannel; purpose: Purpose }) {
  const { data, error } = useQuery({
    ...reading('supporters/{id}/may-write', { id, channel, purpose }),
    staleTime: 0,
  });
  if (error) return <ProblemNote error={error} />;
  if (!data) return <p className="text-ink2">{t`Looking in the ledger…`}</p>;
  const may = data.verdict === 'send';
  return (
    <p role="status" className={`border-l-[3px] pl-3 ${may ? 'border-verdigris' : 'border-madder'}`}>
      <b className={may ? 'text-verdigris' : 'text-madder'}>{data.words}</b>
      <span className="text-ink2">{may ? t`, at ${data.to ?? ''}` : data.to ? `: ${data.to}` : ''}</span>
    </p>
  );
}

function Words({
  words,
  registry,
  version,
  set,
}: {
  words: PersonalWords;
  registry: Registry;
  version: number;
  set: (part: Partial<PersonalWords>) => void;
}) {
  if (words.channel === 'text')
    return <TextEditor value={words.text} registry={registry} editable onChange={(text) => set({ text })} />;
  return (
    <>
      <Labelled label={t`Subject`}>
        <MergeField
          className="input"
          beside="line"
          registry={registry}
          maxLength={200}
          value={words.subject}
          onChange={(subject) => set({ subject })}
        />
      </Labelled>
      <div className="flex flex-col min-h-[320px]">
        <LetterEditor
          key={version}
          value={words.letter}
          registry={registry}
          editable
          onChange={(letter: LetterDoc) => set({ letter })}
        />
      </div>
    </>
  );
}

function ChannelAndPurpose({
  words,
  set,
  begun,
  onBegin,
}: {
  words: PersonalMessageBody;
  set: (part: Partial<PersonalWords>) => void;
  begun: string | null;
  onBegin: (beginning: BegunFrom) => void;
}) {
  return (
    <div className="grid grid-cols-3 gap-3">
      <Labelled label={t`By`}>
        <select
          className="input"
          value={words.channel}
          onChange={(event) => set({ channel: event.target.value as SendingChannel })}
        >
          <option value="email">{t`email`}</option>
          <option value="text">{t`text`}</option>
        </select>
      </Labelled>
      <Labelled label={t`For`}>
        <select
          className="input"
          value={words.purpose}
          onChange={(event) => set({ purpose: event.target.value as Purpose })}
        >
          {PURPOSES.map((purpose) => (
            <option key={purpose} value={purpose}>
              {purpose}: {PURPOSE_HINTS[purpose]}
            </option>
          ))}
        </select>
      </Labelled>
      <BeginWith key={words.channel} channel={words.channel} chosen={begun} withMessages onChoose={onBegin} />
    </div>
  );
}

/** What is answered: a reply of theirs, and the newest message of ours that the writer has seen. */
export interface Answering {
  reply: Pick<ThreadView, 'replyId' | 'channel' | 'subject' | 'message'>;
  after: number | null;
  onSent: () => void;
}

/** A message to one person, written and sent from here: from their record, or to answer what they wrote. */
export function LetterTo({ record, answers }: { record: RecordView; answers?: Answering }) {
  const names = useQuery(reading('merge-fields'));
  const registry = useMemo(() => (names.data ? registryOf(names.data) : null), [names.data]);
  if (!registry)
    return names.error ? <ProblemNote error={names.error} /> : <Loading what={t`the merge fields`} />;
  return <Letter key={record.id} record={record} registry={registry} answers={answers} />;
}

function Letter({
  record,
  registry,
  answers,
}: {
  record: RecordView;
  registry: Registry;
  answers: Answering | undefined;
}) {
  const queryClient = useQueryClient();
  const [version, setVersion] = useState(0);
  const usual = record.contactPoints.some(({ kind }) => kind === 'email') ? 'email' : 'text';
  const draft = useTyped<PersonalWords>(answers ? `answer:${record.id}` : `letter:${record.id}`, {
    channel: answers?.reply.channel ?? usual,
    // An answer to what they asked is about something they did themselves.
    purpose: answers ? 'service' : 'news',
    subject: answers ? answerSubject(answers.reply) : BLANK_SUBJECT,
    letter: blankLetter(),
    text: '',
  });
  const words = draft.value;
  // The editor of the letter speaks from an earlier drawing of this page.
  const now = useRef(words);
  now.current = words;
  const put = (next: PersonalWords) => {
    now.current = next;
    draft.set(next);
  };
  const set = (part: Partial<PersonalWords>) => put({ ...now.current, ...part });
  const [begun, setBegun] = useState<string | null>(null);
  const begin = useMutation({
    mutationFn: (beginning: BegunFrom) => beginningWords(beginning),
    onSuccess: ({ name, words: found, templateId }) => {
      put({ ...startFrom(now.current, found), templateId });
      setBegun(name);
      setVersion((old) => old + 1);
    },
  });
  const send = useMutation({
    mutationFn: () =>
      api.post('supporters/{id}/messages', { id: record.id, body: { ...words, ...answering(answers) } }),
    // Somebody answered meanwhile: what they wrote is to be seen before this is sent once more.
    onError: () => answers && void refresh(queryClient, 'replies'),
    // It leaves within seconds, and stands on the record then.
    onSuccess: () => {
      draft.discard();
      answers?.onSent();
      [500, 2000, 5000, 12_000].forEach((after) =>
        setTimeout(() => void refresh(queryClient, 'supporters'), after),
      );
    },
  });
  const name = personName(record);
  if (send.data)
    return (
      <div className="sheet p-5">
        <p className="subtitle">
          <Trans>It is on its way to {name}.</Trans>
        </p>
        <p className="text-ink2 pt-1">
          <Trans>
            It stands on the record as soon as it has left.{' '}
            <Link className="link" to={`/hear-back/${send.data.id}`}>
              What became of it
            </Link>
          </Trans>
        </p>
      </div>
    );
  return (
    <form
      className="sheet p-5 flex flex-col gap-4 overflow-y-auto"
      onSubmit={(event) => (event.preventDefault(), send.mutate())}
    >
      <ChannelAndPurpose words={words} set={set} begun={begun} onBegin={(one) => begin.mutate(one)} />
      <ProblemNote error={begin.error} />
      <Verdict id={record.id} channel={words.channel} purpose={words.purpose} />
      <Words words={words} registry={registry} version={version} set={set} />
      <ProblemNote error={send.error} />
      <Button type="submit" weight="main" className="self-start" disabled={send.isPending}>
        <Trans>Send it to {name}</Trans>
      </Button>
    </form>
  );
}

const answering = (answers: Answering | undefined): Pick<PersonalMessageBody, 'answers'> =>
  answers ? { answers: { replyId: answers.reply.replyId, after: answers.after } } : {};
