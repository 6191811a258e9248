import { NavLink } from 'react-router';

const PLACES = [
  { to: '/sort', words: 'Supporters' },
  { to: '/sort/segments', words: 'Segments' },
  { to: '/sort/groups', words: 'Lists and tags' },
] as const;

/** The three ways to look at people. */
export function SortNav() {
  return (
    <nav aria-label="Sort" className="flex gap-5 pb-3">
      {PLACES.map((place) => (
        <NavLink
          key={place.to}
          to={place.to}
          end
          className={({ isActive }) => `pb-1 font-semibold border-b-2 ${isActive ? 'border-madder' : 'border-transparent text-ink2 hover:text-ink'}`}
        >
          {place.words}
        </NavLink>
      ))}
    </nav>
  );
}
