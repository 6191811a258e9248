import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { LastLook as Look, MessageView, Page, Recipients, SupporterRow } from '@goodword/core/contract';
import { VERDICT_WORDS, type Verdict } from '@goodword/core/permission';
import { call, get, query } from '../app/api';
import { plural, useFormat } from '../app/format';
import { useMay, useSession } from '../app/session';
import { Button, Heading, Loading, Problem } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { PeopleTable } from '../ui/people';
import { PreviewPane } from '../write/PreviewPane';
import { RecipientPicker, useGroups } from './RecipientPicker';
import { refreshAll } from '../app/refresh';

const HINTS: Partial<Record<Verdict, string>> = {
  'said-no': 'permission ledger',
  'no-permission': 'permission ledger',
  asked: 'permission ledger',
  'on-hold': 'until somebody looks at the address',
  'shared-address': 'one copy per address',
  'do-not-contact': 'house rules',
};
const DOUBTS: readonly Verdict[] = ['shared-address', 'asked'];

/** The drawing of the last look: the group as a full bar, what each reason takes away, what is left. */
function Down({ look, channel, onOpen }: { look: Look; channel: string; onOpen: (verdict: Verdict) => void }) {
  const format = useFormat();
  const width = (people: number) => `${look.group === 0 ? 0 : (people / look.group) * 100}%`;
  let left = look.group;
  return (
    <div className="flex flex-col">
      <div className="grid grid-cols-[1fr_230px_80px] gap-3 items-center border-t border-hair py-3">
        <p className="font-semibold">In the group</p>
        <div className="h-5 bg-slate rounded-[2px]" aria-hidden="true" />
        <b className="font-title text-[19px] text-right">{format.number(look.group)}</b>
      </div>
      {look.held.map(({ reason, people }) => {
        left -= people;
        return (
          <div key={reason} className="grid grid-cols-[1fr_230px_80px] gap-3 items-center border-t border-hair py-[9px]">
            <div>
              <p className="font-semibold">{VERDICT_WORDS[reason]}</p>
              {HINTS[reason] && <p className="text-ink2 text-[12px]">{HINTS[reason]}</p>}
            </div>
            <div className="h-5 relative border-b border-[#b6c7c2]" aria-hidden="true">
              <div
                className={`absolute h-5 rounded-[2px] min-w-[3px] ${DOUBTS.includes(reason) ? 'bg-ochremark' : 'bg-madder'}`}
                style={{ left: width(left), width: width(people) }}
              />
            </div>
            <button
              className="link text-right text-[15px]"
              onClick={() => onOpen(reason)}
              aria-label={`${people} held back: ${VERDICT_WORDS[reason]}. See them`}
            >
              −{format.number(people)}
            </button>
          </div>
        );
      })}
      <div className="grid grid-cols-[1fr_230px_80px] gap-3 items-center border-t border-ink py-3">
        <p className="font-semibold">Will get it by {channel}</p>
        <div className="h-5" aria-hidden="true">
          <div className="h-5 bg-verdigris rounded-[2px]" style={{ width: width(look.reached) }} />
        </div>
        <button
          className="link font-title font-bold text-[19px] text-right"
          onClick={() => onOpen('send')}
          aria-label={`${look.reached} will get it. See them`}
        >
          {format.number(look.reached)}
        </button>
      </div>
    </div>
  );
}

function lookNotes(look: Look | undefined, message: MessageView, write: () => void): Note[] {
  if (!look) return [];
  const notes: Note[] = look.faults.map((fault, i) => ({
    key: `fault-${i}`,
    tone: 'fault',
    title: "It can't leave yet",
    body: fault.message,
    remedy: { words: 'Mend the words', act: write },
  }));
  for (const hole of look.holes) {
    notes.push({
      key: `hole-${hole.name}`,
      tone: 'fault',
      title: `${hole.people} ${plural(hole.people, 'person has', 'people have')} no ${hole.name}`,
      body: 'They would read a hole.',
      remedy: { words: 'Write an “or” for it', act: write },
    });
  }
  if (look.parts !== null && look.reached > 0)
    notes.push({
      key: 'parts',
      tone: look.parts > look.reached ? 'doubt' : 'good',
      title: `${look.parts} text ${plural(look.parts, 'part', 'parts')} in all`,
      body: look.parts > look.reached ? `${(look.parts / look.reached).toFixed(1)} a person on average.` : 'One part each.',
    });
  if (!message.testedAt)
    notes.push({ key: 'test', tone: 'doubt', title: 'No test has gone to you', body: 'Read it once as they will, in your own mailbox.' });
  for (const words of look.inOrder) notes.push({ key: words, tone: 'good', title: words });
  return notes;
}

function SendBar({ message, look, onLook }: { message: MessageView; look: Look; onLook: () => void }) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const format = useFormat();
  const may = useMay('organizer');
  const { organization } = useSession();
  const [at, setAt] = useState('');
  const test = useMutation({
    mutationFn: () => call<{ to: string }>('POST', `messages/${message.id}/test`),
    onSuccess: () => (void queryClient.invalidateQueries({ queryKey: ['message', message.id] }), onLook()),
  });
  const send = useMutation({
    mutationFn: () => call('POST', `messages/${message.id}/send`, { at: at ? new Date(at).toISOString() : null, expected: look.reached }),
    onSuccess: () => (void refreshAll(queryClient), void navigate(at ? '/send' : `/hear-back/${message.id}`)),
  });
  const second = useMutation({
    mutationFn: () => call('POST', `messages/${message.id}/second`),
    onSuccess: onLook,
  });
  const ready = look.reached > 0 && look.faults.length === 0 && message.testedAt !== null;
  return (
    <div className="pt-3">
      <Problem error={send.error ?? test.error ?? second.error} />
      {look.asks.length > 0 && !look.seconded && (
        <p className="pb-3 text-ochre">
          <b>A service message that asks</b> (“{look.asks.join('”, “')}”) goes to people who said no to that. Make it an appeal, or let somebody else
          read it.{' '}
          {may && (
            <button className="link" disabled={second.isPending} onClick={() => second.mutate()}>
              I have read it, and another may send it
            </button>
          )}
        </p>
      )}
      <div className="flex items-center gap-3">
        <Button onClick={() => void navigate(`/write/${message.id}`)}>Back to writing</Button>
        <Button disabled={test.isPending} onClick={() => test.mutate()}>
          {test.isPending ? 'Sending the test…' : 'Send me a test'}
        </Button>
        {test.data && (
          <span role="status" className="text-ink2">
            Sent to {test.data.to}
          </span>
        )}
        <span className="grow" />
        {may && (
          <>
            <label className="flex items-center gap-2 text-ink2">
              Leaves
              <input
                type="datetime-local"
                className="input !w-auto"
                aria-label={`When it leaves, your time; empty for now. The organization is in ${organization.timeZone}`}
                value={at}
                onChange={(event) => setAt(event.target.value)}
              />
            </label>
            <Button weight="main" disabled={!ready || send.isPending} onClick={() => send.mutate()}>
              {at ? `Schedule for ${format.number(look.reached)}` : `Send now to ${format.number(look.reached)}`}
            </Button>
          </>
        )}
      </div>
      {!at && (
        <p className="text-ink3 text-[12.5px] text-right pt-1">
          No time set: it leaves at once. Until the last one has left, it can be paused and stopped.
        </p>
      )}
    </div>
  );
}

/** Recipients, the narrowing down to those who will get it, and the last words before it leaves. */
export default function LastLook() {
  const id = Number(useParams().id);
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const [open, setOpen] = useState<Verdict | null>(null);
  const message = useQuery({ queryKey: ['message', id], queryFn: () => get<MessageView>(`messages/${id}`) });
  const groups = useGroups();
  // Kept while the next one is counted, so that nothing jumps.
  const [seen, setSeen] = useState<{ look: Look; at: number } | null>(null);
  // One after the other: the group that was chosen last is the one that stays, and the one that is counted.
  const scope = { id: `last look ${id}` };
  const look = useMutation({
    scope,
    mutationFn: () => call<Look>('POST', `messages/${id}/last-look`),
    onSuccess: (counted) => setSeen({ look: counted, at: Date.now() }),
  });
  const saveRecipients = useMutation({
    scope,
    mutationFn: (recipients: Recipients) => call('PUT', `messages/${id}/recipients`, recipients),
    onMutate: (recipients) => queryClient.setQueryData(['message', id], (old: MessageView | undefined) => old && { ...old, recipients }),
    onSuccess: () => look.mutate(),
    onError: () => queryClient.invalidateQueries({ queryKey: ['message', id] }),
  });
  const unschedule = useMutation({ mutationFn: () => call('POST', `messages/${id}/unschedule`), onSuccess: () => refreshAll(queryClient) });
  const state = message.data?.state;
  useEffect(() => {
    if (state === 'draft') look.mutate();
  }, [id, state]);
  const format = useFormat();
  useMargin(message.data ? lookNotes(seen?.look, message.data, () => void navigate(`/write/${id}`)) : []);
  if (message.error) return <Problem error={message.error} />;
  if (!message.data || !groups) return <Loading what="the message" />;
  const { data } = message;
  const channel = data.channel === 'email' ? 'email' : 'text';
  const asks = data.purpose ?? `the list ${groups.list.find((list) => list.id === data.listId)?.name ?? ''}`;
  if (data.state !== 'draft') {
    return (
      <>
        <Heading
          title={data.name}
          note={data.state === 'scheduled' && data.scheduledAt ? `Leaves ${format.moment(data.scheduledAt)}` : `It is ${data.state}`}
        />
        <div className="sheet p-6 flex gap-3 items-center">
          {data.state === 'scheduled' ? (
            <Button weight="main" onClick={() => unschedule.mutate()}>
              Take it back from its schedule
            </Button>
          ) : (
            <Link className="link" to={`/hear-back/${id}`}>
              See how it goes
            </Link>
          )}
          <Problem error={unschedule.error} />
        </div>
      </>
    );
  }
  return (
    <div className="flex flex-col grow min-h-0">
      <Heading title={data.name} note={`Last look: ${data.channel === 'email' ? 'an email' : 'a text'} for ${asks}`} />
      <RecipientPicker value={data.recipients} groups={groups} onChange={(recipients) => saveRecipients.mutate(recipients)} />
      <Problem error={saveRecipients.error ?? look.error} />
      <div className="grid grid-cols-[1fr_minmax(320px,40%)] gap-4 pt-4 grow min-h-0">
        <section className="sheet p-5 overflow-y-auto" aria-label="Who will get it" tabIndex={0}>
          <h2 className="subtitle">Who will get it</h2>
          {seen ? (
            <>
              <p className="text-ink2 pb-2">
                {seen.look.group === 0
                  ? 'Choose a group above; its people are counted down here.'
                  : `Every one of the ${format.number(seen.look.group - seen.look.reached)} held back has a reason that you can open.`}
              </p>
              {seen.look.group > 0 && <Down look={seen.look} channel={channel} onOpen={setOpen} />}
            </>
          ) : (
            <Loading what="who will get it" />
          )}
        </section>
        <PreviewPane message={data} stamp={data.updatedAt} />
      </div>
      {seen && <SendBar message={data} look={seen.look} onLook={() => look.mutate()} />}
      <Drawer
        open={open !== null}
        onClose={() => setOpen(null)}
        wide
        title={open ? VERDICT_WORDS[open] : ''}
        note={open === 'send' ? undefined : 'Held back from this message'}
      >
        {open && (
          <PeopleTable
            narrow
            label={VERDICT_WORDS[open]}
            pageKey={['held', id, open, seen?.at]}
            fetch={(after) => get<Page<SupporterRow>>(`messages/${id}/last-look/people${query({ verdict: open, after })}`)}
          />
        )}
      </Drawer>
    </div>
  );
}
