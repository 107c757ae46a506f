import { dayOfIso, type IsoDate } from '../civil-date/iso-date.ts';
import { canonicalRecurrence } from '../recurrence/canonical.ts';
import type { Recurrence } from '../recurrence/rule.ts';
import { sayDate } from '../wording/date-words.ts';
import { type CellContext, type CellName, type CellSchedule, readCell, writeCell } from '../worksheet/cells.ts';
import { type RowValues, textOfValue } from './row.ts';

/** The cells of a line that are read as those of the worksheet are, in the order in which each needs the ones before it. */
const CELLS_OF_LINE = ['when', 'appears', 'due', 'who'] as const satisfies readonly CellName[];

/** What is wrong with a line, by the field that says it; null where it is about the line as a whole. */
export interface LineProblem {
  readonly key: string | null;
  readonly message: string;
  /** Texts by which it can be said instead. */
  readonly offers?: readonly string[];
}

export type ScheduleLine =
  | { readonly schedule: CellSchedule }
  | { readonly problems: readonly [LineProblem, ...LineProblem[]] };

/**
 * The schedule that a line of a file says: its phrase read as on the bench, who does it as on the worksheet, with the first and
 * the last day that stand beside it. What the line leaves out stays as it is in `base`.
 */
export function readScheduleLine(values: RowValues, base: CellSchedule, context: CellContext): ScheduleLine {
  const said = (key: string) => textOfValue(values, key);
  const problems: LineProblem[] = [];
  const [from, until] = [said('from'), said('until')];
  let schedule = from === '' ? base : startingOn(base, from);
  for (const key of CELLS_OF_LINE) {
    const text = said(key);
    if (text === '') continue;
    const reading = readCell(key, text, schedule, context);
    if (reading.kind === 'read') schedule = reading.schedule;
    else problems.push({ key, message: reading.message, offers: reading.offers });
  }
  if (until !== '') {
    if (until < schedule.recurrence.start)
      problems.push({
        key: 'until',
        message: `Its last day lies before its first, ${sayIso(schedule.recurrence.start)}`,
      });
    else schedule = endingOn(schedule, until);
  }
  const [first, ...others] = problems;
  return first ? { problems: [first, ...others] } : { schedule };
}

const sayIso = (date: IsoDate): string => sayDate(dayOfIso(date));

/** What was changed from a day on begins as it did. */
const startingOn = (schedule: CellSchedule, start: IsoDate): CellSchedule =>
  schedule.revisions.length > 0
    ? schedule
    : { ...schedule, recurrence: canonicalRecurrence({ ...schedule.recurrence, start }) };

/** What holds last ends on that day; a number of dates after which it would have ended goes. */
function endingOn(schedule: CellSchedule, date: IsoDate): CellSchedule {
  const ending = (recurrence: Recurrence) => canonicalRecurrence({ ...recurrence, end: { kind: 'on', date } });
  const last = schedule.revisions.at(-1);
  if (!last) return { ...schedule, recurrence: ending(schedule.recurrence) };
  return {
    ...schedule,
    revisions: [...schedule.revisions.slice(0, -1), { ...last, recurrence: ending(last.recurrence) }],
  };
}

/** A schedule as the cells of such a line, by the keys of its fields: read again they are the same. */
export function writeScheduleLine(schedule: CellSchedule, context: CellContext): Record<string, string> {
  const { recurrence, revisions } = schedule;
  const end = (revisions.at(-1)?.recurrence ?? recurrence).end;
  return {
    ...Object.fromEntries(CELLS_OF_LINE.map((key) => [key, writeCell(key, schedule, context)])),
    from: recurrence.start,
    until: end.kind === 'on' ? end.date : '',
  };
}
