import { In } from 'typeorm';
import { type HolidaySetting, type Impact, MOST_HOLIDAYS, type Settings } from '../../contract/index.ts';
import { type Weekday, weekdayName } from '../../core/index.ts';
import { type Change, type FieldChanges, fieldsBefore } from '../platform/changes/entity.ts';
import type { Undone } from '../platform/changes/subject.ts';
import { Holiday, type Workspace } from '../platform/identity/workspace.ts';
import { changedMeanwhile, invalid } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { impactOf, plannedYear, type ScheduleRow, scheduleRows, syncAll, UNSEEN_ONLY } from '../schedules/index.ts';
import { butFor, putBackTasks, type Task, watched } from '../tasks/stored/index.ts';
import { affectedSchedules } from './affected.ts';
import { renameBack } from './lists.ts';

/** Columns of the workspace that are set by hand. */
const SET = [
  'name',
  'zone',
  'workingWeekdays',
  'weekMinutes',
  'yearStarts',
  'horizonDays',
  'makeTime',
  'phraseHabits',
  'seasons',
  'ways',
  'doneStaysDays',
  'swapsNeedNod',
  'visits',
  'asking',
  'escalation',
  'hearing',
  'keepYears',
] as const satisfies readonly (keyof Workspace)[];

type Set = Pick<Workspace, (typeof SET)[number]>;

/** What is set by hand, of a workspace or of what was sent. */
const setIn = (of: Set): Set => Object.fromEntries(SET.map((field) => [field, of[field]])) as unknown as Set;

/** Schedules that are brought in line with a calendar in one go. */
const AT_ONCE = 200;

export async function settingsOf(scope: Scope): Promise<Settings> {
  const { workspace } = scope;
  return {
    version: workspace.version,
    ...setIn(workspace),
    holidays: inOrder(await scope.find(Holiday)),
  };
}

/** Saves what has changed, and brings tasks that nobody has seen in line with another calendar. */
export function changeSettings(
  scope: Scope,
  input: Settings,
): Promise<{ settings: Settings; changeId: string | null }> {
  return scope.transaction(async (tx) => {
    const { before, after, fields } = await write(tx, input);
    if (Object.keys(fields).length === 0) return { settings: await settingsOf(before), changeId: null };
    const { watchId } = await watched(after, () => follow(before, after, fields));
    const changeId = await after.record('workspace', after.workspace.id, 'changed', fields, watchId);
    await tellAll(after);
    return { settings: await settingsOf(after), changeId };
  });
}

/** What saving would do: the change is made, looked at, and taken back. */
export function impactOfSettings(scope: Scope, input: Settings): Promise<Impact> {
  return scope.rehearse(async (tx) => {
    const { before, after, fields } = await write(tx, input);
    const rows = await reached(before, after, fields);
    return impactOf(after, rows, await plannedYear(before, rows), UNSEEN_ONLY);
  });
}

/** Days off that are added within another change, and the schedules whose days they move. */
export interface AddedDaysOff {
  /** Goes on seeing the calendar as it was. */
  readonly before: Scope;
  readonly after: Scope;
  readonly reached: readonly ScheduleRow[];
  readonly fields: FieldChanges;
}

/** Writes days off that are not there yet; no schedule follows them by that. @throws Refusal where there are more than there can be */
export async function writeDaysOff(tx: Scope, days: readonly HolidaySetting[]): Promise<AddedDaysOff> {
  const now = tx.after(await tx.lockedWorkspace());
  const settings = await settingsOf(now);
  const there = new Set(settings.holidays.map(({ date }) => date));
  const holidays = [...settings.holidays, ...days.filter(({ date }) => !there.has(date))];
  if (holidays.length > MOST_HOLIDAYS)
    throw invalid([
      {
        path: 'holidays',
        message: `There would be ${holidays.length} days off, ${MOST_HOLIDAYS} at most: take out those of the past.`,
      },
    ]);
  const { before, after, fields } = await write(now, { ...settings, holidays });
  return { before, after, fields, reached: await reached(before, after, fields) };
}

/** The same, with the tasks of all schedules brought in line; gives the change that is to be recorded with the others. */
export async function addDaysOff(
  tx: Scope,
  days: readonly HolidaySetting[],
): Promise<{ readonly after: Scope; readonly changeId: string | null }> {
  const { before, after, fields } = await writeDaysOff(tx, days);
  if (Object.keys(fields).length === 0) return { after, changeId: null };
  const { watchId } = await watched(after, () => follow(before, after, fields));
  const changeId = await after.record('workspace', after.workspace.id, 'changed', fields, watchId);
  await tellAll(after);
  return { after, changeId };
}

interface Written {
  /** Goes on seeing the workspace and its calendar as they were. */
  readonly before: Scope;
  readonly after: Scope;
  readonly fields: FieldChanges;
}

/** Writes settings that differ. */
async function write(tx: Scope, input: Settings): Promise<Written> {
  const found = await tx.lockedWorkspace();
  const before = tx.after(found);
  if (found.version !== input.version) {
    throw changedMeanwhile(
      'Someone else changed the settings since you opened them. Yours are still on the screen, not saved; “Put back” shows theirs.',
    );
  }
  checkWeek(input);
  checkTypes(input, found);
  await before.calendar();
  const set = { ...setIn(input), ...keptSince(found, input, tx.today) };
  const holidays = holidayChanges(await tx.find(Holiday), input.holidays);
  const fields = { ...fieldChanges(found, inWeekOrder(set)), ...(holidays && { holidays }) };
  if (Object.keys(fields).length === 0) return { before, after: before, fields };
  return { before, after: await save(tx, found, inWeekOrder(set), holidays), fields };
}

/** Only what is a type of work here can be announced. */
function checkTypes({ visits }: Pick<Settings, 'visits'>, { workTypes }: Pick<Workspace, 'workTypes'>): void {
  const place = visits.terms.findIndex(({ type }) => !workTypes.includes(type));
  if (place !== -1)
    throw invalid([
      { path: `visits.terms.${place}.type`, message: `“${visits.terms[place]?.type}” is no type of work here.` },
    ]);
}

/** Another number of years holds from today: nothing is let go before there was time to see that. */
function keptSince(
  { keepYears, keepSince }: Workspace,
  input: Pick<Settings, 'keepYears'>,
  today: string,
): Pick<Workspace, 'keepSince'> {
  if (input.keepYears === keepYears) return { keepSince };
  return { keepSince: input.keepYears === null ? null : today };
}

/** Of a day that is worked it is said how long; one that is off has no hours. */
export function checkWeek({ workingWeekdays, weekMinutes }: Pick<Workspace, 'workingWeekdays' | 'weekMinutes'>): void {
  const missing = workingWeekdays.find((weekday) => !weekMinutes[weekday - 1]);
  if (missing !== undefined)
    throw invalid([{ path: 'weekMinutes', message: `Say how many hours are worked on ${weekdayName(missing)}s.` }]);
  const idle = weekMinutes.findIndex((minutes, i) => minutes > 0 && !workingWeekdays.includes((i + 1) as Weekday));
  if (idle !== -1)
    throw invalid([
      { path: 'weekMinutes', message: `${weekdayName((idle + 1) as Weekday)}s are off: there are no hours on them.` },
    ]);
}

function inWeekOrder<T extends Pick<Workspace, 'workingWeekdays'>>(set: T): T {
  return { ...set, workingWeekdays: [...set.workingWeekdays].sort((a, b) => a - b) };
}

interface HolidayChanges {
  /** Those taken out, and those of another name as they were. */
  readonly from: HolidaySetting[];
  readonly to: HolidaySetting[];
}

function holidayChanges(before: readonly Holiday[], after: readonly HolidaySetting[]): HolidayChanges | null {
  const missingIn = (all: readonly HolidaySetting[], some: readonly HolidaySetting[]) => {
    const names = new Map(some.map(({ date, name }) => [date, name]));
    return inOrder(all.filter(({ date, name }) => names.get(date) !== name));
  };
  const [from, to] = [missingIn(before, after), missingIn(after, before)];
  return from.length + to.length === 0 ? null : { from, to };
}

function inOrder(holidays: readonly HolidaySetting[]): HolidaySetting[] {
  return holidays.map(({ date, name }) => ({ date, name })).sort((a, b) => (a.date < b.date ? -1 : 1));
}

async function save(
  tx: Scope,
  before: Workspace,
  set: Partial<Workspace>,
  holidays: HolidayChanges | null,
): Promise<Scope> {
  await tx.saveWorkspace({ ...set, version: before.version + 1 });
  if (holidays) {
    await tx.sql('delete from holiday where workspace_id = $1 and date = any($2::date[])', [
      holidays.from.map(({ date }) => date),
    ]);
    await tx.sql(
      `insert into holiday (workspace_id, date, name)
       select $1, day.date, day.name from jsonb_to_recordset($2::jsonb) as day (date date, name text)`,
      [JSON.stringify(holidays.to)],
    );
  }
  return tx.after({ ...before, ...set, version: before.version + 1 });
}

/** Schedules whose days are others by the new calendar. */
async function reached(before: Scope, after: Scope, fields: FieldChanges): Promise<ScheduleRow[]> {
  if (!('holidays' in fields) && !('workingWeekdays' in fields)) return [];
  const rows = (await scheduleRows(after)).filter(({ archivedAt }) => archivedAt === null);
  return affectedSchedules(after, rows, await before.calendar(), await after.calendar());
}

async function follow(before: Scope, after: Scope, fields: FieldChanges): Promise<void> {
  const rows = await reached(before, after, fields);
  for (let at = 0; at < rows.length; at += AT_ONCE)
    await syncAll(after, rows.slice(at, at + AT_ONCE), UNSEEN_ONLY, (message, { templateName, problem }) => {
      // One that had a problem already may have it on; a calendar must not bring one.
      if (problem === null) throw invalid([{ path: 'workingWeekdays', message: `${templateName}: ${message}` }]);
    });
}

/** Puts back what a change found, and exactly the tasks that it touched. */
export async function undoSettings(
  scope: Scope,
  { fields: changed, watchId }: Pick<Change, 'fields' | 'watchId'>,
): Promise<Undone<Task>> {
  const now = await scope.lockedWorkspace();
  const before = scope.after(now);
  await before.calendar();
  const { holidays, renamed, ...own } = changed;
  const set = fieldsBefore(now, own) as Partial<Workspace>;
  const back = holidays ? await holidaysBefore(scope, holidays as unknown as HolidayChanges) : null;
  const after = await save(scope, now, set, back);
  if (renamed) await renameBack(scope, renamed.to);
  const kept = watchId === null ? [] : await putBackTasks(after, [{ watchId, scheduleId: null }]);
  await after.record('workspace', now.id, 'undone', {
    ...fieldChanges(now, set),
    ...(back && { holidays: { from: back.from, to: back.to } }),
  });
  // What came due by the calendar that held meanwhile is brought in line; nothing that was put back changes by it.
  await follow(before, after, changed);
  await tellAll(after);
  return { said: `The settings are as they were before${butFor(kept)}`, kept };
}

async function holidaysBefore(scope: Scope, { from, to }: HolidayChanges): Promise<HolidayChanges> {
  const dates = [...new Set([...from, ...to].map(({ date }) => date))];
  const there = new Map((await scope.find(Holiday, { date: In(dates) })).map(({ date, name }) => [date, name]));
  const asLeft = new Map(to.map(({ date, name }) => [date, name]));
  if (dates.some((date) => there.get(date) !== asLeft.get(date)))
    throw changedMeanwhile('Those days off were changed again since, so this can no longer be undone in one go.');
  return { from: to, to: from };
}

async function tellAll(scope: Scope): Promise<void> {
  await scope.tell('workspace', 'schedules', 'tasks', 'templates');
}
