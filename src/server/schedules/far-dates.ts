import {
  type CivilDay,
  closedOn,
  type DaySpan,
  dayOfIso,
  isoOfDay,
  type PlannedSchedule,
  revisionOn,
  spansWithin,
  tasksOfSet,
} from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { keptOfSome, marksByTasksAhead, type Told } from './kept.ts';
import { datedAround, unsettled } from './kept-plans.ts';
import { planProblem } from './owed.ts';
import { partsOf, plannedSchedule, type ScheduleRow, scheduleRows } from './schedule-row.ts';
import { type Making, makingFor, rowAsksForLoad } from './who-does.ts';

/** Whose a task that is not made yet will be. */
export interface FarWhose {
  readonly assigneeId: string | null;
  /** The role or the team of whom any one may take it. */
  readonly role: string | null;
  readonly team: string | null;
}

/** The days on which tasks of the same people are due, in order: 10,000 schedules foresee half a million of them. */
export interface FarDays extends FarWhose {
  readonly dueOn: Int32Array;
}

/** What a schedule foresees far ahead. */
export interface FarDates {
  readonly days: readonly FarDays[];
  /** When it rests: in its closed seasons, paused, or for good. */
  readonly rests: readonly DaySpan[];
}

/** Days from today on that are foreseen, and around today for which it is told when a schedule rests: a year, and what is left of a month. */
export const FAR_DAYS = 400;
/** Schedules whose dates are kept at the most, of all workspaces together: some 50 dates each. */
const MOST_KEPT = 30_000;

/** Of some schedules; those that are gone are left out, and one that can't be planned has no dates. */
export const farDates = keptOfSome<FarDates>({
  marks: marksByTasksAhead,
  tell: toldOf,
  most: MOST_KEPT,
});

async function toldOf(scope: Scope, ids: readonly string[]): Promise<[string, Told<FarDates>][]> {
  const rows = (await scheduleRows(scope, { ids })).filter(({ deletedAt }) => deletedAt === null);
  const making = await makingFor(scope, rows);
  const told = await eachInTurn(rows, (row) => ({ row, ...datesOf(scope, row, making) }));
  const open = new Set(
    await unsettled(
      scope,
      told.flatMap(({ dates }) => dates),
    ),
  );
  return told.map(({ row, dates, rests }) => {
    // Whose what the load decides will be changes with what others have.
    const isOfOthers = rowAsksForLoad(row);
    return [
      row.id,
      {
        isOfOthers,
        // What waits for its last task waits for what becomes of it, which the mark does not tell.
        isFluid: isOfOthers || row.last !== null,
        told: { rests, days: daysOf(dates.filter((date) => open.has(date))) },
      },
    ];
  });
}

function datesOf(scope: Scope, row: ScheduleRow, making: Making) {
  const { day: today } = scope.now;
  const [from, to] = [today, today + FAR_DAYS];
  try {
    const schedule = plannedSchedule(scope, row);
    const [parts, assigned, ofParts] = [partsOf(row), making.whose(row), making.ofParts(row)];
    const settledTo = dayOfIso(row.settledTo);
    const dates = datedAround(row, schedule, making, from, to)
      .filter(({ on }) => on >= settledTo)
      .flatMap((occurrence) =>
        tasksOfSet(occurrence, parts, making.calendar, assigned(occurrence), ofParts).flatMap(
          ({ part, head, due, assigneeId, assignment }) => {
            if (due < from || due > to) return [];
            const group = assignment.kind === 'anyOf' ? assignment.group : null;
            return {
              scheduleId: row.id,
              nominalDate: isoOfDay(occurrence.nominal),
              stepKey: part.key,
              head,
              dueOn: due,
              assigneeId,
              role: group?.of === 'role' ? group.role : null,
              team: group?.of === 'team' ? group.team : null,
            };
          },
        ),
      );
    return { dates, rests: restsOf(schedule, today - FAR_DAYS, to) };
  } catch (error) {
    // A schedule with a problem foresees nothing; its own row says why.
    if (planProblem(error) === null) throw error;
    return { dates: [], rests: [] };
  }
}

/** By whose they are. */
function daysOf(dates: readonly (FarWhose & { readonly dueOn: CivilDay })[]): FarDays[] {
  const byWhose: (FarWhose & { readonly days: CivilDay[] })[] = [];
  for (const { dueOn, assigneeId, role, team } of dates) {
    // Of one schedule there are few.
    const there = byWhose.find((one) => one.assigneeId === assigneeId && one.role === role && one.team === team);
    if (there) there.days.push(dueOn);
    else byWhose.push({ assigneeId, role, team, days: [dueOn] });
  }
  return byWhose.map(({ days, ...whose }) => ({ ...whose, dueOn: Int32Array.from(days).sort() }));
}

function restsOf(schedule: PlannedSchedule, from: CivilDay, to: CivilDay): DaySpan[] {
  const { closed } = revisionOn(schedule, isoOfDay(from + FAR_DAYS)).recurrence;
  const pauses = (schedule.pauses ?? []).map((pause) => ({
    from: dayOfIso(pause.from),
    to: pause.to === null ? to : dayOfIso(pause.to) - 1,
  }));
  if (closed === undefined && pauses.length === 0) return [];
  const isClosed = closedOn(closed?.seasons ?? []);
  return spansWithin(from, to, (day) => isClosed(day) || pauses.some((pause) => pause.from <= day && day <= pause.to));
}
