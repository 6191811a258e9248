import type { CallRow, Page, PrintAct } from '@goodword/core/contract';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';

import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { refresh } from '../../app/refresh';
import { useSession } from '../../app/session';
import { Button, Heading, Loading, ProblemNote } from '../../ui/basics';
import { Confirm } from '../../ui/dialogs';
import { BulkProgress } from '../people/BulkProgress';
import { followBulk } from '../people/following';
import { printActOf, printStart } from '../people/printing';
import { CallThrough } from './CallThrough';
import { FromPaper } from './FromPaper';
import { reading } from '../../app/reading';

const MODES = [
  ['', t`On the screen`],
  ['paper', t`From paper`],
] as const;

/** One list of calls: called through on the screen, or entered from its printed sheet. */
export default function CallList() {
  const id = Number(useParams().id);
  const format = useFormat();
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const { organization } = useSession();
  const [params, setParams] = useSearchParams();
  const mode = params.get('mode') ?? '';
  const [removing, setRemoving] = useState(false);
  const { data: list, error } = useQuery(reading('calls/{id}', { id }));
  if (error) return <ProblemNote error={error} />;
  if (!list) return <Loading what={t`the list of calls`} />;
  const print = async () => {
    const act: PrintAct = {
      ...printActOf({
        ...printStart(organization.country),
        columns: 'phone,last-gift,stage,notes',
        title: list.name,
      })!,
      callListId: id,
      purpose: list.purpose,
    };
    const ids = await everybodyOn(id);
    followBulk((await api.post('bulk', { body: { group: { ids }, act } })).id, queryClient);
  };
  const open = list.people - list.suppressed;
  return (
    <>
      <Heading
        title={list.name}
        page={t`Calls: ${list.name}`}
        note={[
          t`${format.number(list.called)} of ${format.number(open)} called${list.campaign ? t` for ${list.campaign.name}` : ''}`,
          list.again > 0 && t`${format.number(list.again)} to be called again`,
          list.suppressed > 0 && t`${format.number(list.suppressed)} passed over`,
        ]
          .filter(Boolean)
          .join('; ')}
      >
        {list.step?.state === 'calling' ? (
          <Link className="link self-center" to={`/send/${list.step.messageId}`}>
            {list.campaign ? t`A step of ${list.campaign.name}` : t`How far it is`}
          </Link>
        ) : (
          <Button onClick={() => setRemoving(true)}>{t`Delete`}</Button>
        )}
        <Button onClick={() => void print()}>{t`Print the sheet`}</Button>
        <span
          className="flex rounded-paper border border-[#8b989d] overflow-hidden"
          role="group"
          aria-label={t`How the answers come`}
        >
          {MODES.map(([value, words]) => (
            <button
              key={value}
              aria-pressed={mode === value}
              className={`px-3 font-semibold ${mode === value ? 'bg-ink text-white' : 'bg-sheet hover:bg-bench'}`}
              onClick={() => setParams(value ? { mode: value } : {}, { replace: true })}
            >
              {words}
            </button>
          ))}
        </span>
      </Heading>
      <BulkProgress />
      {mode === 'paper' ? <FromPaper list={list} /> : <CallThrough list={list} />}
      <Confirm
        open={removing}
        onClose={() => setRemoving(false)}
        title={t`Delete “${list.name}”?`}
        act={t`Delete the list`}
        body={
          <p>
            <Trans>
              The list goes. Stages, notes and what people said about being called stay on their records.
            </Trans>
          </p>
        }
        onAct={async () => (
          await api.delete('calls/{id}', { id }),
          void refresh(queryClient, 'calls'),
          void navigate('/sort/calls')
        )}
      />
    </>
  );
}

async function everybodyOn(id: number): Promise<number[]> {
  const ids: number[] = [];
  for (let after: number | null = 0; after !== null;) {
    const page: Page<CallRow> = await api.get('calls/{id}/people', { id, after, limit: 200 });
    ids.push(...page.rows.map((row) => row.supporterId));
    after = page.next === null ? null : Number(page.next);
  }
  return ids;
}
