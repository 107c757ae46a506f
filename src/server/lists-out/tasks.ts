import type { TaskFilter } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { questionOf } from '../task-list/index.ts';

type Lines = readonly (readonly string[])[];

/** Tasks that are told at a time. */
const AT_ONCE = 1000;

const COLUMNS = {
  task: 't.title',
  state: 't.state',
  due: 't.due_on::text',
  'due at': 't.due_time',
  'work on': 't.work_on::text',
  starts: 't.starts_on::text',
  'starts at': 't.start_time',
  zone: 't.zone',
  who: 'p.name',
  client: 'c.name',
  asset: 'a.name',
  place: 'a.place',
  template: 'x.name',
  category: 'x.category',
  'type of work': 'w.work_type',
  priority: 't.priority',
  minutes: 't.estimate_minutes::text',
  'done at': `to_char(t.done_at at time zone $Z, 'YYYY-MM-DD HH24:MI')`,
  'done by': 'coalesce(d.name, t.done_by_contact)',
  'on time': `case when t.on_time is null then null when t.on_time then 'yes' else 'no' end`,
  'held up until': 't.held_until::text',
  'held up by': 't.held_reason',
  note: 't.note',
  id: 't.id::text',
  schedule: 't.schedule_id::text',
} as const;

/** Tasks that fit, by the days on which they are due: each page goes on where the one before ended, so that none is heavier than the first. */
export async function* tasksOut(scope: Scope, filter: TaskFilter): AsyncGenerator<Lines> {
  yield [Object.keys(COLUMNS)];
  for (let after: { readonly on: string; readonly id: string } | null = null; ; ) {
    const asked = await questionOf(scope, filter);
    if (after !== null) asked.and(`(t.due_on, t.id) > (${asked.with(after.on)}::date, ${asked.with(after.id)}::uuid)`);
    const zone = asked.with(scope.workspace.zone);
    const cells = Object.values(COLUMNS)
      .map((column) => `coalesce(${column.replace('$Z', zone)}, '')`)
      .join(', ');
    // The page first, and then the names around its tasks.
    const rows: { on: string; id: string; cells: string[] }[] = await scope.sql(
      `select t.due_on as "on", t.id, array[${cells}] as cells
       from (select t.* from task t where ${asked.where} order by t.due_on, t.id limit ${AT_ONCE}) t
       left join work_content w on w.workspace_id = t.workspace_id and w.id = t.content_id
       left join template x on x.workspace_id = t.workspace_id and x.id = t.template_id
       left join client c on c.workspace_id = t.workspace_id and c.id = t.client_id
       left join asset a on a.workspace_id = t.workspace_id and a.id = t.asset_id
       left join person p on p.workspace_id = t.workspace_id and p.id = t.assignee_id
       left join person d on d.workspace_id = t.workspace_id and d.id = t.done_by
       order by t.due_on, t.id`,
      asked.params,
    );
    yield rows.map((row) => row.cells);
    const last = rows.at(-1);
    if (!last || rows.length < AT_ONCE) return;
    after = last;
  }
}
