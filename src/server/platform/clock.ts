import { type CivilNow, civilTimeAt, dayOfIso, instantOf, tryDayOfIso, tryMinutesOfTime } from '../../core/index.ts';

/** The one source of "now" on the server. */
export interface Clock {
  /** Milliseconds since 1970-01-01T00:00Z. */
  now(): number;
  /** True for a clock that stands still. */
  readonly stands: boolean;
}

export const wallClock: Clock = { now: () => Date.now(), stands: false };

/** The zone in which JOLLY_NOW is read: the demo's. */
const STANDING_ZONE = 'Europe/London';

/**
 * The clock of this process: the wall's, or one that stands at `JOLLY_NOW` (a civil time of London, `2026-11-24T08:30`).
 * @throws Error in words when JOLLY_NOW is no such time
 */
export function clockFrom(jollyNow: string | undefined): Clock {
  if (!jollyNow) return wallClock;
  const [date = '', time = ''] = jollyNow.split('T');
  if (tryDayOfIso(date) === null || tryMinutesOfTime(time) === null) {
    throw new Error(`JOLLY_NOW is “${jollyNow}”: it should be a date and time like 2026-11-24T08:30.`);
  }
  const at = instantOf(date, time, STANDING_ZONE);
  return { now: () => at, stands: true };
}

/** The civil moment of an instant in a zone, `YYYY-MM-DDTHH:MM`. */
export function momentAt(instant: number | Date, zone: string): string {
  const { date, time } = civilTimeAt(typeof instant === 'number' ? instant : instant.getTime(), zone);
  return `${date}T${time}`;
}

export function civilNow(clock: Clock, zone: string): CivilNow {
  const { date, time } = civilTimeAt(clock.now(), zone);
  return { day: dayOfIso(date), minutes: tryMinutesOfTime(time) ?? 0 };
}
