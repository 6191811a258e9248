import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { Keeper, KeptDraft } from '../app/keeping';
import { Button, ProblemNote } from './basics';

/**
 * Where what is typed stands when it is not simply saved: what to do about it, with both sides to be seen.
 */
export function NewerVersion<T>({
  kept,
  keeper,
  seesTheirs,
  onSee,
}: {
  kept: KeptDraft<T>;
  keeper: Keeper<T>;
  seesTheirs: boolean;
  onSee: (theirs: boolean) => void;
}) {
  if (kept.saveState === 'refused') return <ProblemNote error={kept.problem} />;
  if (kept.saveState === 'waiting')
    return (
      <p role="status" className="border-l-[3px] border-ochremark pl-3 py-1 my-2">
        <Trans>
          <b>Not saved yet.</b>{' '}
          {kept.problem instanceof Error ? kept.problem.message : t`The server can’t be reached.`} What you
          typed is kept in this browser, and is tried again by itself.
        </Trans>
      </p>
    );
  if (kept.saveState !== 'newer') return null;
  return (
    <div
      role="alert"
      className="border-l-[3px] border-madder pl-3 py-1 my-2 flex flex-wrap items-center gap-3"
    >
      <p className="grow">
        <b>{t`Two versions.`}</b>{' '}
        {kept.problem instanceof Error
          ? kept.problem.message
          : t`Somebody saved something newer than what you typed here before. Both are kept: see them, and say which one stays.`}
      </p>
      {kept.theirs && (
        <>
          <Button onClick={() => onSee(!seesTheirs)}>{seesTheirs ? t`See mine` : t`See theirs`}</Button>
          <Button onClick={() => (onSee(false), keeper.takeTheirs())}>{t`Theirs stays`}</Button>
          <Button onClick={() => (onSee(false), keeper.keepMine())}>{t`Mine stays`}</Button>
        </>
      )}
    </div>
  );
}
