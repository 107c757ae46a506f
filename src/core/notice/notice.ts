import { shiftWorkingDays, type WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';

/** A number of days as they are counted: all of them, or those that are worked. */
export interface DayCount {
  /** 0 or more. */
  readonly days: number;
  readonly unit: 'day' | 'workingDay';
}

/** As what a letter goes: on paper by post, from hand to hand, as a mail that we send, or otherwise. */
export const DELIVERY_KINDS = ['post', 'hand', 'mail', 'other'] as const;
export type DeliveryKind = (typeof DELIVERY_KINDS)[number];

/** How a letter goes, and how long it is on its way. */
export interface DeliveryWay {
  readonly name: string;
  readonly kind: DeliveryKind;
  /** From the day of sending to the day on which it counts as received; 0 for the same day. */
  readonly onItsWay: DayCount;
}

/**
 * What a visit has to be announced by. Whether the first and the last day count is a term of its own: neither does where
 * “clear days” are asked for, the last one does where a period ends with its day.
 */
export interface NoticePeriod extends DayCount {
  /** Whether the day on which it is received is one of them. */
  readonly countsReceipt: boolean;
  /** Whether the day of the visit is one of them. */
  readonly countsVisit: boolean;
}

/** The last day of a count that began on a day: the same for 0. */
function received(sent: CivilDay, { days, unit }: DayCount, calendar: WorkingCalendar): CivilDay {
  if (days === 0) return sent;
  return unit === 'day' ? sent + days : shiftWorkingDays(sent, days, calendar);
}

/**
 * The day on which a letter counts as received.
 * @param sent the day on which it goes
 */
export const receivedOn = (sent: CivilDay, { onItsWay }: DeliveryWay, calendar: WorkingCalendar): CivilDay =>
  received(sent, onItsWay, calendar);

/** How many days of notice a visit has, counted as its period counts them; 0 where it lies on the day of receipt or before. */
export function daysOfNotice(
  receipt: CivilDay,
  visit: CivilDay,
  { unit, countsReceipt, countsVisit }: NoticePeriod,
  calendar: WorkingCalendar,
): number {
  const [before, last] = ends(receipt, visit, { countsReceipt, countsVisit });
  return Math.max(0, unit === 'day' ? last - before : calendar.numberOf(last) - calendar.numberOf(before));
}

/** What is counted: the days after the first of these, up to the second. */
function ends(
  receipt: CivilDay,
  visit: CivilDay,
  { countsReceipt, countsVisit }: Pick<NoticePeriod, 'countsReceipt' | 'countsVisit'>,
): readonly [CivilDay, CivilDay] {
  return [countsReceipt ? receipt - 1 : receipt, countsVisit ? visit : visit - 1];
}

/** Whether a letter that goes on a day is early enough for a visit: received by then, with as many days as are asked for. */
export function isInTime(
  sent: CivilDay,
  visit: CivilDay,
  period: NoticePeriod,
  way: DeliveryWay,
  calendar: WorkingCalendar,
): boolean {
  const receipt = receivedOn(sent, way, calendar);
  return receipt <= visit && daysOfNotice(receipt, visit, period, calendar) >= period.days;
}

/** The last day whose working-day number, or which itself, is at most another's less so many. */
function backBy(day: CivilDay, { days, unit }: DayCount, calendar: WorkingCalendar): CivilDay {
  return unit === 'day' ? day - days : calendar.dayNumbered(calendar.numberOf(day) - days + 1) - 1;
}

/**
 * The latest day on which a letter can go for a visit: a working day, since on a day off nothing does.
 */
export function latestSending(
  visit: CivilDay,
  period: NoticePeriod,
  way: DeliveryWay,
  calendar: WorkingCalendar,
): CivilDay {
  const before = backBy(period.countsVisit ? visit : visit - 1, period, calendar);
  // However short the period, it is not received after the visit; of none, on its day.
  const receipt = period.days === 0 ? visit : Math.min(visit, period.countsReceipt ? before + 1 : before);
  const sent = way.onItsWay.days === 0 ? receipt : backBy(receipt, way.onItsWay, calendar);
  return calendar.dayNumbered(calendar.numberOf(sent));
}

/** The earliest day of a visit that a letter which goes on a day is early enough for, whether it is worked or not. */
export function earliestVisit(
  sent: CivilDay,
  period: NoticePeriod,
  way: DeliveryWay,
  calendar: WorkingCalendar,
): CivilDay {
  const receipt = receivedOn(sent, way, calendar);
  if (period.days === 0) return receipt;
  const before = period.countsReceipt ? receipt - 1 : receipt;
  const last = received(before, period, calendar);
  return Math.max(receipt, period.countsVisit ? last : last + 1);
}

/** The same, on a working day; with the letter going today, or on the next day on which anything goes. */
export function earliestVisitFrom(
  today: CivilDay,
  period: NoticePeriod,
  way: DeliveryWay,
  calendar: WorkingCalendar,
): { readonly send: CivilDay; readonly visit: CivilDay } {
  const send = shiftWorkingDays(today, 0, calendar);
  return { send, visit: shiftWorkingDays(earliestVisit(send, period, way, calendar), 0, calendar) };
}
