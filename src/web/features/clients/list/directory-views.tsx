import { NavLink } from 'react-router';

/** Clients, or what the workspace has of its own. */
export function DirectoryViews() {
  const look = 'filter-word aria-[current=page]:font-semibold aria-[current=page]:text-ink';
  return (
    <nav aria-label="Whose" className="flex gap-3">
      <NavLink className={look} to="/clients" end>
        theirs
      </NavLink>
      <NavLink className={look} to="/clients/own">
        our own
      </NavLink>
    </nav>
  );
}
