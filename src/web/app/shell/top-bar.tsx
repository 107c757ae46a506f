import { LogOut, Moon, Plus, Search, Sun } from 'lucide-react';
import { lazy, Suspense } from 'react';
import { Link, NavLink, useLocation } from 'react-router';
import { useShell } from './shell-context.ts';
import { useSignOut } from './sign-out.tsx';
import { useTheme } from './theme.ts';
import { useWorkspace } from './workspace.tsx';

const Bell = lazy(() => import('../../features/bell/bell.tsx'));
const WorkspaceChoice = lazy(() => import('./workspace-choice.tsx'));

/** The places that exist, in the order of the work. */
export const PLACES = [
  {
    verb: 'plan',
    places: [
      { name: 'Templates', to: '/templates' },
      { name: 'Schedules', to: '/schedules' },
      { name: 'Service plans', to: '/plans' },
    ],
  },
  {
    verb: 'do',
    places: [
      { name: 'Day sheet', to: '/day-sheet' },
      { name: 'Calls', to: '/calls' },
    ],
  },
  {
    verb: 'watch',
    places: [
      { name: 'Wallchart', to: '/wallchart' },
      { name: 'Tasks', to: '/tasks' },
      { name: 'Workload', to: '/workload' },
      { name: 'Logbook', to: '/logbook' },
    ],
  },
] as const;

/** On a phone the others are found by the jump: whoever rings by a quota has the calls, everybody else the schedules. */
const ON_PHONES = { rings: new Set(['/day-sheet', '/calls']), plans: new Set(['/schedules', '/day-sheet']) } as const;

/** For whom work is done; on a phone it is found by the jump. */
export const CLIENTS = { name: 'Clients', to: '/clients' } as const;
/** Who works here; on a phone it is found by the jump. */
export const TEAM = { name: 'Team', to: '/team' } as const;
/** What only managers set up; on a phone it is found by the jump. */
export const SETTINGS = { name: 'Settings', to: '/settings' } as const;

/** The chosen place flies a long pennant from a short mast. */
const MAST =
  "aria-[current=page]:before:absolute aria-[current=page]:before:top-[35px] aria-[current=page]:before:left-1.5 aria-[current=page]:before:h-[13px] aria-[current=page]:before:w-[1.5px] aria-[current=page]:before:bg-bar-text aria-[current=page]:before:content-[''] max-[720px]:aria-[current=page]:before:top-[38px]";
const FLAG =
  "aria-[current=page]:after:absolute aria-[current=page]:after:top-9 aria-[current=page]:after:right-[5px] aria-[current=page]:after:left-[7px] aria-[current=page]:after:h-[7px] aria-[current=page]:after:bg-accent aria-[current=page]:after:[clip-path:polygon(0_0,100%_40%,0_100%)] aria-[current=page]:after:content-[''] max-[720px]:aria-[current=page]:after:top-[39px]";
const PLACE =
  'relative px-1.5 leading-12 whitespace-nowrap max-[1380px]:px-[3px] aria-[current=page]:font-[650] max-[720px]:px-1 max-[720px]:text-body max-[720px]:leading-13';

const TOOL =
  'h-8 min-w-8 cursor-pointer rounded-field text-bar-text hover:bg-bar-text/12 max-[720px]:h-11 max-[720px]:min-w-[29px] max-[720px]:self-center';
/** A tool that is a sign alone. */
const SIGN = `${TOOL} grid place-items-center`;

/** "IC" */
const initialsOf = (name: string): string => name.replace(/(\S)\S*\s*/g, '$1').slice(0, 2);

export function TopBar({ onJump, onKeys }: { readonly onJump: () => void; readonly onKeys: () => void }) {
  const { may, me, rings } = useWorkspace();
  const onPhones: ReadonlySet<string> = ON_PHONES[rings ? 'rings' : 'plans'];
  const [theme, setTheme] = useTheme();
  const { signOut, dialog } = useSignOut();
  const { capture, startNow } = useShell();
  const isMorning = useLocation().pathname.startsWith('/overview');
  return (
    <header className="flex h-12 flex-none items-stretch bg-bar pr-3 pl-5 text-row text-bar-text max-[720px]:h-13 max-[720px]:pr-1 max-[720px]:pl-3 print:hidden [&_:focus-visible]:[box-shadow:none]">
      <Link
        className={`relative mr-[22px] font-head max-[1380px]:mr-4 text-[19px] leading-12 font-bold tracking-[-0.01em] whitespace-nowrap font-stretch-[84%] max-[720px]:mr-1 max-[720px]:text-[16px] max-[720px]:leading-13 ${MAST} ${FLAG}`}
        to="/"
        aria-current={isMorning ? 'page' : undefined}
      >
        Jolly Rota
      </Link>
      <nav aria-label="Places" className="flex items-stretch">
        {PLACES.map(({ verb, places }) => (
          <div
            key={verb}
            // On a phone it is found by the jump.
            className={`mr-4 flex items-stretch max-[1380px]:mr-2 max-[720px]:mr-1 ${verb === 'watch' ? 'max-[720px]:hidden' : ''}`}
          >
            <span className="mr-1.5 text-note leading-12.25 text-bar-dim max-[720px]:hidden">{verb}</span>
            {places.map(({ name, to }) => (
              <NavLink
                key={to}
                // What is planned with others stands beside them.
                className={`${PLACE} ${MAST} ${FLAG} ${onPhones.has(to) ? '' : 'max-[720px]:hidden'}`}
                to={to}
              >
                {name}
              </NavLink>
            ))}
          </div>
        ))}
        {[CLIENTS, TEAM].map(({ name, to }) => (
          <NavLink key={to} className={`${PLACE} ${MAST} ${FLAG} max-[900px]:hidden`} to={to}>
            {name}
          </NavLink>
        ))}
        {may('settings') && (
          <NavLink className={`${PLACE} ${MAST} ${FLAG} max-[900px]:hidden`} to={SETTINGS.to}>
            {SETTINGS.name}
          </NavLink>
        )}
      </nav>
      <div className="ml-auto flex items-center gap-0.5">
        <button
          type="button"
          className={`${SIGN} px-2.5 whitespace-nowrap max-[1380px]:hidden`}
          title="Start a template now (s)"
          onClick={() => startNow()}
        >
          Start now
        </button>
        <button
          type="button"
          className={`${TOOL} flex items-center gap-1.5 min-[721px]:px-2.5`}
          title="Capture a task in one line (c)"
          onClick={capture}
        >
          <Plus size={16} aria-hidden />
          <span className="max-[720px]:sr-only">Capture</span>
        </button>
        <button
          type="button"
          className={SIGN}
          aria-label="Jump to anything by name"
          title="Jump to (Ctrl K)"
          onClick={onJump}
        >
          <Search size={17} aria-hidden />
        </button>
        <Suspense fallback={null}>
          <Bell className={`${SIGN} relative`} />
        </Suspense>
        <button
          type="button"
          className={`${SIGN} max-[720px]:hidden`}
          aria-label="Keys"
          title="Keys (?)"
          onClick={onKeys}
        >
          <span aria-hidden className="font-mono text-body">
            ?
          </span>
        </button>
        <button
          type="button"
          className={SIGN}
          aria-label={
            theme === 'daybreak' ? 'Switch to nightwatch, the dark theme' : 'Switch to daybreak, the light theme'
          }
          onClick={() => setTheme(theme === 'daybreak' ? 'nightwatch' : 'daybreak')}
        >
          {theme === 'daybreak' ? <Moon size={16} aria-hidden /> : <Sun size={16} aria-hidden />}
        </button>
        <Suspense fallback={null}>
          <WorkspaceChoice />
        </Suspense>
        <Link
          className={`${TOOL} ml-1 flex items-center px-2 whitespace-nowrap max-[720px]:hidden`}
          to="/account"
          aria-label={me.name}
          title="Your account"
        >
          <span className="max-[1380px]:hidden">{me.name}</span>
          <span
            aria-hidden
            className="grid h-7 w-7 place-items-center rounded-full border border-bar-dim text-note min-[1381px]:hidden"
          >
            {initialsOf(me.name)}
          </span>
        </Link>
        <button type="button" className={SIGN} aria-label={`Sign out ${me.name}`} title="Sign out" onClick={signOut}>
          <LogOut size={16} aria-hidden />
        </button>
        {dialog}
      </div>
    </header>
  );
}
