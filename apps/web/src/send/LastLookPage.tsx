import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useIsMutating, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import type { LastLook as Look, MessageView, Recipients } from '@goodword/core/contract';
import { isHandedOver, type Channel, type Verdict } from '@goodword/core/permission';
import { verdictWords } from '@goodword/core/words';
import { useMay } from '../app/session';
import { api } from '../app/api';
import { ONE_OF_WORDS } from '../app/channels';
import { useFormat } from '../app/format';
import { Heading, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { PeopleTable } from '../ui/people';
import { PreviewPane } from '../write/PreviewPane';
import { groupWords, RecipientPicker, useGroups } from './RecipientPicker';
import { ComparisonSentence } from '../wordings/ComparisonSentence';
import { savingComparison, useComparison } from '../wordings/useComparison';
import { Down } from './Down';
import { Leaving } from './Leaving';
import { SendBar } from './SendBar';
import { useAheadNotes } from './aheadNotes';
import { useWhen } from './useWhen';
import { useOverlapNotes } from './overlapNotes';
import { useSenderNotes } from './senderNotes';
import { textNotes } from './textNotes';
import { keyOf, reading } from '../app/reading';

/** What stands in the way is told before what does not. */
const FIRST: readonly Note['tone'][] = ['fault', 'doubt', 'plain', 'good'];

function lookNotes(
  look: Look | undefined,
  message: MessageView,
  price: (units: number) => string,
  write: () => void,
): Note[] {
  if (!look) return [];
  const notes: Note[] = look.faults.map((fault, i) => ({
    key: `fault-${i}`,
    tone: 'fault',
    title: t`It can't leave yet`,
    body: fault.message,
    remedy: { words: t`Mend the words`, act: write },
  }));
  for (const doubt of look.doubts)
    notes.push({
      key: doubt,
      tone: 'doubt',
      title: t`Worth a second look`,
      body: doubt,
      remedy: { words: t`Change the words`, act: write },
    });
  for (const hole of look.holes) {
    notes.push({
      key: `hole-${hole.name}`,
      tone: 'fault',
      title: t`${hole.name} is empty for ${hole.people} ${plural(hole.people, { one: 'person', other: 'people' })}`,
      body: t`They would read nothing there.`,
      remedy: { words: t`Write an “or” for it`, act: write },
    });
  }
  if (look.parts !== null && look.texts !== null && look.reached > 0)
    notes.push(...textNotes(look.parts, look.texts, price, write));
  if (!message.testedAt && isHandedOver(message.channel))
    notes.push({
      key: 'test',
      tone: 'doubt',
      title: t`No test has gone to you`,
      body: t`Read it once as they will, in your own mailbox.`,
    });
  for (const words of look.inOrder) notes.push({ key: words, tone: 'good', title: words });
  return notes;
}

/** What is looked at, in one line. */
function lookNote({ campaignId, automationId, channel }: MessageView, asks: string): string {
  if (automationId !== null) return t`A test: ${ONE_OF_WORDS[channel]} for ${asks}, which leaves by itself`;
  if (campaignId !== null)
    return t`Last look: a step of its campaign, to those of the roster whom the plan says`;
  return t`Last look: ${ONE_OF_WORDS[channel]} for ${asks}`;
}

/** Who will get it and why not, and the message as they will. */
function Look({
  seen,
  held,
  channel,
  setOpen,
  data,
}: {
  seen: { look: Look; at: number } | null;
  held: string;
  channel: Channel;
  setOpen: (next: Verdict | null) => void;
  data: MessageView;
}) {
  return (
    <div
      className={
        'grid grid-cols-[1fr_minmax(320px,40%)] gap-4 pt-4 grow min-h-0 ' +
        'max-[900px]:grid-cols-1 max-[900px]:min-h-[1000px]'
      }
    >
      <section className="sheet p-5 overflow-y-auto" aria-label={t`Who will get it`} tabIndex={0}>
        <h2 className="subtitle">{t`Who will get it`}</h2>
        {seen ? (
          <>
            <p className="text-ink2 pb-2">
              {seen.look.group === 0
                ? t`Choose a group above; its people are counted down here.`
                : plural(seen.look.group - seen.look.reached, {
                    0: 'Nobody is held back.',
                    one: 'The one held back has a reason that you can open.',
                    other: `Every one of the ${held} held back has a reason that you can open.`,
                  })}
            </p>
            {seen.look.group > 0 && <Down look={seen.look} channel={channel} onOpen={setOpen} />}
          </>
        ) : (
          <Loading what={t`who will get it`} />
        )}
      </section>
      <PreviewPane message={data} stamp={data.updatedAt} />
    </div>
  );
}

/** The people behind one number of the last look. */
function BehindANumber({
  open,
  setOpen,
  channel,
  id,
  seen,
}: {
  open: Verdict | null;
  setOpen: (next: Verdict | null) => void;
  channel: Channel;
  id: number;
  seen: { look: Look; at: number } | null;
}) {
  return (
    <Drawer
      open={open !== null}
      onClose={() => setOpen(null)}
      wide
      title={open ? verdictWords(open, channel) : ''}
      note={open === 'send' ? undefined : t`Held back from this message`}
    >
      {open && (
        <PeopleTable
          narrow
          label={verdictWords(open, channel)}
          pageKey={[...keyOf('messages/{id}/last-look/people'), id, open, seen?.at]}
          fetch={(after) => api.get('messages/{id}/last-look/people', { id, verdict: open, after })}
        />
      )}
    </Drawer>
  );
}

/**
 * The last look at a message's group, counted one after the other: the group that was chosen last is the one
 * that stays, and the one that is counted.
 */
function useLook(id: number, message: MessageView | undefined) {
  const queryClient = useQueryClient();
  // Kept while the next one is counted, so that nothing jumps.
  const [seen, setSeen] = useState<{ look: Look; at: number } | null>(null);
  const scope = { id: `last-look ${id}` };
  const look = useMutation({
    scope,
    mutationFn: () => api.post('messages/{id}/last-look', { id }),
    onSuccess: (counted) => setSeen({ look: counted, at: Date.now() }),
  });
  // The version of the group that is being changed: of changes in haste each builds on what the one before
  // made.
  const groupVersion = useRef<number | null>(null);
  const saveRecipients = useMutation({
    scope,
    mutationFn: (recipients: Recipients) =>
      api.put('messages/{id}/recipients', {
        id,
        body: {
          ...recipients,
          chosen: recipients.chosen ?? [],
          basedOn: groupVersion.current ?? message!.groupVersion,
        },
      }),
    onMutate: (recipients) =>
      queryClient.setQueryData(
        keyOf('messages/{id}', { id }),
        (old: MessageView | undefined) => old && { ...old, recipients },
      ),
    onSuccess: ({ version }) => ((groupVersion.current = version), look.mutate()),
    // What somebody else chose meanwhile is shown, and counted.
    onError: () => (
      (groupVersion.current = null),
      void queryClient.invalidateQueries({ queryKey: keyOf('messages/{id}', { id }) }),
      look.mutate()
    ),
  });
  return { seen, look, saveRecipients };
}

/** Sent from here it goes on to what becomes of it; opened later it is shown as it is. */
function useGoingOn(id: number, message: MessageView | undefined) {
  const navigate = useNavigate();
  const state = message?.state;
  const sentHere = useRef(false);
  // Letters stay here until somebody has posted them.
  const stays = message?.channel === 'post' && state !== 'done';
  const leaves = message !== undefined && state !== 'draft' && message.scheduledAt === null && !stays;
  useEffect(() => {
    if (state === 'draft' || state === 'scheduled' || stays) sentHere.current = true;
    else if (leaves && sentHere.current) void navigate(`/hear-back/${id}`, { replace: true });
  }, [state, leaves]);
}

/** Recipients, the narrowing down to those who will get it, and the last words before it leaves. */
export default function LastLookPage() {
  const id = Number(useParams().id);
  const navigate = useNavigate();
  const may = useMay('organizer');
  const [open, setOpen] = useState<Verdict | null>(null);
  const message = useQuery(reading('messages/{id}', { id }));
  const groups = useGroups();
  const { seen, look, saveRecipients } = useLook(id, message.data);
  const state = message.data?.state;
  useEffect(() => {
    if (state === 'draft') look.mutate();
  }, [id, state]);
  useGoingOn(id, message.data);
  const format = useFormat();
  const comparison = useComparison(id);
  const isSaving = useIsMutating({ mutationKey: savingComparison(id) }) > 0 || saveRecipients.isPending;
  const senderNotes = useSenderNotes(message.data?.channel === 'email');
  const lookedAt = state === 'draft' ? (seen?.at ?? null) : null;
  const when = useWhen(message.data?.channel);
  const besideNotes = [...useAheadNotes(id, lookedAt, when), ...useOverlapNotes(id, lookedAt)];
  useMargin(
    message.data
      ? [
          ...senderNotes,
          ...lookNotes(
            seen?.look,
            message.data,
            (units) => format.money(Math.round(units * 100)),
            () => void navigate(`/write/${id}`),
          ),
          ...besideNotes,
        ].sort((one, other) => FIRST.indexOf(one.tone) - FIRST.indexOf(other.tone))
      : [],
  );
  if (message.error) return <ProblemNote error={message.error} />;
  if (!message.data || !groups) return <Loading what={t`the message`} />;
  const { data } = message;
  const { channel } = data;
  const asks = data.purpose ?? t`the list ${groups.list.find((list) => list.id === data.listId)?.name ?? ''}`;
  const held = format.number(seen ? seen.look.group - seen.look.reached : 0);
  // Another wording leaves with its message.
  if (data.wordingOf !== null) return <Navigate to={`/send/${data.wordingOf}`} replace />;
  if (data.state !== 'draft') return <Leaving message={data} groups={groups} />;
  return (
    <div className="flex flex-col grow min-h-0">
      <Heading title={data.name} page={t`Send: ${data.name}`} note={lookNote(data, asks)} />
      {data.automationId !== null ? (
        <p className="sheet px-5 py-3 text-[15px]">
          {t`It goes to whoever its automatic message is set going for, one by one.`}{' '}
          {t`Send yourself a test, and switch it on there.`}
        </p>
      ) : may ? (
        <RecipientPicker
          value={data.recipients}
          groups={groups}
          byPost={channel === 'post'}
          ofRoster={data.campaignId !== null}
          onChange={(recipients) => saveRecipients.mutate(recipients)}
        />
      ) : (
        <p className="sheet px-5 py-3 text-[15px]">
          <Trans>It goes to everybody in {groupWords(data.recipients, groups)}.</Trans>
        </p>
      )}
      {comparison && (
        <ComparisonSentence
          comparison={comparison}
          channel={channel}
          people={seen?.look.reached ?? null}
          onChange={() => look.mutate()}
        />
      )}
      <ProblemNote error={saveRecipients.error ?? look.error} />
      {data.automationId === null && (
        <Look seen={seen} held={held} channel={channel} setOpen={setOpen} data={data} />
      )}
      {seen && (
        <SendBar
          message={data}
          look={seen.look}
          when={when}
          counting={look.isPending || isSaving || look.isError}
          onLook={() => look.mutate()}
        />
      )}
      <BehindANumber open={open} setOpen={setOpen} channel={channel} id={id} seen={seen} />
    </div>
  );
}
