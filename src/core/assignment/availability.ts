import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import {
  type DayWindow,
  minutesOfShift,
  overlaps,
  type PatternShift,
  patternOn,
  type Shift,
  WHOLE_DAY,
  windowOfShift,
} from '../people/shifts.ts';
import { MOST_MINUTES_A_DAY, minutesInWeeks, type WeekMinutes } from '../people/week-hours.ts';
import { AS_THE_WORK_SAYS, type LeaveCover } from './cover-choice.ts';

/** Days on which somebody does not work though their week says so, both included; half a day takes half of its hours. */
export interface Leave {
  readonly from: CivilDay;
  readonly to: CivilDay;
  /** Left out for whole days. */
  readonly half?: 'morning' | 'afternoon';
  /** Left out where it is as the work itself says. */
  readonly cover?: LeaveCover;
}

/** A qualification that somebody holds, up to a last day; null where it has no end. */
export interface Ticket {
  readonly name: string;
  readonly until: CivilDay | null;
}

/** Somebody who may be given work. */
export interface Worker {
  readonly id: string;
  /** Hours of one week that comes again, or of two that take turns, and a day in the first of them. */
  readonly weeks: readonly WeekMinutes[];
  readonly weeksFrom: CivilDay;
  /** When the hours of those weeks lie; none where that is not said. */
  readonly shifts: readonly PatternShift[];
  /** What they work instead on single days; none where they do not work then. */
  readonly shiftChanges: ReadonlyMap<CivilDay, readonly Shift[]>;
  /** Their first and last day here; null where there is no such end. */
  readonly worksFrom: CivilDay | null;
  readonly worksUntil: CivilDay | null;
  readonly leave: readonly Leave[];
  readonly tickets: readonly Ticket[];
  /** Whoever takes over for them; null for nobody. */
  readonly deputyId: string | null;
}

/** Why somebody is given no work on a day. */
export type Unavailable =
  | { readonly because: 'not here yet' | 'has left' | 'off' | 'not on shift' }
  /** @param until the last day of it */
  | { readonly because: 'away'; readonly until: CivilDay }
  | NoTicket;

/** @param endedOn the last day on which they held it; null where they never did */
export interface NoTicket {
  readonly because: 'no ticket';
  readonly ticket: string;
  readonly endedOn: CivilDay | null;
}

/** What work asks of a day. */
export interface Asked {
  /** All of them are needed. */
  readonly tickets: readonly string[];
  /** A day off of the workspace is nobody's, but whose hours of that date say otherwise. */
  readonly isHoliday: boolean;
  /** The same of the day before: a shift may go past midnight. */
  readonly wasHoliday: boolean;
  /** When on the day it is to be done, for those who must be on shift then. */
  readonly window: DayWindow;
}

export const NOTHING_ASKED: Asked = { tickets: [], isHoliday: false, wasHoliday: false, window: WHOLE_DAY };

/** What work of a day asks for by the calendar. */
export function askedOn(
  day: CivilDay,
  calendar: Pick<WorkingCalendar, 'holidayName'>,
  tickets: readonly string[] = [],
  window: DayWindow = WHOLE_DAY,
): Asked {
  const isHoliday = calendar.holidayName(day) !== undefined;
  return { tickets, isHoliday, wasHoliday: calendar.holidayName(day - 1) !== undefined, window };
}

const [LEFT, NOT_YET, OFF, NOT_ON_SHIFT] = [
  { because: 'has left' },
  { because: 'not here yet' },
  { because: 'off' },
  { because: 'not on shift' },
] as const;

/** Minutes that somebody's week gives a day, or what is said of that date instead; leave and holidays aside. */
export function minutesByHours({ weeks, weeksFrom, shiftChanges }: Worker, day: CivilDay): number {
  const instead = shiftChanges.get(day);
  return instead === undefined
    ? minutesInWeeks(weeks, weeksFrom, day)
    : instead.reduce((sum, shift) => sum + minutesOfShift(shift), 0);
}

/** The shifts that somebody works on a day, by their pattern or what is said of that date instead; none while they are away or off. */
export function shiftsOn(worker: Worker, day: CivilDay, { isHoliday }: Pick<Asked, 'isHoliday'>): readonly Shift[] {
  if (goneOn(worker, day) !== null || isOff(worker, day, isHoliday)) return [];
  const { weeks, weeksFrom, shifts, shiftChanges } = worker;
  return shiftChanges.get(day) ?? patternOn(shifts, weeks.length, weeksFrom, day);
}

/**
 * Why somebody can't be given work on a day, or null where they can: before their first day and after their last, leave (half a
 * day leaves the other half), a day of their week or a date without hours, and without a ticket that the work asks for.
 */
export function unavailableOn(
  worker: Worker,
  day: CivilDay,
  { tickets, isHoliday }: Pick<Asked, 'tickets' | 'isHoliday'>,
): Unavailable | null {
  const gone = goneOn(worker, day);
  if (gone !== null) return gone;
  if (isOff(worker, day, isHoliday)) return OFF;
  return lackedTicket(worker, tickets, day);
}

/** The same for work that asks for somebody on shift while it is to be done, in a role where one is named. */
export function unavailableOnShift(worker: Worker, day: CivilDay, role: string, asked: Asked): Unavailable | null {
  const isOn = (on: CivilDay, isHoliday: boolean, window: DayWindow): boolean =>
    shiftsOn(worker, on, { isHoliday }).some(
      (shift) => (shift.role === null || shift.role === role) && overlaps(windowOfShift(shift), window),
    );
  const { from, to } = asked.window;
  if (isOn(day, asked.isHoliday, asked.window)) return lackedTicket(worker, asked.tickets, day);
  // What began the evening before may go on.
  const late = { from: from + MOST_MINUTES_A_DAY, to: to + MOST_MINUTES_A_DAY };
  if (isOn(day - 1, asked.wasHoliday, late)) return lackedTicket(worker, asked.tickets, day);
  return goneOn(worker, day) ?? NOT_ON_SHIFT;
}

/** Whether somebody can have work of a day while it is to be done: where their hours say when they lie, in part at that time. */
export function canHaveWhile(worker: Worker, day: CivilDay, asked: Asked): boolean {
  if (unavailableOn(worker, day, asked) !== null) return false;
  const shifts = shiftsOn(worker, day, asked);
  return shifts.length === 0 || shifts.some((shift) => overlaps(windowOfShift(shift), asked.window));
}

/** Why somebody does not work here at all on a day; null where they do, if they are away or not. */
export function notHereOn({ worksFrom, worksUntil }: Worker, day: CivilDay): Unavailable | null {
  if (worksUntil !== null && worksUntil < day) return LEFT;
  return worksFrom !== null && worksFrom > day ? NOT_YET : null;
}

/** Whether somebody is not here at all on a day, or away for all of it. */
function goneOn(worker: Worker, day: CivilDay): Unavailable | null {
  const notHere = notHereOn(worker, day);
  if (notHere !== null) return notHere;
  const away = wholeLeaveOn(worker, day);
  return away === null ? null : { because: 'away', until: away.to };
}

function wholeLeaveOn({ leave }: Worker, day: CivilDay): Leave | null {
  for (const one of leave) if (one.half === undefined && one.from <= day && day <= one.to) return one;
  return null;
}

/** Who takes over for somebody on a day by what was chosen for their leave; as the work itself says on all other days. */
export function coverChosenOn(worker: Worker, day: CivilDay): LeaveCover {
  return wholeLeaveOn(worker, day)?.cover ?? AS_THE_WORK_SAYS;
}

/** A holiday is off but for whom hours of that date are said. */
function isOff(worker: Worker, day: CivilDay, isHoliday: boolean): boolean {
  return (isHoliday && !worker.shiftChanges.has(day)) || minutesByHours(worker, day) === 0;
}

/** The first ticket of those that are asked for which somebody does not hold on a day; null where they hold them all. */
export function lackedTicket(
  worker: Pick<Worker, 'tickets'>,
  tickets: readonly string[],
  day: CivilDay,
): NoTicket | null {
  const ticket = tickets.find((name) => !holds(worker, name, day));
  if (ticket === undefined) return null;
  const ends = worker.tickets.flatMap(({ name, until }) => (name === ticket && until !== null ? [until] : []));
  return { because: 'no ticket', ticket, endedOn: ends.length === 0 ? null : Math.max(...ends) };
}

/** The part of a day that leave does not take: 1, 0.5 or 0. */
export function leftByLeave({ leave }: Worker, day: CivilDay): number {
  let [morning, afternoon] = [0.5, 0.5];
  for (const { from, to, half } of leave) {
    if (day < from || to < day) continue;
    if (half === undefined) return 0;
    if (half === 'morning') morning = 0;
    else afternoon = 0;
  }
  return morning + afternoon;
}

/** Minutes that somebody can work on a day, 0 to 1440: their hours, half of them on half a day of leave. */
export function minutesFor(worker: Worker, day: CivilDay, { isHoliday }: Pick<Asked, 'isHoliday'>): number {
  if (goneOn(worker, day) !== null || isOff(worker, day, isHoliday)) return 0;
  return Math.floor(minutesByHours(worker, day) * leftByLeave(worker, day));
}

/** The same of several days, both included. */
export function minutesWithin(
  worker: Worker,
  from: CivilDay,
  to: CivilDay,
  isHoliday: (day: CivilDay) => boolean,
): number {
  let sum = 0;
  for (let day = from; day <= to; day++) sum += minutesFor(worker, day, { isHoliday: isHoliday(day) });
  return sum;
}

/**
 * Days of leave, both included, on which somebody would have worked without any leave, halves for half a day; and holidays of
 * the workspace among those that their week has hours on.
 */
export function workedDays(
  worker: Worker,
  { from, to, half }: Leave,
  isHoliday: (day: CivilDay) => boolean,
): { readonly days: number; readonly holidays: number } {
  const worked = { ...worker, leave: [] };
  let [days, holidays] = [0, 0];
  for (let day = from; day <= to; day++) {
    if (minutesFor(worked, day, { isHoliday: false }) === 0) continue;
    if (isHoliday(day) && minutesFor(worked, day, { isHoliday: true }) === 0) holidays++;
    else days += half === undefined ? 1 : 0.5;
  }
  return { days, holidays };
}

/** Whether somebody holds a ticket on a day; on its last day they do. */
function holds({ tickets }: Pick<Worker, 'tickets'>, name: string, day: CivilDay): boolean {
  return tickets.some((ticket) => ticket.name === name && (ticket.until === null || ticket.until >= day));
}
