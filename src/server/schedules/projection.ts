import type { ProjectedLine } from '../../contract/index.ts';
import { type CivilDay, compareTimes, groupBy, isoOfDay } from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { oncePer } from '../platform/latest.ts';
import { namedOrNull } from '../platform/named.ts';
import type { Scope } from '../platform/scope.ts';
import { type KeptLine, keptLines } from './kept-lines.ts';
import { type ForeseenTask, foreseenTasks, KEPT_DAYS, type KeptPlan, keptPlans, unsettled } from './kept-plans.ts';
import { planProblem } from './owed.ts';
import { makingFor } from './who-does.ts';

/** A person's occurrences due within [from, to] that are not tasks yet, or those that are nobody's, in the order of their days. */
export async function projectedWork(
  scope: Scope,
  from: CivilDay,
  to: CivilDay,
  personId: string | null,
): Promise<ProjectedLine[]> {
  const tasks = await foreseenWork(scope, from, to, ofPerson(personId));
  return tasks.map(lineOf).sort((a, b) => a.dueOn.localeCompare(b.dueOn) || compareTimes(a.startTime, b.startTime));
}

/** What is foreseen, and its line. */
export interface Projected {
  readonly task: ForeseenTask;
  readonly line: ProjectedLine & { readonly who: string };
}

/** What is foreseen of one day and is asked for, by time, with who is to do it. */
export async function projectedOf(
  scope: Scope,
  day: CivilDay,
  isWanted: (task: ForeseenTask) => boolean,
): Promise<Projected[]> {
  const tasks = await foreseenWork(scope, day, day, anyOf(isWanted));
  const names = await scope.peopleNames();
  return tasks
    .map((task) => ({ task, line: { ...lineOf(task), who: names.get(task.assigneeId ?? '') ?? '' } }))
    .sort((a, b) => compareTimes(a.line.startTime, b.line.startTime));
}

/** Which of what is foreseen is asked for. */
interface Wanted {
  readonly kept: (work: ReturnType<typeof keptWork>) => readonly ForeseenTask[];
  /** Of a schedule: whether any of it can be. */
  readonly mayBe: (line: KeptLine) => boolean;
  readonly is: (task: ForeseenTask) => boolean;
}

const ofPerson = (personId: string | null): Wanted => ({
  kept: ({ ofPerson }) => ofPerson.get(personId) ?? [],
  mayBe: ({ people }) => personId === null || people.has(personId),
  is: ({ assigneeId }) => assigneeId === personId,
});

const anyOf = (isWanted: (task: ForeseenTask) => boolean): Wanted => ({
  kept: ({ all }) => all,
  mayBe: () => true,
  is: isWanted,
});

/** What is foreseen from today on and is asked for, as far as plans are kept, in no order. */
export const foreseenFrom = (scope: Scope, isWanted: (task: ForeseenTask) => boolean): Promise<ForeseenTask[]> =>
  foreseenWork(scope, scope.now.day, scope.now.day + KEPT_DAYS, anyOf(isWanted));

/** What some schedules foresee to be due within [from, to], in no order. @param mayBe whether a schedule is one of them */
export async function foreseenOf(
  scope: Scope,
  from: CivilDay,
  to: CivilDay,
  mayBe: (line: KeptLine) => boolean,
): Promise<ForeseenTask[]> {
  return plannedWork(scope, from, to, { kept: ({ all }) => all, mayBe, is: () => true });
}

/** The same, in no order. */
async function foreseenWork(scope: Scope, from: CivilDay, to: CivilDay, wanted: Wanted): Promise<ForeseenTask[]> {
  const { day: today } = scope.now;
  if (from < today || to > today + KEPT_DAYS) return plannedWork(scope, from, to, wanted);
  const window = { from: isoOfDay(from), to: isoOfDay(to) };
  const tasks = wanted.kept(keptWork(await keptPlans(scope))).filter(wanted.is);
  return tasks.filter(({ dueOn }) => dueOn >= window.from && dueOn <= window.to);
}

/** Minutes that all plans foresee on each day from today on, as far as is kept, of everyone or of one person. */
export async function foreseenMinutes(
  scope: Scope,
  personId: string | undefined,
): Promise<readonly { readonly dueOn: string; readonly estimateMinutes: number }[]> {
  const { all, ofPerson } = keptMinutes(await keptPlans(scope));
  return personId === undefined ? all : (ofPerson.get(personId) ?? []);
}

/**
 * The same of everybody, by person; null stands for nobody.
 * @param at the assets whose work is asked for alone; null for all work
 */
export async function foreseenByPerson(
  scope: Scope,
  at: ReadonlySet<string> | null = null,
): Promise<ReadonlyMap<string | null, readonly { readonly dueOn: string; readonly estimateMinutes: number }[]>> {
  const plans = await keptPlans(scope);
  if (at === null) return keptMinutes(plans).ofPerson;
  const there = keptWork(plans).all.filter(({ assetId }) => assetId !== null && at.has(assetId));
  return byPerson(there);
}

/** What a schedule foresees for nobody, and offers to nobody: the first of it, and on how many dates. */
interface OfNobody {
  readonly first: ForeseenTask;
  readonly dates: number;
}

/** Schedules that foresee something for nobody within the days that are kept, the soonest first. */
export const foreseenOfNobody = async (scope: Scope): Promise<readonly OfNobody[]> =>
  keptOfNobody(await keptPlans(scope));

const keptOfNobody = oncePer((plans: ReadonlyMap<string, KeptPlan>) => {
  const nobodys = (keptWork(plans).ofPerson.get(null) ?? []).filter(({ offeredTo }) => offeredTo === null);
  return [...groupBy(nobodys, ({ scheduleId }) => scheduleId).values()]
    .flatMap((tasks): OfNobody[] => {
      const [first] = tasks.sort((a, b) => a.workOn.localeCompare(b.workOn));
      return first ? [{ first, dates: new Set(tasks.map(({ workOn }) => workOn)).size }] : [];
    })
    .sort((a, b) => a.first.workOn.localeCompare(b.first.workOn) || a.first.title.localeCompare(b.first.title));
});

const keptMinutes = oncePer((plans: ReadonlyMap<string, KeptPlan>) => {
  const { all } = keptWork(plans);
  return { all: byDay(all), ofPerson: byPerson(all) };
});

const byPerson = (tasks: readonly ForeseenTask[]) =>
  new Map([...groupBy(tasks, ({ assigneeId }) => assigneeId)].map(([id, of]) => [id, byDay(of)]));

function byDay(tasks: readonly ForeseenTask[]) {
  const sums = new Map<string, number>();
  for (const { dueOn, estimateMinutes } of tasks) sums.set(dueOn, (sums.get(dueOn) ?? 0) + estimateMinutes);
  return [...sums].map(([dueOn, estimateMinutes]) => ({ dueOn, estimateMinutes }));
}

function lineOf(task: ForeseenTask): ProjectedLine {
  const { scheduleId, title, dueOn, startTime, dueTime, estimateMinutes } = task;
  return {
    ...{ scheduleId, title, dueOn, startTime, dueTime, estimateMinutes },
    client: namedOrNull(task.clientId, task.clientName),
    asset: namedOrNull(task.assetId, task.assetName),
    on: task.workOn,
  };
}

/** What all plans foresee, also by the person who is to do it. */
const keptWork = oncePer((plans: ReadonlyMap<string, KeptPlan>) => {
  const all = [...plans.values()].flatMap(({ tasks }) => tasks);
  return { all, ofPerson: groupBy(all, ({ assigneeId }) => assigneeId) };
});

/** Of days that nobody keeps: worked out each time. */
async function plannedWork(scope: Scope, from: CivilDay, to: CivilDay, wanted: Wanted): Promise<ForeseenTask[]> {
  const lines = [...(await keptLines(scope)).values()].filter(wanted.mayBe);
  const making = await makingFor(
    scope,
    lines.map(({ row }) => row),
  );
  const tasks = await eachInTurn(lines, ({ row, planned }) => {
    try {
      return planned ? foreseenTasks(scope, row, planned, making, from, to) : [];
    } catch (error) {
      // A schedule with a problem projects nothing; its own row in the table says why.
      if (planProblem(error) === null) throw error;
      return [];
    }
  });
  return unsettled(scope, tasks.flat().filter(wanted.is));
}
