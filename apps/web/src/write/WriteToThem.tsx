import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { BeginTo } from '@goodword/core/contract';
import { PURPOSES, type Purpose, type SendingChannel } from '@goodword/core/permission';
import { call } from '../app/api';
import { refreshAll } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Labelled, Problem } from '../ui/basics';
import { Drawer } from '../ui/dialogs';

interface Props {
  /** Who they are, as a name for the message: "Winter fair", "12 people". */
  whom: string;
  to: () => BeginTo['to'];
  /** With more to be said than the button has room for. */
  words?: string;
  onBegun?: () => void;
  /** Among links, where a button would be too loud. */
  asLink?: boolean;
}

/** Begins a message to those one is looking at. Who of them may get it is seen at the last look, as always. */
export function WriteToThem({ whom, to, words = 'Write to them…', onBegun, asLink }: Props) {
  const may = useMay('organizer');
  const [open, setOpen] = useState(false);
  if (!may) return null;
  return (
    <>
      {asLink ? (
        <button className="link text-ink2" aria-label={`Write to ${whom}`} onClick={() => setOpen(true)}>
          Write to them
        </button>
      ) : (
        <Button onClick={() => setOpen(true)}>{words}</Button>
      )}
      <Drawer open={open} onClose={() => setOpen(false)} title={`Write to ${whom}`} note="Nothing leaves before the last look">
        {open && <Begin whom={whom} to={to} onBegun={onBegun} />}
      </Drawer>
    </>
  );
}

function Begin({ whom, to, onBegun }: Omit<Props, 'words' | 'asLink'>) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const [values, setValues] = useState({ name: `To ${whom}`.slice(0, 120), channel: 'email' as SendingChannel, purpose: 'appeals' as Purpose });
  const begin = useMutation({
    mutationFn: () => call<{ id: number }>('POST', 'messages-to', { ...values, to: to() }),
    onSuccess: ({ id }) => (refreshAll(queryClient), onBegun?.(), void navigate(`/write/${id}`)),
  });
  return (
    <form className="sheet p-5 flex flex-col gap-4" onSubmit={(event) => (event.preventDefault(), begin.mutate())}>
      <Labelled label="Name" hint="For you; supporters never see it.">
        <input
          className="input"
          required
          autoFocus
          maxLength={120}
          value={values.name}
          onChange={(event) => setValues({ ...values, name: event.target.value })}
        />
      </Labelled>
      <div className="grid grid-cols-2 gap-3">
        <Labelled label="It goes by">
          <select
            className="input"
            value={values.channel}
            onChange={(event) => setValues({ ...values, channel: event.target.value as SendingChannel })}
          >
            <option value="email">Email</option>
            <option value="text">Text</option>
          </select>
        </Labelled>
        <Labelled label="It is for" hint="What permission is asked for.">
          <select className="input" value={values.purpose} onChange={(event) => setValues({ ...values, purpose: event.target.value as Purpose })}>
            {PURPOSES.map((purpose) => (
              <option key={purpose}>{purpose}</option>
            ))}
          </select>
        </Labelled>
      </div>
      <Problem error={begin.error} />
      <Button type="submit" weight="main" className="self-start" disabled={begin.isPending}>
        Begin to write
      </Button>
    </form>
  );
}
