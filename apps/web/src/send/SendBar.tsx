import type { UseMutationResult } from '@tanstack/react-query';
import { keyOf } from '../app/reading';
import { t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { LastLook as Look, MessageView } from '@goodword/core/contract';
import { hoursWords } from '@goodword/core/words';
import { withinHours } from '@goodword/core/schedule';
import { isHandedOver } from '@goodword/core/permission';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { useMay, useSession } from '../app/session';
import { Button, ProblemNote } from '../ui/basics';
import { LetterPageLink } from '../write/LetterPageLink';
import { letterStart } from '../write/letterStart';
import { OwnTimes } from './OwnTimes';
import { SecondPair } from './SecondPair';
import { useComparison } from '../wordings/useComparison';
import { aboutKept, KeptWithout, WithoutWords } from './KeptWithout';
import { hoursOf, SpreadOver } from './SpreadOver';
import { TestToOthers } from './TestToOthers';
import type { WhenChosen } from './useWhen';
import { MomentField } from '../ui/DayField';

/** From so many people on it is asked once more before it leaves. */
const MANY = 25;

/** What a reader sees first: the subject, or the first line of a text or a letter. */
const firstLine = ({ channel, subject, text, letter }: MessageView) =>
  channel === 'email' ? subject : channel === 'post' ? letterStart(letter) : text.split('\n')[0]!;

/** What they read first; of several wordings each, and how many get one of them before the others. */
function WordsThatLeave({ message }: { message: MessageView }) {
  const format = useFormat();
  const comparison = useComparison(message.id);
  if (!comparison) return <>“{firstLine(message)}”</>;
  const all = comparison.wordings.map(({ subject, name }) => `“${subject || name}”`).join(t` or `);
  const share = format.percent(comparison.share / 100);
  return (
    <>
      {comparison.share === 100
        ? t`${all}, by lot.`
        : t`${all}, by lot, for ${share} of them; the rest once the better one is known.`}
    </>
  );
}

function BeforeItLeaves({
  people,
  whom,
  look,
  message,
  when: { at, ownTime, spreadHours, keptShare },
  setSure,
  ready,
  send,
}: {
  people: string;
  /** How many it leaves to, where some are kept without it. */
  whom: string;
  look: Look;
  message: MessageView;
  when: WhenChosen;
  setSure: (next: string | null) => void;
  ready: boolean;
  send: UseMutationResult<void, Error, void, unknown>;
}) {
  const format = useFormat();
  const kept = format.number(aboutKept(look.reached, keptShare));
  return (
    <section className="sheet p-4 mb-3 flex items-center gap-4" aria-label={t`Before it leaves`}>
      <p className="grow">
        <b>
          <Trans>
            {people} <Plural value={look.reached} one="person gets" other="people get" /> this by{' '}
            {message.channel}
            {at ? t` on ${format.moment(at)}` : t` now`}
            {at && ownTime ? t`, by their own clocks` : ''}
            {spreadHours === null ? '' : t`, spread over ${hoursOf(spreadHours)}`}
            {keptShare === null ? '' : t`, less about ${kept} drawn by lot`}:
          </Trans>
        </b>{' '}
        <WordsThatLeave message={message} />
      </p>
      <Button autoFocus onClick={() => setSure(null)}>
        {t`Not yet`}
      </Button>
      <Button weight="main" disabled={!ready} onClick={() => send.mutate()}>
        {at ? t`Yes, schedule it for ${whom}` : sureWords(message.channel, whom)}
      </Button>
    </section>
  );
}

/** A step of a campaign, and one of an automatic message, leave with that. */
const leavesAlone = ({ campaignId, automationId }: MessageView) =>
  campaignId === null && automationId === null;

function LeavesWith({ message: { campaignId, automationId } }: { message: MessageView }) {
  if (campaignId !== null)
    return (
      <Link className="link ml-auto" to={`/send/campaigns/${campaignId}`}>
        {t`It leaves with its campaign: set it going there`}
      </Link>
    );
  return automationId === null ? null : (
    <Link className="link ml-auto" to={`/send/automatic/${automationId}`}>
      {t`It leaves by itself: switch it on there`}
    </Link>
  );
}

function SendActs({
  message,
  test,
  when,
  setSure,
  asking,
  ready,
  look,
  send,
  words,
}: {
  message: MessageView;
  test: UseMutationResult<{ to: string }, Error, void, unknown>;
  when: WhenChosen;
  setSure: (next: string | null) => void;
  asking: boolean;
  ready: boolean;
  look: Look;
  send: UseMutationResult<void, Error, void, unknown>;
  words: string;
}) {
  const navigate = useNavigate();
  const may = useMay('organizer');
  const { at, setAt, ownTime, setOwnTime, setUnread } = when;
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Button onClick={() => void navigate(`/write/${message.id}`)}>{t`Back to writing`}</Button>
      {message.channel === 'post' && <LetterPageLink id={message.id} />}
      {isHandedOver(message.channel) && (
        <Button disabled={test.isPending} onClick={() => test.mutate()}>
          {test.isPending ? t`Sending the test…` : t`Send me a test`}
        </Button>
      )}
      {isHandedOver(message.channel) && <TestToOthers message={message} />}
      {test.data && (
        <span role="status" className="text-ink2">
          <Trans>Sent to {test.data.to}</Trans>
        </span>
      )}
      {may && <LeavesWith message={message} />}
      {may && leavesAlone(message) && (
        <span className="ml-auto flex items-center gap-3">
          <span className="flex items-center gap-2 text-ink2">
            {t`Leaves`}{' '}
            <MomentField
              label={t`When it leaves`}
              value={at}
              onChange={(next) => (setAt(next), setSure(null))}
              onUnread={setUnread}
            />
          </span>
          {at !== '' && (
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={ownTime}
                onChange={({ target }) => (setOwnTime(target.checked), setSure(null))}
              />
              {t`where each of them is`}
            </label>
          )}
          {isHandedOver(message.channel) && <SpreadOver when={when} onChange={() => setSure(null)} />}
          {isHandedOver(message.channel) && <KeptWithout when={when} onChange={() => setSure(null)} />}
          {/* It keeps its place while it is asked once more: a second click hits nothing that moved there. */}
          <Button
            weight="main"
            className={asking ? 'invisible' : undefined}
            aria-hidden={asking}
            disabled={!ready || asking}
            onClick={() => (look.reached > MANY ? setSure(look.digest) : send.mutate())}
          >
            {words}
          </Button>
        </span>
      )}
    </div>
  );
}

/** What is said below the button: when it leaves, to whom, and what can still be done. */
function leavingWords(
  { unread, past, indecent, at, ownTime }: WhenChosen & { indecent: boolean },
  look: Look,
  channel: MessageView['channel'],
): string {
  if (unread)
    return t`When it leaves can’t be read. Write a day such as “in 3 days”, or none to send it now.`;
  if (past) return t`That time is over already. Choose a later one, or none to send it now.`;
  if (indecent)
    return t`Nothing arrives at that hour: it waits for ${hoursWords(look.hours)} where each person is.`;
  if (ownTime)
    return t`Whoever is in the group when the first of them gets it. Until then it can be taken back, and be stopped after it.`;
  if (at) return t`Whoever is in the group then gets it. Until then it can be taken back.`;
  if (channel === 'post')
    return t`No time set: laid out now, for those counted here. They leave when you post them.`;
  if (channel === 'call') return t`No time set: the list to call is made now, of those counted here.`;
  return t`No time set: it leaves now, to those counted here. Until the last one has left, it can be paused and stopped.`;
}

/** What the button does where no time is set. */
function nowWords(channel: MessageView['channel'], people: string): string {
  if (channel === 'post') return t`Lay out ${people}`;
  return channel === 'call' ? t`Make the list of ${people}` : t`Send now to ${people}`;
}

/** The same, when it is asked once more. */
function sureWords(channel: MessageView['channel'], people: string): string {
  if (channel === 'post') return t`Yes, lay out ${people}`;
  return channel === 'call' ? t`Yes, make the list of ${people}` : t`Yes, send it to ${people}`;
}

/** Whether somebody gets it, its words are in order, it was tested, and agreed to where that is wanted. */
const isInOrder = ({ reached, faults, second }: Look, { testedAt, channel }: MessageView) =>
  reached > 0 &&
  faults.length === 0 &&
  (testedAt !== null || !isHandedOver(channel)) &&
  (second === null || second.holds);

/**
 * What is still to be done before a message leaves, and the way out: with the number that was seen, or not at
 * all.
 */
export function SendBar({
  message,
  look,
  when,
  counting,
  onLook,
}: {
  message: MessageView;
  look: Look;
  when: WhenChosen;
  counting: boolean;
  onLook: () => void;
}) {
  const queryClient = useQueryClient();
  const format = useFormat();
  const { timeZone } = useSession().organization;
  const { at, ownTime, spreadHours, keptShare, unread, past } = when;
  // The look that was asked about: a count that comes while it is being asked makes it be asked anew.
  const [sure, setSure] = useState<string | null>(null);
  const asking = sure === look.digest && !counting;
  const test = useMutation({
    mutationFn: () => api.post('messages/{id}/test', { id: message.id, body: { asId: null, listId: null } }),
    onSuccess: () => (
      void queryClient.invalidateQueries({ queryKey: keyOf('messages/{id}', { id: message.id }) }),
      onLook()
    ),
  });
  const send = useMutation({
    mutationFn: () =>
      api.post('messages/{id}/send', {
        id: message.id,
        body: { at: at || null, ownTime, spreadHours, keptShare, digest: look.digest },
      }),
    onSuccess: () => void refresh(queryClient, 'messages'),
    onError: () => (setSure(null), onLook()),
  });
  const second = useMutation({
    mutationFn: () => api.post('messages/{id}/second', { id: message.id, body: { digest: look.digest } }),
    onSettled: onLook,
  });
  const indecent = at !== '' && look.hours !== null && !withinHours(look.hours, [timeZone], Date.parse(at));
  const ready = isInOrder(look, message) && !past && !unread && !counting && !send.isPending;
  const people = format.number(look.reached);
  const going = format.number(look.reached - aboutKept(look.reached, keptShare));
  const whom = keptShare === null ? people : t`about ${going}`;
  const now = nowWords(message.channel, whom);
  const words = counting ? t`Counting…` : unread ? t`Say when` : at ? t`Schedule for ${whom}` : now;
  return (
    <div className="pt-3">
      <ProblemNote error={send.error ?? test.error ?? second.error} />
      <SecondPair look={look} agree={second} />
      {asking && (
        <BeforeItLeaves
          people={people}
          whom={whom}
          look={look}
          message={message}
          when={when}
          setSure={setSure}
          ready={ready}
          send={send}
        />
      )}
      {ownTime && !past && <OwnTimes id={message.id} at={at} look={look.digest} />}
      <SendActs
        message={message}
        test={test}
        when={when}
        setSure={setSure}
        asking={asking}
        ready={ready}
        look={look}
        send={send}
        words={words}
      />
      <p className="text-ink3 text-[12.5px] text-right pt-1" role="status">
        {leavesAlone(message) && leavingWords({ ...when, indecent }, look, message.channel)}
      </p>
      <WithoutWords reached={look.reached} share={keptShare} />
    </div>
  );
}
