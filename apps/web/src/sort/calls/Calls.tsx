import { t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { useFormat } from '../../app/format';
import { useMay } from '../../app/session';
import { Button, Empty, Heading, Loading, ProblemNote } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';
import { SortNav } from '../SortNav';
import { CallForm } from './CallForm';
import { reading } from '../../app/reading';

/** Lists of people to call: how far each is, and what came of it. */
export default function Calls() {
  const format = useFormat();
  const may = useMay('organizer');
  const [making, setMaking] = useState(false);
  const { data, error } = useQuery({ ...reading('calls'), enabled: may });
  return (
    <>
      <Heading title={t`Calls`} note={t`People to call one after the other, on the screen or from paper`}>
        {may && (
          <Button weight="main" onClick={() => setMaking(true)}>
            {t`Make a list to call`}
          </Button>
        )}
      </Heading>
      <SortNav />
      <ProblemNote error={error} />
      {!may && <p className="text-ink2">{t`Organizers call through lists.`}</p>}
      {may && !data && !error && <Loading what={t`the lists to call`} />}
      {data && (
        <div className="sheet grow overflow-y-auto">
          {data.length === 0 ? (
            <Empty title={t`Nothing to call through yet`}>
              <p>
                <Trans>
                  Make a list of a segment, a list, a tag or a campaign’s roster; or choose people under
                  Supporters and take “Call”.
                </Trans>
              </p>
              <Button onClick={() => setMaking(true)}>{t`Make a list to call`}</Button>
            </Empty>
          ) : (
            <ul>
              {data.map((list) => (
                <li
                  key={list.id}
                  className="grid grid-cols-[1.4fr_1fr_1.6fr] gap-4 px-5 py-3 border-b border-hair items-baseline"
                >
                  <span>
                    <Link className="font-semibold hover:underline" to={`/sort/calls/${list.id}`}>
                      {list.name}
                    </Link>
                    <span className="block text-ink2 text-[12.5px]">
                      <Trans>
                        {list.campaign ? `${list.campaign.name}, ` : ''}
                        {list.purpose}; by {list.madeBy}, {format.day(list.madeAt)}
                      </Trans>
                    </span>
                  </span>
                  <span>
                    <Trans>
                      {format.number(list.called)} of {format.number(list.people - list.suppressed)} called
                    </Trans>
                    {list.again > 0 && (
                      <span className="block text-ink2 text-[12.5px]">
                        <Trans>{format.number(list.again)} to be called again</Trans>
                      </span>
                    )}
                  </span>
                  <span className="text-ink2 text-[13px]">
                    {list.outcomes
                      .map(({ outcome, people }) => `${outcome} ${format.number(people)}`)
                      .join(', ')}
                    {list.suppressed > 0 && (
                      <span className="block">
                        <Trans>
                          {format.number(list.suppressed)}{' '}
                          <Plural value={list.suppressed} one="person is" other="people are" /> passed over:
                          they may not be called
                        </Trans>
                      </span>
                    )}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
      <Drawer
        open={making}
        onClose={() => setMaking(false)}
        title={t`Make a list to call`}
        note={t`Frozen in its order, with a number for each person`}
      >
        <CallForm group={null} />
      </Drawer>
    </>
  );
}
