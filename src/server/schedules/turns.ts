import type { TurnSaid } from '../../contract/index.ts';
import {
  type CivilDay,
  datesBetweenOf,
  isDated,
  isoOfDay,
  planDays,
  type TurnSpan,
  type Turns,
  type WorkedTurn,
  workedTurnsOf,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { readableSchedule, type ScheduleRow } from './schedule-row.ts';

/** Turns are looked at from so many days back, so that the first of a month’s dates is among them, to so many ahead. */
const [BACK, AHEAD] = [35, 190];

/** The turns of a schedule around today, and around days to come; null where it has none that can be told. */
export async function turnsOfSchedule(
  scope: Scope,
  row: ScheduleRow,
  upTo: CivilDay = scope.now.day,
): Promise<{ readonly turns: Turns; readonly spans: readonly WorkedTurn[] } | null> {
  const { assignment } = row;
  const schedule = row.problem === null && assignment.kind === 'inTurn' ? readableSchedule(scope, row) : null;
  if (assignment.kind !== 'inTurn' || schedule === null) return null;
  const calendar = await scope.calendar();
  const { day: today } = scope.now;
  const dates = planDays(schedule, calendar, today - BACK, Math.max(today, upTo) + AHEAD)
    .filter(isDated)
    .filter(({ isAdded }) => !isAdded)
    .sort((a, b) => a.nominal - b.nominal);
  return {
    turns: assignment.turns,
    spans: workedTurnsOf(assignment.turns, dates, datesBetweenOf(schedule, calendar, assignment)),
  };
}

export const turnWith = <Span extends TurnSpan>(spans: readonly Span[], day: CivilDay): Span | undefined =>
  spans.find(({ first, last }) => first <= day && day <= last);

export const sayTurn = ({ first, last, dates }: TurnSpan): TurnSaid => ({
  ...{ first: isoOfDay(first), last: isoOfDay(last), dates },
});
