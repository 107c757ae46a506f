import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, type IsoTime, isoOfDay } from '../civil-date/iso-date.ts';
import { type DatedOccurrence, isDated, planDays } from '../planning/plan.ts';
import { explainRRule } from '../planning/rrule-writer.ts';
import type { PlannedSchedule } from '../planning/schedule-plan.ts';
import type { Timing } from '../planning/timing.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import { sayDate } from '../wording/date-words.ts';

/** One date of a series, with its times by the clock of the schedule. */
export interface SeriesDate {
  readonly on: IsoDate;
  readonly dueOn: IsoDate;
  readonly startTime: IsoTime | null;
  readonly dueTime: IsoTime | null;
}

/** A schedule as one recurring entry of a calendar (RFC 5545, section 3.8.5). */
export interface Series {
  readonly first: SeriesDate;
  /** RECUR values. */
  readonly rules: readonly string[];
  readonly added: readonly IsoDate[];
  readonly takenOut: readonly IsoDate[];
  /** Occurrences that differ, by the date that the rule gives (RECURRENCE-ID). */
  readonly changed: readonly (SeriesDate & { readonly nominal: IsoDate })[];
  /** What a rule can't say, in words; null where the series says it all. */
  readonly remark: string | null;
}

const dateOf = ({ on, due, timing }: DatedOccurrence): SeriesDate => ({
  on: isoOfDay(on),
  dueOn: isoOfDay(due),
  ...timesOf(timing),
});

const timesOf = ({ startTime, dueTime }: Timing) => ({ startTime, dueTime });

/**
 * A schedule as one recurring entry: by its rule where RRULE can say it, with its exceptions; else by the dates on which it is
 * worked, one by one. Null where it has no date in that time.
 * @param from dates before it are not listed
 * @param to the last day up to which dates are listed
 */
export function seriesOf(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  from: CivilDay,
  to: CivilDay,
): Series | null {
  const { recurrence, pauses = [], revisions = [] } = schedule;
  // DTSTART is a date by itself (section 3.8.5.3): a rule that gives none is told by those added by hand.
  const givesDates =
    occurrenceSeries({ ...recurrence, except: [] }, calendar).next(dayOfIso(recurrence.start) - 1) !== null;
  if (givesDates && pauses.length === 0 && revisions.length === 0) {
    const { text, remark } = explainRRule(recurrence, { calendar });
    const said = remark === null ? byRule(text, schedule) : null;
    if (said !== null) return said;
  }
  return byDates(schedule, calendar, from, to);
}

const iso = (compact: string): IsoDate => `${compact.slice(0, 4)}-${compact.slice(4, 6)}-${compact.slice(6, 8)}`;

function byRule(text: string, { timing, exceptions = [] }: PlannedSchedule): Series | null {
  const lines = text.split('\n');
  const datesIn = (name: string) =>
    lines
      .filter((line) => line.startsWith(name))
      .flatMap((line) =>
        line
          .slice(line.indexOf(':') + 1)
          .split(',')
          .map(iso),
      );
  const [start] = datesIn('DTSTART');
  if (start === undefined) return null;
  const rules = lines.filter((line) => line.startsWith('RRULE:')).map((line) => line.slice('RRULE:'.length));
  const at = (on: IsoDate): SeriesDate => ({
    on,
    dueOn: isoOfDay(dayOfIso(on) + (timing.due.unit === 'day' ? timing.due.amount : 0)),
    ...timesOf(timing),
  });
  // Of working days until it is due the number differs from date to date: those are listed.
  if (timing.due.unit === 'workingDay' && timing.due.amount > 0) return null;
  const moves = new Map(exceptions.flatMap((one) => (one.kind === 'move' ? [[one.date, one.to] as const] : [])));
  const times = new Map(exceptions.flatMap((one) => (one.kind === 'change' ? [[one.date, one.change] as const] : [])));
  const changed = [...new Set([...moves.keys(), ...times.keys()])].sort().map((nominal) => ({
    nominal,
    ...at(moves.get(nominal) ?? nominal),
    ...withoutWho(times.get(nominal) ?? {}),
  }));
  return {
    first: at(start),
    rules,
    added: [...datesIn('RDATE'), ...exceptions.flatMap((one) => (one.kind === 'add' ? [one.date] : []))],
    takenOut: [...datesIn('EXDATE'), ...exceptions.flatMap((one) => (one.kind === 'skip' ? [one.date] : []))],
    changed,
    remark: null,
  };
}

function withoutWho({
  startTime,
  dueTime,
}: {
  readonly startTime?: IsoTime | null;
  readonly dueTime?: IsoTime | null;
}): Partial<Pick<SeriesDate, 'startTime' | 'dueTime'>> {
  return { ...(startTime === undefined ? {} : { startTime }), ...(dueTime === undefined ? {} : { dueTime }) };
}

function byDates(schedule: PlannedSchedule, calendar: WorkingCalendar, from: CivilDay, to: CivilDay): Series | null {
  const dates = planDays(schedule, calendar, from, to)
    .filter(isDated)
    .filter(({ isForeseen }) => !isForeseen)
    .map(dateOf)
    .sort((a, b) => (a.on < b.on ? -1 : 1));
  const [first, ...others] = dates.filter(({ on }, i) => on !== dates[i - 1]?.on);
  if (!first) return null;
  const length = ({ on, dueOn }: SeriesDate) => dayOfIso(dueOn) - dayOfIso(on);
  const differs = (one: SeriesDate) =>
    one.startTime !== first.startTime || one.dueTime !== first.dueTime || length(one) !== length(first);
  return {
    first,
    rules: [],
    added: others.map(({ on }) => on),
    takenOut: [],
    changed: others.filter(differs).map((one) => ({ nominal: one.on, ...one })),
    remark: `Its rule can’t be said in a calendar: its dates are listed, up to ${sayDate(to)}.`,
  };
}
