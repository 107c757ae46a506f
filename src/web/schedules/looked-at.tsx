import { type ReactNode, useState } from 'react';
import type { Impact, Reach, SchedulePatch } from '../../contract/index.ts';
import { ProblemError } from '../api.ts';
import { ImpactDialog } from '../impact/impact-dialog.tsx';
import { needsLook } from '../impact/impact-words.ts';
import { useScheduleActions } from './api.ts';

/** Changes of one or many schedules that are to be looked at before they are saved. */
export interface AskedChange {
  readonly changes: readonly SchedulePatch[];
  /** What is being changed: "12 schedules paused from today". */
  readonly what: string;
  /** Said once it is saved: "Paused 12 schedules." */
  readonly said: string;
}

interface LookedAt {
  /** Shows what the changes do, and saves them once that is confirmed; what does nothing to any task is saved at once. */
  readonly look: (asked: AskedChange) => void;
  readonly busy: boolean;
  readonly dialog: ReactNode;
}

/** One way for all that changes schedules from outside their bench: Impact, one save, one undo. */
export function useLookedAt({
  onSaved = () => undefined,
  onRefused,
}: {
  readonly onSaved?: () => void;
  readonly onRefused: (problem: ProblemError) => void;
}): LookedAt {
  const { impactOfSeveral, saveSeveral } = useScheduleActions();
  const [looking, setLooking] = useState<{ readonly asked: AskedChange; readonly first: Impact } | null>(null);
  const [busy, setBusy] = useState(false);
  const trying = async (work: () => Promise<void>) => {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setLooking(null);
      onRefused(error);
    } finally {
      setBusy(false);
    }
  };
  const keep = async (asked: AskedChange, reach?: Reach) => {
    await saveSeveral(asked.changes, asked.said, reach);
    setLooking(null);
    onSaved();
  };
  return {
    busy,
    look(asked) {
      void trying(async () => {
        const first = await impactOfSeveral(asked.changes, { open: false, also: [] });
        if (needsLook(first)) setLooking({ asked, first });
        else await keep(asked);
      });
    },
    dialog: looking && (
      <ImpactDialog
        what={looking.asked.what}
        first={looking.first}
        ask={(reach) => impactOfSeveral(looking.asked.changes, reach)}
        onSave={(reach) => void trying(() => keep(looking.asked, reach))}
        onClose={() => setLooking(null)}
      />
    ),
  };
}
