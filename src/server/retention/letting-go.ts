import { LET_GO_TOLD, type LetGo, type NextLettingGo } from '../../contract/index.ts';
import { dayOfIso, isoOfDay, type LettingGo, nextLettingGo } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { ENDED, removeTasks } from '../tasks/stored/index.ts';
import { LettingGoRecord } from './entity.ts';

/** Tasks that go in one transaction: what works beside it waits for no more than these. */
const AT_ONCE = 500;

/** Finished work that was due before $2, and not finished long after that. */
const OLD = `t.workspace_id = $1 and t.due_on < $2::date and t.state in ${ENDED} and (t.done_at is null or t.done_at < $2::date)`;

/**
 * Of that, what is let go. The last of each schedule stays, however old: by it the next date is told where one
 * follows the other.
 */
const GOING = `${OLD} and (t.schedule_id is null or exists (select 1 from task newer where newer.workspace_id = t.workspace_id
    and newer.schedule_id = t.schedule_id and newer.nominal_date > t.nominal_date))`;

/** When and before which day the next is let go; null where all is kept for good. */
async function nextFor(scope: Scope, years: number | null): Promise<LettingGo | null> {
  const { keepYears, keepSince } = scope.workspace;
  if (years === null) return null;
  const [last] = await scope.sql<{ before: string | null }>(
    'select max(before) as before from letting_go where workspace_id = $1 and ended_at is not null',
  );
  const since = years === keepYears && keepSince !== null ? keepSince : scope.today;
  return nextLettingGo({ years, since: dayOfIso(since) }, last?.before ? dayOfIso(last.before) : null, scope.now.day);
}

/** What will be let go next, or would be if work was kept for so many years; null where all is kept for good, or it is further off. */
export async function nextLetGo(
  scope: Scope,
  years = scope.workspace.keepYears,
  withinDays = Number.POSITIVE_INFINITY,
): Promise<NextLettingGo | null> {
  const next = await nextFor(scope, years);
  if (next === null || next.on - scope.now.day > withinDays) return null;
  const before = isoOfDay(next.before);
  const count = (sql: string) => scope.sql<{ count: number }>(`select count(*)::int as count from ${sql}`, [before]);
  // All that is so old, without the last of each schedule: each of those is found by its index, however many there are.
  const [[tasks], [files], [calls], [kept]] = await scope.atOnce(
    () => count(`task t where ${OLD}`),
    () =>
      count(`file join task t on t.workspace_id = $1 and t.id = file.task_id where file.workspace_id = $1 and ${OLD}`),
    () => count('call where workspace_id = $1 and list_on < $2::date'),
    () =>
      scope.sql<{ tasks: number; files: number }>(
        `with last as (
           select s.id, (select max(nominal_date) from task where workspace_id = $1 and schedule_id = s.id) as nominal
           from schedule s where s.workspace_id = $1),
         kept as (
           select t.id, (select count(*) from file where file.workspace_id = $1 and file.task_id = t.id) as files
           from last join task t on t.workspace_id = $1 and t.schedule_id = last.id and t.nominal_date = last.nominal
           where ${OLD})
         select count(*)::int as tasks, coalesce(sum(files), 0)::int as files from kept`,
        [before],
      ),
  );
  if (!tasks || !files || !calls || !kept) throw new Error('A sum has no row.');
  return {
    on: isoOfDay(next.on),
    before,
    tasks: tasks.count - kept.tasks,
    files: files.count - kept.files,
    calls: calls.count,
  };
}

/** What was let go, the newest first. */
export async function pastLetGo(scope: Scope): Promise<LetGo[]> {
  const found = await scope.find(LettingGoRecord);
  return found
    .filter(({ tasks, calls }) => tasks + calls > 0)
    .sort((a, b) => (a.before < b.before ? 1 : -1))
    .slice(0, LET_GO_TOLD)
    .map(({ begunAt, before, years, tasks, files, calls }) => ({
      on: scope.moment(begunAt).slice(0, 10),
      ...{ before, years, tasks, files, calls },
    }));
}

/** Lets go of what is not kept any longer, where its day has come. @returns how many tasks; null where nothing was due */
export async function letGoWhatIsDue(scope: Scope): Promise<number | null> {
  const { keepYears } = scope.workspace;
  const next = await nextFor(scope, keepYears);
  if (keepYears === null || next === null || next.on > scope.now.day) return null;
  const before = isoOfDay(next.before);
  await scope.sql(
    `insert into letting_go (workspace_id, before, years, begun_at, tasks, files, calls) values ($1, $2::date, $3, $4, 0, 0, 0)
     on conflict do nothing`,
    [before, keepYears, scope.instant],
  );
  let tasks = 0;
  for (let gone: number | null = AT_ONCE; gone === AT_ONCE; ) {
    gone = await letSomeGo(scope, before);
    if (gone === null) return tasks;
    tasks += gone;
  }
  for (let gone: number | null = AT_ONCE; gone === AT_ONCE; ) {
    gone = await letSomeCallsGo(scope, before);
    if (gone === null) return tasks;
  }
  await scope.sql(
    `delete from change where workspace_id = $1 and subject = 'task' and action = 'deleted' and at < $2::date`,
    [before],
  );
  // What was said for one time alone goes with it; what templates say is told by others as well.
  await scope.sql(
    `delete from work_content c where c.workspace_id = $1 and c.brief <> ''
       and not exists (select 1 from task t where t.workspace_id = $1 and t.content_id = c.id)`,
  );
  await scope.sql('update letting_go set ended_at = $3 where workspace_id = $1 and before = $2::date', [
    before,
    scope.instant,
  ]);
  await scope.tell('tasks', 'schedules', 'calls');
  return tasks;
}

/**
 * Some of it, with its history, comments and files, and on record at once: a server that ends half way says what has gone.
 * Null where it is to be kept for another time by now.
 */
function letSomeGo(scope: Scope, before: string): Promise<number | null> {
  return scope.transaction(async (tx) => {
    const { keepYears } = await tx.lockedWorkspace();
    if (keepYears !== scope.workspace.keepYears) return null;
    const going = await tx.sql<{ id: string }>(
      `select t.id from task t where ${GOING} order by t.due_on, t.id limit ${AT_ONCE} for update`,
      [before],
    );
    const ids = going.map(({ id }) => id);
    await tx.sql(
      `update letting_go set tasks = tasks + $3, files = files +
         (select count(*) from file where workspace_id = $1 and task_id = any($4::uuid[]))
       where workspace_id = $1 and before = $2::date`,
      [before, ids.length, ids],
    );
    await tx.sql(
      `delete from change where workspace_id = $1 and (subject = 'task' and subject_id = any($2) or subject = 'notice'
         and subject_id in (select id from notice where workspace_id = $1 and task_id = any($2)))`,
      [ids],
    );
    await tx.sql('delete from notice where workspace_id = $1 and task_id = any($2)', [ids]);
    // What a client was asked of them, with the links that opened nothing else.
    await tx.sql(
      `with gone as (delete from client_ask where workspace_id = $1 and task_id = any($2::uuid[]) returning link_id)
       delete from client_link l where l.workspace_id = $1 and l.id in (select link_id from gone)
         and not exists (select 1 from client_ask a where a.workspace_id = $1 and a.link_id = l.id and a.task_id <> all($2::uuid[]))`,
      [ids],
    );
    await removeTasks(tx, ids);
    return ids.length;
  });
}

/** Some calls of lists so old, with what was said of them; what is known of the contacts stays: when they were rung last, and who never is. */
function letSomeCallsGo(scope: Scope, before: string): Promise<number | null> {
  return scope.transaction(async (tx) => {
    const { keepYears } = await tx.lockedWorkspace();
    if (keepYears !== scope.workspace.keepYears) return null;
    const [gone] = await tx.sql<{ calls: number }>(
      `with old as (select id from call where workspace_id = $1 and list_on < $2::date order by list_on, id limit ${AT_ONCE} for update),
         said as (delete from change where workspace_id = $1 and subject = 'call' and subject_id in (select id from old)),
         going as (delete from call where workspace_id = $1 and id in (select id from old) returning 1)
       select count(*)::int as calls from going`,
      [before],
    );
    const calls = gone?.calls ?? 0;
    await tx.sql('update letting_go set calls = calls + $3 where workspace_id = $1 and before = $2::date', [
      before,
      calls,
    ]);
    if (calls < AT_ONCE)
      await tx.sql(
        `delete from call_list l where l.workspace_id = $1 and l.list_on < $2::date
           and not exists (select 1 from call x where x.workspace_id = $1 and x.list_id = l.id)`,
        [before],
      );
    return calls;
  });
}
