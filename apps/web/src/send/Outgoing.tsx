import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { MessageState, MessageView } from '@goodword/core/contract';
import { KIND_OF_WORDS } from '../app/channels';
import { useFormat } from '../app/format';
import { Empty, Heading, Loading, ProblemNote } from '../ui/basics';
import { reading } from '../app/reading';
import { AutomaticMessages } from '../automatic/AutomaticMessages';

export const MESSAGE_STATE_WORDS: Record<MessageState, string> = {
  draft: t`being written`,
  scheduled: 'leaves',
  preparing: t`is being made ready`,
  posting: t`waits to be posted`,
  calling: t`waits to be called through`,
  standing: t`leaves by itself`,
  sending: t`is leaving`,
  paused: t`is paused`,
  stopped: t`was stopped`,
  done: t`has left`,
};

/** Letters are made ready and posted from their own page. */
const isBeingLaidOut = ({ channel, state }: MessageView) => channel === 'post' && state === 'preparing';

/** Open campaigns, each with its plan. */
function PlannedCampaigns() {
  const format = useFormat();
  const { data = [] } = useQuery(reading('campaigns'));
  const open = data.filter(({ isOpen }) => isOpen);
  if (open.length === 0) return null;
  return (
    <>
      <h2 className="subtitle pb-2">{t`Campaigns`}</h2>
      <ul className="sheet mb-5" aria-label={t`Campaigns`}>
        {open.map(({ id, name, people }) => (
          <li key={id} className="border-b border-hair last:border-0 px-5 py-3 flex items-baseline gap-4">
            <Link className="subtitle hover:underline grow" to={`/send/campaigns/${id}`}>
              {name}
            </Link>
            <span className="text-ink2">
              {format.number(people)}{' '}
              {plural(people, { one: 'person on its roster', other: 'people on its roster' })}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What leaves, and what could. */
export default function Outgoing() {
  const format = useFormat();
  const { data, error, isPending } = useQuery({ ...reading('messages'), refetchInterval: 5_000 });
  if (isPending) return <Loading what={t`messages`} />;
  const under = data?.filter(({ state }) => !['draft', 'standing', 'stopped', 'done'].includes(state));
  const drafts = data?.filter(
    ({ state, campaignId, automationId }) =>
      state === 'draft' && campaignId === null && automationId === null,
  );
  const line = (message: MessageView) => (
    <li key={message.id} className="border-b border-hair last:border-0 px-5 py-3 flex items-baseline gap-4">
      <Link
        className="subtitle hover:underline grow"
        to={
          ['draft', 'scheduled', 'posting', 'calling'].includes(message.state) || isBeingLaidOut(message)
            ? `/send/${message.id}`
            : `/hear-back/${message.id}`
        }
      >
        {message.name}
      </Link>
      <span className="text-ink2">
        {KIND_OF_WORDS[message.channel]}, {MESSAGE_STATE_WORDS[message.state]}
        {message.state === 'scheduled' &&
          (message.scheduledAt ? ` ${format.moment(message.scheduledAt)}` : t` in a moment`)}
      </span>
    </li>
  );
  return (
    <>
      <Heading title={t`Send`} note={t`The right people, once, at a decent hour`} />
      <ProblemNote error={error} />
      <h2 className="subtitle pb-2">{t`On the way`}</h2>
      <div className="sheet mb-5">
        {under?.length === 0 ? (
          <Empty title={t`Nothing is on its way`}>
            <p>{t`Open a draft below, and take the last look.`}</p>
          </Empty>
        ) : (
          <ul>{under?.map(line)}</ul>
        )}
      </div>
      <PlannedCampaigns />
      <AutomaticMessages />
      <h2 className="subtitle pb-2">{t`Drafts that could leave`}</h2>
      <div className="sheet">
        {drafts?.length === 0 ? (
          <Empty title={t`No draft`}>
            <Link className="link text-ink" to="/write">
              {t`Write a message`}
            </Link>
          </Empty>
        ) : (
          <ul>{drafts?.map(line)}</ul>
        )}
      </div>
    </>
  );
}
