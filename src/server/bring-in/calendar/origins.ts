import { In } from 'typeorm';
import type { Scope } from '../../platform/scope.ts';
import { Schedule } from '../../schedules/index.ts';
import { type Task, tasksByIds } from '../../tasks/stored/index.ts';
import { CalendarOrigin } from '../entity.ts';
import type { MadeEntry } from './made.ts';
import type { WrittenEntry } from './written.ts';

/** What is here of an entry that was brought in before, or was taken out of here. */
export interface Origin {
  readonly uid: string;
  readonly hash: string;
  readonly is: 'schedule' | 'task' | 'template';
  readonly id: string;
  readonly version: number;
  /** Whether it is a task that is finished, or was skipped: nothing is done with it any more. */
  readonly isOver: boolean;
  readonly schedule: Schedule | null;
  readonly task: Pick<Task, 'title' | 'workOn' | 'dueOn' | 'startTime' | 'dueTime'> | null;
}

/** Of an entry that was taken out of here: what it is of is here, whatever it says. */
export const OURS = 'ours';
const OUR_UID = /^(?:schedule-)?([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}).*@jolly-rota\.local$/;

async function takenOutHere(scope: Scope, uids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const ids = new Map(
    uids
      .flatMap((uid) => [[uid, OUR_UID.exec(uid)?.[1]] as const])
      .filter((one): one is [string, string] => one[1] !== undefined),
  );
  const rows = await scope.sql<{ id: string }>(
    `select id from schedule where workspace_id = $1 and id = any($2::uuid[]) and deleted_at is null
     union select id from task where workspace_id = $1 and id = any($2::uuid[])`,
    [[...ids.values()]],
  );
  const here = new Set(rows.map(({ id }) => id));
  return new Map([...ids].filter(([, id]) => here.has(id)));
}

/** What is here of entries that were brought in before, by UID; what is gone since counts as never brought in. */
export async function originsOf(scope: Scope, uids: readonly string[]): Promise<ReadonlyMap<string, Origin>> {
  const rows = await scope.sql<Omit<Origin, 'schedule' | 'task'>>(
    `select o.uid, o.hash, x.is, x.id, x.version, x.over as "isOver" from calendar_origin o cross join lateral (
       select 'schedule' as is, s.id, s.version, false as over from schedule s where s.workspace_id = $1 and s.id = o.schedule_id and s.deleted_at is null
       union all select 'task', t.id, t.version, t.state not in ('open', 'underWay') from task t where t.workspace_id = $1 and t.id = o.task_id
       union all select 'template', p.id, p.version, false from template p where p.workspace_id = $1 and p.id = o.template_id and p.archived_at is null) x
     where o.workspace_id = $1 and o.uid = any($2::text[])`,
    [uids],
  );
  const idsOf = (is: Origin['is']) => rows.filter((row) => row.is === is).map(({ id }) => id);
  const schedules = new Map((await scope.find(Schedule, { id: In(idsOf('schedule')) })).map((one) => [one.id, one]));
  const tasks = new Map((await tasksByIds(scope, idsOf('task'))).map((one) => [one.id, one]));
  const known = new Map<string, Origin>(
    rows.map((row) => [row.uid, { ...row, schedule: schedules.get(row.id) ?? null, task: tasks.get(row.id) ?? null }]),
  );
  const ours = { hash: OURS, is: 'schedule', version: 0, isOver: false, schedule: null, task: null } as const;
  for (const [uid, id] of await takenOutHere(scope, uids)) if (!known.has(uid)) known.set(uid, { uid, id, ...ours });
  return known;
}

/** By which entry what came, so that the same calendar finds it again. */
export async function keepOrigins(
  scope: Scope,
  all: readonly { readonly number: number; readonly made: MadeEntry }[],
  written: Map<number, WrittenEntry>,
): Promise<void> {
  const known = await scope.find(CalendarOrigin, { uid: In(all.map(({ made }) => made.uid)) });
  const hashes = new Map(known.map(({ uid, hash }) => [uid, hash]));
  const rows = all.flatMap(({ number, made: { uid, hash } }) => {
    const { newScheduleId, scheduleId, newTaskId, taskId, newTemplateId, ...more } = written.get(number) ?? {};
    const before = hashes.get(uid);
    if (before !== undefined) written.set(number, { ...written.get(number), hashBefore: before });
    if ('daysOff' in more) return [];
    const schedule = newScheduleId ?? scheduleId ?? null;
    const task = newTaskId ?? taskId ?? null;
    return [
      {
        uid,
        hash,
        schedule_id: schedule,
        task_id: task,
        template_id: schedule === null && task === null ? (newTemplateId ?? null) : null,
      },
    ];
  });
  await scope.sql(
    `insert into calendar_origin (workspace_id, uid, hash, schedule_id, task_id, template_id)
     select $1, uid, hash, schedule_id, task_id, template_id
     from jsonb_to_recordset($2::jsonb) as row (uid text, hash text, schedule_id uuid, task_id uuid, template_id uuid)
     where coalesce(schedule_id, task_id, template_id) is not null
     on conflict (workspace_id, uid) do update set hash = excluded.hash, schedule_id = excluded.schedule_id,
       task_id = excluded.task_id, template_id = excluded.template_id`,
    [JSON.stringify(rows)],
  );
}
