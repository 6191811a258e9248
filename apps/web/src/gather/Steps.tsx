/** The steps of a batch in order; those that are behind can be gone back to. */
export function Steps<S extends string>({ steps, at, onGo }: { steps: readonly S[]; at: S; onGo?: (step: S) => void }) {
  const now = steps.indexOf(at);
  return (
    <ol className="flex gap-1 pb-4" aria-label="Steps">
      {steps.map((step, i) => (
        <li key={step} className="grow basis-0" aria-current={i === now ? 'step' : undefined}>
          <div className={`h-[3px] ${i < now ? 'bg-ink' : i === now ? 'bg-madder' : 'bg-[#c2ccc8]'}`} />
          {i < now && onGo ? (
            <button className="pt-2 text-ink2 hover:text-ink" onClick={() => onGo(step)}>
              {step}
            </button>
          ) : (
            <p className={`pt-2 ${i === now ? 'font-bold' : 'text-ink3'}`}>{step}</p>
          )}
        </li>
      ))}
    </ol>
  );
}
