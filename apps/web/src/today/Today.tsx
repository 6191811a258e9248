import type { SettleTaskBody } from '@goodword/core/contract';
import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { LeavingMessage, StopTask } from '@goodword/core/contract';
import { isHandedOver } from '@goodword/core/permission';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { useMay, useSession } from '../app/session';
import { Button, Heading, Loading, ProblemNote } from '../ui/basics';
import { Week } from './Week';
import { whatWaits, type WaitLine } from './waits';
import { reading } from '../app/reading';

const ACT = 'inline-flex items-center rounded-paper border px-4 min-h-[36px] font-semibold whitespace-nowrap';

/** Somebody asked to stop in their own words; the channel is held until a person says what was meant. */
function StopActs({ stop }: { stop: StopTask }) {
  const queryClient = useQueryClient();
  const may = useMay('organizer');
  const settle = useMutation({
    mutationFn: (outcome: SettleTaskBody['outcome']) =>
      api.post('tasks/{id}/settle', { id: stop.taskId, body: { outcome } }),
    onSuccess: () => refresh(queryClient, 'tasks'),
  });
  if (!may) return null;
  return (
    <div className="flex flex-wrap justify-end gap-2">
      <Button disabled={settle.isPending} onClick={() => settle.mutate('meant')}>
        {t`They mean stop`}
      </Button>
      <Button disabled={settle.isPending} onClick={() => settle.mutate('not-meant')}>
        {t`They don’t`}
      </Button>
      <div className="basis-full">
        <ProblemNote error={settle.error} />
      </div>
    </div>
  );
}

function Line({ line, isLate, first }: { line: WaitLine; isLate: boolean; first: boolean }) {
  return (
    <li className="grid grid-cols-[52px_1fr_auto] max-[700px]:grid-cols-[36px_1fr] items-start gap-x-4 gap-y-2 border-b border-hair py-3 last:border-0">
      <span className={`font-title font-bold text-[20px] leading-[24px] ${isLate ? 'text-madder' : ''}`}>
        {line.count}
      </span>
      <div className="min-w-0">
        <p className="break-words">
          <b>{line.what}</b> {line.rest}
          {isLate && <span className="text-madder font-semibold">{t`, late`}</span>}
        </p>
        <p className="text-ink2 text-[12.5px] break-words">
          {line.stop && line.to ? (
            <Link className="link" to={line.to}>
              {line.more}
            </Link>
          ) : (
            line.more
          )}
        </p>
      </div>
      <div className="max-[700px]:col-start-2">
        {line.stop ? (
          <StopActs stop={line.stop} />
        ) : (
          <Link
            to={line.to}
            className={`${ACT} ${first ? 'bg-ink text-white border-ink hover:bg-slate' : 'border-[#8b989d] hover:bg-bench'}`}
            aria-label={`${line.act}: ${line.count} ${line.what} ${line.rest}`}
          >
            {line.act}
          </Link>
        )}
      </div>
    </li>
  );
}

function Nothing() {
  return (
    <div className="py-4 flex flex-col gap-2">
      <p className="font-semibold">{t`Nothing waits for you.`}</p>
      <p className="text-ink2">
        <Trans>
          <Link className="link" to="/gather/new">
            Bring a file in
          </Link>
          ,{' '}
          <Link className="link" to="/write">
            begin a message
          </Link>{' '}
          or{' '}
          <Link className="link" to="/sort">
            look at who is here
          </Link>
          .
        </Trans>
      </p>
    </div>
  );
}

function Done() {
  const format = useFormat();
  const { data } = useQuery(reading('today/done'));
  if (!data) return null;
  const parts = [
    data.answered > 0 &&
      `${format.number(data.answered)} ${plural(data.answered, { one: 'reply', other: 'replies' })} answered`,
    data.sent > 0 &&
      t`${format.number(data.sent)} ${plural(data.sent, { one: 'message', other: 'messages' })} handed over`,
    data.broughtIn > 0 &&
      t`${format.number(data.broughtIn)} ${plural(data.broughtIn, { one: 'person', other: 'people' })} brought in`,
  ].filter(Boolean);
  return (
    <p className="text-ink2 text-[12.5px] pt-3 border-t border-hair">
      {parts.length === 0 ? t`Nothing done yet today.` : t`Done today: ${parts.join(', ')}.`}
    </p>
  );
}

function Leaving({ message }: { message: LeavingMessage }) {
  const format = useFormat();
  const words = {
    scheduled: message.when ? format.moment(message.when) : t`in a moment`,
    preparing: t`is being made ready`,
    posting: t`waits to be posted`,
    calling: t`waits to be called through`,
    sending: t`leaves now`,
    paused: 'paused',
  }[message.state as 'scheduled' | 'preparing' | 'posting' | 'calling' | 'sending' | 'paused'];
  const isOpen = message.state === 'scheduled' || !isHandedOver(message.channel);
  return (
    <li className="border-b border-hair py-3 last:border-0">
      <p className="flex justify-between gap-3">
        <Link
          className="link font-semibold min-w-0 break-words"
          to={isOpen ? `/send/${message.id}` : `/hear-back/${message.id}`}
        >
          {message.name}
        </Link>
        {message.people !== null && <b>{format.number(message.people)}</b>}
      </p>
      <p className="text-ink2 text-[12.5px]">
        <Trans>
          {words}, by {message.channel}
          {message.people !== null && message.state !== 'scheduled'
            ? t`, ${plural(message.people, { one: 'person', other: 'people' })} to go`
            : ''}
        </Trans>
      </p>
    </li>
  );
}

/** The desk of the morning: one list of what waits, what leaves, what the week brought. */
export default function Today() {
  const { organization } = useSession();
  const format = useFormat();
  const { data, error, isPending, dataUpdatedAt } = useQuery(reading('today'));
  if (isPending) return <Loading what={t`what waits`} />;
  if (error) return <ProblemNote error={error} />;
  const long = { weekday: 'long', day: 'numeric', month: 'long', timeZone: organization.timeZone } as const;
  const day = new Intl.DateTimeFormat(organization.locale, long).format(new Date(dataUpdatedAt));
  const waits = whatWaits(data, dataUpdatedAt, format);
  const late = waits.filter(({ isLate }) => isLate).length;
  const note =
    waits.length === 0
      ? t`nothing waits`
      : `${waits.length} ${plural(waits.length, { one: 'thing waits', other: 'things wait' })}`;
  return (
    <>
      <Heading title={day} page={t`Today`} note={late > 0 ? t`${note}, ${late} late` : note} />
      <div className="grid grid-cols-[minmax(0,1fr)_320px] max-[900px]:grid-cols-1 gap-4 items-start">
        <section className="sheet p-5" aria-labelledby="waits">
          <h2 id="waits" className="subtitle pb-2 border-b border-ink">
            {t`What waits, the most pressing first`}
          </h2>
          {waits.length === 0 ? (
            <Nothing />
          ) : (
            <ul>
              {waits.map(({ of, isLate }, i) => (
                <Line key={of.key} line={of} isLate={isLate} first={i === 0} />
              ))}
            </ul>
          )}
          <Done />
        </section>
        <div className="flex flex-col gap-4">
          <section className="sheet p-5" aria-labelledby="leaves">
            <h2 id="leaves" className="subtitle pb-2 border-b border-ink">
              {t`What leaves`}
            </h2>
            {data.messages.length === 0 ? (
              <p className="text-ink2 pt-3">{t`No message is on its way.`}</p>
            ) : (
              <ul>
                {data.messages.map((message) => (
                  <Leaving key={message.id} message={message} />
                ))}
              </ul>
            )}
          </section>
          <section className="sheet p-5" aria-labelledby="week">
            <h2 id="week" className="subtitle pb-2 border-b border-ink mb-1">
              {t`This week, and usually`}
            </h2>
            <Week />
          </section>
        </div>
      </div>
    </>
  );
}
