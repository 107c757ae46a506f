import type { z } from 'zod';
import { MOST_CELLS, type PutOnLook, type planEndpoints } from '../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  estimatesOf,
  groupBy,
  isDated,
  isoOfDay,
  latestDays,
  mondayOf,
  type PlanItem,
  planDays,
  scheduleOfItem,
  setReach,
  termsOf,
  untilDay,
  type WorkingCalendar,
} from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import {
  madeTasks,
  makingFor,
  owedTasks,
  partsOf,
  plannedSchedule,
  planProblem,
  type ScheduleRow,
} from '../schedules/index.ts';
import type { MadeTask } from '../tasks/stored/index.ts';
import { type ItemTemplate, itemWords, ownMinutes, templatesOf } from './items.ts';
import { sayOwn } from './list.ts';
import { isLeftOut, itemWith, ownOf, type Place, placesOf } from './new-schedules.ts';
import { type Joining, joiningOf } from './putting-on.ts';
import { setStarted } from './starting.ts';
import { PlanRecord } from './stored/index.ts';
import { storedParts } from './stored.ts';

type Input = z.output<(typeof planEndpoints)['lookAtPuttingOn']['body']>;

const YEAR = 365;
/** How many days later a start is looked for with which no notice is too late. */
const LATER_STARTS = 62;

/** A place of a client, with the schedule it would be and how that is worked out. */
interface Placed extends Place {
  readonly joining: Joining;
  readonly isOwn: boolean;
  readonly leftOut: string | null;
  readonly says: string;
  /** The key of those that are worked out alike. */
  readonly key: string;
}

/** Tasks of a year of schedules that are planned alike, and which of them are made at once. */
interface Worked {
  readonly tasks: readonly (MadeTask & { readonly isNow: boolean })[];
  readonly lateNotices: number;
}

/** What putting clients on a plan would make, before anything is: each of those that are planned alike is worked out once. */
export async function lookAtPuttingOn(scope: Scope, planId: string, input: Input): Promise<PutOnLook> {
  const plan = await scope.one(PlanRecord, planId, 'plan');
  const joining = await joiningOf(scope, plan, input);
  const templates = await templatesOf(scope, plan.items);
  const words = await itemWords(scope);
  const from = dayOfIso(input.from);
  const rows = new Map<string, ScheduleRow>();
  const placedOf = (one: Joining) =>
    placesOf(plan.items, one.assets).map((place): Placed => {
      const own = ownOf(one.own, place);
      const item = itemWith(place.item, own);
      const leftOut = isLeftOut(one.on.leftOut, place.item.key, place.asset?.id ?? null) ? (own?.leftOut ?? '') : null;
      const key = JSON.stringify([item.key, own && { ...own, assetId: null }, one.client.usualPersonId]);
      const template = templates.get(item.templateId);
      if (!rows.has(key) && leftOut === null && template)
        rows.set(key, rowOf(scope, one, { ...place, item }, template));
      const aspects = [
        ...(own?.recurrence ? ['rule' as const] : []),
        ...(own?.assignment ? ['who' as const] : []),
        ...(own?.estimateMinutes === undefined && own?.stepMinutes === undefined ? [] : ['estimate' as const]),
      ];
      const minutes = template ? ownMinutes(template, estimatesOf(item)) : null;
      const says = sayOwn(aspects, { recurrence: item.recurrence, assignment: item.assignment, minutes }, words);
      return { ...place, joining: one, isOwn: aspects.length > 0, leftOut, says, key };
    });
  const placed = (await eachInTurn(joining, placedOf)).flat();
  const worked = await workedOut(scope, rows, from);
  const days = new Map<string, { now: number; later: number }>();
  const people = new Map<string | null, { minutes: number; weeks: Record<string, number> }>();
  const figures = {
    ...{ clients: joining.length, schedules: 0, asPlan: 0, own: 0, leftOut: 0, tasksNow: 0, tasks: 0, minutes: 0 },
  };
  const count = (on: string, assigneeId: string | null, minutes: number, isNow: boolean) => {
    const day = days.get(on) ?? { now: 0, later: 0 };
    day[isNow ? 'now' : 'later']++;
    days.set(on, day);
    const person = people.get(assigneeId) ?? { minutes: 0, weeks: {} };
    const monday = isoOfDay(mondayOf(dayOfIso(on)));
    person.minutes += minutes;
    person.weeks[monday] = (person.weeks[monday] ?? 0) + minutes;
    people.set(assigneeId, person);
  };
  let lateNotices = 0;
  await eachInTurn(placed, ({ key, isOwn, leftOut }) => {
    if (leftOut !== null) {
      figures.leftOut++;
      return;
    }
    figures.schedules++;
    if (isOwn) figures.own++;
    else figures.asPlan++;
    const { tasks = [], lateNotices: late = 0 } = worked.get(key) ?? {};
    lateNotices += late;
    for (const { workOn, isNow, assigneeId, estimateMinutes } of tasks) {
      figures.tasks++;
      figures.minutes += estimateMinutes;
      if (isNow) figures.tasksNow++;
      count(workOn, assigneeId, estimateMinutes, isNow);
    }
  });
  const startedOf = await setStarted(scope, input.start);
  await eachInTurn(joining, (one) => {
    for (const { on, minutes, assigneeId } of startedOf(one)) {
      figures.tasks++;
      figures.tasksNow++;
      figures.minutes += minutes;
      count(on, assigneeId, minutes, true);
    }
  });
  const ofClient = groupBy(placed, ({ joining: { client } }) => client.id);
  const names = await scope.peopleNames();
  return {
    clients: joining.slice(0, MOST_CELLS).map(({ client, assets }) => {
      const cells = (ofClient.get(client.id) ?? []).map(({ item, asset, isOwn, leftOut, says, key }) => {
        const tasks = leftOut === null ? (worked.get(key)?.tasks ?? []) : [];
        return {
          ...{ item: item.key, assetId: asset?.id ?? null, asset: asset?.name ?? null, isOwn, leftOut, says },
          first: firstOf(tasks),
          tasks: tasks.length,
          now: tasks.filter(({ isNow }) => isNow).length,
        };
      });
      const usual = client.usualPersonId;
      return {
        client: { id: client.id, name: client.name },
        assets: assets.map(({ id, name }) => ({ id, name })),
        usualPerson: usual === null ? null : { id: usual, name: names.get(usual) ?? '' },
        cells,
        now: cells.reduce((sum, { now }) => sum + now, 0),
      };
    }),
    figures,
    days: [...days].map(([on, counts]) => ({ on, ...counts })).sort((a, b) => (a.on < b.on ? -1 : 1)),
    people: [...people]
      .map(([personId, load]) => ({ personId, ...load }))
      .sort((a, b) => Number(a.personId === null) - Number(b.personId === null) || b.minutes - a.minutes),
    started: joining.slice(0, 1).flatMap((one) => startedOf(one).map(({ assigneeId: _assigneeId, ...task }) => task)),
    lateNotices,
    startInTime: lateNotices === 0 ? null : await laterStart(scope, plan.items, templates, from),
  };
}

const firstOf = (tasks: readonly MadeTask[]): string | null =>
  tasks.reduce<string | null>((first, { workOn }) => (first === null || workOn < first ? workOn : first), null);

/** A schedule as it would be read from the database once it stands there. */
function rowOf(scope: Scope, { on, client }: Joining, { item, asset }: Place, template: ItemTemplate): ScheduleRow {
  const { record } = template;
  return {
    ...{ id: on.id, version: 1, templateId: template.id, clientId: client.id, assetId: asset?.id ?? null },
    ...{ onPlanId: on.id, planItem: item.key, assignment: item.assignment, overlap: item.overlap },
    ...storedParts(untilDay(scheduleOfItem(item, dayOfIso(on.fromOn)), on.untilOn)),
    ...{ pauses: [], exceptions: [], settledTo: scope.today, problem: null, createdAt: scope.instant, deletedAt: null },
    ...{ templateName: template.name, titlePattern: record.titlePattern, category: record.category },
    ...{ estimateMinutes: record.estimateMinutes, tickets: record.tickets, templateVersion: record.version },
    ...{ workType: record.workType, archivedAt: record.archivedAt, taskSteps: template.taskSteps },
    ...{ made: item.overlap.kind === 'wait' ? [] : null, deleted: [], last: null },
    ...{ clientName: client.name, assetName: asset?.name ?? null, usualPersonId: client.usualPersonId },
  };
}

async function workedOut(
  scope: Scope,
  rows: ReadonlyMap<string, ScheduleRow>,
  from: CivilDay,
): Promise<ReadonlyMap<string, Worked>> {
  const making = await makingFor(scope, [...rows.values()]);
  const first = Math.max(from, scope.now.day);
  const window = { from: isoOfDay(first), to: isoOfDay(first + YEAR - 1) };
  const worked = await eachInTurn([...rows], ([key, row]): [string, Worked] => {
    const owed = owedTasks(scope, row, making);
    const now = new Set(owed.kind === 'tasks' ? owed.tasks.map(nameOf) : []);
    try {
      const reach = setReach(partsOf(row));
      const occurrences = planDays(
        plannedSchedule(scope, row),
        making.calendar,
        first - reach,
        first + YEAR + reach,
      ).filter(isDated);
      const tasks = madeTasks(scope, row, occurrences, making)
        .filter(({ workOn }) => workOn >= window.from && workOn <= window.to)
        .map((task) => ({ ...task, isNow: now.has(nameOf(task)) }));
      return [key, { tasks, lateNotices: lateOf(scope, tasks, row.workType, making.calendar) }];
    } catch (error) {
      // What can't be planned is refused where it is saved.
      if (planProblem(error) === null) throw error;
      return [key, { tasks: [], lateNotices: 0 }];
    }
  });
  return new Map(worked);
}

const nameOf = ({ nominalDate, stepKey, head }: MadeTask): string => `${nominalDate} ${stepKey} ${head}`;

/** Visits among them whose notice has to go today, or had to go before. */
function lateOf(scope: Scope, tasks: readonly MadeTask[], workType: string | null, calendar: WorkingCalendar): number {
  const terms = termsOf(scope.workspace.visits, workType);
  if (terms === null) return 0;
  const visits = tasks.filter(({ stepKey, head }) => stepKey === '' && head === '');
  return visits.filter(({ workOn }) => {
    const [latest] = latestDays(dayOfIso(workOn), terms, calendar);
    return latest !== undefined && latest.on <= scope.now.day;
  }).length;
}

/** The first later day from which no notice would be too late, as the plan says; null where none is near. */
async function laterStart(
  scope: Scope,
  items: readonly PlanItem[],
  templates: ReadonlyMap<string, ItemTemplate>,
  from: CivilDay,
): Promise<string | null> {
  const calendar = await scope.calendar();
  const visits = items.flatMap((item) => {
    const terms = termsOf(scope.workspace.visits, templates.get(item.templateId)?.workType ?? null);
    return terms ? [{ item, terms }] : [];
  });
  const isInTime = (joins: CivilDay) =>
    visits.every(({ item, terms }) =>
      planDays(scheduleOfItem(item, joins), calendar, joins, joins + LATER_STARTS)
        .filter(isDated)
        .every(({ on }) => (latestDays(on, terms, calendar)[0]?.on ?? on) > scope.now.day),
    );
  const days = Array.from({ length: LATER_STARTS }, (_, i) => from + 1 + i);
  for (const joins of days) if (isInTime(joins)) return isoOfDay(joins);
  return null;
}
