import type { Covered, LeaveImpact } from '../../contract/index.ts';
import {
  type CivilDay,
  DAYS_A_WEEK,
  dayOfIso,
  isoOfDay,
  Loads,
  mondayOf,
  type People,
  type WeekOfWork,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import type { Span } from './following.ts';

/** Those told at the most. */
const MOST_PEERS = 60;

/** Those of somebody's first role, with what they have and can do in the weeks of some days, whoever has the most time first. */
export async function peersOf(
  scope: Scope,
  { personId, role }: { readonly personId: string; readonly role: string | undefined },
  here: People,
  days: readonly Span[],
  weeks: readonly WeekOfWork[],
): Promise<LeaveImpact['peers']> {
  if (role === undefined) return [];
  const names = await scope.peopleNames();
  const calendar = await scope.calendar();
  const loads = new Loads(here.workers, (day: CivilDay) => calendar.holidayName(day) !== undefined, weeks);
  const mondays = new Set<CivilDay>();
  for (const { from, to } of days) for (let day = mondayOf(from); day <= to; day += DAYS_A_WEEK) mondays.add(day);
  return here
    .of({ of: 'role', role })
    .filter((id) => id !== personId)
    .map((id) => {
      const of = [...mondays].map((monday) => loads.of(id, monday));
      const sum = (figure: 'minutes' | 'capacity') => of.reduce((all, one) => all + one[figure], 0);
      return { person: { id, name: names.get(id) ?? '' }, minutes: sum('minutes'), capacity: sum('capacity') };
    })
    .filter(({ capacity }) => capacity > 0)
    .sort((a, b) => b.capacity - b.minutes - (a.capacity - a.minutes))
    .slice(0, MOST_PEERS);
}

/** Minutes by the week of everybody who gets some of it; of what is foreseen, what comes to them by this. */
export async function receiversOf(
  scope: Scope,
  here: People,
  items: readonly Covered[],
  weeks: readonly WeekOfWork[],
): Promise<LeaveImpact['receivers']> {
  const calendar = await scope.calendar();
  const loads = new Loads(here.workers, (day: CivilDay) => calendar.holidayName(day) !== undefined, weeks);
  const added = new Map<string, Map<CivilDay, number>>();
  const names = new Map<string, string>();
  for (const { fate, to, on, minutes } of items) {
    if (fate !== 'goes' || to === null) continue;
    names.set(to.id, to.name);
    const monday = mondayOf(dayOfIso(on));
    const of = added.get(to.id) ?? new Map<CivilDay, number>();
    of.set(monday, (of.get(monday) ?? 0) + minutes);
    added.set(to.id, of);
  }
  const total = (of: ReadonlyMap<CivilDay, number>) => [...of.values()].reduce((sum, one) => sum + one, 0);
  return [...added]
    .sort(([, a], [, b]) => total(b) - total(a))
    .map(([id, of]) => ({
      person: { id, name: names.get(id) ?? '' },
      weeks: [...of]
        .sort(([a], [b]) => a - b)
        .map(([monday, minutes]) => {
          const load = loads.of(id, monday);
          return {
            monday: isoOfDay(monday),
            before: load.minutes,
            after: load.minutes + minutes,
            capacity: load.capacity,
          };
        }),
    }));
}
