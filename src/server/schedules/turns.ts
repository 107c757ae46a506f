import type { TurnSaid } from '../../contract/index.ts';
import {
  type CivilDay,
  datesBetweenOf,
  isDated,
  isoOfDay,
  planDays,
  type TurnSpan,
  type Turns,
  turnsOf,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { readableSchedule, type ScheduleRow } from './schedule-row.ts';

/** Turns are looked at from so many days back, so that the first of a month’s dates is among them, to so many ahead. */
const [BACK, AHEAD] = [35, 190];

/** The turns of a schedule around today; null where it has none that can be told. */
export async function turnsOfSchedule(
  scope: Scope,
  row: ScheduleRow,
): Promise<{ readonly turns: Turns; readonly spans: readonly TurnSpan[] } | null> {
  const { assignment } = row;
  const schedule = row.problem === null && assignment.kind === 'inTurn' ? readableSchedule(scope, row) : null;
  if (assignment.kind !== 'inTurn' || schedule === null) return null;
  const calendar = await scope.calendar();
  const { day: today } = scope.now;
  const nominals = planDays(schedule, calendar, today - BACK, today + AHEAD)
    .filter((one) => isDated(one) && !one.isAdded)
    .map(({ nominal }) => nominal)
    .sort((a, b) => a - b);
  return {
    turns: assignment.turns,
    spans: turnsOf(assignment.turns, nominals, datesBetweenOf(schedule, calendar, assignment)),
  };
}

export const turnWith = (spans: readonly TurnSpan[], day: CivilDay): TurnSpan | undefined =>
  spans.find(({ first, last }) => first <= day && day <= last);

export const sayTurn = ({ first, last, dates }: TurnSpan): TurnSaid => ({
  ...{ first: isoOfDay(first), last: isoOfDay(last), dates },
});
