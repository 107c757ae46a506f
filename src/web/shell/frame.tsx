import { createContext, useContext, useEffect, useState } from 'react';
import { Outlet, useNavigate } from 'react-router';
import { Toaster } from 'sonner';
import { type CivilDay, isoOfDay } from '../../core/index.ts';
import { Jump } from './jump.tsx';
import { KeyCard, useKeys } from './keys.tsx';
import { useLiveNews } from './live.ts';
import { type DaySpan, Tideline } from './tideline.tsx';
import { TopBar } from './top-bar.tsx';
import { useWorkspace } from './workspace.tsx';

/** What a page tells the tideline above it: whose work, which days, and what a choice of days does. */
export interface TideControl {
  readonly personId?: string | undefined;
  readonly chosen: DaySpan | null;
  /** Without it, a chosen day opens one's own day sheet. */
  readonly onChoose?: (span: DaySpan) => void;
  readonly spans: boolean;
  readonly marks?: { readonly days: readonly CivilDay[]; readonly label: string } | undefined;
}

const TideContext = createContext<((control: TideControl | null) => void) | null>(null);

/** Takes the tideline over for as long as the page stands. Pass the same object while nothing changes. */
export function useTide(control: TideControl): void {
  const set = useContext(TideContext);
  useEffect(() => {
    set?.(control);
    return () => set?.(null);
  }, [set, control]);
}

/** Bar, tideline and the page below, for everyone who is signed in. */
export function Frame() {
  const { me } = useWorkspace();
  const navigate = useNavigate();
  const [control, setControl] = useState<TideControl | null>(null);
  const [open, setOpen] = useState<'jump' | 'keys' | null>(null);
  useLiveNews();
  useKeys([
    { key: '?', says: 'Show these keys', run: () => setOpen('keys') },
    { key: 'Mod+k', says: 'Jump to anything by name', run: () => setOpen('jump') },
  ]);
  const openMyDay = ({ to }: DaySpan) => void navigate(`/day-sheet/${me.id}?date=${isoOfDay(to)}`);
  return (
    <div className="flex h-full flex-col">
      <TopBar onJump={() => setOpen('jump')} onKeys={() => setOpen('keys')} />
      <Tideline
        personId={control?.personId}
        chosen={control?.chosen ?? null}
        onChoose={control?.onChoose ?? openMyDay}
        spans={control?.spans ?? false}
        marks={control?.marks}
      />
      <TideContext value={setControl}>
        <main className="flex min-h-0 flex-1 flex-col">
          <Outlet />
        </main>
      </TideContext>
      {open === 'jump' && <Jump onClose={() => setOpen(null)} />}
      {open === 'keys' && <KeyCard onClose={() => setOpen(null)} />}
      <Toaster position="bottom-left" offset={20} visibleToasts={3} />
    </div>
  );
}
