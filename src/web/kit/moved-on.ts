const HALF_A_MINUTE_MS = 30_000;

/**
 * A civil moment some time later, as a clock on the wall goes: a change to or from summer time in between is not known here.
 * A moment is told by its minute, so it is reckoned from the middle of that: a moment ago is not the minute before.
 * @param moment "2026-11-24T10:40"
 * @param byMs milliseconds, backwards where below 0
 */
export function movedOn(moment: string, byMs: number): string {
  return new Date(Date.parse(`${moment}Z`) + HALF_A_MINUTE_MS + byMs).toISOString().slice(0, 16);
}
