import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import type { IsoTime } from '../civil-date/iso-date.ts';
import { plural } from '../wording/date-words.ts';
import { type DeliveryWay, latestSending, type NoticePeriod } from './notice.ts';

/** How visits of one type of work are announced. */
export interface VisitTerms {
  /** The type of work, by its name. */
  readonly type: string;
  readonly period: NoticePeriod;
  /** Names of the ways by which it may go; one at least. */
  readonly ways: readonly string[];
  /** Between which times somebody comes where the work itself says none; left out for any. */
  readonly window?: VisitWindow | undefined;
  /** Working days before the latest day to send on which those who plan are reminded of it; left out for the usual number. */
  readonly remind?: number | undefined;
}
/** So many working days before a notice has to go it is reminded of, where its terms say nothing else. */
export const USUAL_REMIND = 3;
export const MOST_REMIND = 30;

/** From when to when somebody may come. */
export interface VisitWindow {
  readonly from: IsoTime;
  readonly to: IsoTime;
}

/** The times of a visit: those of the work itself; where it has none, those of its type; null where nothing says one. */
export function visitTimes(
  times: { readonly startTime: IsoTime | null; readonly dueTime: IsoTime | null },
  rules: Pick<VisitRules, 'terms'>,
  type: string | null,
): { readonly startTime: IsoTime | null; readonly dueTime: IsoTime | null } {
  const { startTime, dueTime } = times;
  const window = rules.terms.find((one) => one.type === type)?.window;
  if (startTime !== null || dueTime !== null || window === undefined) return { startTime, dueTime };
  return { startTime: window.from, dueTime: window.to };
}

/** What a workspace has settled of visits: how letters go, and which types of work have to be announced. */
export interface VisitRules {
  readonly ways: readonly DeliveryWay[];
  readonly terms: readonly VisitTerms[];
  /** What stands at the head of a letter below the name of the workspace: where it is, how it is reached; lines. */
  readonly letterhead: string;
  /** How a client can answer, as part of a sentence: "ring the harbour office on 01632 960 114". */
  readonly answering: string;
}

/** What stands at the head of a letter, line by line. */
export const headLines = ({ letterhead }: Pick<VisitRules, 'letterhead'>): string[] =>
  letterhead.split('\n').filter((line) => line.trim() !== '');

/** Of a workspace that has settled nothing of visits yet. */
export const NO_VISITS: VisitRules = { ways: [], terms: [], letterhead: '', answering: '' };

/** The latest day to send by each way that a visit may be announced by, the one that leaves most time first. */
export interface LatestDay {
  readonly way: DeliveryWay;
  readonly on: CivilDay;
}

/** The terms of a type of work, with the ways by which it may go; null where it needs no notice. */
export function termsOf(
  { ways, terms }: VisitRules,
  type: string | null,
): { readonly terms: VisitTerms; readonly ways: readonly DeliveryWay[] } | null {
  const found = terms.find((one) => one.type === type);
  return found ? { terms: found, ways: ways.filter(({ name }) => found.ways.includes(name)) } : null;
}

/**
 * When the notice of a visit has to go at the latest, by each way: the latest of them first, in the order of the workspace
 * where two are the same.
 */
export function latestDays(
  visit: CivilDay,
  { terms, ways }: NonNullable<ReturnType<typeof termsOf>>,
  calendar: WorkingCalendar,
): LatestDay[] {
  return ways
    .map((way) => ({ way, on: latestSending(visit, terms.period, way, calendar) }))
    .sort((a, b) => b.on - a.on);
}

const COUNTED = {
  neither: 'those of the letter and of the visit not counted',
  receipt: 'that of the letter counted',
  visit: 'that of the visit counted',
  both: 'those of the letter and of the visit counted',
} as const;

/** Which of the two ends of a notice counts as one of its days. */
export const countedEnd = ({
  countsReceipt,
  countsVisit,
}: Pick<NoticePeriod, 'countsReceipt' | 'countsVisit'>): keyof typeof COUNTED =>
  countsReceipt ? (countsVisit ? 'both' : 'receipt') : countsVisit ? 'visit' : 'neither';

/** "7 days, those of the letter and of the visit not counted" */
export function sayNoticePeriod({ days, unit, countsReceipt, countsVisit }: NoticePeriod): string {
  return `${plural(days, unit === 'day' ? 'day' : 'working day')}, ${COUNTED[countedEnd({ countsReceipt, countsVisit })]}`;
}
