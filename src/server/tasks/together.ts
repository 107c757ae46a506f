import { IsNull } from 'typeorm';
import type { TaskLine, Together, TogetherOf } from '../../contract/index.ts';
import {
  askedOn,
  type CivilDay,
  COMING_DAYS,
  type Colleague,
  dayOfIso,
  isoOfDay,
  minutesFor,
  peopleHere,
  shiftsOn,
  type Worker,
} from '../../core/index.ts';
import { assetIdsAt, standingAt } from '../directory/index.ts';
import { Clocking, colleagues } from '../people/index.ts';
import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { type ForeseenTask, type Projected, projectedOf } from '../schedules/index.ts';
import { inBands } from './day-sheet.ts';
import { linesOf, type TaskRow, UNFINISHED } from './stored/index.ts';

/** Tasks of one kind that are told: what is due that day, what is late or coming, what was done on it. */
const MOST_OF_A_KIND = 400;
/** Dates that no task is made for yet, told at the most. */
const MOST_PROJECTED = 200;

/** Whose day it is, or what it is about. */
interface Group {
  readonly name: string;
  /** Those in it; null for what stands somewhere, whoever works there. */
  readonly people: ReadonlySet<string> | null;
  /** As SQL over `task`, with its parameters from $4 on. */
  readonly tasks: string;
  readonly params: readonly unknown[];
  readonly foresees: (task: ForeseenTask) => boolean;
}

/** What several people have to do on a day, or what is to be done at one thing: late first, then the day by time, then what is coming. */
export async function together(scope: Scope, of: TogetherOf, date: string | undefined): Promise<Together> {
  const day = date === undefined ? scope.now.day : dayOfIso(date);
  const everybody = await colleagues(scope);
  const { workers } = peopleHere(everybody);
  const group = await groupOf(scope, of, { everybody, workers }, day);
  const some = (which: string, order: string) =>
    `select id from task where workspace_id = $1 and (${group.tasks}) and ${which} order by ${order}, id limit ${MOST_OF_A_KIND + 1}`;
  const parts = [
    some('due_on = $2::date', `coalesce(due_time, '~')`),
    some(
      `state in ${UNFINISHED} and least(starts_on, appears_on) <= $2::date + ${COMING_DAYS} and (due_on > $2::date or $2::date = $3::date)`,
      'due_on',
    ),
    some('done_at >= $2::date - 1 and done_at < $2::date + 2', 'done_at desc'),
  ];
  const found = await scope.sql<{ part: number; ids: string[] }>(
    parts.map((part, n) => `select ${n} as part, array(${part}) as ids`).join(' union all '),
    [isoOfDay(day), scope.today, ...group.params],
  );
  const ids = [...new Set(found.flatMap((part) => part.ids.slice(0, MOST_OF_A_KIND)))];
  const rows = await scope.sql<TaskRow>(linesOf('select unnest($2::uuid[])'), [ids]);
  const bands = inBands(scope, rows, day);
  const foreseen = day > scope.now.day ? await projectedOf(scope, day, group.foresees) : [];
  return {
    name: group.name,
    date: isoOfDay(day),
    people: await loadsOf(scope, group, workers, day, [...bands.late, ...bands.thisDay], foreseen),
    ...bands,
    projected: foreseen.slice(0, MOST_PROJECTED).map(({ line }) => line),
    isMore: found.some((part) => part.ids.length > MOST_OF_A_KIND) || foreseen.length > MOST_PROJECTED,
  };
}

async function groupOf(
  scope: Scope,
  of: TogetherOf,
  { everybody, workers }: { readonly everybody: readonly Colleague[]; readonly workers: ReadonlyMap<string, Worker> },
  day: CivilDay,
): Promise<Group> {
  const those = everybody.filter(({ worksUntil }) => worksUntil === null || worksUntil >= isoOfDay(day));
  if (of.team !== undefined) {
    const { team } = of;
    const members = those.filter((one) => one.team === team);
    return ofPeople(scope.workspace.teams.includes(team) ? team : nothing('team'), members, { team });
  }
  if (of.role !== undefined) {
    const { role } = of;
    const members = those.filter(({ roles }) => roles.includes(role));
    return ofPeople(scope.workspace.roles.includes(role) ? role : nothing('role'), members, { role });
  }
  if (of.asset !== undefined) {
    const [asset] = await scope.sql<{ name: string }>('select name from asset where workspace_id = $1 and id = $2', [
      of.asset,
    ]);
    return atAssets(asset?.name ?? nothing('asset'), [of.asset]);
  }
  if (of.site !== undefined) {
    const { site } = await standingAt(scope, of.site);
    return atAssets(site.name, await assetIdsAt(scope, of.site));
  }
  const calendar = await scope.calendar();
  const clocked = day === scope.now.day ? await scope.find(Clocking, { offAt: IsNull() }) : [];
  const isOn = new Set(clocked.map(({ personId }) => personId));
  const asked = askedOn(day, calendar);
  return ofPeople(
    'Everyone on shift',
    those.filter(({ id }) => {
      const worker = workers.get(id);
      return isOn.has(id) || (worker !== undefined && shiftsOn(worker, day, asked).length > 0);
    }),
    null,
  );
}

function nothing(what: string): never {
  throw notFound(what);
}

/** @param offered to whom work is offered that is theirs too, as long as nobody has taken it */
function ofPeople(
  name: string,
  members: readonly { readonly id: string }[],
  offered: { readonly team: string } | { readonly role: string } | null,
): Group {
  const people = new Set(members.map(({ id }) => id));
  return {
    name,
    people,
    tasks: `assignee_id = any($4::uuid[])${offered ? ' or (assignee_id is null and offered_to @> $5::jsonb)' : ''}`,
    params: [[...people], ...(offered ? [JSON.stringify(offered)] : [])],
    foresees: ({ assigneeId, offeredTo }) =>
      assigneeId === null
        ? offered !== null && Object.entries(offered).every(([key, value]) => offeredTo?.[key as 'of'] === value)
        : people.has(assigneeId),
  };
}

function atAssets(name: string, assetIds: readonly string[]): Group {
  const there = new Set(assetIds);
  return {
    name,
    people: null,
    tasks: 'asset_id = any($4::uuid[])',
    params: [assetIds],
    foresees: ({ assetId }) => assetId !== null && there.has(assetId),
  };
}

/** Whoever is in it, or has something of it, with how much that is against what they can do on the day. */
async function loadsOf(
  scope: Scope,
  { people }: Group,
  workers: ReadonlyMap<string, Worker>,
  day: CivilDay,
  lines: readonly TaskLine[],
  foreseen: readonly Projected[],
): Promise<Together['people']> {
  const minutes = new Map<string, { toDo: number; done: number }>(
    [...(people ?? [])].map((id) => [id, { toDo: 0, done: 0 }]),
  );
  const add = (id: string | null, of: 'toDo' | 'done', estimate: number) => {
    if (id === null) return;
    const sums = minutes.get(id) ?? { toDo: 0, done: 0 };
    sums[of] += estimate;
    minutes.set(id, sums);
  };
  for (const { assignee, state, estimateMinutes } of lines) {
    const isFinished = state === 'done' || state === 'toCheck';
    // What was skipped or lapsed took nobody's time.
    if (isFinished || (state !== 'skipped' && state !== 'lapsed'))
      add(assignee?.id ?? null, isFinished ? 'done' : 'toDo', estimateMinutes);
  }
  for (const { task } of foreseen) add(task.assigneeId, 'toDo', task.estimateMinutes);
  const names = await scope.peopleNames();
  const asked = askedOn(day, await scope.calendar());
  return [...minutes]
    .map(([id, { toDo, done }]) => {
      const worker = workers.get(id);
      return {
        ...{ id, name: names.get(id) ?? '', toDo, done },
        capacityMinutes: worker ? minutesFor(worker, day, asked) : 0,
        shifts: worker ? shiftsOn(worker, day, asked).map(({ from, to }) => ({ from, to })) : [],
      };
    })
    .sort((a, b) => a.name.localeCompare(b.name));
}
