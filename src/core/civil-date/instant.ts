import { Temporal } from 'temporal-polyfill';
import type { CivilDay } from './civil-day.ts';
import { type IsoDate, type IsoTime, isoOfDay } from './iso-date.ts';

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
  const minutes = Math.floor((epochMilliseconds + offsetAt(epochMilliseconds, zone)) / 60_000);
  const ofDay = ((minutes % 1440) + 1440) % 1440;
  const pad = (n: number) => String(n).padStart(2, '0');
  return {
    date: isoOfDay((minutes - ofDay) / 1440),
    time: `${pad(Math.floor(ofDay / 60))}:${pad(ofDay % 60)}`,
  };
}

/** A time between two changes of a zone's clocks, in milliseconds; `to` is no longer of it. */
interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly offset: number;
}

/** Stretches that were asked for, by zone, the last one first: a list of tasks asks for the same few, thousands of times. */
const known = new Map<string, readonly Stretch[]>();
const STRETCHES_KEPT = 8;

/** How far the clocks of a zone are ahead of UTC at an instant, in milliseconds. */
function offsetAt(epochMilliseconds: number, zone: string): number {
  const stretches = known.get(zone) ?? [];
  const found = stretches.find(({ from, to }) => epochMilliseconds >= from && epochMilliseconds < to);
  if (found) return found.offset;
  const at = Temporal.Instant.fromEpochMilliseconds(epochMilliseconds).toZonedDateTimeISO(zone);
  // The change before an instant is looked for from just after it, so that one in that very moment counts.
  const before = at.add({ milliseconds: 1 }).getTimeZoneTransition('previous');
  const stretch = {
    from: before?.epochMilliseconds ?? Number.NEGATIVE_INFINITY,
    to: at.getTimeZoneTransition('next')?.epochMilliseconds ?? Number.POSITIVE_INFINITY,
    offset: at.offsetNanoseconds / 1e6,
  };
  known.set(zone, [stretch, ...stretches].slice(0, STRETCHES_KEPT));
  return stretch.offset;
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

/** From an instant on the clocks of a zone are so far ahead of UTC. */
export interface ZoneObservance {
  /** Epoch milliseconds of the change. */
  readonly at: number;
  /** How far they were ahead just before, and are from then on, in milliseconds. */
  readonly before: number;
  readonly after: number;
}

/**
 * How the clocks of a zone stand from an instant to another (epoch milliseconds): the last change at or before the first, where
 * there is one, and each one after it (RFC 5545, section 3.6.5, wants one that holds for every time that is said).
 * @throws RangeError for an unknown zone
 */
export function zoneObservances(zone: string, from: number, to: number): ZoneObservance[] {
  const found: ZoneObservance[] = [];
  const first = offsetAt(from, zone);
  const begun = known.get(zone)?.find((one) => from >= one.from && from < one.to);
  const start = begun !== undefined && Number.isFinite(begun.from) ? begun.from : from;
  found.push({ at: start, before: start === from ? first : offsetAt(start - 1, zone), after: first });
  for (let at = start; found.length < MOST_OBSERVANCES; ) {
    const next = Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone).getTimeZoneTransition('next');
    if (next === null || next.epochMilliseconds > to) return found;
    at = next.epochMilliseconds;
    found.push({ at, before: offsetAt(at - 1, zone), after: offsetAt(at, zone) });
  }
  return found;
}

/** More than any zone has had in a century. */
const MOST_OBSERVANCES = 400;
