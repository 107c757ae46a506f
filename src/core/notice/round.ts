import { type IsoTime, isoTimeOf } from '../civil-date/iso-date.ts';

/** A visit of a round: where it is, and for how long somebody is there. */
export interface Stop {
  readonly id: string;
  /** Where it is, as people write it: "berth A 12". */
  readonly place: string;
  /** In minutes, 1 and up. */
  readonly minutes: number;
}

const places = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Visits in the order of their places, figures among the words counting as figures, so that A 2 comes before A 12; those without one last. */
export function byPlace<T extends Pick<Stop, 'place'>>(stops: readonly T[]): T[] {
  return [...stops].sort((a, b) => {
    if ((a.place === '') !== (b.place === '')) return a.place === '' ? 1 : -1;
    return places.compare(a.place, b.place);
  });
}

/** When somebody is at a stop. */
export interface StopTimes {
  readonly id: string;
  readonly from: IsoTime;
  readonly to: IsoTime;
}

/** Beginnings fall on full five minutes: nobody is told 09:47. */
const STEP = 5;
const DAY_MINUTES = 24 * 60;

/**
 * The times of a round: each stop begins when the one before it has ended and the way is behind, at the next full five minutes.
 * @param from when the first begins, in minutes after midnight
 * @param between minutes on the way from one to the next, 0 and up
 * @returns null where it does not end on its day
 */
export function roundTimes(stops: readonly Stop[], from: number, between: number): StopTimes[] | null {
  const times: StopTimes[] = [];
  let at = upToStep(from);
  for (const { id, minutes } of stops) {
    if (at + minutes >= DAY_MINUTES) return null;
    times.push({ id, from: isoTimeOf(at), to: isoTimeOf(at + minutes) });
    at = upToStep(at + minutes + between);
  }
  return times;
}

const upToStep = (minutes: number): number => Math.ceil(minutes / STEP) * STEP;
