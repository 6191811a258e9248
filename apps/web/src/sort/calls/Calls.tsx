import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { CallListView } from '@goodword/core/contract';
import { get } from '../../app/api';
import { plural, useFormat } from '../../app/format';
import { useMay } from '../../app/session';
import { Button, Empty, Heading, Loading, Problem } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';
import { SortNav } from '../SortNav';
import { CallForm } from './CallForm';

/** Lists of people to call: how far each is, and what came of it. */
export default function Calls() {
  const format = useFormat();
  const may = useMay('organizer');
  const [making, setMaking] = useState(false);
  const { data, error } = useQuery({ queryKey: ['calls'], queryFn: () => get<CallListView[]>('calls'), enabled: may });
  return (
    <>
      <Heading title="Calls" note="People to call one after the other, on the screen or from paper">
        {may && (
          <Button weight="main" onClick={() => setMaking(true)}>
            Make a list to call
          </Button>
        )}
      </Heading>
      <SortNav />
      <Problem error={error} />
      {!may && <p className="text-ink2">Organizers call through lists.</p>}
      {may && !data && !error && <Loading what="the lists to call" />}
      {data && (
        <div className="sheet grow overflow-y-auto">
          {data.length === 0 ? (
            <Empty title="Nothing to call through yet">
              <p>Make a list of a segment, a list, a tag or a campaign’s roster; or choose people under Supporters and take “Call”.</p>
              <Button onClick={() => setMaking(true)}>Make a list to call</Button>
            </Empty>
          ) : (
            <ul>
              {data.map((list) => (
                <li key={list.id} className="grid grid-cols-[1.4fr_1fr_1.6fr] gap-4 px-5 py-3 border-b border-hair items-baseline">
                  <span>
                    <Link className="font-semibold hover:underline" to={`/sort/calls/${list.id}`}>
                      {list.name}
                    </Link>
                    <span className="block text-ink2 text-[12.5px]">
                      {list.campaign ? `${list.campaign.name}, ` : ''}
                      {list.purpose}; by {list.madeBy}, {format.day(list.madeAt)}
                    </span>
                  </span>
                  <span>
                    {format.number(list.called)} of {format.number(list.people - list.held)} called
                    {list.again > 0 && <span className="block text-ink2 text-[12.5px]">{format.number(list.again)} to be called again</span>}
                  </span>
                  <span className="text-ink2 text-[13px]">
                    {list.outcomes.map(({ outcome, people }) => `${outcome} ${format.number(people)}`).join(', ')}
                    {list.held > 0 && (
                      <span className="block">
                        {format.number(list.held)} {plural(list.held, 'person is', 'people are')} passed over: they may not be called
                      </span>
                    )}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
      <Drawer open={making} onClose={() => setMaking(false)} title="Make a list to call" note="Frozen in its order, with a number for each person">
        <CallForm group={null} />
      </Drawer>
    </>
  );
}
