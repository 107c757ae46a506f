import { type LoadOfPerson, WEEKS_TOLD, type WorkloadCell } from '../../contract/index.ts';
import { type CivilDay, dayOfIso, hasLeftBy, isoOfDay, Loads, mondayOf, peopleHere } from '../../core/index.ts';
import { colleagues } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import type { Scope } from '../platform/scope.ts';
import { foreseenByPerson, KEPT_DAYS } from '../schedules/index.ts';

const DAYS_A_WEEK = 7;
/** Weeks behind this one that are told where nothing else is asked for: what is foreseen reaches as far ahead. */
const WEEKS_BEHIND = 6;

/** What everybody has to do by the week, was done, and is foreseen, against what they can do. */
export async function workloadWeeks(
  scope: Scope,
  { from }: { readonly from?: string | undefined },
): Promise<{ weeks: string[]; rows: LoadOfPerson[]; foreseenUpTo: string }> {
  const { day: today } = scope.now;
  const first = mondayOf(from === undefined ? today - WEEKS_BEHIND * DAYS_A_WEEK : dayOfIso(from));
  const weeks = Array.from({ length: WEEKS_TOLD }, (_, i) => first + i * DAYS_A_WEEK);
  const [made, foreseen, people, here, calendar] = await scope.atOnce(
    () =>
      scope.sql<{ personId: string | null; monday: string; done: number; open: number }>(
        `select assignee_id as "personId", date_trunc('week', due_on)::date as monday,
           sum(case when state in ('done', 'toCheck') then estimate_minutes else 0 end)::int as done,
           sum(case when state in ('open', 'underWay') then estimate_minutes else 0 end)::int as open
         from task where workspace_id = $1 and due_on >= $2::date and due_on < $3::date and state not in ('skipped', 'lapsed')
         group by 1, 2`,
        [isoOfDay(first), isoOfDay(first + WEEKS_TOLD * DAYS_A_WEEK)],
      ),
    () => foreseenByPerson(scope),
    () => scope.find(Person),
    async () => peopleHere(await colleagues(scope)),
    () => scope.calendar(),
  );
  const keyOf = (personId: string | null, monday: CivilDay) => `${personId ?? ''} ${monday}`;
  const sums = new Map(made.map((one) => [keyOf(one.personId, dayOfIso(one.monday)), one]));
  const ahead = new Map<string, number>();
  for (const [personId, days] of foreseen)
    for (const { dueOn, estimateMinutes } of days) {
      const key = keyOf(personId, mondayOf(dayOfIso(dueOn)));
      ahead.set(key, (ahead.get(key) ?? 0) + estimateMinutes);
    }
  const isHoliday = (day: CivilDay) => calendar.holidayName(day) !== undefined;
  const loads = new Loads(here.workers, isHoliday, []);
  const without = new Loads(
    new Map([...here.workers].map(([id, worker]) => [id, { ...worker, leave: [] }])),
    isHoliday,
    [],
  );
  const cellsOf = (personId: string | null): WorkloadCell[] =>
    weeks.map((monday) => {
      const sum = sums.get(keyOf(personId, monday));
      const capacity = personId === null ? 0 : loads.of(personId, monday).capacity;
      return {
        done: sum?.done ?? 0,
        open: sum?.open ?? 0,
        foreseen: ahead.get(keyOf(personId, monday)) ?? 0,
        capacity,
        isAway: personId !== null && capacity === 0 && without.of(personId, monday).capacity > 0,
      };
    });
  const hasWork = ({ cells }: LoadOfPerson) => cells.some(({ done, open, foreseen: more }) => done + open + more > 0);
  const rows = people
    .sort((a, b) => a.name.localeCompare(b.name))
    .map(({ id, name, roles, team, worksUntil }) => ({
      row: { person: { id, name, roles, team }, cells: cellsOf(id) },
      isGone: hasLeftBy({ worksUntil }, first),
    }))
    // Whoever has no hours and no work in all of it, or had left before, has no line.
    .filter(
      ({ row, isGone }) =>
        hasWork(row) || (!isGone && row.cells.some(({ capacity, isAway }) => capacity > 0 || isAway)),
    )
    .map(({ row }) => row);
  const nobody: LoadOfPerson = { person: null, cells: cellsOf(null) };
  return {
    weeks: weeks.map(isoOfDay),
    rows: [...rows, ...(hasWork(nobody) ? [nobody] : [])],
    foreseenUpTo: isoOfDay(today + KEPT_DAYS),
  };
}
