import type { CivilDay } from '../civil-date/civil-day.ts';
import { type IsoTime, tryMinutesOfTime } from '../civil-date/iso-date.ts';
import { type Access, mayAll } from '../people/access.ts';
import { sayDay } from '../wording/date-words.ts';

/** On which days somebody gets a summary: those on which they work, every day, or none. */
export const SUMMARY_DAYS = ['working', 'every', 'none'] as const;
export type SummaryDays = (typeof SUMMARY_DAYS)[number];

/** How somebody wishes to have the day's summary by mail. */
export interface SummaryWish {
  readonly at: IsoTime;
  readonly days: SummaryDays;
  /** Whether there is one too where there is nothing to say. */
  readonly evenIfEmpty: boolean;
  /** What it does not tell of; left out for nothing. */
  readonly leavesOut?: readonly SummaryBandName[] | undefined;
}

/** As each begins: whoever answers for all of it hears of it, others where they ask for it. */
export const usualSummary = (access: Access): SummaryWish => ({
  ...{ at: '07:30', evenIfEmpty: false },
  days: access === 'manager' ? 'working' : 'none',
});

interface SummaryMoment {
  /** Minutes of the day by the clock of the workspace. */
  readonly minutes: number;
  /** Whether they work on the day: their hours, no holiday, no leave. */
  readonly isAtWork: boolean;
}

/** Whether the summary of a day is owed by now. After a time in which nothing was sent that of the day is, and no older one. */
export function isSummaryOwed({ at, days }: SummaryWish, { minutes, isAtWork }: SummaryMoment): boolean {
  if (days === 'none' || (days === 'working' && !isAtWork)) return false;
  return minutes >= (tryMinutesOfTime(at) ?? 0);
}

/** What a summary tells of, in its order. */
export const SUMMARY_BANDS = ['late', 'toCheck', 'nobody', 'heldUp', 'due', 'calls', 'coming', 'away'] as const;
export type SummaryBandName = (typeof SUMMARY_BANDS)[number];

/** What a summary can tell of to somebody: of all work to whoever answers for it, else of their own. */
export const summaryBandsFor = (access: Access): readonly SummaryBandName[] =>
  SUMMARY_BANDS.filter((band) =>
    mayAll(access, 'plan') ? band !== 'coming' : band !== 'toCheck' && band !== 'nobody' && band !== 'away',
  );

export const SUMMARY_WORDS: Readonly<Record<SummaryBandName, string>> = {
  late: 'late',
  toCheck: 'to check',
  nobody: 'nobody yet',
  heldUp: 'held up',
  due: 'due today',
  calls: 'to ring',
  coming: 'tomorrow',
  away: 'away',
};

/** Those that its first line names, where there are any. */
const IN_SUBJECT: readonly SummaryBandName[] = ['late', 'toCheck', 'nobody', 'due', 'calls'];

/** "Tue 24 Nov: 7 late, 3 to check, 61 due today", or that there is nothing. @param isWhole whether it tells of all there is to tell */
export function saySummary(
  day: CivilDay,
  counts: ReadonlyMap<SummaryBandName, number>,
  ways?: Parameters<typeof sayDay>[2],
  isWhole = true,
): string {
  const told = IN_SUBJECT.flatMap((band) => {
    const count = counts.get(band) ?? 0;
    return count > 0 ? [`${count.toLocaleString('en-GB')} ${SUMMARY_WORDS[band]}`] : [];
  });
  return `${sayDay(day, day, ways)}: ${told.length > 0 ? told.join(', ') : isWhole ? 'nothing is late or due' : 'nothing of what you chose'}`;
}
