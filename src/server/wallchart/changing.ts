import { byHandSchema, type Impact, type TaskDeed, type WallChange } from '../../contract/index.ts';
import {
  type CivilDay,
  changeDate,
  changeOf,
  type DatedOccurrence,
  dayOfIso,
  isDated,
  isoOfDay,
  isToDo,
  moveDate,
  moveFrom,
  ownFrom,
  pauseFrom,
  planDays,
  plural,
  skipDate,
  unnamedFrom,
  type WorkingCalendar,
} from '../../core/index.ts';
import type { ChangeEntry } from '../platform/changes/entity.ts';
import { mustReceive } from '../platform/identity/receiver.ts';
import { changedMeanwhile, invalid, notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import {
  comparedYears,
  plannedSchedule,
  plannedYear,
  rewriteSchedules,
  type Schedule,
  type ScheduleRow,
  scheduleRows,
  UNSEEN_ONLY,
} from '../schedules/index.ts';
import {
  carryOutFates,
  fatesOfTasks,
  impactOfFates,
  lockedAsSeen,
  TASK_ACTIONS,
  type TaskFate,
  watchTasks,
} from '../tasks/index.ts';
import { lockedTasks, refuseFarDays, type Task, TO_DO } from '../tasks/stored/index.ts';

/** Days around a nominal date among which its day is looked for. */
const AROUND = 60;

interface Decided {
  readonly fates: readonly TaskFate[];
  readonly scheduleIds: readonly string[];
  /** What becomes of each schedule, as it stands when it is written. */
  readonly setOf: (schedule: Schedule) => Partial<Schedule>;
}

/** Gives, moves or skips what stands in some cells, made or not, and what follows them where it is told to; one undo takes all of it back. */
export function changeMarks(
  scope: Scope,
  input: WallChange,
): Promise<{ changed: number; schedules: number; changeId: string | null }> {
  return scope.transaction(async (tx) => {
    const decided = await decide(tx, input);
    const entries = await carryOut(tx, decided, input);
    await tx.tell('tasks', 'schedules');
    return {
      changed: entries.filter(({ subject }) => subject === 'task').length,
      schedules: decided.scheduleIds.length,
      changeId: entries.length === 0 ? null : await tx.recordTogether(entries),
    };
  });
}

/** What that would do: it is done, looked at, and taken back. */
export function impactOfMarks(scope: Scope, input: WallChange): Promise<Impact> {
  return scope.rehearse(async (tx) => {
    const decided = await decide(tx, input);
    const scheduleIds = [
      ...new Set([...decided.scheduleIds, ...decided.fates.flatMap(({ task }) => task.scheduleId ?? [])]),
    ];
    const became = await watchTasks(tx, { taskIds: decided.fates.map(({ task }) => task.id), scheduleIds });
    const rows = () => scheduleRows(tx, { ids: decided.scheduleIds });
    const before = await plannedYear(tx, await rows());
    await carryOut(tx, decided, input);
    const kept = decided.fates.filter(({ kind }) => kind === 'kept');
    const impact = await impactOfFates(tx, [...(await became()), ...kept]);
    return { ...impact, ...comparedYears(before, await plannedYear(tx, await rows())) };
  });
}

async function carryOut(
  scope: Scope,
  { fates, scheduleIds, setOf }: Decided,
  { deed, reach }: WallChange,
): Promise<ChangeEntry[]> {
  // Tasks first: what is said of them stays so, whatever else their schedules take back.
  const done = await carryOutFates(scope, fates, TASK_ACTIONS[deed.kind]);
  const written = await rewriteSchedules(
    scope,
    [...scheduleIds].sort(),
    'changed',
    (schedule) => withinLimits(setOf(schedule)),
    // A rule whose dates move takes along what shows of them; single dates have nothing made yet.
    deed.kind === 'move' && reach !== 'these' ? { open: true, also: [] } : UNSEEN_ONLY,
  );
  return [...done, ...written];
}

/** A schedule can be told no more by hand than its bench can save. */
function withinLimits(set: Partial<Schedule>): Partial<Schedule> {
  const { error } = byHandSchema.safeParse(set);
  if (error) throw invalid(error.issues.slice(0, 1).map(({ message }) => ({ path: 'dates', message })));
  return set;
}

async function decide(scope: Scope, input: WallChange): Promise<Decided> {
  const { deed, reach, dates } = input;
  if (deed.kind === 'give') await mustReceive(scope, deed.personId, { path: 'deed.personId' });
  const chosen = await lockedAsSeen(scope, input.tasks, taskDeedOf(deed));
  const rows = new Map(
    (await scheduleRows(scope, { ids: [...new Set(dates.map(({ scheduleId }) => scheduleId))] })).map((row) => [
      row.id,
      row,
    ]),
  );
  for (const { scheduleId, version } of dates) {
    const row = rows.get(scheduleId);
    if (!row || row.deletedAt !== null) throw notFound('schedule of a mark');
    if (row.version !== version)
      throw changedMeanwhile(
        `The schedule “${row.templateName}” was changed by someone else meanwhile. Nothing is changed; choose again from what is shown now.`,
      );
  }
  const decided =
    reach === 'these' ? await decideThese(scope, input, chosen, rows) : await decideBeyond(scope, input, chosen);
  if (decided.fates.length === 0 && decided.scheduleIds.length === 0)
    throw invalid([{ path: 'deed', message: 'Nothing would change by that.' }]);
  return decided;
}

/** The same as a deed that is done with tasks. */
function taskDeedOf(deed: WallChange['deed']): TaskDeed {
  return deed.kind === 'move' ? { kind: 'move', by: { amount: deed.days, unit: 'day' } } : deed;
}

/** Tasks by themselves; of what is not made yet, dates of their schedules. */
async function decideThese(
  scope: Scope,
  { deed, dates }: WallChange,
  chosen: readonly Task[],
  rows: ReadonlyMap<string, ScheduleRow>,
): Promise<Decided> {
  const fates = await fatesOfTasks(scope, chosen, taskDeedOf(deed), {
    isAlone: chosen.length === 1 && dates.length === 0,
  });
  const calendar = await scope.calendar();
  const nominals = new Map<string, Map<string, DatedOccurrence>>();
  const mains = new Set(
    dates.filter(({ stepKey }) => stepKey === '').map(({ scheduleId, nominalDate }) => `${scheduleId} ${nominalDate}`),
  );
  for (const { scheduleId, nominalDate, stepKey, head } of dates) {
    const row = rows.get(scheduleId);
    if (!row) continue;
    if (stepKey !== '' && !mains.has(`${scheduleId} ${nominalDate}`))
      throw invalid([
        {
          path: 'dates',
          message: `One step of a set of “${row.templateName}” that is not made yet can’t be changed alone: choose the set’s own mark, or wait until it is made.`,
        },
      ]);
    if (head !== '' && deed.kind === 'give')
      throw invalid([
        {
          path: 'deed.personId',
          message: `Each of several has one of “${row.templateName}” of their own: say on the schedule who has one.`,
        },
      ]);
    const ofSchedule = nominals.get(scheduleId) ?? new Map<string, DatedOccurrence>();
    nominals.set(scheduleId, ofSchedule);
    if (ofSchedule.has(nominalDate)) continue;
    const day = dayOfIso(nominalDate);
    const occurrence = planDays(plannedSchedule(scope, row), calendar, day - AROUND, day + AROUND).find(
      (one) => one.nominal === day && isDated(one),
    );
    if (!occurrence || !isDated(occurrence))
      throw changedMeanwhile(`“${row.templateName}” has no date there any more. Choose again from what is shown now.`);
    if (deed.kind === 'move') refuseFarDays(scope, { 'deed.days': isoOfDay(occurrence.on + deed.days) });
    ofSchedule.set(nominalDate, occurrence);
  }
  return {
    fates,
    scheduleIds: [...nominals.keys()],
    setOf({ id, exceptions }) {
      let draft = { exceptions };
      for (const { nominal, on } of nominals.get(id)?.values() ?? []) {
        if (deed.kind === 'skip') draft = skipDate(draft, nominal);
        else if (deed.kind === 'move') draft = moveDate(draft, nominal, on + deed.days);
        else draft = changeDate(draft, nominal, { ...changeOf(draft, nominal), assigneeId: deed.personId });
      }
      return draft;
    },
  };
}

/** From where on a schedule changes, and of which of its tasks. */
interface Beyond {
  readonly from: string;
  readonly steps: ReadonlySet<string>;
}

/** From the first that was chosen of each schedule on, or all that is not done; what no schedule made is changed by itself. */
async function decideBeyond(
  scope: Scope,
  { deed, dates, reach }: WallChange,
  chosen: readonly Task[],
): Promise<Decided> {
  const named = [
    ...chosen.flatMap(({ scheduleId, nominalDate, stepKey, head }) =>
      scheduleId === null || nominalDate === null ? [] : { scheduleId, nominalDate, stepKey, head },
    ),
    ...dates,
  ];
  if (deed.kind === 'give' && named.some(({ head }) => head !== ''))
    throw invalid([
      { path: 'deed.personId', message: 'Each of several has one of their own: say on the schedule who has one.' },
    ]);
  const scheduleIds = [...new Set(named.map(({ scheduleId }) => scheduleId))].sort();
  const later = await unfinishedOf(scope, scheduleIds);
  const beyond = new Map<string, Beyond>();
  for (const id of scheduleIds) {
    const of = named.filter(({ scheduleId }) => scheduleId === id);
    const firsts =
      reach === 'later'
        ? of.map(({ nominalDate }) => nominalDate)
        : [scope.today, ...later.filter(({ scheduleId }) => scheduleId === id).map(({ nominalDate }) => nominalDate)];
    const [from = scope.today] = firsts.sort();
    beyond.set(id, { from, steps: new Set(of.map(({ stepKey }) => stepKey)) });
  }
  const ids = new Set(chosen.filter(({ scheduleId }) => scheduleId === null).map(({ id }) => id));
  // A rule that moves takes its tasks along by itself.
  if (deed.kind !== 'move')
    for (const { id, scheduleId, nominalDate, stepKey } of later) {
      const of = beyond.get(scheduleId);
      if (of && nominalDate >= of.from && (deed.kind === 'skip' || of.steps.has(stepKey))) ids.add(id);
    }
  const tasks = (await lockedTasks(scope, [...ids])).filter(({ state }) => isToDo(state));
  const fates = (await fatesOfTasks(scope, tasks, taskDeedOf(deed), { isAlone: false })).map(followed);
  const rows = new Map((await scheduleRows(scope, { ids: scheduleIds })).map((row) => [row.id, row]));
  const calendar = await scope.calendar();
  return {
    fates,
    scheduleIds,
    setOf(schedule) {
      const of = beyond.get(schedule.id);
      if (!of) return {};
      const from = dayOfIso(of.from);
      const { recurrence, timing, pauses, exceptions, revisions } = schedule;
      const draft = { recurrence, timing, pauses, exceptions, revisions };
      if (deed.kind === 'skip') {
        const row = rows.get(schedule.id);
        return { pauses: [...pauseFrom(draft, row ? firstWorked(scope, row, calendar, from) : from).pauses] };
      }
      if (deed.kind === 'give') {
        let given = draft as Parameters<typeof ownFrom>[0];
        for (const step of of.steps)
          given = ownFrom(given, from, step, { own: { assigneeId: deed.personId }, timing: {} });
        const unnamed = of.steps.has('') ? unnamedFrom(exceptions, from) : [...exceptions];
        return { revisions: [...given.revisions], exceptions: unnamed };
      }
      const name = rows.get(schedule.id)?.templateName ?? '';
      const moved = moveFrom(draft, calendar, from, deed.days);
      if (moved.kind === 'runsInto')
        throw invalid([
          {
            path: 'deed.days',
            message: `“${name}” has ${plural(moved.dates, 'date')} of its own on the days to which these would move: change its rule on the bench.`,
          },
        ]);
      if (moved.kind === 'unsayable')
        throw invalid([
          {
            path: 'deed.days',
            message: `The rule of “${name}” can’t be moved by days as a whole: move single ones of it, or change it on the bench.`,
          },
        ]);
      const { revisions: after, exceptions: taken } = moved.draft;
      return { revisions: [...after], exceptions: [...taken] };
    },
  };
}

/** The first day on which one of the dates from a nominal one on is worked: a pause holds from there, wherever a day off has moved it. */
function firstWorked(scope: Scope, row: ScheduleRow, calendar: WorkingCalendar, from: CivilDay): CivilDay {
  const days = planDays(plannedSchedule(scope, row), calendar, from - AROUND, from + AROUND);
  return days.reduce((first, one) => (isDated(one) && one.nominal >= from ? Math.min(first, one.on) : first), from);
}

/** Whoever its schedule gives it to from there on is not told by hand any more. */
function followed(fate: TaskFate): TaskFate {
  if (fate.kind !== 'changed' || fate.task.scheduleId === null || !('assigneeId' in fate.changes)) return fate;
  const edited = (fate.changes.edited ?? fate.task.edited).filter((field) => field !== 'assigneeId');
  return { ...fate, changes: { ...fate.changes, edited } };
}

async function unfinishedOf(scope: Scope, scheduleIds: readonly string[]) {
  return scope.sql<{ id: string; scheduleId: string; nominalDate: string; stepKey: string }>(
    `select id, schedule_id as "scheduleId", nominal_date as "nominalDate", step_key as "stepKey" from task
     where workspace_id = $1 and schedule_id = any($2::uuid[]) and state in ${TO_DO}`,
    [scheduleIds],
  );
}
