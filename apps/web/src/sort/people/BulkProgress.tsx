import { t } from '@lingui/core/macro';
import { useQueryClient } from '@tanstack/react-query';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { Button, Progress } from '../../ui/basics';
import { followBulk, forgetBulk, isRunning, useFollowed } from './following';

/** How far the act on a group is, what came of it, and the way back. */
export function BulkProgress() {
  const { bulk } = useFollowed();
  const format = useFormat();
  const queryClient = useQueryClient();
  if (!bulk) return null;
  const again = async (what: 'undo' | 'stop') => {
    await api.post(`bulk/{id}/${what}`, { id: bulk.id });
    followBulk(bulk.id, queryClient);
  };
  if (isRunning(bulk))
    return (
      <div
        className="sheet px-4 py-3 mb-2 grid grid-cols-[1fr_auto] gap-4 items-center"
        aria-label={t`Work on a group`}
      >
        <Progress
          done={bulk.done}
          total={bulk.people}
          words={t`${bulk.state === 'undoing' ? t`Undoing: ` : ''}${bulk.words}: ${format.number(bulk.done)} of ${format.number(bulk.people)}`}
        />
        {bulk.state !== 'undoing' && <Button onClick={() => void again('stop')}>{t`Stop`}</Button>}
      </div>
    );
  const unchanged = bulk.people - bulk.changed;
  const outcome =
    bulk.problem ??
    (bulk.file
      ? [t`The file ${bulk.file} is ready.`, bulk.told].filter(Boolean).join(' ')
      : bulk.state === 'undone'
        ? t`Undone.`
        : t`${format.number(bulk.changed)} changed${unchanged > 0 ? t`, ${format.number(unchanged)} were so already` : ''}${bulk.state === 'stopped' ? t`; then it was stopped` : ''}.`);
  return (
    <div
      className="sheet px-4 py-2 mb-2 flex items-center gap-3"
      role="status"
      aria-label={t`Work on a group`}
    >
      <span className="grow">
        <b>{bulk.words}.</b> <span className={bulk.problem ? 'text-madder' : 'text-ink2'}>{outcome}</span>
      </span>
      {bulk.file && (
        <a className="link" href={`/api/bulk/${bulk.id}/file`} download>
          {t`Download`}
        </a>
      )}
      {bulk.canUndo && <Button onClick={() => void again('undo')}>{t`Undo`}</Button>}
      <Button onClick={forgetBulk}>{t`Close`}</Button>
    </div>
  );
}
