import type { Schedule } from '../../contract/index.ts';
import {
  type CivilDay,
  holdersOf,
  isDated,
  mayComeToDo,
  namedFrom,
  type People,
  type PlannedSchedule,
  peopleHere,
  plainWords,
  ruleOfStep,
  shownDays,
  type WorkingCalendar,
} from '../../core/index.ts';
import { colleagues } from '../people/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { ENDED } from '../tasks/stored/index.ts';
import { keptOfSchedules, marksOf, type Told } from './kept.ts';
import { readableSchedule, type ScheduleRow, scheduleRows } from './schedule-row.ts';
import { foresee, phrasesOf, stateOf } from './service.ts';
import { whoWords } from './who-words.ts';

/** What a schedule's line in a list is told from, but for what becomes of its tasks. */
export interface KeptLine
  extends Pick<Schedule, 'phrase' | 'nextPhrase' | 'state' | 'problem' | 'next' | 'timesAYear'> {
  readonly row: ScheduleRow;
  /** Null where what is stored can't be read. */
  readonly planned: PlannedSchedule | null;
  /** Its dates around today, as far as the tideline goes. */
  readonly dates: readonly CivilDay[];
  /** Who does it, in words. */
  readonly who: string;
  /** Whom its rule means, by name or as one of a group. */
  readonly holders: ReadonlySet<string>;
  /** Who may be given work by it: those, and whoever takes over or was named for some of its tasks. */
  readonly people: ReadonlySet<string>;
  /** What it is found by, in plain words. */
  readonly words: string;
  /** What it is ordered by after all else, in small letters. */
  readonly name: string;
}

/** Days around today whose dates are kept. */
export const DATES_BEFORE = 7;
export const DATES_AFTER = 42;

/** Schedules whose lines are kept at the most, of all workspaces together. */
const MOST_KEPT = 40_000;

/** Main tasks that are over, of dates from today on: of these none is the next. */
const OVER_AHEAD = `workspace_id = $1 and schedule_id is not null and step_key = '' and head = '' and state in ${ENDED}
  and greatest(nominal_date, work_on) >= $2::date`;

/** The lines of all schedules of the workspace that are not deleted. */
export const keptLines = keptOfSchedules<KeptLine>({
  marks: (scope, ids) =>
    marksOf(
      scope,
      `select schedule_id, string_agg(nominal_date::text, ' ' order by nominal_date) as tasks from task
       where ${OVER_AHEAD} group by schedule_id`,
      ids,
    ),
  tell: told,
  most: MOST_KEPT,
});

async function told(scope: Scope, ids: readonly string[]): Promise<[string, Told<KeptLine>][]> {
  const [calendar, crew, sayWho, names, rows, over] = await scope.atOnce(
    () => scope.calendar(),
    () => colleagues(scope),
    () => whoWords(scope),
    () => scope.peopleNames(),
    () => scheduleRows(scope, { ids }),
    () =>
      // By their days first: there are few ahead, and of each schedule there are years of others.
      scope.sql<{ scheduleId: string; on: string }>(
        `with over as materialized (select schedule_id, nominal_date from task where ${OVER_AHEAD})
         select schedule_id as "scheduleId", nominal_date as "on" from over where schedule_id = any($3::uuid[])`,
        [scope.today, ids],
      ),
  );
  const here = peopleHere(crew);
  const ended = new Map<string, Set<string>>();
  for (const { scheduleId, on } of over) ended.set(scheduleId, (ended.get(scheduleId) ?? new Set()).add(on));
  return eachInTurn(
    rows.filter(({ deletedAt }) => deletedAt === null),
    (row) => {
      const planned = readableSchedule(scope, row);
      const seen = foresee(scope, row, ended.get(row.id) ?? new Set(), calendar);
      const phrases = phrasesOf(scope, planned);
      const who = sayWho(row.assignment);
      // Turns are told by first names, and found by all of them.
      const named = [...namedFrom(row.assignment, scope.now.day)].map((id) => names.get(id));
      return [
        row.id,
        {
          told: {
            row,
            planned,
            ...phrases,
            ...seen,
            state: stateOf(scope, row, seen),
            dates: seen.problem === null && planned ? datesAround(planned, calendar, scope.now.day) : [],
            who,
            holders: holdersOf(row.assignment, here, row.usualPersonId, scope.now.day),
            people: peopleOf(row, planned, here),
            words: plainWords(
              [row.templateName, row.clientName, row.assetName, phrases.phrase, who, ...named].join(' '),
            ).join(' '),
            name: folded(`${row.templateName} ${row.assetName ?? ''}`),
          },
          // What waits for its last task waits for what becomes of it, which the mark does not tell.
          isFluid: row.last !== null,
        },
      ];
    },
  );
}

function datesAround(planned: PlannedSchedule, calendar: WorkingCalendar, today: CivilDay): CivilDay[] {
  return shownDays(planned, calendar, today - DATES_BEFORE, today + DATES_AFTER)
    .filter(isDated)
    .map(({ on }) => on);
}

function peopleOf(
  { assignment, usualPersonId, taskSteps, exceptions }: ScheduleRow,
  planned: PlannedSchedule | null,
  here: People,
): Set<string> {
  const ofSteps = taskSteps.flatMap(({ assignee }) => {
    const rule = ruleOfStep(assignee);
    return rule === null ? [] : [...mayComeToDo(rule, here, usualPersonId)];
  });
  const byHand = (planned?.revisions ?? []).flatMap(({ own }) =>
    Object.values(own ?? {}).flatMap((one) => one.assigneeId ?? []),
  );
  const once = exceptions.flatMap((one) => (one.kind === 'change' ? (one.change.assigneeId ?? []) : []));
  return new Set([...mayComeToDo(assignment, here, usualPersonId), ...ofSteps, ...byHand, ...once]);
}

/** Small letters without their accents, so that É stands beside E. */
function folded(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}
