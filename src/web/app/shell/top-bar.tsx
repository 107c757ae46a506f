import { LogOut, Moon, Plus, Search, Sun } from 'lucide-react';
import { Link, NavLink } from 'react-router';
import { useShell } from './shell-context.ts';
import { useSignOut } from './sign-out.tsx';
import { useTheme } from './theme.ts';
import { useWorkspace } from './workspace.tsx';

/** The places that exist, in the order of the work. */
export const PLACES = [
  {
    verb: 'plan',
    places: [
      { name: 'Templates', to: '/templates' },
      { name: 'Schedules', to: '/schedules' },
    ],
  },
  { verb: 'do', places: [{ name: 'Day sheet', to: '/day-sheet' }] },
] as const;

export function TopBar({ onJump, onKeys }: { readonly onJump: () => void; readonly onKeys: () => void }) {
  const { me } = useWorkspace();
  const [theme, setTheme] = useTheme();
  const { signOut, dialog } = useSignOut();
  const { capture, startNow } = useShell();
  return (
    <header className="top-bar">
      <Link className="name max-[720px]:!hidden" to="/">
        Jolly Rota
      </Link>
      <nav aria-label="Places" className="flex items-stretch">
        {PLACES.map(({ verb, places }) => (
          <div key={verb} className="group max-[720px]:!mr-1">
            <span className="verb max-[720px]:hidden">{verb}</span>
            {places.map(({ name, to }) => (
              <NavLink key={to} className="place" to={to}>
                {name}
              </NavLink>
            ))}
          </div>
        ))}
      </nav>
      <div className="ml-auto flex items-center gap-0.5">
        <button
          type="button"
          className="tool !px-2.5 max-[900px]:!hidden"
          title="Start a template now (s)"
          onClick={() => startNow()}
        >
          Start now
        </button>
        <button
          type="button"
          className="tool !flex !items-center gap-1.5 min-[721px]:!px-2.5"
          title="Capture a task in one line (c)"
          onClick={capture}
        >
          <Plus size={16} aria-hidden />
          <span className="max-[720px]:sr-only">Capture</span>
        </button>
        <button
          type="button"
          className="tool"
          aria-label="Jump to anything by name"
          title="Jump to (Ctrl K)"
          onClick={onJump}
        >
          <Search size={17} aria-hidden />
        </button>
        <button type="button" className="tool max-[720px]:!hidden" aria-label="Keys" title="Keys (?)" onClick={onKeys}>
          <span aria-hidden className="font-mono text-body">
            ?
          </span>
        </button>
        <button
          type="button"
          className="tool"
          aria-label={
            theme === 'daybreak' ? 'Switch to nightwatch, the dark theme' : 'Switch to daybreak, the light theme'
          }
          onClick={() => setTheme(theme === 'daybreak' ? 'nightwatch' : 'daybreak')}
        >
          {theme === 'daybreak' ? <Moon size={16} aria-hidden /> : <Sun size={16} aria-hidden />}
        </button>
        <Link className="tool !ml-1 !flex !items-center !px-2 max-[720px]:!hidden" to="/account" title="Your account">
          {me.name}
        </Link>
        <button type="button" className="tool" aria-label={`Sign out ${me.name}`} title="Sign out" onClick={signOut}>
          <LogOut size={16} aria-hidden />
        </button>
        {dialog}
      </div>
    </header>
  );
}
