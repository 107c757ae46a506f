import { createContext, useContext, useEffect } from 'react';
import type { CivilDay } from '../../../core/index.ts';
import type { StartPlace } from '../../features/templates/start-now.tsx';
import type { DaySpan } from './tide-words.ts';

/** What a page tells the tideline above it: whose work, which days, and what a choice of days does. */
export interface TideControl {
  readonly personId?: string | undefined;
  readonly chosen: DaySpan | null;
  /** Without it, a chosen day opens one's own day sheet. */
  readonly onChoose?: (span: DaySpan) => void;
  readonly spans: boolean;
  readonly marks?: { readonly days: readonly CivilDay[]; readonly label: string } | undefined;
}

/** What can be done from anywhere. */
export interface Shell {
  startNow(place?: StartPlace): void;
  capture(): void;
}

export const ShellContext = createContext<Shell | null>(null);

export function useShell(): Shell {
  const shell = useContext(ShellContext);
  if (!shell) throw new Error('The shell is used outside its frame.');
  return shell;
}

export const TideContext = createContext<((control: TideControl | null) => void) | null>(null);

/** Takes the tideline over for as long as the page stands. Pass the same object while nothing changes. */
export function useTide(control: TideControl): void {
  const set = useContext(TideContext);
  useEffect(() => {
    set?.(control);
    return () => set?.(null);
  }, [set, control]);
}
