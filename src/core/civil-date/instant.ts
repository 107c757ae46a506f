import { Temporal } from 'temporal-polyfill';
import type { CivilDay } from './civil-day.ts';
import type { IsoDate, IsoTime } from './iso-date.ts';

/**
 * The instant, in milliseconds since 1970-01-01T00:00Z, of a civil date and time in an IANA zone.
 * The one place where a civil time becomes an instant: a time that a clock change leaves out moves forward
 * by the length of the gap, one that exists twice is the first (Temporal, disambiguation "compatible").
 * @throws RangeError for a zone, date or time that does not exist.
 */
export function instantOf(date: IsoDate, time: IsoTime, zone: string): number {
  return Temporal.PlainDateTime.from(`${date}T${time}`).toZonedDateTime(zone, { disambiguation: 'compatible' })
    .epochMilliseconds;
}

/** The instant of a time in UTC, in milliseconds since 1970. */
export function utcInstant(day: CivilDay, hours: number, minutes: number, seconds = 0): number {
  return (((day * 24 + hours) * 60 + minutes) * 60 + seconds) * 1000;
}

/** Civil date and time that a clock on the wall of a zone shows at an instant (milliseconds since 1970). */
export function civilTimeAt(
  epochMilliseconds: number,
  zone: string,
): { readonly date: IsoDate; readonly time: IsoTime } {
  const at = Temporal.Instant.fromEpochMilliseconds(epochMilliseconds).toZonedDateTimeISO(zone);
  return { date: at.toPlainDate().toString(), time: at.toPlainTime().toString({ smallestUnit: 'minute' }) };
}

/** Whether the runtime knows the IANA zone. */
export function isZone(zone: string): boolean {
  try {
    Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(zone);
    return true;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}
