import { eachInTurn } from '../platform/in-turn.ts';
import { Latest, ofEachDatabase } from '../platform/latest.ts';
import type { Scope } from '../platform/scope.ts';
import { type Since, touchedSince } from '../platform/touched.ts';

/** What is told of a schedule; what its mark does not tell of is told anew whenever all are looked over. */
export interface Told<T> {
  readonly told: T;
  readonly isFluid: boolean;
  /** Whether it is another once any other schedule is touched; what is so is fluid too. */
  readonly isOfOthers?: boolean;
}

export interface KeptSources<T> {
  /** For each schedule of the workspace, or for each of some, a text that is another whenever anything is that it is told from. */
  readonly marks: (scope: Scope, ids: readonly string[] | null) => Promise<ReadonlyMap<string, string>>;
  /** A few at a time; those that are gone are left out. */
  readonly tell: (scope: Scope, ids: readonly string[]) => Promise<readonly (readonly [string, Told<T>])[]>;
  /** How many are kept at the most, of all workspaces together. */
  readonly most: number;
}

/** Asked for at once: what all of them are told with is read once for so many. */
const AT_A_STRETCH = 400;
/** Of more that were touched, all are looked over. */
const MOST_TOUCHED = 300;

interface OfWorkspace<T> {
  readonly today: string;
  /** As `touchedSince` gave it. */
  readonly moment: number;
  readonly marks: ReadonlyMap<string, string>;
  readonly told: ReadonlyMap<string, T>;
}

/**
 * What is told of all schedules of a workspace. While the database tells that nothing was touched, all of it stands; of a
 * few that were touched these are told anew. Else all are looked over, and each is kept whose mark is the same. For reading
 * alone: who asks meanwhile shares the answer, which within a transaction would tell others what does not stand yet.
 */
export function keptOfSchedules<T>({ marks, tell, most }: KeptSources<T>) {
  const ofDatabase = ofEachDatabase(() => ({
    /** The one that was asked for last at the end. */
    workspaces: new Map<string, OfWorkspace<T>>(),
    asked: new Latest<ReadonlyMap<string, T>>(),
  }));

  async function upToDate(scope: Scope): Promise<ReadonlyMap<string, T>> {
    const { workspaces } = ofDatabase(scope);
    const { id } = scope.workspace;
    const before = workspaces.get(id);
    const { moment, schedules } = await touchedSince(scope, before?.moment ?? 0);
    const stands = before?.today === scope.today && schedules !== null && schedules.size <= MOST_TOUCHED;
    const now = stands
      ? { ...(await toldAnew(scope, before, [...schedules])), moment }
      : { ...(await lookedOver(scope, before)), moment };
    workspaces.delete(id);
    workspaces.set(id, now);
    let count = 0;
    for (const { told } of workspaces.values()) count += told.size;
    for (const [oldest, { told }] of workspaces) {
      if (count <= most || oldest === id) break;
      count -= told.size;
      workspaces.delete(oldest);
    }
    return now.told;
  }

  async function toldAnew(scope: Scope, before: OfWorkspace<T>, touched: readonly string[]): Promise<OfWorkspace<T>> {
    if (touched.length === 0) return before;
    // Others may be in the middle of what was told before.
    const [told, kept] = [new Map(before.told), new Map(before.marks)];
    for (const id of touched) {
      told.delete(id);
      kept.delete(id);
    }
    await addTo(told, scope, touched, () => undefined);
    return { ...before, told, marks: kept };
  }

  async function lookedOver(scope: Scope, before: OfWorkspace<T> | undefined) {
    const now = await marks(scope, null);
    const told = new Map<string, T>();
    const kept = new Map<string, string>();
    const stale: string[] = [];
    for (const [id, mark] of now) {
      const one = before?.told.get(id);
      if (one === undefined || before?.marks.get(id) !== mark) stale.push(id);
      else {
        told.set(id, one);
        kept.set(id, mark);
      }
    }
    await addTo(told, scope, stale, (id) => {
      const mark = now.get(id);
      if (mark !== undefined) kept.set(id, mark);
    });
    return { today: scope.today, told, marks: kept };
  }

  async function addTo(all: Map<string, T>, scope: Scope, ids: readonly string[], mark: (id: string) => void) {
    for (let at = 0; at < ids.length; at += AT_A_STRETCH)
      for (const [id, { told, isFluid }] of await tell(scope, ids.slice(at, at + AT_A_STRETCH))) {
        all.set(id, told);
        if (!isFluid) mark(id);
      }
  }

  return async (scope: Scope): Promise<ReadonlyMap<string, T>> => {
    if (scope.isWithinTransaction) throw new Error('What is kept is asked for within a transaction.');
    return ofDatabase(scope).asked.of(scope.workspace.id, () => upToDate(scope));
  };
}

/**
 * The same where only some are asked for, and what is told of one is dear: each is told when it is asked for first, and
 * again once it was touched. Where any may have been touched, each that is asked for is looked over by its mark.
 */
export function keptOfSome<T>({ marks, tell, most }: KeptSources<T>) {
  interface Kept extends Told<T> {
    readonly mark: string | undefined;
    /** Until any may have been touched once more: then it is looked over. */
    stands: number;
  }
  interface OfSome {
    today: string;
    moment: number;
    /** How often any of them may have been touched. */
    any: number;
    told: Map<string, Kept>;
  }
  /** The workspace that was asked for last stands at the end. */
  const ofDatabase = ofEachDatabase(() => new Map<string, OfSome>());

  /** Takes out what can't stand any more. */
  function hear(of: OfSome, today: string, { moment, schedules }: Since): void {
    // Another who asked meanwhile may have heard more.
    if (moment < of.moment) return;
    if (of.today !== today) {
      // Whoever is still telling of yesterday leaves what is looked over by its mark, which bears the day.
      of.any++;
      of.told.clear();
    } else if (schedules === null) {
      of.any++;
      for (const [id, { isFluid }] of of.told) if (isFluid) of.told.delete(id);
    } else if (schedules.size > 0)
      for (const [id, { isOfOthers }] of of.told) if (isOfOthers || schedules.has(id)) of.told.delete(id);
    of.moment = moment;
    of.today = today;
  }

  return async (scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, T>> => {
    if (scope.isWithinTransaction) throw new Error('What is kept is asked for within a transaction.');
    const workspaces = ofDatabase(scope);
    const { id: workspace } = scope.workspace;
    const of = workspaces.get(workspace) ?? { today: scope.today, moment: 0, any: 0, told: new Map() };
    const since = await touchedSince(scope, of.moment);
    const { moment } = since;
    hear(of, scope.today, since);
    const { any } = of;
    workspaces.delete(workspace);
    workspaces.set(workspace, of);
    const answer = new Map<string, T>();
    const unsure: string[] = [];
    await eachInTurn(ids, (id) => {
      const known = of.told.get(id);
      if (known !== undefined && known.stands === any) answer.set(id, known.told);
      else unsure.push(id);
    });
    const marked = unsure.length === 0 ? new Map<string, string>() : await marks(scope, unsure);
    const missing = unsure.filter((id) => {
      const known = of.told.get(id);
      if (known?.mark === undefined || known.isFluid || known.mark !== marked.get(id)) return true;
      answer.set(id, known.told);
      // What was read before somebody heard of more is for whoever asked then alone.
      if (of.moment === moment) known.stands = any;
      return false;
    });
    for (let at = 0; at < missing.length; at += AT_A_STRETCH)
      for (const [id, told] of await tell(scope, missing.slice(at, at + AT_A_STRETCH))) {
        answer.set(id, told.told);
        if (of.moment === moment) of.told.set(id, { ...told, mark: marked.get(id), stands: any });
      }
    let count = 0;
    for (const { told } of workspaces.values()) count += told.size;
    for (const [oldest, { told }] of workspaces) {
      if (count <= most) break;
      count -= told.size;
      workspaces.delete(oldest);
    }
    return answer;
  };
}

/**
 * Marks of what plans are told from: the rows of the schedule, its template, its client and its asset (each write of a row
 * gives it another `xmin`), what was deleted of it, days off, people and their leave, the zone and the day; and of its tasks what
 * the caller says.
 * @param tasks SQL of a `schedule_id` and its `tasks` as a text; today is $2, and the schedules that are asked for $3
 * @param ids null for all of the workspace
 */
export async function marksOf(
  scope: Scope,
  tasks: string,
  ids: readonly string[] | null,
): Promise<ReadonlyMap<string, string>> {
  const [around] = await scope.sql<{ mark: string }>(
    `select concat_ws(' ', w.working_weekdays, w.zone,
       (select md5(string_agg(date || name, ' ' order by date)) from holiday where workspace_id = $1),
       (select md5(string_agg(id::text || xmin, ' ' order by id)) from person where workspace_id = $1),
       (select md5(string_agg(id::text || xmin, ' ' order by id)) from leave where workspace_id = $1)) as mark
     from workspace w where w.id = $1`,
  );
  const rows = await scope.sql<{ id: string; mark: string }>(
    `select s.id, concat_ws(' ', s.xmin, t.xmin, c.xmin, a.xmin, own.tasks, gone.tasks) as mark
     from schedule s
     join template t on t.workspace_id = $1 and t.id = s.template_id
     left join client c on c.workspace_id = $1 and c.id = s.client_id
     left join asset a on a.workspace_id = $1 and a.id = s.asset_id
     left join (${tasks}) own on own.schedule_id = s.id
     left join (
       select schedule_id, count(*) || ' ' || max(deleted_at) as tasks from deleted_task
       where workspace_id = $1 and ($3::uuid[] is null or schedule_id = any($3)) group by schedule_id
     ) gone on gone.schedule_id = s.id
     where s.workspace_id = $1 and s.deleted_at is null and ($3::uuid[] is null or s.id = any($3))`,
    [scope.today, ids],
  );
  return new Map(rows.map(({ id, mark }) => [id, `${mark} ${scope.today} ${around?.mark}`]));
}

/** The same for what is told of days from today on: of the tasks that are made for those. */
export function marksByTasksAhead(scope: Scope, ids: readonly string[] | null): Promise<ReadonlyMap<string, string>> {
  return marksOf(
    scope,
    `select schedule_id, count(*) || ' ' || sum(uuid_hash(id)) as tasks from task
     where workspace_id = $1 and schedule_id is not null and ($3::uuid[] is null or schedule_id = any($3)) and due_on >= $2::date
     group by schedule_id`,
    ids,
  );
}
