import type { Schedule as ScheduleAnswer, WholeSchedule } from '../../contract/index.ts';
import {
  type AssignmentRule,
  dayOfIso,
  daysWaited,
  isDated,
  isEnded,
  isOverdue,
  isoOfDay,
  nextDated,
  type Pause,
  PLAIN_TIMING,
  type PlannedSchedule,
  revisionAfter,
  revisionOn,
  setMinutes,
  shownDays,
  type WorkingCalendar,
  writePhrase,
} from '../../core/index.ts';
import { plansOfEach } from '../plans/stored/index.ts';
import { namedOrNull } from '../platform/named.ts';
import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { pastTasksOf, type SeriesTask } from '../tasks/stored/index.ts';
import { planProblem } from './owed.ts';
import { plannedSchedule, readableSchedule, type ScheduleRow, scheduleRows, shutFrom } from './schedule-row.ts';
import { whoWords } from './who-words.ts';

export async function oneSchedule(scope: Scope, id: string): Promise<ScheduleAnswer> {
  const [answer] = await answers(scope, await scheduleRows(scope, { ids: [id], withLast: true }));
  if (!answer) throw notFound('schedule');
  return answer;
}

/** Some of them whole, in the order of their names. */
export async function wholeSchedules(scope: Scope, ids: readonly string[]): Promise<WholeSchedule[]> {
  const schedules = await answers(scope, await scheduleRows(scope, { ids }));
  const plans = await plansOfEach(scope, [...new Set(schedules.flatMap(({ client }) => client?.id ?? []))]);
  return schedules.map((one) => ({ ...one, plans: one.client && (plans.get(one.client.id) ?? []) }));
}

async function answers(scope: Scope, rows: readonly ScheduleRow[]): Promise<ScheduleAnswer[]> {
  const calendar = await scope.calendar();
  const past = await pastTasksOf(
    scope,
    rows.map(({ id }) => id),
  );
  const sayWho = await whoWords(scope);
  return rows.map((row) => answer(scope, row, past.get(row.id) ?? [], { calendar, sayWho }));
}

function answer(
  scope: Scope,
  row: ScheduleRow,
  series: readonly SeriesTask[],
  { calendar, sayWho }: { readonly calendar: WorkingCalendar; readonly sayWho: (rule: AssignmentRule) => string },
): ScheduleAnswer {
  const readable = readableSchedule(scope, row);
  const schedule = readable ?? unreadable(scope, row);
  const { recurrence, timing, exceptions = [], revisions = [], last = null } = schedule;
  const ended = new Set(
    series.filter(({ task }) => isEnded(task.state as 'open')).map(({ nominalDate }) => nominalDate),
  );
  const plan = foresee(scope, row, ended, calendar);
  return {
    id: row.id,
    version: row.version,
    template: {
      id: row.templateId,
      name: row.templateName,
      category: row.category,
      estimateMinutes: setMinutes({ estimateMinutes: row.estimateMinutes, steps: row.taskSteps }),
      titlePattern: row.titlePattern,
      isArchived: row.archivedAt !== null,
    },
    client: namedOrNull(row.clientId, row.clientName),
    asset: namedOrNull(row.assetId, row.assetName),
    assignment: row.assignment,
    who: sayWho(row.assignment),
    recurrence,
    timing,
    overlap: row.overlap,
    waits: readable && waitsOf(scope, row, series, schedule, calendar),
    pauses: row.pauses,
    exceptions: [...exceptions],
    revisions: [...revisions],
    last,
    ...phrasesOf(scope, readable),
    deletedOn: row.deletedAt === null ? null : scope.moment(row.deletedAt).slice(0, 10),
    ...plan,
    state: stateOf(scope, row, plan),
    ...tasksSeen(series),
    deleted: row.deleted,
    since: recurrence.start,
  };
}

/** The rule of today in words, and the one that takes over from it; null stands for one that can't be read. */
export function phrasesOf(
  scope: Scope,
  schedule: PlannedSchedule | null,
): Pick<ScheduleAnswer, 'phrase' | 'nextPhrase'> {
  if (schedule === null) return { phrase: 'a rule that can’t be read', nextPhrase: null };
  const takesOver = revisionAfter(schedule, scope.today);
  return {
    phrase: writePhrase(revisionOn(schedule, scope.today).recurrence, {
      start: 'unsaid',
      yearStarts: scope.workspace.yearStarts,
    }),
    nextPhrase: takesOver && {
      from: takesOver.from,
      phrase: writePhrase(takesOver.recurrence, { start: 'unsaid', yearStarts: scope.workspace.yearStarts }),
    },
  };
}

export function stateOf(
  scope: Scope,
  row: ScheduleRow,
  { problem, next }: Pick<ScheduleAnswer, 'problem' | 'next'>,
): ScheduleAnswer['state'] {
  const isPaused = [...row.pauses, ...shutFrom(scope, row)].some((pause) => isPausing(pause, scope.today));
  return problem !== null ? 'problem' : isPaused ? 'paused' : next === null ? 'ended' : 'running';
}

/** What a line shows of the tasks of a series. */
export function tasksSeen(series: readonly SeriesTask[]): Pick<ScheduleAnswer, 'lastEight' | 'lateCount'> {
  return {
    lastEight: series
      .filter(({ shows }) => shows)
      .slice(-8)
      .map(({ task }) => task),
    lateCount: series.filter(({ task }) => isOverdue(task)).length,
  };
}

/** What stands in for a rule that is stored in a form that can't be read: a single date, so that the bench can give it another. */
function unreadable(scope: Scope, row: ScheduleRow): PlannedSchedule {
  const start = scope.moment(row.createdAt).slice(0, 10);
  return {
    recurrence: { start, rules: [{ kind: 'dates', dates: [start] }], end: { kind: 'never' }, dayOff: 'none' },
    timing: PLAIN_TIMING,
  };
}

/** Where the next waits for one that is still open: for which, and for how long. */
export function waitsOf(
  scope: Scope,
  { overlap }: ScheduleRow,
  series: readonly SeriesTask[],
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
): ScheduleAnswer['waits'] {
  if (overlap.kind !== 'wait') return null;
  const open = series.find(({ task }) => !isEnded(task.state as 'open'));
  if (!open) return null;
  const nominal = dayOfIso(open.nominalDate);
  const next = nextDated(schedule, calendar, nominal, (occurrence) => occurrence.nominal > nominal);
  const days = next && daysWaited([next], scope.now.day);
  return days === null ? null : { forOn: open.task.on, days, isTooLong: days > overlap.limitDays };
}

function isPausing({ from, to }: Pause, today: string): boolean {
  return from <= today && (to === null || to > today);
}

/** The next date still to be done, and how many a year. */
export function foresee(
  scope: Scope,
  row: ScheduleRow,
  ended: ReadonlySet<string>,
  calendar: WorkingCalendar,
): Pick<ScheduleAnswer, 'next' | 'timesAYear' | 'problem'> {
  try {
    const schedule = {
      ...plannedSchedule(scope, row),
      pauses: [...row.pauses.filter(({ to }) => to !== null), ...shutFrom(scope, row)],
    };
    const today = scope.now.day;
    const year = shownDays(schedule, calendar, today, today + 364).filter(isDated);
    const next = nextDated(schedule, calendar, today, ({ nominal }) => !ended.has(isoOfDay(nominal)));
    return { next: next && isoOfDay(next.on), timesAYear: year.length, problem: row.problem };
  } catch (error) {
    const problem = planProblem(error);
    if (problem === null) throw error;
    return { next: null, timesAYear: 0, problem };
  }
}
