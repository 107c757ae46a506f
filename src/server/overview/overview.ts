import { NONE_OF_THEM, OVERVIEW_LINES, type Overview, type TaskFilter } from '../../contract/index.ts';
import { isoOfDay, minutesFor, peopleHere, type TaskState } from '../../core/index.ts';
import { colleagues } from '../people/index.ts';
import { namedOrNull } from '../platform/named.ts';
import type { Scope } from '../platform/scope.ts';
import { type CallMinutes, callLoad } from '../ringing/index.ts';
import { lastRun } from '../runs/index.ts';
import { foreseenOfNobody } from '../schedules/index.ts';
import { countOfTasks, firstDue } from '../task-list/index.ts';
import { askingSchedules } from './asking.ts';
import { comingWeeks, workAhead } from './weeks.ts';

/** What a manager wants to see in the morning: what is late, under way, to check, held up, without anybody, and what is coming. */
export async function overview(scope: Scope): Promise<Overview> {
  const { day } = scope.now;
  // What takes longest is asked first: of the rest each waits for one of few connections.
  const [run, ahead, bands, today, calls, foreseen, crew, names, calendar] = await scope.atOnce(
    () => lastRun(scope),
    () => workAhead(scope),
    () => firstDue(scope, BANDS, OVERVIEW_LINES),
    () => dueToday(scope),
    () => callsToday(scope),
    () => foreseenOfNobody(scope),
    () => colleagues(scope),
    () => scope.peopleNames(),
    () => scope.calendar(),
  );
  const { workers } = peopleHere(crew);
  const isHoliday = calendar.holidayName(day) !== undefined;
  return {
    at: scope.moment(scope.instant),
    today: {
      ...today,
      calls,
      capacity: [...workers.values()].reduce((sum, one) => sum + minutesFor(one, day, { isHoliday }), 0),
    },
    ...bands,
    nobody: {
      ...bands.nobody,
      foreseenCount: foreseen.length,
      foreseen: foreseen.slice(0, OVERVIEW_LINES).map(({ first, dates }) => ({
        ...{ scheduleId: first.scheduleId, title: first.title, on: first.workOn, dates },
        client: namedOrNull(first.clientId, first.clientName),
        asset: namedOrNull(first.assetId, first.assetName),
      })),
    },
    schedules: await askingSchedules(scope, run?.waits ?? []),
    weeks: await comingWeeks(scope, ahead, workers, names),
    horizon: isoOfDay(day + scope.workspace.horizonDays),
    lastRun: run,
  };
}

/** The bands of tasks. */
const BANDS = {
  late: { are: 'late' },
  underWay: { are: 'underWay', late: 'no' },
  toCheck: { are: 'toCheck' },
  heldUp: { are: 'heldUp' },
  nobody: { are: 'open', person: NONE_OF_THEM, offered: 'no', late: 'no', due: 'month' },
} as const satisfies Readonly<Record<string, TaskFilter>>;

/** Calls of today: how many there are, how many are made, and how long they take. */
async function callsToday(scope: Scope): Promise<Overview['today']['calls']> {
  const { day } = scope.now;
  const rows = await callLoad(scope, { from: day, to: day });
  const sum = (of: (row: CallMinutes) => number) => rows.reduce((total, row) => total + of(row), 0);
  return {
    all: sum(({ calls }) => calls),
    made: sum(({ made }) => made),
    minutes: sum(({ done, open, foreseen }) => done + open + foreseen),
    finishedMinutes: sum(({ done }) => done),
  };
}

/** How far the work is that is due today. Skipped and lapsed work is not to be done. */
async function dueToday(scope: Scope): Promise<Omit<Overview['today'], 'capacity' | 'calls'>> {
  const [late, rows] = await scope.atOnce(
    () => countOfTasks(scope, { are: 'late', due: 'today' }),
    () =>
      scope.sql<{ state: TaskState; tasks: number; minutes: number }>(
        `select state, count(*)::int as tasks, sum(estimate_minutes)::int as minutes from task
         where workspace_id = $1 and due_on = $2::date and state not in ('skipped', 'lapsed') group by 1`,
        [scope.today],
      ),
  );
  const of = (...states: TaskState[]) => rows.filter(({ state }) => states.includes(state));
  const tasks = (...states: TaskState[]) => of(...states).reduce((sum, row) => sum + row.tasks, 0);
  return {
    due: rows.reduce((sum, row) => sum + row.tasks, 0),
    done: tasks('done'),
    toCheck: tasks('toCheck'),
    underWay: tasks('underWay'),
    toStart: tasks('open'),
    dueMinutes: rows.reduce((sum, row) => sum + row.minutes, 0),
    lateMinutes: late.minutes,
    finishedMinutes: of('done', 'toCheck').reduce((sum, row) => sum + row.minutes, 0),
  };
}
