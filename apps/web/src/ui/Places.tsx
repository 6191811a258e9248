import { NavLink } from 'react-router';

export type PlaceLink = readonly [to: string, words: string];

/** The views of one station, in a line under its title. */
export function Places({ label, places }: { label: string; places: readonly PlaceLink[] }) {
  return (
    <nav aria-label={label} className="flex gap-5 pb-3">
      {places.map(([to, words]) => (
        <NavLink
          key={to}
          to={to}
          // The first is what the others lie in.
          end={to === places[0]![0]}
          className={({ isActive }) =>
            `pb-1 font-semibold border-b-2 ${isActive ? 'border-madder' : 'border-transparent text-ink2 hover:text-ink'}`
          }
        >
          {words}
        </NavLink>
      ))}
    </nav>
  );
}
