import { type CivilDay, type PatternShift, type Weekday, weekdayOf, weekInPattern } from '../src/core/index.ts';
import type { DemoPerson, PersonKey } from './people.ts';

interface DemoShift {
  readonly from: string;
  readonly to: string;
  readonly breakMinutes: number;
}

const EARLY: DemoShift = { from: '07:00', to: '15:00', breakMinutes: 30 };
const DAY: DemoShift = { from: '08:00', to: '16:00', breakMinutes: 30 };
const OFFICE: DemoShift = { from: '09:00', to: '16:30', breakMinutes: 30 };
const FORENOON: DemoShift = { from: '08:00', to: '12:00', breakMinutes: 0 };

/** When the hours of each lie; those of the others are told without times. */
const SHIFTS: Partial<Record<PersonKey, DemoShift>> = {
  ...{ nadia: EARLY, kit: EARLY, joss: EARLY, tamsin: EARLY, wilf: FORENOON, bram: DAY, selwyn: DAY, lowri: DAY },
  ...{ maud: OFFICE, oskar: OFFICE },
};

/** The days on which Piet is at the fuel dock; on the others of the same hours on the docks. */
const FUEL_DAYS: readonly Weekday[] = [5, 6, 7];
const FUEL: DemoShift = { from: '08:00', to: '13:00', breakMinutes: 0 };

/** Somebody's shifts, so long as their hours are. */
export function shiftsOf({ key, weeks }: DemoPerson): PatternShift[] {
  const lines = (shift: DemoShift, role: string | null, of: (weekday: Weekday) => boolean): PatternShift[] =>
    weeks.flatMap((minutes, week) => {
      const weekdays = minutes.flatMap((one, i) => (one > 0 && of((i + 1) as Weekday) ? [(i + 1) as Weekday] : []));
      return weekdays.length === 0 ? [] : [{ ...shift, role, week, weekdays }];
    });
  if (key === 'piet')
    return [
      ...lines(FUEL, 'fuel dock', (weekday) => FUEL_DAYS.includes(weekday)),
      ...lines(FUEL, 'dock crew', (weekday) => !FUEL_DAYS.includes(weekday)),
    ];
  const shift = SHIFTS[key as PersonKey];
  return shift ? lines(shift, null, () => true) : [];
}

/** The shift of a day as the demo's people keep it; null where they have none then. @param from a day in the first of their weeks */
export function shiftOn(person: DemoPerson, from: string, day: CivilDay): PatternShift | null {
  const week = weekInPattern({ weeks: person.weeks, from }, day);
  return shiftsOf(person).find((one) => one.week === week && one.weekdays.includes(weekdayOf(day))) ?? null;
}
