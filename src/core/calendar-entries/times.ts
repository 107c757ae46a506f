import { civilTimeAt, instantOf } from '../civil-date/instant.ts';
import { dayOfIso, type IsoDate, type IsoTime, isoOfDay, isoTimeOf, tryMinutesOfTime } from '../civil-date/iso-date.ts';
import type { EntryTime } from './entry.ts';

/** The IANA zone that a TZID means; null where nobody knows. */
export type ZoneOf = (tzid: string) => string | null;

export interface CivilMoment {
  readonly date: IsoDate;
  readonly time: IsoTime | null;
}

/**
 * A time of a calendar by the clocks of a zone. Whole days and floating times are those of any clock (RFC 5545, section 3.3.5).
 * @param zone IANA
 */
export function momentIn({ date, time, zone: tzid }: EntryTime, zone: string, zoneOf: ZoneOf): CivilMoment {
  if (time === null || tzid === null) return { date, time };
  const own = tzid === 'UTC' ? 'UTC' : zoneOf(tzid);
  return own === null || own === zone ? { date, time } : civilTimeAt(instantOf(date, time, own), zone);
}

/** So many minutes later by the clock on the wall, which goes on as in a zone without changes. */
export function laterBy(
  { date, time }: CivilMoment,
  minutes: number,
): { readonly date: IsoDate; readonly time: IsoTime } {
  const all = dayOfIso(date) * MINUTES_A_DAY + (tryMinutesOfTime(time ?? '00:00') ?? 0) + minutes;
  const ofDay = ((all % MINUTES_A_DAY) + MINUTES_A_DAY) % MINUTES_A_DAY;
  return { date: isoOfDay((all - ofDay) / MINUTES_A_DAY), time: isoTimeOf(ofDay) };
}

/** Minutes from one to the other by the same clock. */
export function minutesBetween(from: CivilMoment, to: CivilMoment): number {
  const of = ({ date, time }: CivilMoment) => dayOfIso(date) * MINUTES_A_DAY + (tryMinutesOfTime(time ?? '00:00') ?? 0);
  return of(to) - of(from);
}

export const MINUTES_A_DAY = 24 * 60;
