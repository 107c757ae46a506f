import { Latest, ofEachDatabase } from '../platform/latest.ts';
import type { Scope } from '../platform/scope.ts';

/** What is told of a schedule; what its mark does not tell of is told anew each time. */
export interface Told<T> {
  readonly told: T;
  readonly isFluid: boolean;
}

export interface KeptSources<T> {
  /** For each schedule of the workspace, in the order of what is given back, a text that is another whenever anything is that it is told from. */
  readonly marks: (scope: Scope) => Promise<ReadonlyMap<string, string>>;
  /** A few at a time. */
  readonly tell: (scope: Scope, ids: readonly string[]) => Promise<readonly (readonly [string, Told<T>])[]>;
  /** How many are kept at the most, of all workspaces together. */
  readonly most: number;
}

/** Told before others get their turn. */
const AT_A_STRETCH = 100;

/**
 * What is told of all schedules of a workspace, each kept for as long as its mark is the same. For reading alone: who asks
 * meanwhile shares the answer, which within a transaction would tell others what does not stand yet.
 */
export function keptOfSchedules<T>({ marks, tell, most }: KeptSources<T>) {
  type OfWorkspace = Map<string, { readonly mark: string; readonly told: T }>;
  const ofDatabase = ofEachDatabase(() => ({
    /** The one that was asked for last at the end. */
    workspaces: new Map<string, OfWorkspace>(),
    asked: new Latest<ReadonlyMap<string, T>>(),
  }));

  async function lookedOver(scope: Scope): Promise<ReadonlyMap<string, T>> {
    const now = await marks(scope);
    const kept = ofWorkspace(scope);
    const stale = [...now].filter(([id, mark]) => kept.get(id)?.mark !== mark).map(([id]) => id);
    for (let at = 0; at < stale.length; at += AT_A_STRETCH)
      for (const [id, { told, isFluid }] of await tell(scope, stale.slice(at, at + AT_A_STRETCH)))
        kept.set(id, { told, mark: isFluid ? '' : (now.get(id) ?? '') });
    for (const id of kept.keys()) if (!now.has(id)) kept.delete(id);
    const all = new Map<string, T>();
    for (const id of now.keys()) {
      const one = kept.get(id);
      if (one) all.set(id, one.told);
    }
    return all;
  }

  function ofWorkspace(scope: Scope): OfWorkspace {
    const { workspaces } = ofDatabase(scope);
    const { id } = scope.workspace;
    const own: OfWorkspace = workspaces.get(id) ?? new Map();
    workspaces.delete(id);
    workspaces.set(id, own);
    let count = [...workspaces.values()].reduce((sum, one) => sum + one.size, 0);
    for (const [oldest, one] of workspaces) {
      if (count <= most || oldest === id) break;
      count -= one.size;
      workspaces.delete(oldest);
    }
    return own;
  }

  return (scope: Scope): Promise<ReadonlyMap<string, T>> =>
    ofDatabase(scope).asked.of(scope.workspace.id, () => lookedOver(scope));
}

/** What every plan is told from besides its own rows: days off, names of people, the zone and the day. */
export async function markAround(scope: Scope): Promise<string> {
  const [around] = await scope.sql<{ mark: string }>(
    `select concat_ws(' ', w.working_weekdays, w.zone,
       (select md5(string_agg(date || name, ' ' order by date)) from holiday where workspace_id = $1),
       (select md5(string_agg(id || name, ' ' order by id)) from person where workspace_id = $1)) as mark
     from workspace w where w.id = $1`,
  );
  return `${scope.today} ${around?.mark}`;
}
