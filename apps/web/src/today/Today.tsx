import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { StopTask, TodayView } from '@goodword/core/contract';
import { call, get } from '../app/api';
import { plural, useFormat } from '../app/format';
import { refreshAll } from '../app/refresh';
import { useMay, useSession } from '../app/session';
import { Button, Heading, Loading, Problem } from '../ui/basics';

function Line({ to, count, children, tone = 'plain' }: { to: string; count?: number; children: ReactNode; tone?: 'plain' | 'fault' }) {
  return (
    <li className="flex items-baseline gap-4 border-b border-hair py-3 last:border-0">
      {count !== undefined && (
        <span className={`font-title font-bold text-[20px] w-12 text-right ${tone === 'fault' ? 'text-madder' : ''}`}>{count}</span>
      )}
      <Link to={to} className="link">
        {children}
      </Link>
    </li>
  );
}

function Section({ title, children, nothing }: { title: string; children: ReactNode[]; nothing: string }) {
  const shown = children.flat().filter(Boolean);
  return (
    <section className="sheet p-5">
      <h2 className="subtitle pb-1">{title}</h2>
      {shown.length === 0 ? <p className="text-ink2 py-2">{nothing}</p> : <ul>{shown}</ul>}
    </section>
  );
}

/** Somebody asked to stop in their own words; the channel is held until a person says what was meant. */
function StopLine({ stop }: { stop: StopTask }) {
  const queryClient = useQueryClient();
  const may = useMay('organizer');
  const settle = useMutation({
    mutationFn: (outcome: string) => call('POST', `tasks/${stop.taskId}/settle`, { outcome }),
    onSuccess: () => refreshAll(queryClient),
  });
  return (
    <li className="border-b border-hair py-3 last:border-0">
      <p>
        {stop.supporterId ? (
          <Link className="link" to={`/sort/supporters/${stop.supporterId}`}>
            {stop.name}
          </Link>
        ) : (
          <b>{stop.name}</b>
        )}{' '}
        wrote “{stop.words.slice(0, 160)}” and is held until somebody has read it.
      </p>
      <Problem error={settle.error} />
      {may && (
        <div className="flex gap-2 pt-2">
          <Button disabled={settle.isPending} onClick={() => settle.mutate('meant')}>
            They mean stop
          </Button>
          <Button disabled={settle.isPending} onClick={() => settle.mutate('not-meant')}>
            They don’t
          </Button>
        </div>
      )}
    </li>
  );
}

/** Opens the group behind the number, with a message to it one step away. */
function LapsingLine({ people, days }: { people: number; days: number }) {
  const tree = encodeURIComponent(JSON.stringify({ kind: 'all', rules: [{ kind: 'lapses', channel: 'email', scope: 'appeals', days }] }));
  return (
    <Line to={`/sort/segments/new?name=${encodeURIComponent('Permission lapses soon')}&tree=${tree}`} count={people}>
      {`${plural(people, 'person’s permission lapses', 'people’s permission lapses')} within ${days} days: ask them again while you may`}
    </Line>
  );
}

/** What waits, in the order of the work. */
export default function Today() {
  const { teammate, organization } = useSession();
  const format = useFormat();
  const { data, error, isPending } = useQuery({ queryKey: ['today'], queryFn: () => get<TodayView>('today') });
  if (isPending) return <Loading what="what waits" />;
  if (error) return <Problem error={error} />;
  const today = new Intl.DateTimeFormat(organization.locale, {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    timeZone: organization.timeZone,
  }).format(new Date());
  return (
    <>
      <Heading title={`Good to see you, ${teammate.name.split(' ')[0]}`} note={`${today}, ${organization.name}`} />
      <div className="grid grid-cols-2 gap-4 items-start">
        <Section title="Coming in" nothing="No batch is half done. Bring a file in at Gather.">
          {data.arrived.map((batch) => (
            <Line
              key={`a${batch.id}`}
              to={`/gather/${batch.id}`}
              count={batch.people}
            >{`${plural(batch.people, 'person', 'people')} came in with ${batch.name}`}</Line>
          ))}
          {data.batches.map((batch) => (
            <Line key={batch.id} to={`/gather/${batch.id}`}>{`${batch.name} ${batch.waits}`}</Line>
          ))}
        </Section>
        <Section title="Leaving" nothing="No message is on its way or scheduled.">
          {data.messages.map((message) => (
            <Line
              key={message.id}
              to={`/hear-back/${message.id}`}
            >{`${message.name}: ${message.state}${message.when ? `, leaves ${format.moment(message.when)}` : ''}`}</Line>
          ))}
        </Section>
        <Section title="To answer and to settle" nothing="Every reply has been read, and nothing is unsure.">
          {data.replies > 0 && (
            <Line key="r" to="/hear-back/replies" count={data.replies}>{`${plural(data.replies, 'reply waits', 'replies wait')} for an answer`}</Line>
          )}
          {data.stops.map((stop) => (
            <StopLine key={`s${stop.taskId}`} stop={stop} />
          ))}
          {data.unsure > 0 && (
            <Line
              key="u"
              to={`/hear-back/${data.unsureMessageId ?? ''}`}
              count={data.unsure}
              tone="fault"
            >{`${plural(data.unsure, 'mail', 'mails')} may or may not have gone: settle ${plural(data.unsure, 'it', 'them')}`}</Line>
          )}
        </Section>
        <Section title="On the desk" nothing="Nothing is half written.">
          {data.drafts > 0 && <Line key="d" to="/write" count={data.drafts}>{`${plural(data.drafts, 'draft', 'drafts')} to finish`}</Line>}
          {data.lapsing.people > 0 && <LapsingLine key="l" people={data.lapsing.people} days={data.lapsing.days} />}
          {data.erasures.map((one) => (
            <Line
              key={`e${one.taskId}`}
              to={`/sort/supporters/${one.supporterId}`}
            >{`${one.name || 'Somebody without a name'} asks to be erased, since ${format.day(one.at)}`}</Line>
          ))}
          {data.onHold > 0 && (
            <Line key="h" to="/sort?hold=true" count={data.onHold}>{`${plural(data.onHold, 'person has', 'people have')} an address on hold`}</Line>
          )}
        </Section>
      </div>
    </>
  );
}
