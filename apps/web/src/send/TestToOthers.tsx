import { t } from '@lingui/core/macro';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { MessageView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useLists } from '../app/groups';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { PersonPicker } from '../ui/PersonPicker';

function TestForm({ message }: { message: MessageView }) {
  const lists = useLists();
  const [as, setAs] = useState<{ id: number; name: string } | null>(null);
  const [listId, setListId] = useState<number | null>(null);
  const test = useMutation({
    mutationFn: () =>
      api.post('messages/{id}/test', { id: message.id, body: { asId: as?.id ?? null, listId } }),
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), test.mutate())}
    >
      <Labelled label={t`It goes to`} hint={t`Of a list: those who agreed to it and may be written to now`}>
        <select
          className="input"
          value={listId ?? ''}
          onChange={({ target }) => setListId(Number(target.value) || null)}
        >
          <option value="">{t`me`}</option>
          {(lists.data ?? []).map((list) => (
            <option key={list.id} value={list.id}>
              {list.name}
            </option>
          ))}
        </select>
      </Labelled>
      {as ? (
        <p>
          {t`As ${as.name} would read it.`}{' '}
          <button type="button" className="link" onClick={() => setAs(null)}>
            {t`As somebody else`}
          </button>
        </p>
      ) : (
        <div>
          <p className="pb-1">{t`As the first of its group would read it, or as:`}</p>
          <PersonPicker label={t`Whom to read it as`} onPick={setAs} />
        </div>
      )}
      <p className="text-ink2">{t`It says “Test” before the subject, and counts for nobody.`}</p>
      <ProblemNote error={test.error} />
      {test.data && <p role="status">{t`Sent to ${test.data.to}`}</p>}
      <Button type="submit" weight="main" className="self-start" disabled={test.isPending}>
        {test.isPending ? t`Sending the test…` : t`Send the test`}
      </Button>
    </form>
  );
}

/** A test to people who agreed to get tests, or as somebody in particular. */
export function TestToOthers({ message }: { message: MessageView }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button className="link" onClick={() => setOpen(true)}>
        {t`Test otherwise…`}
      </button>
      <Drawer
        open={open}
        onClose={() => setOpen(false)}
        title={t`A test`}
        note={t`Nobody of the group gets it`}
      >
        {open && <TestForm message={message} />}
      </Drawer>
    </>
  );
}
