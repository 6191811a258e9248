import { NavLink } from 'react-router';

/** The two ways in which people come: brought by a file, or by themselves. */
export function GatherNav() {
  return (
    <nav aria-label="Gather" className="flex gap-5 pb-3">
      {(
        [
          ['/gather', 'Batches'],
          ['/gather/forms', 'Forms'],
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
