/** Weeks over which turns are counted: those before a week, and that week itself. */
export const FAIR_WEEKS = 8;

/** A task of a week that somebody has by turn. */
export interface TurnTask {
  readonly id: string;
  /** Whose turns are counted together. */
  readonly scheduleId: string;
  readonly personId: string;
  /** The estimate, from 1. */
  readonly minutes: number;
}

/** How often each of a roster had the work of a schedule over the weeks that are counted, whoever has not had it with 0. */
export type TurnsHad = ReadonlyMap<string, number>;

/**
 * To whom the tasks of turns may go when a week is evened out, so that turns don't get less fair whichever of the moves are
 * made: of each schedule one task in a week at the most, of whoever had its work most often, to somebody of the roster who had
 * it less often. All others stay where they are.
 * @param hadOf of a schedule; null where one of its tasks of this week was given to somebody else by hand already
 */
export function fairTakers(
  tasks: readonly TurnTask[],
  hadOf: (scheduleId: string) => TurnsHad | null,
): ReadonlyMap<string, readonly string[]> {
  const most = new Map<string, { readonly task: TurnTask; readonly had: TurnsHad; readonly times: number }>();
  for (const task of tasks) {
    const had = hadOf(task.scheduleId);
    const times = had?.get(task.personId);
    if (had === null || times === undefined) continue;
    const before = most.get(task.scheduleId);
    const isMore = !before || times > before.times || (times === before.times && task.minutes > before.task.minutes);
    if (isMore) most.set(task.scheduleId, { task, had, times });
  }
  return new Map(
    tasks.map(({ id, scheduleId }) => {
      const one = most.get(scheduleId);
      if (one?.task.id !== id) return [id, []];
      return [id, [...one.had].flatMap(([personId, times]) => (times < one.times ? [personId] : []))];
    }),
  );
}
