import { t } from '@lingui/core/macro';
import { useTyped } from '../app/drafting';
import { Button } from '../ui/basics';

/** A note beside the thread: on their record, for the team alone. */
export function NoteForm({
  supporterId,
  isKeeping,
  onKeep,
  onClose,
}: {
  supporterId: number;
  isKeeping: boolean;
  onKeep: (body: string, kept: () => void) => void;
  onClose: () => void;
}) {
  const draft = useTyped(`thread-note:${supporterId}`, { body: '' });
  const { body } = draft.value;
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onKeep(body.trim(), draft.discard);
      }}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
    >
      <textarea
        className="input min-h-[80px]"
        aria-label={t`A note for the team`}
        placeholder={t`A note for the team: they never see it`}
        maxLength={4000}
        autoFocus
        value={body}
        onChange={(event) => draft.set({ body: event.target.value })}
      />
      <span className="flex gap-2">
        <Button type="submit" weight="main" disabled={body.trim() === '' || isKeeping}>
          {t`Keep the note`}
        </Button>
        <Button onClick={onClose}>{t`Close`}</Button>
      </span>
    </form>
  );
}
