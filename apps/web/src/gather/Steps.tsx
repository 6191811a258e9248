import { t } from '@lingui/core/macro';
import type { BatchStep } from './draft';
import { CHECK, STEP_WORDS } from './stepWords';

/** The steps of a batch in order, the check last; those that are behind can be gone back to. */
export function Steps({
  of,
  at,
  onGo,
}: {
  of: readonly BatchStep[];
  at: BatchStep | typeof CHECK;
  onGo?: (step: BatchStep) => void;
}) {
  const steps = [...of, CHECK] as const;
  const now = steps.indexOf(at);
  return (
    <ol className="flex gap-1 pb-4" aria-label={t`Steps`}>
      {steps.map((step, i) => (
        <li key={step} className="grow basis-0" aria-current={i === now ? 'step' : undefined}>
          <div className={`h-[3px] ${i < now ? 'bg-ink' : i === now ? 'bg-madder' : 'bg-[#c2ccc8]'}`} />
          {i < now && onGo && step !== CHECK ? (
            <button className="pt-2 text-ink2 hover:text-ink" onClick={() => onGo(step)}>
              {STEP_WORDS[step]}
            </button>
          ) : (
            <p className={`pt-2 ${i === now ? 'font-bold' : 'text-ink3'}`}>{STEP_WORDS[step]}</p>
          )}
        </li>
      ))}
    </ol>
  );
}
