import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { BulkAct, PeopleGroup } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { useMay } from '../../app/session';
import { Button } from '../../ui/basics';
import { Confirm, Drawer } from '../../ui/dialogs';
import { CallForm } from '../calls/CallForm';
import { BulkForm } from './BulkForm';
import { followBulk } from './following';
import { WriteToThem } from '../../write/WriteToThem';

const ACTS: [BulkAct['do'], string][] = [
  ['tag', t`Tag`],
  ['list', t`List`],
  ['field', t`Field`],
  ['roster', t`Roster`],
  ['permission', t`Record permission`],
  ['export', t`Download`],
  ['print', t`Print`],
];

const TITLES: Record<BulkAct['do'], string> = {
  tag: t`Add or remove a tag`,
  list: t`Add to a list, or remove`,
  field: t`Set a field`,
  roster: t`Add to a campaign’s roster`,
  permission: t`Record permission`,
  export: t`Download as a file`,
  print: t`Print`,
  erase: t`Erase`,
};

/** What can be done with those who are chosen; each act runs in the background and says how far it is. */
export function BulkBar({
  people,
  group,
  onDone,
}: {
  people: number;
  group: () => PeopleGroup;
  onDone: () => void;
}) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const owner = useMay('owner');
  const [open, setOpen] = useState<BulkAct['do'] | null>(null);
  const [calling, setCalling] = useState(false);
  if (people === 0) return null;
  const many = `${format.number(people)} ${plural(people, { one: 'person', other: 'people' })}`;
  const begin = async (act: BulkAct) => {
    const { id } = await api.post('bulk', { body: { group: group(), act } });
    followBulk(id, queryClient);
    setOpen(null);
    onDone();
  };
  return (
    <div
      className="sheet flex flex-wrap items-center gap-2 px-4 py-2 mb-2"
      role="toolbar"
      aria-label={t`With ${many}`}
    >
      <b className="grow">
        <Trans>{many} chosen</Trans>
      </b>
      {ACTS.map(([act, words]) => (
        <Button key={act} onClick={() => setOpen(act)}>
          {words}…
        </Button>
      ))}
      <Button onClick={() => setCalling(true)}>{t`Call…`}</Button>
      <WriteToThem words={t`Write…`} whom={many} to={() => ({ group: group() })} onBegun={onDone} />
      {owner && <Button onClick={() => setOpen('erase')}>{t`Erase…`}</Button>}
      <Button onClick={onDone}>{t`Choose nobody`}</Button>
      <Drawer
        open={open !== null && open !== 'erase'}
        onClose={() => setOpen(null)}
        title={TITLES[open ?? 'tag']}
        note={t`For ${many}, in the background`}
      >
        {open !== null && open !== 'erase' && <BulkForm act={open} many={many} onBegin={begin} />}
      </Drawer>
      <Drawer
        open={calling}
        onClose={() => setCalling(false)}
        title={t`Call ${many}`}
        note={t`A list, frozen in its order, with a number for each`}
      >
        <CallForm group={group} />
      </Drawer>
      <Confirm
        open={open === 'erase'}
        onClose={() => setOpen(null)}
        title={t`Erase ${many}?`}
        act={t`Erase ${many}`}
        body={
          <p>
            <Trans>
              Names, addresses, fields and free words go for good, and this can’t be undone. Dates, states and
              refusals stay without a name, so that nobody who said no is written to again.
            </Trans>
          </p>
        }
        onAct={() => begin({ do: 'erase' })}
      />
    </div>
  );
}
