import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { ButtonHTMLAttributes, ReactNode } from 'react';
import { ProblemError } from '../app/api';
import { useTelling } from './told';

type Weight = 'main' | 'plain' | 'grave';

const WEIGHTS: Record<Weight, string> = {
  main: 'bg-ink text-white border-ink hover:bg-slate',
  plain: 'bg-transparent text-ink border-[#8b989d] hover:bg-sheet',
  grave: 'bg-sheet text-madder border-madder hover:bg-[#fbeef0]',
};

/**
 * A button that does something: a double click is one press, the second click of which may otherwise do the
 * same once more, or land on whatever took the button's place. Plain ones may be pressed fast, unless they do
 * something `once`, such as make a draft.
 */
export function Button({
  weight = 'plain',
  once = weight !== 'plain',
  className = '',
  onClick,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { weight?: Weight; once?: boolean }) {
  return (
    <button
      type="button"
      {...rest}
      onClick={(event) => (!once || event.detail < 2 ? onClick?.(event) : event.preventDefault())}
      className={`inline-flex items-center gap-2 rounded-paper border px-4 min-h-[36px] font-semibold whitespace-nowrap disabled:opacity-50 disabled:cursor-not-allowed ${WEIGHTS[weight]} ${className}`}
    />
  );
}

/** What the tab of the browser is called, and its place in the history. */
export function PageTitle({ name }: { name: string }) {
  return <title>{name === '' ? t`Good Word` : t`${name} · Good Word`}</title>;
}

/**
 * Title of a view with what it is, in one line. `page` names it for the browser, where the title is not words
 * alone.
 */
export function Heading({
  title,
  page,
  note,
  children,
}: {
  title: ReactNode;
  page?: string;
  note?: ReactNode;
  children?: ReactNode;
}) {
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2 pb-3">
      <PageTitle name={page ?? (typeof title === 'string' ? title : '')} />
      <div className="flex flex-wrap items-baseline gap-x-4 min-w-0 grow basis-[200px]">
        <h1 className="title">{title}</h1>
        {note && <p className="text-ink2">{note}</p>}
      </div>
      {children && <div className="flex flex-wrap gap-2">{children}</div>}
    </div>
  );
}

/** The one way in which a refusal is shown: what, why, what to do. */
export function ProblemNote({ error }: { error: unknown }) {
  useTelling(error);
  if (!error) return null;
  const problem = error instanceof ProblemError ? error.problem : null;
  return (
    <div role="alert" className="border-l-[3px] border-madder pl-3 py-1 my-2">
      <p className="font-semibold">{problem?.title ?? t`That did not work`}</p>
      <p className="text-ink2">{problem?.detail ?? (error as Error).message}</p>
    </div>
  );
}

export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="p-10 max-w-xl">
      <p className="subtitle pb-2">{title}</p>
      <div className="text-ink2 flex flex-col gap-3 items-start">{children}</div>
    </div>
  );
}

export function Loading({ what }: { what: string }) {
  return (
    <p className="p-4 text-ink2" role="status">
      <Trans>Reading {what}</Trans>…
    </p>
  );
}

/** A labelled input's frame. */
export function Labelled({
  label,
  hint,
  fault,
  children,
}: {
  label: string;
  hint?: string;
  fault?: string | null;
  children: ReactNode;
}) {
  return (
    <label className="flex flex-col gap-1">
      <span className="font-semibold text-[13px]">{label}</span>
      {children}
      {hint && !fault && <span className="text-ink2 text-[12.5px]">{hint}</span>}
      {fault && <span className="text-madder text-[12.5px]">{fault}</span>}
    </label>
  );
}

/** Progress in counts and words. */
export function Progress({ done, total, words }: { done: number; total: number; words: string }) {
  const share = total === 0 ? 0 : Math.min(1, done / total);
  return (
    <div>
      <div
        className="h-2 bg-[#dfe5e1] rounded-sm"
        role="progressbar"
        aria-valuemin={0}
        aria-valuemax={total}
        aria-valuenow={done}
        aria-label={words}
      >
        <div
          className="h-2 bg-verdigris rounded-sm transition-[width]"
          style={{ width: `${share * 100}%` }}
        />
      </div>
      <p className="text-ink2 pt-1" role="status">
        {words}
      </p>
    </div>
  );
}
