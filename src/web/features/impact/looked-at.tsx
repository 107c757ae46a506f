import { type ReactNode, useState } from 'react';
import type { Impact, Reach } from '../../../contract/index.ts';
import { ProblemError } from '../../kit/api.ts';
import { ImpactDialog } from './impact-dialog.tsx';
import { needsLook, type Removal } from './impact-words.ts';

interface LookingWays<Asked> {
  /** Null where nothing is there yet that it could change: it is saved at once. */
  readonly impactOf: ((asked: Asked, reach: Reach) => Promise<Impact>) | null;
  readonly save: (asked: Asked, reach?: Reach) => Promise<void>;
  /** Whether the change can be told to go further than what nobody has seen. */
  readonly hasReach: boolean;
  readonly canBeUndone?: boolean;
  /** Whether it is looked at though it does nothing to any task that is made. */
  readonly always?: boolean;
  /** How far that is what is done now, where it is told. */
  readonly percent?: number | null;
  readonly onSaved?: () => void;
  readonly onRefused: (problem: ProblemError) => void;
}

interface LookedAt<Asked> {
  /** Shows what a change does, and saves it once that is confirmed; what does nothing to any task is saved at once. */
  readonly look: (asked: Asked) => void;
  readonly busy: boolean;
  readonly dialog: ReactNode;
}

/** One way for all that changes several things at once: Impact, one save, one undo. */
export function useLookedAt<Asked extends { readonly what: string; readonly removal?: Removal }>({
  impactOf,
  save,
  hasReach,
  canBeUndone,
  always = false,
  percent = null,
  onSaved = () => undefined,
  onRefused,
}: LookingWays<Asked>): LookedAt<Asked> {
  const [looking, setLooking] = useState<{ readonly asked: Asked; readonly first: Impact } | null>(null);
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
  const keep = async (asked: Asked, reach?: Reach) => {
    await save(asked, reach);
    setLooking(null);
    onSaved();
  };
  return {
    busy,
    look(asked) {
      void trying(async () => {
        const first = impactOf && (await impactOf(asked, { open: false, also: [] }));
        if (first && (always || needsLook(first))) setLooking({ asked, first });
        else await keep(asked);
      });
    },
    dialog: looking && (
      <ImpactDialog
        what={looking.asked.what}
        removal={looking.asked.removal}
        first={looking.first}
        canBeUndone={canBeUndone}
        saving={busy ? { percent } : null}
        ask={hasReach && impactOf ? (reach) => impactOf(looking.asked, reach) : null}
        onSave={(reach) => void trying(() => keep(looking.asked, reach))}
        onClose={() => setLooking(null)}
      />
    ),
  };
}
