import { lazy, Suspense, useCallback, useMemo, useState } from 'react';
import { Outlet, useNavigate } from 'react-router';
import { type CivilDay, isoOfDay } from '../../../core/index.ts';
import type { Asked } from '../../features/tasks/capture/capture-bar.tsx';
import type { StartPlace } from '../../features/templates/start-now.tsx';
import { AsideLine } from '../../features/unsent/aside-line.tsx';
import { UnsentLine } from '../../features/unsent/unsent-line.tsx';
import { useKeys } from './keys.tsx';
import { useLiveNews } from './live.ts';
import { CaptureOpening, JumpOpening, StartOpening } from './openings.tsx';
import { type Shell, ShellContext, TideContext, type TideControl } from './shell-context.ts';
import { loadCapture, loadJump, loadKeyCard, loadStartNow } from './soon.ts';
import { useTakingAlong } from './taking-along.ts';
import type { DaySpan } from './tide-words.ts';
import { Tideline } from './tideline.tsx';
import { loadToasts } from './toast.tsx';
import { TopBar } from './top-bar.tsx';
import { useWorkspace } from './workspace.tsx';

// What is opened over any page; loaded before it is asked for (see `soon.ts`).
const Jump = lazy(loadJump);
const KeyCard = lazy(loadKeyCard);
const CaptureBar = lazy(loadCapture);
const StartNow = lazy(loadStartNow);
const Toaster = lazy(async () => ({ default: (await loadToasts()).Toaster }));

/** On a phone the foot is where the doing is: what is said stands at the top. */
const NARROW = window.matchMedia('(max-width: 720px)');

/** Bar, tideline and the page below, for everyone who is signed in. */
export function Frame() {
  const { me, today, trouble } = useWorkspace();
  const navigate = useNavigate();
  const [control, setControl] = useState<TideControl | null>(null);
  const [open, setOpen] = useState<'jump' | 'keys' | null>(null);
  const [jumpTo, setJumpTo] = useState('');
  const [jumpAsked, setJumpAsked] = useState(false);
  const closeJump = () => {
    setOpen(null);
    setJumpTo('');
    setJumpAsked(false);
  };
  const [starting, setStarting] = useState<StartPlace | null>(null);
  const [capturing, setCapturing] = useState(false);
  const [captureAsked, setCaptureAsked] = useState<Asked>(null);
  const closeCapture = () => {
    setCapturing(false);
    setCaptureAsked(null);
  };
  const [lands, setLands] = useState<CivilDay | null>(null);
  useLiveNews(me.id);
  useTakingAlong();
  // A day that was chosen on the tideline is the day it is started on.
  const chosenDay = control?.chosen?.to;
  const startNow = useCallback(
    (place: StartPlace = {}) =>
      setStarting({ ...(chosenDay !== undefined && chosenDay > today ? { on: chosenDay } : {}), ...place }),
    [chosenDay, today],
  );
  const capture = useCallback(() => setCapturing(true), []);
  const shell = useMemo<Shell>(() => ({ startNow, capture }), [startNow, capture]);
  useKeys([
    { key: '?', says: 'Show these keys', run: () => setOpen('keys') },
    { key: 'Mod+k', says: 'Jump to anything by name', run: () => setOpen('jump') },
    { key: 'c', says: 'Capture a task in one line', run: () => setCapturing(true) },
    { key: 's', says: 'Start a template now', run: () => startNow() },
  ]);
  const openMyDay = ({ to }: DaySpan) => void navigate(`/day-sheet/${me.id}?date=${isoOfDay(to)}`);
  return (
    <ShellContext value={shell}>
      <div className="flex h-full flex-col">
        <TopBar onJump={() => setOpen('jump')} onKeys={() => setOpen('keys')} />
        {capturing && (
          <Suspense fallback={<CaptureOpening onEnter={setCaptureAsked} />}>
            <CaptureBar asked={captureAsked} onClose={closeCapture} onLands={setLands} />
          </Suspense>
        )}
        <Tideline
          personId={control?.personId}
          chosen={control?.chosen ?? null}
          onChoose={control?.onChoose ?? openMyDay}
          spans={control?.spans ?? false}
          marks={lands === null ? control?.marks : { days: [lands], label: 'it lands here' }}
        />
        <UnsentLine />
        <AsideLine />
        {trouble && (
          <p role="alert" className="border-b-2 border-late bg-base-100 px-5 py-1.5 text-row leading-5">
            {trouble}
          </p>
        )}
        <TideContext value={setControl}>
          {/* What is only for readers stands outside the flow: it must not make the page longer than the screen. */}
          <main tabIndex={-1} className="relative flex min-h-0 flex-1 flex-col [overflow:clip]">
            <Outlet />
          </main>
        </TideContext>
        {open === 'keys' && (
          <Suspense fallback={null}>
            <KeyCard onClose={() => setOpen(null)} />
          </Suspense>
        )}
        {open === 'jump' && (
          <Suspense
            fallback={
              <JumpOpening typed={jumpTo} onType={setJumpTo} onEnter={() => setJumpAsked(true)} onClose={closeJump} />
            }
          >
            <Jump typed={jumpTo} onType={setJumpTo} isAsked={jumpAsked} onClose={closeJump} />
          </Suspense>
        )}
        {starting && (
          <Suspense fallback={<StartOpening onClose={() => setStarting(null)} />}>
            <StartNow place={starting} onClose={() => setStarting(null)} />
          </Suspense>
        )}
        <Suspense fallback={null}>
          <Toaster
            // Beside each other, not behind: the Undo of the one before stays where it can be pressed.
            expand
            position={NARROW.matches ? 'top-center' : 'bottom-left'}
            offset={20}
            // Below the head of a sheet, whose Close it must not cover.
            mobileOffset={{ top: 60, left: 8, right: 8 }}
            visibleToasts={3}
          />
        </Suspense>
      </div>
    </ShellContext>
  );
}
