import type { ReactNode } from 'react';

/** A part of a record under its heading. */
export function RecordSection({
  title,
  side,
  children,
}: {
  title: string;
  side?: ReactNode;
  children: ReactNode;
}) {
  return (
    <section className="pb-4">
      <div className="flex justify-between items-baseline border-b border-ink pb-1">
        <h2 className="subtitle">{title}</h2>
        {side}
      </div>
      {children}
    </section>
  );
}

/** One thing that is known, with what it is called. */
export function RecordRow({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[136px_1fr] gap-2 border-b border-hair py-[7px] items-center">
      <span className="text-ink2 truncate">{label}</span>
      <div className="min-w-0">{children}</div>
    </div>
  );
}
