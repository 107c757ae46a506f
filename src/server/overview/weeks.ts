import { OVERVIEW_WEEKS, type OverviewWeek } from '../../contract/index.ts';
import {
  type CivilDay,
  DAYS_A_WEEK,
  dayOfIso,
  isoOfDay,
  minutesWithin,
  mondayOf,
  type Worker,
} from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { callLoad } from '../ringing/index.ts';
import { foreseenByPerson } from '../schedules/index.ts';
import { UNFINISHED } from '../tasks/stored/index.ts';

/** People who are named of a week. */
const NAMED = 2;

/** Work of the weeks ahead, by person: what is made and what is foreseen. */
export function workAhead(scope: Scope) {
  const first = firstMonday(scope);
  return scope.atOnce(
    () =>
      scope.sql<{ personId: string | null; at: number; minutes: number }>(
        `select assignee_id as "personId", (due_on - $2::date) / ${DAYS_A_WEEK} as at, sum(estimate_minutes)::int as minutes
         from task where workspace_id = $1 and due_on >= $2::date and due_on < $3::date and state in ${UNFINISHED} group by 1, 2`,
        [isoOfDay(first), isoOfDay(first + OVERVIEW_WEEKS * DAYS_A_WEEK)],
      ),
    () => foreseenByPerson(scope),
    () => callLoad(scope, { from: first, to: first + OVERVIEW_WEEKS * DAYS_A_WEEK - 1 }),
  );
}

const firstMonday = (scope: Scope): CivilDay => mondayOf(scope.now.day) + DAYS_A_WEEK;

/** What the weeks from the next one on hold: that work, against what everybody can do. */
export async function comingWeeks(
  scope: Scope,
  [rows, foreseen, calls]: Awaited<ReturnType<typeof workAhead>>,
  workers: ReadonlyMap<string, Worker>,
  names: ReadonlyMap<string, string>,
): Promise<OverviewWeek[]> {
  const first = firstMonday(scope);
  const calendar = await scope.calendar();
  const weeks = Array.from({ length: OVERVIEW_WEEKS }, (_, at) => ({
    monday: first + at * DAYS_A_WEEK,
    made: 0,
    foreseen: 0,
    loads: new Map<string, number>(),
  }));
  const add = (week: (typeof weeks)[number], personId: string | null, minutes: number) => {
    if (personId !== null) week.loads.set(personId, (week.loads.get(personId) ?? 0) + minutes);
  };
  for (const { personId, at, minutes } of rows) {
    const week = weeks[at];
    if (!week) continue;
    week.made += minutes;
    add(week, personId, minutes);
  }
  for (const [personId, days] of foreseen)
    for (const { dueOn, estimateMinutes } of days) {
      const week = weeks[Math.floor((dayOfIso(dueOn) - first) / DAYS_A_WEEK)];
      if (!week) continue;
      week.foreseen += estimateMinutes;
      add(week, personId, estimateMinutes);
    }
  for (const { personId, on, foreseen: minutes } of calls) {
    const week = weeks[Math.floor((on - first) / DAYS_A_WEEK)];
    if (!week) continue;
    week.foreseen += minutes;
    add(week, personId, minutes);
  }
  const isHoliday = (day: CivilDay) => calendar.holidayName(day) !== undefined;
  return eachInTurn(weeks, ({ monday, made, foreseen: ahead, loads }): OverviewWeek => {
    const sunday = monday + DAYS_A_WEEK - 1;
    const minutesOf = (worker: Worker) => minutesWithin(worker, monday, sunday, isHoliday);
    const can = new Map([...workers].map(([id, worker]) => [id, minutesOf(worker)]));
    const over = [...loads]
      .map(([id, minutes]) => ({ id, name: names.get(id) ?? '', minutes, capacity: can.get(id) ?? 0 }))
      .filter(({ minutes, capacity }) => minutes > capacity)
      .sort((a, b) => b.minutes - b.capacity - (a.minutes - a.capacity) || a.name.localeCompare(b.name));
    const away = [...workers]
      .filter(([, worker]) => worker.leave.some(({ from, to }) => from <= sunday && to >= monday))
      .filter(([id, worker]) => minutesOf({ ...worker, leave: [] }) > (can.get(id) ?? 0))
      .map(([id]) => ({ id, name: names.get(id) ?? '' }))
      .sort((a, b) => a.name.localeCompare(b.name));
    return {
      monday: isoOfDay(monday),
      made,
      foreseen: ahead,
      capacity: [...can.values()].reduce((sum, minutes) => sum + minutes, 0),
      over: over.slice(0, NAMED),
      overCount: over.length,
      away: away.slice(0, NAMED),
      awayCount: away.length,
    };
  });
}
