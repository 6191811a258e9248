import { NavLink } from 'react-router';

/** Messages, and what people wrote back. */
export function HearNav() {
  return (
    <nav aria-label="Hear back" className="flex gap-5 pb-3">
      {(
        [
          ['/hear-back', 'Messages'],
          ['/hear-back/replies', 'Replies'],
        ] as const
      ).map(([to, words]) => (
        <NavLink
          key={to}
          to={to}
          end
          className={({ isActive }) => `pb-1 font-semibold border-b-2 ${isActive ? 'border-madder' : 'border-transparent text-ink2 hover:text-ink'}`}
        >
          {words}
        </NavLink>
      ))}
    </nav>
  );
}
