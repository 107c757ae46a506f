import { type LoadOfPerson, type LoadUnit, type Named, TOLD_AT_ONCE, type WorkloadCell } from '../../contract/index.ts';
import {
  type CivilDay,
  DAYS_A_WEEK,
  dayOfIso,
  hasLeftBy,
  isoOfDay,
  minutesWithin,
  mondayOf,
  peopleHere,
  type Worker,
} from '../../core/index.ts';
import { standingAt } from '../directory/index.ts';
import { colleagues } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { callLoad } from '../ringing/index.ts';
import { foreseenByPerson, KEPT_DAYS } from '../schedules/index.ts';

export const DAYS_OF: Readonly<Record<LoadUnit, number>> = { week: DAYS_A_WEEK, day: 1 };
/** Weeks behind this one that are told where nothing else is asked for: what is foreseen reaches as far ahead. Days begin with this week. */
const WEEKS_BEHIND: Readonly<Record<LoadUnit, number>> = { week: 6, day: 0 };

/** What everybody has to do by the week or the day, was done, and is foreseen, against what they can do; all of it, or at one site. */
export async function workload(
  scope: Scope,
  {
    from,
    by,
    site: siteId,
  }: { readonly from?: string | undefined; readonly by: LoadUnit; readonly site?: string | undefined },
): Promise<{ starts: string[]; rows: LoadOfPerson[]; foreseenUpTo: string; site: Named | null }> {
  const { day: today } = scope.now;
  const first = mondayOf(from === undefined ? today - WEEKS_BEHIND[by] * DAYS_A_WEEK : dayOfIso(from));
  const length = DAYS_OF[by];
  const at = siteId === undefined ? null : await standingAt(scope, siteId);
  const starts = Array.from({ length: TOLD_AT_ONCE[by] }, (_, i) => first + i * length);
  const last = first + starts.length * length - 1;
  const [made, foreseen, calls, people, here, calendar] = await scope.atOnce(
    () =>
      scope.sql<{ personId: string | null; at: number; done: number; open: number }>(
        `select assignee_id as "personId", (due_on - $2::date) / ${length} as at,
           sum(case when state in ('done', 'toCheck') then estimate_minutes else 0 end)::int as done,
           sum(case when state in ('open', 'underWay') then estimate_minutes else 0 end)::int as open
         from task where workspace_id = $1 and due_on >= $2::date and due_on < $3::date and state not in ('skipped', 'lapsed')
           and ($4::uuid[] is null or asset_id = any($4))
         group by 1, 2`,
        [isoOfDay(first), isoOfDay(first + starts.length * length), at?.assetIds ?? null],
      ),
    () => foreseenByPerson(scope, at && new Set(at.assetIds)),
    // No call is at a site; what is foreseen goes as far for calls as for tasks.
    async () => (at === null ? callLoad(scope, { from: first, to: Math.min(last, today + KEPT_DAYS) }) : []),
    () => scope.find(Person),
    async () => peopleHere(await colleagues(scope)),
    () => scope.calendar(),
  );
  const keyOf = (personId: string | null, at: number) => `${personId ?? ''} ${at}`;
  const sums = new Map(made.map(({ done, open, ...one }) => [keyOf(one.personId, one.at), { done, open }]));
  const ahead = new Map<string, number>();
  for (const { personId, on, done, open, foreseen: more } of calls) {
    const key = keyOf(personId, Math.floor((on - first) / length));
    const sum = sums.get(key);
    sums.set(key, { done: (sum?.done ?? 0) + done, open: (sum?.open ?? 0) + open });
    ahead.set(key, (ahead.get(key) ?? 0) + more);
  }
  for (const [personId, days] of foreseen)
    for (const { dueOn, estimateMinutes } of days) {
      const key = keyOf(personId, Math.floor((dayOfIso(dueOn) - first) / length));
      ahead.set(key, (ahead.get(key) ?? 0) + estimateMinutes);
    }
  const holidays = starts.flatMap((start) =>
    Array.from({ length }, (_, i) => calendar.holidayName(start + i) !== undefined),
  );
  /** Minutes that somebody can work in the span that begins with a day. */
  const capacityOf = (worker: Worker | undefined, start: CivilDay): number => {
    return worker ? minutesWithin(worker, start, start + length - 1, (day) => holidays[day - first] === true) : 0;
  };
  const cellsOf = (personId: string | null): WorkloadCell[] => {
    const worker = personId === null ? undefined : here.workers.get(personId);
    return starts.map((start, at) => {
      const sum = sums.get(keyOf(personId, at));
      const capacity = capacityOf(worker, start);
      return {
        done: sum?.done ?? 0,
        open: sum?.open ?? 0,
        foreseen: ahead.get(keyOf(personId, at)) ?? 0,
        capacity,
        isAway: worker !== undefined && capacity === 0 && capacityOf({ ...worker, leave: [] }, start) > 0,
      };
    });
  };
  const hasWork = ({ cells }: LoadOfPerson) => cells.some(({ done, open, foreseen: more }) => done + open + more > 0);
  const byName = people.sort((a, b) => a.name.localeCompare(b.name));
  const told = await eachInTurn(byName, ({ id, name, roles, team, worksUntil }) => ({
    row: { person: { id, name, roles, team }, cells: cellsOf(id) },
    isGone: hasLeftBy({ worksUntil }, first),
  }));
  const rows = told
    // Whoever has no hours and no work in all of it, or had left before, has no line; of a site, whoever has no work there.
    .filter(
      ({ row, isGone }) =>
        hasWork(row) || (at === null && !isGone && row.cells.some(({ capacity, isAway }) => capacity > 0 || isAway)),
    )
    .map(({ row }) => row);
  const nobody: LoadOfPerson = { person: null, cells: cellsOf(null) };
  return {
    starts: starts.map(isoOfDay),
    rows: [...rows, ...(hasWork(nobody) ? [nobody] : [])],
    foreseenUpTo: isoOfDay(today + KEPT_DAYS),
    site: at?.site ?? null,
  };
}
