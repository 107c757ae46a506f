import { useState } from 'react';
import { sayTrouble } from '../app/shell/toast.tsx';

/** Work that a press asks for: one at a time, and what is refused is said. */
export function useTrying() {
  const [busy, setBusy] = useState(false);
  return {
    busy,
    /** @param work throws a ProblemError when it is refused */
    trying: async (work: () => Promise<void>): Promise<void> => {
      setBusy(true);
      try {
        await work();
      } catch (error) {
        sayTrouble(error);
      } finally {
        setBusy(false);
      }
    },
  };
}
