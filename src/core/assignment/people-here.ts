import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate } from '../civil-date/iso-date.ts';
import type { PatternShift, ShiftChange } from '../people/shifts.ts';
import { minutesAWeek, type WeekMinutes } from '../people/week-hours.ts';
import { type Group, People } from './assignment.ts';
import type { Leave, Ticket, Worker } from './availability.ts';
import type { LeaveCover } from './cover-choice.ts';

/** Somebody who may be given work, as they are told of over the wire: a worker with dates instead of days. */
export interface Colleague {
  readonly id: string;
  readonly roles: readonly string[];
  readonly team: string | null;
  readonly weeks: readonly WeekMinutes[];
  readonly weeksFrom: IsoDate;
  readonly shifts: readonly PatternShift[];
  readonly shiftChanges: readonly ShiftChange[];
  readonly worksFrom: IsoDate | null;
  readonly worksUntil: IsoDate | null;
  readonly leave: readonly {
    readonly from: IsoDate;
    readonly to: IsoDate;
    readonly half: Half | null;
    /** Null where it is as the work itself says. */
    readonly cover?: LeaveCover | null | undefined;
  }[];
  readonly tickets: readonly { readonly name: string; readonly until: IsoDate | null }[];
  readonly deputyId: string | null;
}

export type Half = NonNullable<Leave['half']>;
export const HALVES = ['morning', 'afternoon'] as const satisfies readonly Half[];

/** Everybody of a workspace, ready to be given work; of a group in the order in which they are told. */
export function peopleHere(colleagues: readonly Colleague[]): People {
  const byRole = new Map<string, string[]>();
  const byTeam = new Map<string, string[]>();
  const into = (groups: Map<string, string[]>, name: string, id: string) => {
    const there = groups.get(name);
    if (there) there.push(id);
    else groups.set(name, [id]);
  };
  for (const { id, roles, team } of colleagues) {
    for (const role of roles) into(byRole, role, id);
    if (team !== null) into(byTeam, team, id);
  }
  const everyone = colleagues.filter((one) => minutesAWeek(one) > 0).map(({ id }) => id);
  const idsOf = (group: Group): readonly string[] => {
    switch (group.of) {
      case 'everyone':
        return everyone;
      case 'people':
        return group.ids;
      case 'role':
        return byRole.get(group.role) ?? [];
      case 'team':
        return byTeam.get(group.team) ?? [];
    }
  };
  return new People(new Map(colleagues.map((one) => [one.id, workerOf(one)])), idsOf);
}

/** Somebody as they may be given work, from what is told of them. */
export function workerOf(one: Omit<Colleague, 'roles' | 'team'>): Worker {
  const { id, weeks, weeksFrom, shifts, shiftChanges, worksFrom, worksUntil, leave, tickets, deputyId } = one;
  return {
    ...{ id, weeks, shifts, deputyId },
    weeksFrom: dayOfIso(weeksFrom),
    shiftChanges: new Map(shiftChanges.map((change) => [dayOfIso(change.on), change.shifts])),
    worksFrom: dayOrNull(worksFrom),
    worksUntil: dayOrNull(worksUntil),
    leave: leave.map(
      ({ from, to, half, cover }): Leave => ({
        ...{ from: dayOfIso(from), to: dayOfIso(to) },
        ...(half === null ? {} : { half }),
        ...(cover ? { cover } : {}),
      }),
    ),
    tickets: ticketsHeld(tickets),
  };
}

/** Tickets as they are told of over the wire and stored, ready to be asked for a day. */
export function ticketsHeld(tickets: Colleague['tickets']): Ticket[] {
  return tickets.map(({ name, until }) => ({ name, until: dayOrNull(until) }));
}

function dayOrNull(date: IsoDate | null): CivilDay | null {
  return date === null ? null : dayOfIso(date);
}
