import { keyOf } from '../app/reading';
import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { MessageView } from '@goodword/core/contract';
import { isHandedOver } from '@goodword/core/permission';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { useMay, useSession } from '../app/session';
import { Button, Heading, ProblemNote } from '../ui/basics';
import { zoneWords } from '../ui/DayField';
import { PreviewPane } from '../write/PreviewPane';
import { MESSAGE_STATE_WORDS } from './Outgoing';
import { CallsToMake } from './CallsToMake';
import { LettersToPost } from './LettersToPost';
import { hoursOf } from './SpreadOver';
import { groupWords, type Named } from './RecipientPicker';

const HOUR_MS = 3_600_000;

/** Whole seconds until a moment, told anew each second; 0 when it is over. */
function useSecondsTo(moment: string | null): number {
  const left = () => (moment === null ? 0 : Math.max(0, Math.ceil((Date.parse(moment) - Date.now()) / 1000)));
  const [seconds, setSeconds] = useState(left);
  useEffect(() => {
    setSeconds(left());
    const timer = moment === null ? undefined : setInterval(() => setSeconds(left()), 250);
    return () => clearInterval(timer);
  }, [moment]);
  return seconds;
}

/** After how many milliseconds it is asked anew how it stands; null while it can't change by itself. */
function asksEvery({ state, scheduledAt }: MessageView, isTime: boolean): number | null {
  if (state === 'preparing') return 1000;
  if (state !== 'scheduled') return null;
  if (scheduledAt === null) return isTime ? 1000 : null;
  return Date.parse(scheduledAt) - Date.now() < HOUR_MS ? 5000 : null;
}

/**
 * A message that has been sent on its way: when it leaves, to whom and with which words, and the way back
 * while there is one.
 */
export function Leaving({ message, groups }: { message: MessageView; groups: Named }) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const may = useMay('organizer');
  const { timeZone } = useSession().organization;
  const waits = message.state === 'scheduled' && message.scheduledAt === null;
  const isByHand = !isHandedOver(message.channel);
  const seconds = useSecondsTo(waits ? message.leavesAt : null);
  const back = useMutation({
    mutationFn: () => api.post('messages/{id}/unschedule', { id: message.id }),
    onSettled: () => refresh(queryClient, 'messages'),
  });
  const every = asksEvery(message, seconds === 0);
  useEffect(() => {
    if (every === null) return;
    const timer = setInterval(
      () => void queryClient.invalidateQueries({ queryKey: keyOf('messages/{id}', { id: message.id }) }),
      every,
    );
    return () => clearInterval(timer);
  }, [every, message.id]);
  const when = waits
    ? seconds > 0
      ? t`Leaves in ${seconds} seconds`
      : t`Leaves now`
    : message.state === 'scheduled' && message.scheduledAt
      ? message.ownTime
        ? t`Leaves ${format.moment(message.scheduledAt)}, by the clock of each of them`
        : t`Leaves ${format.moment(message.scheduledAt)}, ${zoneWords(timeZone)}`
      : t`It ${MESSAGE_STATE_WORDS[message.state]}`;
  return (
    <div className="flex flex-col grow min-h-0">
      <Heading
        title={message.name}
        page={t`Send: ${message.name}`}
        note={[
          when,
          ...(message.spreadHours === null ? [] : [t`spread over ${hoursOf(message.spreadHours)}`]),
          ...(message.keptShare === null ? [] : [t`${format.percent(message.keptShare / 100)} go without`]),
        ].join(', ')}
      />
      <div className="grid grid-cols-[1fr_minmax(320px,40%)] gap-4 grow min-h-0">
        <section className="sheet p-6 flex flex-col gap-4 items-start" aria-label={t`Who gets it`}>
          <div>
            <h2 className="subtitle pb-1">{waits ? t`Goes to those who were counted` : t`Goes to`}</h2>
            <p>{groupWords(message.recipients, groups)}</p>
            {message.scheduledAt && message.state === 'scheduled' && (
              <p className="text-ink2">
                {message.ownTime
                  ? t`Whoever is in the group when the first of them gets it, and may be written to when it is their turn.`
                  : t`Whoever is in the group when it leaves, and may be written to then.`}
              </p>
            )}
          </div>
          {message.state === 'scheduled' && may && (
            <Button weight="main" disabled={back.isPending} onClick={() => back.mutate()}>
              {waits ? t`Take it back` : t`Take it back from its schedule`}
            </Button>
          )}
          {waits && (
            <p className="text-ink2">{t`Taken back, it is a draft again, and nobody has got a word of it.`}</p>
          )}
          {message.channel === 'post' && message.state !== 'scheduled' && <LettersToPost message={message} />}
          {message.channel === 'call' && message.state !== 'scheduled' && <CallsToMake message={message} />}
          {message.state !== 'scheduled' && (!isByHand || message.state === 'done') && (
            <Link className="link" to={`/hear-back/${message.id}`}>
              {t`See how it goes`}
            </Link>
          )}
          <ProblemNote error={back.error} />
        </section>
        <PreviewPane message={message} stamp={message.updatedAt} />
      </div>
    </div>
  );
}
