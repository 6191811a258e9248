/** The head of a plain table; a column of buttons has a title for readers of the screen only. */
export function TableHead({ titles, acts }: { titles: readonly string[]; acts?: string }) {
  return (
    <thead>
      <tr className="border-b border-ink text-left text-[13px] text-ink2">
        {titles.map((title) => (
          <th key={title} className="px-4 py-2 font-normal">
            {title}
          </th>
        ))}
        {acts && (
          <th className="px-4 py-2 font-normal">
            <span className="sr-only">{acts}</span>
          </th>
        )}
      </tr>
    </thead>
  );
}
