import type { CivilDay } from '../civil-date/civil-day.ts';
import { type IsoTime, tryMinutesOfTime } from '../civil-date/iso-date.ts';
import type { MessageKind } from './kinds.ts';

/** When mails of single things wait: between two times of each day, over midnight too, and on days off. */
export interface QuietWish {
  /** The same as `to` where no hours are quiet. */
  readonly from: IsoTime;
  readonly to: IsoTime;
  /** Days on which they don't work: no hours, a holiday, leave. */
  readonly offDays: boolean;
  /** What comes through all the same; null for nothing. */
  readonly through: MessageKind | null;
}

export const USUAL_QUIET: QuietWish = { from: '18:00', to: '07:00', offDays: true, through: 'run' };

/** A civil moment: minutes of the day, 0–1439. */
interface Moment {
  readonly day: CivilDay;
  readonly minutes: number;
}

/** So many days ahead a working day is looked for. Whoever works on none of them has no days off from that, and hears. */
const FARTHEST = 60;

/** Whether a time of day is quiet. @param minutes of the day, 0–1439 */
export function isQuietTime({ from, to }: Pick<QuietWish, 'from' | 'to'>, minutes: number): boolean {
  const [first, last] = [tryMinutesOfTime(from) ?? 0, tryMinutesOfTime(to) ?? 0];
  return first <= last ? minutes >= first && minutes < last : minutes >= first || minutes < last;
}

/**
 * When a mail of a single thing may leave: at once, or as soon as it is quiet no longer. All that is held until then goes in
 * one. In civil time, so that a clock change moves neither end.
 * @param isFree whether they don't work on a day
 */
export function leavesAt(quiet: QuietWish, kind: MessageKind, now: Moment, isFree: (day: CivilDay) => boolean): Moment {
  if (kind === quiet.through) return now;
  const days = Array.from({ length: FARTHEST + 1 }, (_, ahead) => now.day + ahead);
  const isOff = quiet.offDays && days.some((day) => !isFree(day)) ? isFree : () => false;
  for (const day of days) {
    if (isOff(day)) continue;
    const from = day === now.day ? now.minutes : 0;
    const minutes = isQuietTime(quiet, from) ? endOfQuiet(quiet, from) : from;
    // Quiet hours that go on past midnight end on a later day.
    if (minutes < 24 * 60) return { day, minutes };
  }
  return now;
}

/** The first minute from this one on that is not quiet, counted from the beginning of its day. */
function endOfQuiet({ from, to }: Pick<QuietWish, 'from' | 'to'>, minutes: number): number {
  const end = tryMinutesOfTime(to) ?? 0;
  if (minutes < end) return end;
  return from === to ? minutes : 24 * 60;
}
