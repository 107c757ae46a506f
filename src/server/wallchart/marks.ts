import {
  MOST_WALL_MARKS,
  type TaskLine,
  WALL_NOBODY,
  type WallBlock,
  type WallDate,
  type WallFilter,
  type WallRows,
} from '../../contract/index.ts';
import { dayOfIso } from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { namedOrNull } from '../platform/named.ts';
import type { Scope } from '../platform/scope.ts';
import {
  FAR_DAYS,
  type FarWhose,
  type ForeseenTask,
  farDates,
  foreseenTasks,
  makingFor,
  plannedSchedule,
  planProblem,
  scheduleRows,
  unsettled,
} from '../schedules/index.ts';
import { linesOfIds } from '../task-list/index.ts';
import { placingOf } from './placing.ts';
import { type RowOf, rowsOfKeys, type ScheduleOfRows, schedulesOfRows, taskColumnOf, tasksOf } from './rows.ts';

interface AskedMarks extends WallFilter {
  readonly rows: WallRows;
  readonly blocks: readonly WallBlock[];
}

interface Block {
  readonly keys: ReadonlySet<string>;
  readonly from: number;
  readonly to: number;
}

/** What stands in some cells, one by one: the first of it by its days, and how much it is. */
export async function wallMarks(
  scope: Scope,
  asked: AskedMarks,
): Promise<{ tasks: TaskLine[]; dates: WallDate[]; count: { tasks: number; dates: number } }> {
  const blocks = asked.blocks.map(
    ({ keys, from, to }): Block => ({ keys: new Set(keys), from: dayOfIso(from), to: dayOfIso(to) }),
  );
  const rows = await rowsOfKeys(scope, asked.rows, [...new Set(asked.blocks.flatMap(({ keys }) => keys))]);
  const [tasks, dates] = [await tasksIn(scope, asked, blocks, rows), await datesIn(scope, asked, blocks, rows)];
  return { tasks: tasks.lines, dates: dates.dates, count: { tasks: tasks.count, dates: dates.count } };
}

/** The days from the first of all blocks to the last. */
const around = (blocks: readonly Block[]) => ({
  first: blocks.reduce((first, { from }) => Math.min(first, from), Number.POSITIVE_INFINITY),
  last: blocks.reduce((last, { to }) => Math.max(last, to), Number.NEGATIVE_INFINITY),
});

async function tasksIn(scope: Scope, asked: AskedMarks, blocks: readonly Block[], rows: readonly RowOf[]) {
  const question = await tasksOf(scope, asked, around(blocks));
  const membersOf = new Map(rows.map(({ key, members }) => [key, members]));
  const cells = asked.blocks.flatMap(({ keys, from, to }) =>
    keys.flatMap((key) => (membersOf.get(key) ?? []).map((member) => ({ member, from, to }))),
  );
  const whole = asked.blocks.flatMap(({ keys, from, to }) =>
    keys.flatMap((key) => (key === WALL_NOBODY || asked.rows === 'role' ? { key, from, to } : [])),
  );
  const list = (values: readonly string[], type: string) => `${question.with(values)}::${type}[]`;
  const days = (of: readonly { from: string; to: string }[]) =>
    `${list(
      of.map(({ from }) => from),
      'date',
    )}, ${list(
      of.map(({ to }) => to),
      'date',
    )}`;
  // What is offered to a role stands with it; nobody's has no member that names it.
  const ofNobody =
    asked.rows === 'role' ? `t.assignee_id is null and t.offered_to->>'role' = c.key` : 't.assignee_id is null';
  const found = await scope.sql<{ id: string; count: number }>(
    `select id, count(*) over ()::int as count from (
       select distinct t.id, t.due_on from unnest(${list(
         cells.map(({ member }) => member),
         'uuid',
       )}, ${days(cells)}) as c(id, first, last)
       join task t on ${taskColumnOf(asked.rows)} = c.id and t.due_on between c.first and c.last where ${question.where}
       union select t.id, t.due_on from unnest(${list(
         whole.map(({ key }) => key),
         'text',
       )}, ${days(whole)}) as c(key, first, last)
       join task t on ${ofNobody} and t.due_on between c.first and c.last where ${question.where}) there
     order by due_on, id limit ${MOST_WALL_MARKS}`,
    question.params,
  );
  return {
    count: found[0]?.count ?? 0,
    lines: await linesOfIds(
      scope,
      found.map(({ id }) => id),
    ),
  };
}

async function datesIn(scope: Scope, asked: AskedMarks, blocks: readonly Block[], rows: readonly RowOf[]) {
  const { first, last } = around(blocks);
  const [from, to] = [Math.max(first, scope.now.day), Math.min(last, scope.now.day + FAR_DAYS)];
  if (from > to) return { dates: [], count: 0 };
  const schedules = await schedulesOfRows(scope, asked, asked.rows, rows);
  const known = await farDates(
    scope,
    schedules.map(({ id }) => id),
  );
  const place = await placingOf(scope, asked.rows, rows, asked);
  const blocksFor = (schedule: ScheduleOfRows, whose: FarWhose) => {
    const keys = place(schedule, whose);
    return blocks.filter((block) => keys.some((key) => block.keys.has(key)));
  };
  const isWithin = (there: readonly Block[], dueOn: number) =>
    there.some((block) => block.from <= dueOn && dueOn <= block.to);
  // Counted from what is kept of each; only the schedules of the first are planned again, for their titles and times.
  let count = 0;
  const told: ScheduleOfRows[] = [];
  await eachInTurn(schedules, (schedule) => {
    let there = 0;
    for (const days of known.get(schedule.id)?.days ?? []) {
      const asked = blocksFor(schedule, days);
      if (asked.length > 0) for (const dueOn of days.dueOn) if (isWithin(asked, dueOn)) there++;
    }
    if (there > 0 && count < MOST_WALL_MARKS) told.push(schedule);
    count += there;
  });
  const scheduleById = new Map(told.map((schedule) => [schedule.id, schedule]));
  const found = (await scheduleRows(scope, { ids: [...scheduleById.keys()] })).filter((row) => row.deletedAt === null);
  const making = await makingFor(scope, found);
  const versions = new Map(found.map(({ id, version }) => [id, version]));
  const planned = await eachInTurn(found, (row) => {
    try {
      return foreseenTasks(scope, row, plannedSchedule(scope, row), making, from, to);
    } catch (error) {
      // A schedule with a problem foresees nothing; its own row says why.
      if (planProblem(error) === null) throw error;
      return [];
    }
  });
  const dates = (await unsettled(scope, planned.flat()))
    .filter((task) => {
      const schedule = scheduleById.get(task.scheduleId);
      const { assigneeId, offeredTo: group } = task;
      const role = group?.of === 'role' ? group.role : null;
      const team = group?.of === 'team' ? group.team : null;
      return schedule !== undefined && isWithin(blocksFor(schedule, { assigneeId, role, team }), dayOfIso(task.dueOn));
    })
    .sort((a, b) => a.dueOn.localeCompare(b.dueOn) || a.title.localeCompare(b.title))
    .slice(0, MOST_WALL_MARKS);
  const names = await scope.peopleNames();
  return { count, dates: dates.map((task) => dateOf(task, versions.get(task.scheduleId) ?? 0, names)) };
}

function dateOf(task: ForeseenTask, version: number, names: ReadonlyMap<string, string>): WallDate {
  const { scheduleId, nominalDate, stepKey, head, title, dueOn, startTime, dueTime, estimateMinutes } = task;
  return {
    ...{ scheduleId, nominalDate, stepKey, head, title, dueOn, startTime, dueTime, estimateMinutes, version },
    on: task.workOn,
    client: namedOrNull(task.clientId, task.clientName),
    asset: namedOrNull(task.assetId, task.assetName),
    assignee: namedOrNull(task.assigneeId, names.get(task.assigneeId ?? '') ?? null),
  };
}
