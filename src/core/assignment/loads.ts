import { type CivilDay, mondayOf } from '../civil-date/civil-day.ts';
import { minutesFor, type Worker } from './availability.ts';
import type { WeekLoad } from './least-to-do.ts';

/** Minutes of work that somebody has in the week of a Monday. */
export interface WeekOfWork {
  readonly personId: string;
  readonly monday: CivilDay;
  readonly minutes: number;
}

/** What everybody has to do by the week, and can do; what is given away meanwhile is added to it. */
export class Loads {
  private readonly minutes = new Map<string, number>();
  private readonly capacities = new Map<string, number>();

  constructor(
    private readonly workers: ReadonlyMap<string, Worker>,
    private readonly isHoliday: (day: CivilDay) => boolean,
    made: Iterable<WeekOfWork>,
  ) {
    for (const { personId, monday, minutes } of made) this.minutes.set(keyOf(personId, monday), minutes);
  }

  /** What somebody has in the week of a day. */
  of(personId: string, day: CivilDay): Omit<WeekLoad, 'lastHad'> {
    const monday = mondayOf(day);
    return { minutes: this.minutes.get(keyOf(personId, monday)) ?? 0, capacity: this.capacityIn(personId, monday) };
  }

  add(personId: string, day: CivilDay, minutes: number): void {
    const key = keyOf(personId, mondayOf(day));
    this.minutes.set(key, (this.minutes.get(key) ?? 0) + minutes);
  }

  /** Minutes that somebody can work in the week of a Monday. */
  private capacityIn(personId: string, monday: CivilDay): number {
    const key = keyOf(personId, monday);
    const known = this.capacities.get(key);
    if (known !== undefined) return known;
    const worker = this.workers.get(personId);
    let capacity = 0;
    for (let day = monday; worker && day < monday + 7; day++)
      capacity += minutesFor(worker, day, { isHoliday: this.isHoliday(day) });
    this.capacities.set(key, capacity);
    return capacity;
  }
}

const keyOf = (personId: string, monday: CivilDay) => `${personId} ${monday}`;
