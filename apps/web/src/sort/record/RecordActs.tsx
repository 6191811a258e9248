import type { ReactNode } from 'react';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQueryClient } from '@tanstack/react-query';
import { Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { lazy, Suspense, useRef, useState } from 'react';
import type { BulkAct, RecordView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useMay } from '../../app/session';
import { Button } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';
import { personName } from '../../ui/people';
import { BeginToThem } from '../../write/WriteToThem';
import { BulkForm } from '../people/BulkForm';
import { followBulk } from '../people/following';
import { Erase } from './Erase';
import { Household } from './Household';
import { Merging } from './Merging';
import { Rename } from './Rename';

/** The letter's editor is loaded with the first letter. */
const WriteTo = lazy(() => import('./WriteTo'));

const ITEM = 'px-3 py-[6px] rounded-[3px] outline-none data-[highlighted]:bg-bench cursor-pointer block';
type Doing = 'print' | 'write' | 'letter' | 'rename' | 'household' | 'merge' | 'erase' | null;

const FORMS = [
  ['json', 'JSON'],
  ['csv', 'CSV'],
  ['vcf', 'vCard'],
] as const;

function MoreActs({
  openChosen,
  item,
  record,
}: {
  openChosen: () => void;
  item: (words: string, what: Doing, grave?: boolean) => ReactNode;
  record: RecordView;
}) {
  const owner = useMay('owner');
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button aria-label={t`More to do with this record`}>
          <Ellipsis size={16} aria-hidden="true" /> {t`More`}
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="sheet p-1 z-20 min-w-[260px]"
          align="end"
          onCloseAutoFocus={openChosen}
        >
          {item(t`Write a letter…`, 'letter')}
          {item(t`Change the name`, 'rename')}
          {item(record.household ? t`Household and greeting` : t`Put in a household`, 'household')}
          {item(t`Merge with…`, 'merge')}
          <DropdownMenu.Separator className="border-t border-hair my-1" />
          <DropdownMenu.Label className="px-3 py-1 text-ink2 text-[12.5px]">
            <Trans>Everything about {personName(record)}</Trans>
          </DropdownMenu.Label>
          {FORMS.map(([form, words]) => (
            <DropdownMenu.Item key={form} asChild className={ITEM}>
              <a href={`/api/supporters/${record.id}/everything?as=${form}`}>
                <Trans>As {words}</Trans>
              </a>
            </DropdownMenu.Item>
          ))}
          {owner && <DropdownMenu.Separator className="border-t border-hair my-1" />}
          {owner && item(t`Erase this person`, 'erase', true)}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** What can be done with one record: written to, printed, and the rarer things behind one button. */
export function RecordActs({ record }: { record: RecordView }) {
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const [doing, setDoing] = useState<Doing>(null);
  const done = () => setDoing(null);
  // Opened when the menu gives the focus back to its button: what opens then takes it from there, and returns
  // it there.
  const chosen = useRef<Doing>(null);
  const openChosen = () => {
    const what = chosen.current;
    chosen.current = null;
    if (what) setTimeout(() => setDoing(what));
  };
  const item = (words: string, what: Doing, grave = false) => (
    <DropdownMenu.Item
      className={`${ITEM} ${grave ? 'text-madder' : ''}`}
      onSelect={() => void (chosen.current = what)}
    >
      {words}
    </DropdownMenu.Item>
  );
  const print = async (act: BulkAct) => {
    followBulk((await api.post('bulk', { body: { group: { ids: [record.id] }, act } })).id, queryClient);
    done();
  };
  if (!may) return null;
  return (
    <>
      <MoreActs openChosen={openChosen} item={item} record={record} />
      <Button onClick={() => setDoing('print')}>{t`Print…`}</Button>
      <Button weight="main" onClick={() => setDoing('write')}>
        {t`Write to them`}
      </Button>
      <Household record={record} open={doing === 'household'} onClose={done} />
      <Merging record={record} open={doing === 'merge'} onClose={done} />
      {doing === 'write' && (
        <Suspense>
          <WriteTo record={record} open onClose={done} />
        </Suspense>
      )}
      <Drawer
        open={doing === 'letter'}
        onClose={done}
        title={t`A letter to ${personName(record)}`}
        note={t`Nothing leaves before the last look`}
      >
        {doing === 'letter' && (
          <BeginToThem
            whom={personName(record)}
            channel="post"
            to={() => ({ group: { ids: [record.id] } })}
          />
        )}
      </Drawer>
      <Drawer
        open={doing === 'print'}
        onClose={done}
        title={t`Print`}
        note={t`For ${personName(record)}, in the background`}
      >
        {doing === 'print' && <BulkForm act="print" form="labels" many="it" onBegin={print} />}
      </Drawer>
      <Drawer
        open={doing === 'rename'}
        onClose={done}
        title={t`Change the name`}
        note={t`The change is kept with who and when`}
      >
        <Rename record={record} onDone={done} />
      </Drawer>
      <Erase record={record} open={doing === 'erase'} onClose={done} />
    </>
  );
}
