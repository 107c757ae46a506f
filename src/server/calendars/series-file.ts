import ICAL from 'ical.js';
import {
  type AssignmentRule,
  civilDay,
  civilTimeAt,
  dayOfIso,
  instantOf,
  isoOfDay,
  type Series,
  type SeriesDate,
  seriesOf,
  type Timing,
  TooMuchReckoningError,
  yearMonthDay,
} from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { keptLines } from '../schedules/index.ts';
import { aroundEvents, type CalendarHead, timed, timedValue } from './calendar-file.ts';

/** Dates that no rule can say are listed for so many years. */
const YEARS_LISTED = 2;

const NAMED = 20;

/** What takes too long to reckon stays out, and is told. */
function orNone(tell: () => Series | null, onLeft: () => void): Series | null {
  try {
    return tell();
  } catch (error) {
    if (!(error instanceof TooMuchReckoningError)) throw error;
    onLeft();
    return null;
  }
}

/** The uid of a schedule as one entry, by which it is known again. */
export const seriesUid = (scheduleId: string): string => `schedule-${scheduleId}@jolly-rota.local`;

/**
 * All schedules that run, each as one recurring entry with its exceptions: for another program, or another workspace. A calendar in
 * pieces, of whole lines, which are as many as there are schedules.
 */
export async function seriesPieces(scope: Scope): Promise<readonly string[]> {
  const lines = [...(await keptLines(scope)).values()].filter(({ state }) => state !== 'ended' && state !== 'problem');
  const calendar = await scope.calendar();
  const { day: today } = scope.now;
  const to = civilDay(yearMonthDay(today).year + YEARS_LISTED, 12, 31);
  const mails = new Map((await scope.find(Person)).flatMap(({ id, name, email }) => [[id, { name, email }] as const]));
  const left: string[] = [];
  const entries = await eachInTurn(lines, ({ row, planned }) => {
    const series =
      planned &&
      orNone(
        () => seriesOf(planned, calendar, today, to),
        () => left.push(row.templateName),
      );
    if (!planned || !series) return null;
    const zone = planned.timing.zone ?? scope.workspace.zone;
    return {
      zone,
      series,
      text: eventsOf(series, {
        uid: seriesUid(row.id),
        title: row.templateName,
        location: [row.assetName, row.clientName].filter(Boolean).join(', '),
        category: row.category,
        estimateMinutes: row.estimateMinutes,
        zone,
        timing: planned.timing,
        person: personOf(row.assignment, mails),
        stamp: row.createdAt,
      }),
    };
  });
  const told = entries.flatMap((entry) => entry ?? []);
  const head: CalendarHead = {
    name: `${scope.workspace.name}, schedules`,
    says:
      left.length === 0
        ? ''
        : `Not in it, since their rules take too long to work out: ${left.slice(0, NAMED).join(', ')}${left.length > NAMED ? ` and ${left.length - NAMED} more` : ''}.`,
    refreshMinutes: null,
  };
  const spans = told.flatMap(({ zone, series }) =>
    series.first.startTime === null
      ? []
      : [{ zone, startTime: series.first.startTime, startsOn: series.first.on, dueOn: isoOfDay(to) }],
  );
  const { begin, end } = aroundEvents(head, spans);
  return [begin, ...told.map(({ text }) => text), end];
}

function personOf(rule: AssignmentRule, people: ReadonlyMap<string, { name: string; email: string | null }>) {
  return rule.kind === 'person' ? (people.get(rule.personId) ?? null) : null;
}

interface Telling {
  readonly uid: string;
  readonly title: string;
  readonly location: string;
  readonly category: string | null;
  readonly estimateMinutes: number;
  readonly zone: string;
  readonly timing: Timing;
  readonly person: { readonly name: string; readonly email: string | null } | null;
  readonly stamp: Date;
}

/** The series, and each occurrence that differs beside it. */
function eventsOf(series: Series, telling: Telling): string {
  const { first, rules, added, takenOut, changed, remark } = series;
  const main = eventOf(first, telling, remark);
  for (const rule of rules)
    main.addPropertyWithValue('rrule', ICAL.Recur.fromString(timedUntil(rule, first, telling.zone)));
  const list = (name: string, dates: readonly string[]) => {
    if (dates.length === 0) return;
    const property = new ICAL.Property(name);
    if (first.startTime === null) property.resetType('date');
    else property.setParameter('tzid', telling.zone);
    property.setValues(dates.map((date) => timedValue(date, first.startTime)));
    main.addProperty(property);
  };
  list('rdate', added);
  list('exdate', takenOut);
  const others = changed.map((one) => {
    const event = eventOf(one, telling, null);
    timed(event, 'recurrence-id', one.nominal, first.startTime, telling.zone);
    return event;
  });
  return [main, ...others].map((event) => `${event}\r\n`).join('');
}

/** With times of day UNTIL is an instant, in universal time (section 3.3.10): that of the last occurrence there may be. */
const timedUntil = (rule: string, { startTime }: SeriesDate, zone: string): string =>
  startTime === null
    ? rule
    : rule.replace(/UNTIL=(\d{4})(\d{2})(\d{2})(?=;|$)/, (_, year: string, month: string, day: string) => {
        const { date, time } = civilTimeAt(instantOf(`${year}-${month}-${day}`, startTime, zone), 'UTC');
        return `UNTIL=${date.replaceAll('-', '')}T${time.replace(':', '')}00Z`;
      });

function eventOf(
  { on, dueOn, startTime, dueTime }: SeriesDate,
  telling: Telling,
  remark: string | null,
): ICAL.Component {
  const event = new ICAL.Component('vevent');
  event.updatePropertyWithValue('uid', telling.uid);
  event.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(telling.stamp, true));
  event.updatePropertyWithValue('summary', telling.title);
  if (telling.location !== '') event.updatePropertyWithValue('location', telling.location);
  if (telling.category !== null) event.updatePropertyWithValue('categories', telling.category);
  if (remark !== null) event.updatePropertyWithValue('comment', remark);
  if (telling.person !== null) {
    const { name, email } = telling.person;
    const attendee = new ICAL.Property('attendee');
    attendee.setParameter('cn', name);
    attendee.setValue(email === null ? 'invalid:nomail' : `mailto:${email}`);
    event.addProperty(attendee);
  }
  timed(event, 'dtstart', on, startTime, telling.zone);
  if (startTime === null) timed(event, 'dtend', isoOfDay(dayOfIso(dueOn) + 1), null, telling.zone);
  else if (dueTime !== null && (dueOn > on || dueTime > startTime)) timed(event, 'dtend', dueOn, dueTime, telling.zone);
  else if (dueOn > on) timed(event, 'dtend', isoOfDay(dayOfIso(dueOn) + 1), '00:00', telling.zone);
  else event.updatePropertyWithValue('duration', ICAL.Duration.fromSeconds(telling.estimateMinutes * 60));
  for (const alarm of alarmsOf(telling.timing)) event.addSubcomponent(alarm);
  return event;
}

/** Reminders as alarms, told from the start; those that are told in working days differ from date to date, and stay out. */
function alarmsOf({ reminders, startTime }: Timing): ICAL.Component[] {
  const minutesOf = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
  return reminders.flatMap(({ offset, time }) => {
    if (offset.unit === 'workingDay' && offset.amount !== 0) return [];
    const minutes = offset.amount * 24 * 60 + minutesOf(time) - (startTime === null ? 0 : minutesOf(startTime));
    const alarm = new ICAL.Component('valarm');
    alarm.updatePropertyWithValue('action', 'DISPLAY');
    alarm.updatePropertyWithValue('description', 'Reminder');
    alarm.updatePropertyWithValue('trigger', ICAL.Duration.fromSeconds(minutes * 60));
    return [alarm];
  });
}
