import type { FormEvent, ReactNode } from 'react';
import { PageTitle } from '../ui/basics';

/** The one sheet on the bench of who is not in yet. */
export function Card({
  title,
  note,
  wide,
  onSubmit,
  children,
}: {
  title: string;
  note: string;
  wide?: boolean;
  onSubmit: () => void;
  children: ReactNode;
}) {
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSubmit();
  };
  return (
    <main className="min-h-full grid place-items-center p-6">
      <PageTitle name={title} />
      <form
        onSubmit={submit}
        className={`sheet ${wide ? 'w-[720px]' : 'w-[400px]'} max-w-full p-7 flex flex-col gap-4`}
      >
        <div>
          <h1 className="title">{title}</h1>
          <p className="text-ink2">{note}</p>
        </div>
        {children}
      </form>
    </main>
  );
}
