import { figureOf, type Impact, type ImpactItem, type Reach } from '../../contract/index.ts';
import {
  dayOfIso,
  isDated,
  isoOfDay,
  MAIN_PART,
  partDays,
  planDays,
  sayDate,
  sayDay,
  sayDuration,
  setReach,
} from '../../core/index.ts';
import { typeOf } from '../platform/db/columns.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { TaskRecord } from '../tasks/stored/index.ts';
import { planProblem } from './owed.ts';
import { partsOf, plannedSchedule, type ScheduleRow } from './schedule-row.ts';
import { type Fields, keyWanted, planAll, type Synced, type TaskReconciliation } from './sync.ts';
import { whoWords } from './who-words.ts';

/** Items told of each kind; the figures count all. */
export const TOLD_OF_EACH = 60;
/** Schedules whose year is shown, and the most days that a line of a year can show. */
const YEARS_SHOWN = 4;
const DAYS_SHOWN = 120;

interface YearOfSchedule {
  readonly name: string;
  readonly days: readonly { readonly on: string; readonly isMain: boolean }[];
}

/** The days of the coming year on which each schedule has a task. */
export type PlannedYear = ReadonlyMap<string, YearOfSchedule>;

export async function plannedYear(scope: Scope, rows: readonly ScheduleRow[]): Promise<PlannedYear> {
  const calendar = await scope.calendar();
  const sayWho = await whoWords(scope);
  const { day: today } = scope.now;
  return new Map(
    await eachInTurn(rows, (row): [string, YearOfSchedule] => {
      const parts = partsOf(row);
      const reach = setReach(parts);
      const deleted = new Set(row.deleted);
      const name = row.assetName ?? row.clientName ?? sayWho(row.assignment);
      try {
        const days = planDays(plannedSchedule(scope, row), calendar, today - reach, today + 364 + reach)
          .filter(isDated)
          .flatMap((occurrence) =>
            parts
              // Of a set whose main task was deleted on purpose, the others stand.
              .filter(({ key }) => key !== MAIN_PART || !deleted.has(isoOfDay(occurrence.nominal)))
              .map((part) => ({ part, on: partDays(occurrence, part, calendar).on })),
          )
          .filter(({ on }) => on >= today && on <= today + 364)
          .map(({ part, on }) => ({ on: isoOfDay(on), isMain: part.key === MAIN_PART }));
        return [row.id, { name, days }];
      } catch (error) {
        // A schedule that can't be planned has no year; its own row says why.
        if (planProblem(error) === null) throw error;
        return [row.id, { name, days: [] }];
      }
    }),
  );
}

/** What becomes of the tasks of schedules that have been changed within a rehearsal. */
export async function impactOf(
  scope: Scope,
  rows: readonly ScheduleRow[],
  before: PlannedYear,
  reach: Reach,
): Promise<Impact> {
  const after = await plannedYear(scope, rows);
  const all = await planAll(scope, rows, reach);
  const told = all.flatMap(({ plan }) =>
    plan.flatMap((step) => [
      ...('task' in step && step.task ? [step.task.fields] : []),
      ...('wanted' in step && step.wanted && 'fields' in step.wanted ? [step.wanted.fields] : []),
    ]),
  );
  const say = await impactWords(scope, told);
  const items = all.flatMap((synced) => synced.plan.flatMap((step) => itemOf(scope, synced, step, say) ?? []));
  return { ...countedItems(items), ...comparedYears(before, after) };
}

/** The coming year before and after a change: how many dates, and the days of the first schedules that have others. */
export function comparedYears(
  before: PlannedYear,
  after: PlannedYear,
): Pick<Impact, 'years' | 'datesBefore' | 'datesAfter'> {
  const dates = (years: PlannedYear) => [...years.values()].reduce((sum, { days }) => sum + days.length, 0);
  return {
    years: [...after]
      .map(([scheduleId, { name, days }]) => ({
        scheduleId,
        name,
        before: [...(before.get(scheduleId)?.days ?? [])],
        after: [...days],
      }))
      .filter((year) => year.before.length <= DAYS_SHOWN && year.after.length <= DAYS_SHOWN)
      .filter((year) => JSON.stringify(year.before) !== JSON.stringify(year.after))
      .slice(0, YEARS_SHOWN),
    datesBefore: dates(before),
    datesAfter: dates(after),
  };
}

/** All of them counted, the first of each kind told. */
export function countedItems(all: readonly ImpactItem[]): Pick<Impact, 'figures' | 'items'> {
  const figures = { added: 0, changed: 0, removed: 0, keptByHand: 0, keptShowing: 0, keptBegun: 0, keptLacking: 0 };
  const items = all.filter((item) => ++figures[figureOf(item)] <= TOLD_OF_EACH);
  return { figures, items };
}

function itemOf(scope: Scope, { row, there, owed }: Synced, step: TaskReconciliation, say: Words): ImpactItem | null {
  const about = row.assetName ?? row.clientName;
  const base = { scheduleId: row.id, about, because: null, taskId: null, fields: [] };
  if (step.kind === 'same' || step.kind === 'stayDeleted') return null;
  if (step.kind === 'create') {
    const made = owed.get(keyWanted(step.wanted));
    if (!made) return null;
    const state = made.appearsOn <= scope.today ? ('open' as const) : ('coming' as const);
    return { ...base, kind: 'added', title: made.title, who: say.person(made.assigneeId), on: made.workOn, state };
  }
  const task = there.get(step.task.id);
  // Work of the past that the plan no longer holds is nobody's concern.
  if (!task || (step.kind === 'keep' && step.because === 'finished' && step.wanted === null)) return null;
  const fields = step.kind === 'remove' ? [] : step.fields;
  return {
    ...base,
    kind: step.kind === 'change' ? 'changed' : step.kind === 'remove' ? 'removed' : 'kept',
    because: step.kind === 'keep' ? step.because : null,
    taskId: task.id,
    title: task.title,
    who: say.person(task.assigneeId),
    on: task.workOn,
    state: task.state === 'open' && task.appearsOn > scope.today ? 'coming' : task.state,
    fields:
      step.kind === 'remove' || step.wanted === null ? [] : say.fields(fields, step.task.fields, step.wanted.fields),
  };
}

export interface Words {
  person(id: string | null): string | null;
  fields(names: readonly (keyof Fields)[], from: Fields, to: Fields): ImpactItem['fields'];
}

/** What fields are called; those that follow from another are not told beside it. */
const FIELD_NAMES: Readonly<Partial<Record<keyof Fields, string>>> = {
  title: 'title',
  workOn: 'day',
  appearsOn: 'appears',
  startsOn: 'starts',
  dueOn: 'due',
  startTime: 'from',
  dueTime: 'by',
  assigneeId: 'who',
  offeredTo: 'offered to',
  clientId: 'for',
  assetId: 'where',
  priority: 'priority',
  estimateMinutes: 'estimate',
  zone: 'clock',
  instructions: 'instructions',
  content: 'steps and the rest',
  templateId: 'template',
};

const ID_FIELDS = (Object.keys(FIELD_NAMES) as (keyof Fields)[]).filter(
  (field) => typeOf(TaskRecord, field) === 'uuid',
);

/**
 * @param told the tasks whose fields are told, before and after
 * @param written what instructions and steps become, in words
 */
export async function impactWords(
  scope: Scope,
  told: readonly Partial<Fields>[],
  written = 'as in the template',
): Promise<Words> {
  const names = new Map(await scope.peopleNames());
  const ids = new Set(told.flatMap((fields) => ID_FIELDS.flatMap((field) => fields[field] ?? [])));
  const others = await scope.sql<{ id: string; name: string }>(
    `select id, name from client where workspace_id = $1 and id = any($2::uuid[])
     union all select id, name from asset where workspace_id = $1 and id = any($2::uuid[])
     union all select id, name from template where workspace_id = $1 and id = any($2::uuid[])`,
    [[...ids]],
  );
  for (const { id, name } of others) names.set(id, name);
  const { day: today } = scope.now;
  const sayValue = (field: keyof Fields, value: string | number | null): string => {
    if (value === null) return field === 'assigneeId' ? 'nobody yet' : 'none';
    if (field === 'estimateMinutes') return sayDuration(Number(value));
    if (typeOf(TaskRecord, field) === 'date') {
      const day = dayOfIso(String(value));
      return field === 'appearsOn' && day <= today
        ? 'at once'
        : Math.abs(day - today) < 300
          ? sayDay(day, today)
          : sayDate(day);
    }
    if (ID_FIELDS.includes(field)) return names.get(String(value)) ?? 'someone else';
    return String(value);
  };
  return {
    person: (id) => (id === null ? null : (names.get(id) ?? null)),
    fields: (fields, from, to) =>
      fields
        .filter((field) => !isImplied(field, fields, from, to))
        .flatMap((field) => {
          const name = FIELD_NAMES[field];
          if (name === undefined) return [];
          if (field === 'instructions' || field === 'content') return [{ name, from: 'as they were', to: written }];
          const told = { name, from: sayValue(field, from[field]), to: sayValue(field, to[field]) };
          // Two days on which it would have been seen by now are the same to whoever sees it.
          return told.from === told.to ? [] : [told];
        }),
  };
}

/** The day says it all where start and due move with it. */
function isImplied(field: keyof Fields, fields: readonly (keyof Fields)[], from: Fields, to: Fields): boolean {
  if (field === 'setOn') return true;
  if ((field !== 'startsOn' && field !== 'dueOn') || !fields.includes('workOn')) return false;
  return from[field] === from.workOn && to[field] === to.workOn;
}
