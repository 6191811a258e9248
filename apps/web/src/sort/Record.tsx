import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { RecordView } from '@goodword/core/contract';
import { call, get } from '../app/api';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Labelled, Loading, Problem } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { personName } from '../ui/people';
import { GroupChips } from './GroupChips';
import { Ledger } from './Ledger';
import { Reach } from './Reach';
import { Timeline } from './Timeline';
import { refreshAll } from '../app/refresh';

function Rename({ record, onDone }: { record: RecordView; onDone: () => void }) {
  const queryClient = useQueryClient();
  const [firstName, setFirst] = useState(record.firstName);
  const [lastName, setLast] = useState(record.lastName);
  const save = useMutation({
    mutationFn: () => call('PATCH', `supporters/${record.id}`, { firstName, lastName }),
    onSuccess: () => (void refreshAll(queryClient), onDone()),
  });
  return (
    <form className="sheet p-5 flex flex-col gap-3" onSubmit={(event) => (event.preventDefault(), save.mutate())}>
      <Labelled label="First name">
        <input className="input" value={firstName} onChange={(event) => setFirst(event.target.value)} />
      </Labelled>
      <Labelled label="Last name">
        <input className="input" value={lastName} onChange={(event) => setLast(event.target.value)} />
      </Labelled>
      <Problem error={save.error} />
      <Button type="submit" weight="main" className="self-start" disabled={save.isPending}>
        Keep the name
      </Button>
    </form>
  );
}

/** One supporter: who they are, what passed between us, and what they agreed to. */
export default function Record() {
  const id = Number(useParams().id);
  const format = useFormat();
  const may = useMay('organizer');
  const owner = useMay('owner');
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const [renaming, setRenaming] = useState(false);
  const [erasing, setErasing] = useState(false);
  const { data: record, error } = useQuery({ queryKey: ['record', id], queryFn: () => get<RecordView>(`supporters/${id}`) });
  if (error) return <Problem error={error} />;
  if (!record) return <Loading what="the record" />;
  const name = personName(record);
  return (
    <div className="flex gap-5 grow min-h-0">
      <div className="grow min-w-0 flex flex-col min-h-0">
        <div className="flex items-center gap-4 pb-3">
          <span className="w-[52px] h-[52px] rounded-paper bg-[#cddad6] grid place-items-center font-bold text-[18px]" aria-hidden="true">
            {(record.firstName[0] ?? '') + (record.lastName[0] ?? '')}
          </span>
          <div className="grow min-w-0">
            <h1 className="title truncate">{name}</h1>
            <p className="text-ink2">
              {record.chapter.name}, with us since {format.day(record.createdAt)}
            </p>
          </div>
          {may && <Button onClick={() => setRenaming(true)}>Change the name</Button>}
          {owner && (
            <Button weight="grave" onClick={() => setErasing(true)}>
              Erase
            </Button>
          )}
        </div>
        <GroupChips record={record} />
        <div className="grid grid-cols-2 gap-4 grow min-h-0">
          <Reach record={record} />
          <Timeline supporterId={id} />
        </div>
      </div>
      <Ledger record={record} />
      <Confirm
        open={erasing}
        onClose={() => setErasing(false)}
        title={`Erase ${name}?`}
        body={
          <p>
            Name, addresses, fields, replies and the words in the ledger go for good, and it can’t be undone. Dates, states and a keyed hash of each
            address stay, so that what was sent and why can still be shown and a no still holds.
          </p>
        }
        act={`Erase ${name}`}
        onAct={async () => {
          await call('DELETE', `supporters/${id}`);
          void navigate('/sort');
          void refreshAll(queryClient);
        }}
      />
      <Drawer open={renaming} onClose={() => setRenaming(false)} title="Change the name" note="The change is kept with who and when">
        <Rename record={record} onDone={() => setRenaming(false)} />
      </Drawer>
    </div>
  );
}
