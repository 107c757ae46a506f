import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../civil-date/iso-date.ts';
import { movedBy } from '../recurrence/moved-by.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import type { Recurrence } from '../recurrence/rule.ts';
import type { ByHand } from './by-hand.ts';
import { type Exception, type Revision, revisionOn } from './schedule-plan.ts';

/** Why dates can't all be moved: a rule that none of ours can say, or dates before them that they would run into. */
export type MovedFrom<T> =
  | { readonly kind: 'moved'; readonly draft: T }
  | { readonly kind: 'unsayable' }
  | { readonly kind: 'runsInto'; readonly dates: number };

const later = (date: IsoDate, days: number): IsoDate => isoOfDay(dayOfIso(date) + days);

/**
 * Moves all dates of a schedule from one on by some days, what was changed by hand of them as well; those before it stay. A
 * series: the rules that hold from there on give each of their dates as much later, before any convention moves it.
 * @param from the first nominal date that moves
 * @param days whole, from -366 to 366
 */
export function moveFrom<T extends ByHand>(
  draft: T,
  calendar: WorkingCalendar,
  from: CivilDay,
  days: number,
): MovedFrom<T> {
  const begins = Math.min(from, from + days);
  const first = revisionOn(draft, isoOfDay(from));
  if (begins < from) {
    // Moved earlier, they hold from where the first of them comes to lie.
    const dates = datesOf(draft, calendar, begins, from - 1).length;
    if (dates > 0) return { kind: 'runsInto', dates };
  }
  const moved = movedBy(first.recurrence, days);
  if (moved === null) return { kind: 'unsayable' };
  // Moved later, the rule would give the dates before the first one there, too.
  const before =
    days > 0
      ? occurrenceSeries(moved, calendar)
          .between(from, from + days - 1)
          .map(isoOfDay)
      : [];
  const revisions: Revision[] = draft.revisions.filter((one) => one.from < isoOfDay(begins));
  revisions.push({
    ...first,
    from: isoOfDay(begins),
    recurrence: before.length === 0 ? moved : { ...moved, except: inOrder([...(moved.except ?? []), ...before]) },
  });
  for (const one of draft.revisions.filter((revision) => revision.from > isoOfDay(from))) {
    const recurrence = movedBy(one.recurrence, days);
    if (recurrence === null) return { kind: 'unsayable' };
    revisions.push({ ...one, from: later(one.from, days), recurrence });
  }
  revisions.sort((a, b) => (a.from < b.from ? -1 : 1));
  const exceptions = draft.exceptions.map((one) => (dayOfIso(one.date) < from ? one : exceptionMoved(one, days)));
  return { kind: 'moved', draft: { ...draft, revisions, exceptions } };
}

const inOrder = (dates: readonly IsoDate[]): IsoDate[] => [...new Set(dates)].sort();

/** What was said of one date is said of the date that it becomes; a day that it was put on moves with it. */
function exceptionMoved(one: Exception, days: number): Exception {
  const date = later(one.date, days);
  return one.kind === 'move' ? { ...one, date, to: later(one.to, days) } : { ...one, date };
}

/** The rules' own dates within a span, by whichever rule holds there. */
function datesOf(draft: ByHand, calendar: WorkingCalendar, from: CivilDay, to: CivilDay): CivilDay[] {
  const dates: CivilDay[] = [];
  const series = new Map<Recurrence, readonly CivilDay[]>();
  for (let day = from; day <= to; day++) {
    const { recurrence } = revisionOn(draft, isoOfDay(day));
    const given = series.get(recurrence) ?? occurrenceSeries(recurrence, calendar).between(from, to);
    series.set(recurrence, given);
    if (given.includes(day)) dates.push(day);
  }
  return dates;
}

/** From a date on, whoever was named for single ones is not named any more. */
export function unnamedFrom(exceptions: readonly Exception[], from: CivilDay): Exception[] {
  return exceptions.flatMap((one): Exception[] => {
    if (one.kind !== 'change' || dayOfIso(one.date) < from) return [one];
    const { assigneeId: _, ...change } = one.change;
    return Object.keys(change).length === 0 ? [] : [{ ...one, change }];
  });
}
