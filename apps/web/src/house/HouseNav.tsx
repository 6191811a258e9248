import { NavLink } from 'react-router';

const PLACES = [
  { to: '/house', words: 'By place' },
  { to: '/house/do-not-contact', words: 'Do not contact' },
  { to: '/house/texts', words: 'Answers to texts' },
] as const;

/** What is set once and obeyed everywhere. */
export function HouseNav() {
  return (
    <nav aria-label="House rules" className="flex gap-5 pb-3">
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
