import type { CivilDay } from '../civil-date/civil-day.ts';
import { minutesInWeeks, type WeekMinutes } from '../people/week-hours.ts';

/** Days on which somebody does not work though their week says so, both included; half a day takes half of its hours. */
export interface Leave {
  readonly from: CivilDay;
  readonly to: CivilDay;
  /** Left out for whole days. */
  readonly half?: 'morning' | 'afternoon';
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
  | { readonly because: 'not here yet' | 'has left' | 'off' }
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
  /** A day off of the workspace is nobody's. */
  readonly isHoliday: boolean;
}

export const NOTHING_ASKED: Asked = { tickets: [], isHoliday: false };

const [LEFT, NOT_YET, OFF] = [{ because: 'has left' }, { because: 'not here yet' }, { because: 'off' }] as const;

/**
 * Why somebody can't be given work on a day, or null where they can: before their first day and after their last, leave (half a
 * day leaves the other half), a day of their week without hours, and without a ticket that the work asks for.
 */
export function unavailableOn(worker: Worker, day: CivilDay, { tickets, isHoliday }: Asked): Unavailable | null {
  const { worksFrom, worksUntil, leave, weeks, weeksFrom } = worker;
  if (worksUntil !== null && worksUntil < day) return LEFT;
  if (worksFrom !== null && worksFrom > day) return NOT_YET;
  for (const { from, to, half } of leave)
    if (half === undefined && from <= day && day <= to) return { because: 'away', until: to };
  if (isHoliday || minutesInWeeks(weeks, weeksFrom, day) === 0) return OFF;
  return lackedTicket(worker, tickets, day);
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

/** Minutes that somebody can work on a day, 0 to 1440: their hours, half of them on half a day of leave. */
export function minutesFor(worker: Worker, day: CivilDay, { isHoliday }: Pick<Asked, 'isHoliday'>): number {
  if (unavailableOn(worker, day, { tickets: [], isHoliday }) !== null) return 0;
  const halves = worker.leave.filter(({ from, to, half }) => half !== undefined && from <= day && day <= to);
  const left = Math.max(0, 2 - new Set(halves.map(({ half }) => half)).size);
  return Math.floor((minutesInWeeks(worker.weeks, worker.weeksFrom, day) * left) / 2);
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
    if (isHoliday(day)) holidays++;
    else days += half === undefined ? 1 : 0.5;
  }
  return { days, holidays };
}

/** Whether somebody holds a ticket on a day; on its last day they do. */
function holds({ tickets }: Pick<Worker, 'tickets'>, name: string, day: CivilDay): boolean {
  return tickets.some((ticket) => ticket.name === name && (ticket.until === null || ticket.until >= day));
}
