import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { KIND_OF_WORDS } from '../app/channels';
import { useFormat } from '../app/format';
import { Empty, Heading, Loading, ProblemNote } from '../ui/basics';
import { HearNav } from './HearNav';
import { reading } from '../app/reading';

/** Messages that have left, newest first. */
export default function Answers() {
  const format = useFormat();
  const { data, error, isPending } = useQuery({ ...reading('messages'), refetchInterval: 5_000 });
  if (isPending) return <Loading what={t`messages`} />;
  const gone = data?.filter((message) => !['draft', 'scheduled'].includes(message.state));
  return (
    <>
      <Heading title={t`Hear back`} note={t`What came of it`} />
      <HearNav />
      <ProblemNote error={error} />
      <div className="sheet">
        {gone?.length === 0 && (
          <Empty title={t`Nothing has left yet`}>
            <p>{t`What comes of a message stands here from the minute it leaves.`}</p>
          </Empty>
        )}
        <ul>
          {gone?.map((message) => (
            <li
              key={message.id}
              className="border-b border-hair last:border-0 px-5 py-3 flex items-baseline gap-4"
            >
              <Link className="subtitle hover:underline grow" to={`/hear-back/${message.id}`}>
                {message.name}
              </Link>
              <span className="text-ink2">
                {KIND_OF_WORDS[message.channel]}, {message.state === 'done' ? t`sent` : message.state},{' '}
                {format.moment(message.updatedAt)}
              </span>
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}
