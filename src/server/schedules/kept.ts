import { Latest, ofEachDatabase } from '../platform/latest.ts';
import type { Scope } from '../platform/scope.ts';
import { touchedSince } from '../platform/touched.ts';

/** What is told of a schedule; what its mark does not tell of is told anew whenever all are looked over. */
export interface Told<T> {
  readonly told: T;
  readonly isFluid: boolean;
}

export interface KeptSources<T> {
  /** For each schedule of the workspace a text that is another whenever anything is that it is told from. */
  readonly marks: (scope: Scope) => Promise<ReadonlyMap<string, string>>;
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
    const now = await marks(scope);
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
 * again once it was touched, or any of them may have been; what depends on others, once any was. For reading alone, as above.
 * @param most how many are kept at the most, of all workspaces together
 */
export function keptOfSome<T>(tell: KeptSources<T>['tell'], most: number) {
  interface OfSome {
    today: string;
    moment: number;
    told: Map<string, Told<T>>;
  }
  /** The workspace that was asked for last stands at the end. */
  const ofDatabase = ofEachDatabase(() => new Map<string, OfSome>());

  return async (scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, T>> => {
    if (scope.isWithinTransaction) throw new Error('What is kept is asked for within a transaction.');
    const workspaces = ofDatabase(scope);
    const { id: workspace } = scope.workspace;
    const of = workspaces.get(workspace) ?? { today: scope.today, moment: 0, told: new Map() };
    const { moment, schedules } = await touchedSince(scope, of.moment);
    // Another who asked meanwhile may have heard more.
    if (moment >= of.moment) {
      if (schedules === null || of.today !== scope.today) of.told.clear();
      else if (schedules.size > 0)
        for (const [id, { isFluid }] of of.told) if (isFluid || schedules.has(id)) of.told.delete(id);
      of.moment = moment;
      of.today = scope.today;
    }
    workspaces.delete(workspace);
    workspaces.set(workspace, of);
    const answer = new Map<string, T>();
    const missing = ids.filter((id) => {
      const known = of.told.get(id);
      if (known !== undefined) answer.set(id, known.told);
      return known === undefined;
    });
    for (let at = 0; at < missing.length; at += AT_A_STRETCH)
      for (const [id, told] of await tell(scope, missing.slice(at, at + AT_A_STRETCH))) {
        answer.set(id, told.told);
        // What was read before somebody heard of more is for whoever asked then alone.
        if (of.moment === moment) of.told.set(id, told);
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
 * @param tasks SQL of a `schedule_id` and its `tasks` as a text; today is $2
 */
export async function marksOf(scope: Scope, tasks: string): Promise<ReadonlyMap<string, string>> {
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
       select schedule_id, count(*) || ' ' || max(deleted_at) as tasks from deleted_task where workspace_id = $1 group by schedule_id
     ) gone on gone.schedule_id = s.id
     where s.workspace_id = $1 and s.deleted_at is null`,
    [scope.today],
  );
  return new Map(rows.map(({ id, mark }) => [id, `${mark} ${scope.today} ${around?.mark}`]));
}
