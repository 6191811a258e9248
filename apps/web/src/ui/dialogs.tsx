import { t } from '@lingui/core/macro';
import { AlertDialog, Dialog } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { Button, ProblemNote } from './basics';

/** A sheet that slides over from the right, for the people behind a number and for small forms. */
export function Drawer({
  open,
  onClose,
  title,
  note,
  wide,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  note?: string;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className={`fixed z-20 right-0 top-0 bottom-0 ${wide ? 'w-[760px]' : 'w-[520px]'} max-w-full bg-bench border-l border-hair flex flex-col p-5 gap-3 outline-none`}
        >
          <div className="flex items-start gap-4">
            <div className="grow">
              <Dialog.Title className="title !text-[20px]">{title}</Dialog.Title>
              {note && <p className="text-ink2">{note}</p>}
            </div>
            <Dialog.Close asChild>
              <Button>{t`Close`}</Button>
            </Dialog.Close>
          </div>
          <div className="min-h-0 grow flex flex-col">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Asks before a step that can't be undone; names the number and what stays. */
export function Confirm({
  open,
  onClose,
  title,
  body,
  act,
  onAct,
  grave = true,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  body: ReactNode;
  /** Null where it can't be done as things stand: the body says why. */
  act: string | null;
  onAct: () => Promise<unknown>;
  grave?: boolean;
}) {
  const [error, setError] = useState<unknown>(null);
  // A second press while the first is on its way would do it twice.
  const [acting, setActing] = useState(false);
  const run = () => {
    setError(null);
    setActing(true);
    onAct()
      .then(onClose, setError)
      .finally(() => setActing(false));
  };
  return (
    <AlertDialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-30 bg-ink/30" />
        <AlertDialog.Content className="fixed z-30 left-1/2 top-1/3 -translate-x-1/2 -translate-y-1/3 w-[460px] sheet p-5 flex flex-col gap-3">
          <AlertDialog.Title className="subtitle">{title}</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="text-ink2">{body}</div>
          </AlertDialog.Description>
          <ProblemNote error={error} />
          <div className="flex justify-end gap-2 pt-1">
            <AlertDialog.Cancel asChild>
              <Button>{t`Leave it as it is`}</Button>
            </AlertDialog.Cancel>
            {act !== null && (
              <Button weight={grave ? 'grave' : 'main'} onClick={run} disabled={acting}>
                {act}
              </Button>
            )}
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
