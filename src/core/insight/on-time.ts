/** Of some work that was due, how much was finished by then. */
export interface OnTime {
  /** Tasks that were due; what was skipped with a reason is none of them. */
  readonly due: number;
  /** Of them, those finished by when they were due. */
  readonly onTime: number;
}

/**
 * A share in whole per cent, 0 to 100: rounded, but all of it only where it is all, and none only where it is none.
 * @returns null where there is nothing to be a share of
 */
export function percentOf({ due, onTime }: OnTime): number | null {
  if (due === 0) return null;
  if (onTime === due) return 100;
  if (onTime === 0) return 0;
  return Math.min(99, Math.max(1, Math.round((onTime / due) * 100)));
}

/** Several of them together. */
export function addedUp(all: Iterable<OnTime>): OnTime {
  let [due, onTime] = [0, 0];
  for (const one of all) {
    due += one.due;
    onTime += one.onTime;
  }
  return { due, onTime };
}
