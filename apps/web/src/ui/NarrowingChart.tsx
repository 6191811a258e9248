import { useFormat } from '../app/format';

export interface ChartStep {
  key: string;
  words: string;
  note?: string;
  /** People who are still in after this step. */
  left: number;
  tone?: 'start' | 'step' | 'end';
  onOpen?: () => void;
}

/** The drawing of narrowing: a full bar, what each line leaves, what is left at the end. */
export function NarrowingChart({ steps, everybody }: { steps: readonly ChartStep[]; everybody: number }) {
  const format = useFormat();
  const ink = { start: 'bg-slate', step: 'bg-slate', end: 'bg-verdigris' };
  return (
    <ol className="flex flex-col gap-3">
      {steps.map((step) => (
        <li key={step.key}>
          <div className="flex justify-between gap-3">
            <span className="truncate" title={step.words}>
              {step.words}
            </span>
            {step.onOpen ? (
              <button className="link" onClick={step.onOpen}>
                {format.number(step.left)}
              </button>
            ) : (
              <b>{format.number(step.left)}</b>
            )}
          </div>
          <div className="h-2 bg-bench rounded-[2px]">
            <div
              className={`h-2 rounded-[2px] ${ink[step.tone ?? 'step']}`}
              style={{ width: `${everybody === 0 ? 0 : (step.left / everybody) * 100}%` }}
            />
          </div>
        </li>
      ))}
    </ol>
  );
}
