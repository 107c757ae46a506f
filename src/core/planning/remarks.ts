import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { joinAnd, plural, sayDay } from '../wording/date-words.ts';
import type { Outlook } from './outlook.ts';
import { isDated, type OmittedOccurrence } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';

/** How many dates a sentence names before it only counts the rest. */
const NAMED_DATES = 4;

/** What a careful reader would remark on the plan, as sentences with figures; the most telling first. */
export function remarks(
  schedule: PlannedSchedule,
  outlook: Outlook,
  calendar: WorkingCalendar,
  today: CivilDay,
): string[] {
  return [
    ...endRemarks(schedule, outlook, today),
    ...offsetRemarks(outlook),
    ...missingDayRemarks(schedule),
    ...moveRemarks(outlook, today),
    ...dayOffRemarks(schedule, outlook, calendar, today),
    ...fourWeekRemarks(schedule),
  ];
}

function endRemarks({ recurrence }: PlannedSchedule, { next }: Outlook, today: CivilDay): string[] {
  if (next.some(isDated)) return [];
  const { end } = recurrence;
  if (end.kind === 'on' && dayOfIso(end.date) < today)
    return [`It has ended: its last day was ${sayDay(dayOfIso(end.date), today)}.`];
  if (end.kind === 'after') return [`It has ended: all ${plural(end.count, 'time')} are in the past.`];
  return ['Nothing will be made: every date is skipped or paused.'];
}

function offsetRemarks({ next }: Outlook): string[] {
  const late = next.find((occurrence) => isDated(occurrence) && occurrence.appears > occurrence.starts);
  return late ? ['It appears later than it starts: people would see it when they should have begun.'] : [];
}

function missingDayRemarks({ recurrence }: PlannedSchedule): string[] {
  const sentences: string[] = [];
  for (const rule of recurrence.rules) {
    if (rule.kind !== 'months' && rule.kind !== 'years') continue;
    for (const point of rule.on) {
      if (point.kind !== 'date' || point.day < 29) continue;
      const instead = {
        last: 'the last day is taken instead',
        next: 'the 1st of the next month is taken instead',
        omit: 'those are left out',
      }[rule.missing];
      if (rule.kind === 'years') {
        if (point.day === 29 && rule.months.includes(2))
          sentences.push(
            `29 February comes every four years; in the others ${rule.missing === 'last' ? 'the 28th is taken' : rule.missing === 'next' ? '1 March is taken' : 'there is none'}.`,
          );
        continue;
      }
      const months = rule.months.length > 0 ? rule.months : [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12];
      const lacking = months.filter(
        (month) => point.day > (month === 2 ? 28 : [4, 6, 9, 11].includes(month) ? 30 : 31),
      ).length;
      if (lacking > 0)
        sentences.push(
          `The ${point.day}${point.day === 31 ? 'st' : 'th'} is missing in ${lacking} of ${plural(months.length, 'month')}; ${instead}.`,
        );
    }
  }
  return sentences;
}

function moveRemarks({ year, timesAYear }: Outlook, today: CivilDay): string[] {
  const moved = year.filter(
    (occurrence) => isDated(occurrence) && occurrence.on !== occurrence.nominal && occurrence.on >= today,
  );
  if (moved.length === 0) return [];
  const named = moved.slice(0, NAMED_DATES).map(({ nominal }) => sayDay(nominal, today));
  const rest = moved.length - named.length;
  const list = rest > 0 ? `${named.join(', ')} and ${rest} more` : joinAnd(named);
  const of = timesAYear > 0 ? ` of the ${timesAYear}` : '';
  return [`${moved.length}${of} ${moved.length === 1 ? 'is' : 'are'} moved off a day off: ${list}.`];
}

function dayOffRemarks(
  { recurrence }: PlannedSchedule,
  { year }: Outlook,
  calendar: WorkingCalendar,
  today: CivilDay,
): string[] {
  const coming = year.filter(({ on }) => on >= today);
  const sentences: string[] = [];
  const skipped = coming.filter(
    (occurrence): occurrence is OmittedOccurrence => !isDated(occurrence) && occurrence.because === 'day off',
  );
  if (skipped.length > 0) {
    sentences.push(
      `${plural(skipped.length, 'date')} on ${skipped.length === 1 ? 'a day' : 'days'} off ${skipped.length === 1 ? 'is' : 'are'} skipped: ${firstFew(skipped.map(({ on }) => describe(on, calendar, today)))}.`,
    );
  }
  const merged = coming.filter(
    (occurrence) => !isDated(occurrence) && occurrence.because === 'same day as another',
  ).length;
  if (merged > 0)
    sentences.push(`${plural(merged, 'date')} would land on the same day as another and make one task with it.`);
  if (recurrence.dayOff === 'none') {
    const onDaysOff = coming.filter(({ on }) => !calendar.isWorkingDay(on));
    if (onDaysOff.length > 0) {
      sentences.push(
        `${plural(onDaysOff.length, 'date')} in the coming year ${onDaysOff.length === 1 ? 'lands' : 'land'} on a day off: ${firstFew(onDaysOff.map(({ on }) => describe(on, calendar, today)))}.`,
      );
    }
  }
  return sentences;
}

function firstFew(dates: readonly string[]): string {
  const rest = dates.length - NAMED_DATES;
  return rest > 0 ? `${dates.slice(0, NAMED_DATES).join(', ')} and ${rest} more` : joinAnd(dates);
}

function describe(day: CivilDay, calendar: WorkingCalendar, today: CivilDay): string {
  const holiday = calendar.holidayName(day);
  return holiday ? `${sayDay(day, today)} (${holiday})` : sayDay(day, today);
}

function fourWeekRemarks({ recurrence }: PlannedSchedule): string[] {
  const [rule] = recurrence.rules;
  if (recurrence.rules.length !== 1 || rule?.kind !== 'weeks' || rule.every !== 4 || rule.on.length !== 1) return [];
  return ['Every four weeks is 13 times a year; once a month would be 12.'];
}
