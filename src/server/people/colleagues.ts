import { type Colleague, dayOfIso, groupBy, isoOfDay, mondayOf, type WeekOfWork } from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import type { Scope } from '../platform/scope.ts';

/** Leave that is over for longer makes no difference to any task that may still change. */
const LEAVE_KEPT_DAYS = 400;

/** Everybody of the workspace, or one of them, with all that tells whether they can have work on a day; by name, as groups are told. */
export async function colleagues(scope: Scope, only?: string): Promise<Colleague[]> {
  const [people, leave] = await scope.atOnce(
    () => scope.find(Person, only === undefined ? {} : { id: only }),
    () =>
      scope.sql<Colleague['leave'][number] & { readonly personId: string }>(
        `select person_id as "personId", from_on as "from", to_on as "to", half, cover from leave
         where workspace_id = $1 and state = 'given' and to_on >= $2::date
           and ($3::uuid is null or person_id = $3) order by from_on, id`,
        [isoOfDay(scope.now.day - LEAVE_KEPT_DAYS), only ?? null],
      ),
  );
  const ofPerson = groupBy(leave, ({ personId }) => personId);
  return people
    .sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1))
    .map((person) => ({
      ...{ id: person.id, roles: person.roles, team: person.team, deputyId: person.deputyId },
      ...{ weeks: person.weeks, weeksFrom: person.weeksFrom, shifts: person.shifts, shiftChanges: person.shiftChanges },
      ...{ worksFrom: person.worksFrom, worksUntil: person.worksUntil, tickets: person.tickets },
      leave: (ofPerson.get(person.id) ?? []).map(({ from, to, half, cover }) => ({
        ...{ from, to, half },
        ...(cover ? { cover } : {}),
      })),
    }));
}

/** Minutes of the work that is made of everybody, by the week in which it is due, from this week on; `own` are those of one schedule. */
export async function weeksOfWork(
  scope: Scope,
  scheduleId?: string,
): Promise<(WeekOfWork & { readonly own: number })[]> {
  const rows = await scope.sql<{ personId: string; monday: string; minutes: number; own: number }>(
    `select assignee_id as "personId", date_trunc('week', due_on)::date as monday, sum(estimate_minutes)::int as minutes,
       coalesce(sum(estimate_minutes) filter (where schedule_id = $3::uuid), 0)::int as own
     from task where workspace_id = $1 and due_on >= $2::date and assignee_id is not null
       and state not in ('skipped', 'lapsed') group by 1, 2`,
    [isoOfDay(mondayOf(scope.now.day)), scheduleId ?? null],
  );
  return rows.map(({ monday, ...one }) => ({ ...one, monday: dayOfIso(monday) }));
}
