import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { BeginToBody } from '@goodword/core/contract';
import type { LoneChannel } from '@goodword/core/permission';
import { api } from '../app/api';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { AboutMessage, aboutBody, type About } from './AboutMessage';

interface Props {
  /** Who they are, as a name for the message: "Winter fair", "12 people". */
  whom: string;
  to: () => BeginToBody['to'];
  /** With more to be said than the button has room for. */
  words?: string;
  onBegun?: () => void;
  /** Among links, where a button would be too loud. */
  asLink?: boolean;
}

/**
 * Begins a message to those one is looking at. Who of them may get it is seen at the last look, as always.
 */
export function WriteToThem({ whom, to, words = t`Write to them…`, onBegun, asLink }: Props) {
  const may = useMay('organizer');
  const [open, setOpen] = useState(false);
  if (!may) return null;
  return (
    <>
      {asLink ? (
        <button className="link text-ink2" aria-label={t`Write to ${whom}`} onClick={() => setOpen(true)}>
          {t`Write to them`}
        </button>
      ) : (
        <Button onClick={() => setOpen(true)}>{words}</Button>
      )}
      <Drawer
        open={open}
        onClose={() => setOpen(false)}
        title={t`Write to ${whom}`}
        note={t`Nothing leaves before the last look`}
      >
        {open && <BeginToThem whom={whom} to={to} onBegun={onBegun} />}
      </Drawer>
    </>
  );
}

/** What it is called, how it goes and what for; then it is written. */
export function BeginToThem({
  whom,
  to,
  onBegun,
  channel = 'email',
}: Omit<Props, 'words' | 'asLink'> & { channel?: LoneChannel }) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const [values, setValues] = useState<About>({
    name: t`To ${whom}`.slice(0, 120),
    channel,
    purpose: 'appeals',
  });
  const begin = useMutation({
    mutationFn: () => api.post('messages-to', { body: { ...aboutBody(values), to: to() } }),
    onSuccess: ({ id }) => (refresh(queryClient, 'messages-to'), onBegun?.(), void navigate(`/write/${id}`)),
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), begin.mutate())}
    >
      <AboutMessage value={values} onChange={setValues} />
      <ProblemNote error={begin.error} />
      <Button type="submit" weight="main" className="self-start" disabled={begin.isPending}>
        {t`Begin to write`}
      </Button>
    </form>
  );
}
