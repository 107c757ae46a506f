import ICAL from 'ical.js';
import Papa from 'papaparse';
import { type DatedOccurrence, instantOf, isoOfDay, MAIN_PART, type SetTask } from '../../../../core/index.ts';

/** A table as CSV (RFC 4180), with a first line of names. */
export function csvOf(columns: readonly string[], lines: readonly (readonly string[])[]): string {
  return Papa.unparse({ fields: [...columns], data: lines.map((line) => [...line]) });
}

/** The same to be pasted into a spreadsheet: columns by tabs. */
export function pasteOf(columns: readonly string[], lines: readonly (readonly string[])[]): string {
  return Papa.unparse(
    { fields: [...columns], data: lines.map((line) => [...line]) },
    { delimiter: '\t', newline: '\n' },
  );
}

interface CalendarFile {
  readonly title: (task: SetTask, occurrence: DatedOccurrence) => string;
  /** What makes the identifiers of its entries its own. */
  readonly key: string;
  readonly tasks: readonly { readonly occurrence: DatedOccurrence; readonly task: SetTask }[];
  readonly workspaceZone: string;
  /** When it was written, `YYYY-MM-DDTHH:MM` in the workspace's zone. */
  readonly now: string;
}

/** Tasks as an iCalendar file (RFC 5545): one entry each, on its day or between its times. */
export function icsOf({ title, key, tasks, workspaceZone, now }: CalendarFile): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Jolly Rota//Rehearsal//EN');
  const [date = '', time = ''] = now.split('T');
  const stamp = utc(instantOf(date, time, workspaceZone));
  for (const { occurrence, task } of tasks) {
    const { nominal, timing } = occurrence;
    const { starts, due, startTime, dueTime, part } = task;
    const entry = new ICAL.Component('vevent');
    const zone = timing.zone ?? workspaceZone;
    entry.updatePropertyWithValue(
      'uid',
      `${[key, isoOfDay(nominal), part.key].filter((one) => one !== MAIN_PART).join('-')}@jolly-rota.example`,
    );
    entry.updatePropertyWithValue('dtstamp', stamp);
    entry.updatePropertyWithValue('summary', title(task, occurrence));
    if (startTime === null) {
      entry.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(isoOfDay(starts)));
      // The end of a whole day is the day after (section 3.6.1).
      entry.updatePropertyWithValue('dtend', ICAL.Time.fromDateString(isoOfDay(due + 1)));
    } else {
      const end =
        dueTime === null ? instantOf(isoOfDay(due + 1), '00:00', zone) : instantOf(isoOfDay(due), dueTime, zone);
      entry.updatePropertyWithValue('dtstart', utc(instantOf(isoOfDay(starts), startTime, zone)));
      entry.updatePropertyWithValue('dtend', utc(end));
    }
    calendar.addSubcomponent(entry);
  }
  return calendar.toString();
}

/** In UTC, so that a reader needs no definition of the zone. */
function utc(epochMilliseconds: number): ICAL.Time {
  return ICAL.Time.fromJSDate(new Date(epochMilliseconds), true);
}
