import type { PastTask } from '../../../contract/index.ts';
import { groupBy } from '../../../core/index.ts';
import { columnsOf } from '../../platform/db/columns.ts';
import type { Scope } from '../../platform/scope.ts';
import { TaskRecord } from './entity.ts';
import { ENDED, UNFINISHED } from './states.ts';
import { LOOK_FIELDS, lookOfRow } from './task-row.ts';

/** A task of a series, seen from outside. */
export interface SeriesTask {
  readonly nominalDate: string;
  /** Whether it stands in the string: it shows already, or has been touched. */
  readonly shows: boolean;
  readonly task: PastTask;
}

const SERIES_FIELDS = [
  'id',
  'scheduleId',
  'nominalDate',
  'workOn',
  ...LOOK_FIELDS,
] as const satisfies readonly (keyof TaskRecord)[];
const SERIES_COLUMNS = columnsOf(TaskRecord, 'task', SERIES_FIELDS);

/** Of a schedule, so it has one, and the date that its rule gave. */
type SeriesRow = Omit<Pick<TaskRecord, (typeof SERIES_FIELDS)[number]>, 'scheduleId' | 'nominalDate'> & {
  readonly scheduleId: string;
  readonly nominalDate: string;
};

/** Tasks shown of each series in the past, besides all that lie ahead. */
const PAST_SHOWN = 8;

/** Of each date one is told, where each of several has one; the unfinished before the others. */
const NEWEST_FIRST = `order by nominal_date desc, (state in ${ENDED}), head limit ${PAST_SHOWN}`;

const SHOWS = (today: string) => `step_key = '' and (appears_on <= ${today}::date or state <> 'open')`;

/**
 * The last dates of a series, as SQL. From which date on is found first, along the index: else a schedule of many years is read
 * through and put in order for its last few.
 * @param which names its tasks, by their schedule and, for a part of it, by their dates
 */
const lastOf = (which: string, today: string): string => `
  select distinct on (nominal_date) ${SERIES_COLUMNS} from task
  where workspace_id = $1 and ${which} and ${SHOWS(today)} and nominal_date >= (
    select min(nominal_date) from (
      select distinct nominal_date from task where workspace_id = $1 and ${which} and ${SHOWS(today)}
      order by nominal_date desc limit ${PAST_SHOWN}) last)
  ${NEWEST_FIRST}`;

/** A task of a schedule, by the date that its rule gave. */
export interface InSeries {
  readonly id: string;
  readonly scheduleId: string;
  readonly nominalDate: string;
}

/** The last tasks of the series of each as far as to its own date, oldest first, by the ids of the tasks: of those long past too. */
export async function seriesUpTo(scope: Scope, tasks: readonly InSeries[]): Promise<Map<string, PastTask[]>> {
  if (tasks.length === 0) return new Map();
  const rows = await scope.sql<SeriesRow & { readonly of: string }>(
    `select wanted.of, up.* from unnest($2::uuid[], $3::uuid[], $4::date[]) as wanted (of, schedule, nominal)
     cross join lateral (
       ${lastOf('schedule_id = wanted.schedule and nominal_date <= wanted.nominal', '$5')}) up
     order by up."nominalDate"`,
    [
      tasks.map(({ id }) => id),
      tasks.map(({ scheduleId }) => scheduleId),
      tasks.map(({ nominalDate }) => nominalDate),
      scope.today,
    ],
  );
  return new Map([...groupBy(rows, ({ of }) => of)].map(([id, of]) => [id, of.map((row) => pastTask(scope, row))]));
}

function pastTask(scope: Scope, row: SeriesRow): PastTask {
  const { state, late, heldUp } = lookOfRow(scope, row);
  return { taskId: row.id, on: row.workOn, state, late, heldUp };
}

/** For each schedule its last tasks and those ahead, in the order of their dates. */
export async function pastTasksOf(scope: Scope, scheduleIds: readonly string[]): Promise<Map<string, SeriesTask[]>> {
  // Those ahead are the unfinished ones of each schedule and the few of the workspace that are over before their day:
  // each has an index of its own, and no schedule is read through.
  const rows = await scope.sql<SeriesRow>(
    `with over as materialized (
       select id from task where workspace_id = $1 and schedule_id is not null and step_key = '' and state in ${ENDED}
         and greatest(nominal_date, work_on) >= $3::date and work_on >= $3::date)
     select t.* from (
       select of_each.* from unnest($2::uuid[]) as wanted (id)
       cross join lateral (
         -- Where each of several has one, a date is as far as the last of them.
         (${lastOf('schedule_id = wanted.id', '$3')})
         union
         (select ${SERIES_COLUMNS} from task
          where workspace_id = $1 and schedule_id = wanted.id and step_key = '' and state in ${UNFINISHED}
            and (work_on >= $3::date or due_on <= $3::date))
       ) of_each
       union
       select ${SERIES_COLUMNS} from task join over on over.id = task.id
       where workspace_id = $1 and schedule_id = any($2)
     ) t order by t."scheduleId", t."nominalDate", (t.state in ${ENDED}), t.id`,
    [scheduleIds, scope.today],
  );
  const series = new Map<string, SeriesTask[]>();
  for (const row of rows) {
    const list = series.get(row.scheduleId) ?? [];
    // Those of the same date stand together, the unfinished ones first.
    if (list.at(-1)?.nominalDate === row.nominalDate) continue;
    list.push({
      nominalDate: row.nominalDate,
      shows: row.appearsOn <= scope.today || row.state !== 'open',
      task: pastTask(scope, row),
    });
    series.set(row.scheduleId, list);
  }
  return series;
}
