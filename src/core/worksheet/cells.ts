import type { AssignmentRule } from '../assignment/assignment.ts';
import { type NamedPerson, readRule, sayRule } from '../assignment/rule-words.ts';
import { datesBetweenOf } from '../assignment/turn-dates.ts';
import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay, tryMinutesOfTime } from '../civil-date/iso-date.ts';
import { endBefore, pauseFrom, pauseOn, resumeFrom, stretchAt } from '../planning/by-hand.ts';
import type { Pause, PlannedSchedule, Revision } from '../planning/schedule-plan.ts';
import type { Offset, Timing } from '../planning/timing.ts';
import { TooMuchReckoningError } from '../reckoning.ts';
import { canonicalRecurrence } from '../recurrence/canonical.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import type { PhraseHabits } from '../recurrence/phrase/habits.ts';
import type { NamedSeason } from '../recurrence/phrase/named-seasons.ts';
import { type PhraseChoice, problemOfChoice, readPhrase } from '../recurrence/phrase/reader.ts';
import { withTimes } from '../recurrence/phrase/times.ts';
import { writePhrase } from '../recurrence/phrase/writer.ts';
import type { Recurrence } from '../recurrence/rule.ts';
import { readDate, sayDate, sayDay } from '../wording/date-words.ts';
import { type NamedPlan, readPlans, sayPlans } from './plan-cell.ts';

/** What of a schedule can be changed as a text in a cell. */
export interface CellSchedule extends Required<Omit<PlannedSchedule, 'last' | 'deleted'>> {
  readonly assignment: AssignmentRule;
  /** The plans that its client is on, by name; null where it is of no client. */
  readonly plans: readonly NamedPlan[] | null;
}

/** What cells are written and read with. */
export interface CellContext {
  readonly today: CivilDay;
  readonly people: readonly NamedPerson[];
  /** What people may be here, and the teams they may be in. */
  readonly roles: readonly string[];
  readonly teams: readonly string[];
  /** The month in which the financial year begins, 1–12. */
  readonly yearStarts: number;
  /** What is settled of how people speak. */
  readonly habits: PhraseHabits;
  /** Parts of the year that have a name here. */
  readonly seasons: readonly NamedSeason[];
  readonly calendar: WorkingCalendar;
  /** Those that a client can be put on; null while they are not known. */
  readonly plans: readonly NamedPlan[] | null;
}

export type CellReading =
  | { readonly kind: 'read'; readonly schedule: CellSchedule }
  /** What is wrong, and the texts by which it can be said: each thing that it may mean, or what was likely meant. */
  | { readonly kind: 'unread'; readonly message: string; readonly offers: readonly string[] };

interface Cell {
  write(schedule: CellSchedule, context: CellContext): string;
  read(text: string, schedule: CellSchedule, context: CellContext): CellReading;
}

export const CELLS = ['who', 'when', 'appears', 'from', 'due', 'by', 'ends', 'state', 'plan'] as const;
export type CellName = (typeof CELLS)[number];

/** A cell of a schedule as a text; the same text is read back as the same. */
export function writeCell(name: CellName, schedule: CellSchedule, context: CellContext): string {
  return cells[name].write(schedule, context);
}

/** The schedule with one of its cells as a text says, or why it can't be read. What it says already changes nothing. */
export function readCell(name: CellName, text: string, schedule: CellSchedule, context: CellContext): CellReading {
  const typed = text.trim().replace(/\s+/g, ' ');
  return typed === cells[name].write(schedule, context)
    ? { kind: 'read', schedule }
    : cells[name].read(typed, schedule, context);
}

const unread = (message: string, ...offers: readonly (string | null)[]): CellReading => ({
  kind: 'unread',
  message,
  offers: offers.filter((offer) => offer !== null),
});

const who: Cell = {
  write: ({ assignment }, context) => sayRule(assignment, context),
  read(text, schedule, context) {
    const datesBetween = datesBetweenOf(schedule, context.calendar, schedule.assignment);
    const reading = readRule(text, schedule.assignment, { ...context, datesBetween });
    return reading.kind === 'unread'
      ? unread(reading.message, reading.suggestion)
      : { kind: 'read', schedule: { ...schedule, assignment: reading.rule } };
  },
};

/** The rule and timing in force on a day, for reading and for putting something else in their place. */
function inForce(schedule: CellSchedule, today: CivilDay) {
  const date = isoOfDay(today);
  const index = schedule.revisions.filter(({ from }) => from <= date).length;
  const stretch = stretchAt(schedule, index);
  return {
    ...stretch,
    with(change: Partial<Pick<Revision, 'recurrence' | 'timing'>>): CellReading {
      if (index === 0) return { kind: 'read', schedule: { ...schedule, ...change } };
      const revisions = schedule.revisions.map((one, i) => (i === index - 1 ? { ...one, ...change } : one));
      return { kind: 'read', schedule: { ...schedule, revisions } };
    },
  };
}

const endless = (recurrence: Recurrence): Recurrence => ({ ...recurrence, end: { kind: 'never' } });

const when: Cell = {
  write: (schedule, { today, yearStarts }) =>
    writePhrase(endless(inForce(schedule, today).recurrence), { start: 'unsaid', yearStarts }),
  read(text, schedule, { today, yearStarts, habits, seasons, calendar }) {
    const now = inForce(schedule, today);
    const { start, end } = now.recurrence;
    const reading = readPhrase(text, { start, today: isoOfDay(today), yearStarts, habits, seasons });
    if (reading.kind === 'choose') {
      const { message } = problemOfChoice(text, reading, (choice) => nextDates(choice, today, calendar));
      return unread(message, ...reading.choices.map(({ phrase }) => phrase));
    }
    if (reading.kind === 'unread') return unread(reading.problem.message, reading.problem.suggestion);
    const { recurrence, times } = reading;
    // An end that the phrase does not say stays.
    return now.with({
      timing: withTimes(now.timing, times),
      recurrence: recurrence.end.kind === 'never' ? canonicalRecurrence({ ...recurrence, end }) : recurrence,
    });
  },
};

/** Dates told of each thing that a phrase may mean. */
const DATES_TOLD = 3;

function nextDates({ recurrence }: PhraseChoice, today: CivilDay, calendar: WorkingCalendar): string {
  const series = occurrenceSeries(recurrence, calendar);
  const days: CivilDay[] = [];
  try {
    for (let day = series.next(today - 1); day !== null && days.length < DATES_TOLD; day = series.next(day))
      days.push(day);
  } catch (error) {
    // Without a date that is near; when it is chosen it is refused with its reason.
    if (!(error instanceof TooMuchReckoningError)) throw error;
  }
  return days.length === 0 ? '' : ` (${days.map((day) => sayDay(day, today)).join(', ')})`;
}

const ON_THE_DAY = /^(on the day|same day|0( days?)?|)$/i;
const AWAY = /^(\d{1,3}) ?(d|day|days|w|week|weeks|wd|working days?)( before| after| earlier| later)?$/i;
const MOST_DAYS = 366;

/** "2 working days before", "on the day". */
export function sayOffset({ amount, unit }: Offset, word: 'before' | 'after'): string {
  const n = Math.abs(amount);
  if (n === 0) return 'on the day';
  return `${n} ${unit === 'workingDay' ? 'working ' : ''}day${n === 1 ? '' : 's'} ${word}`;
}

/** So many days or working days, of no direction; null where it can't be read. */
export function readOffset(text: string): Offset | null {
  if (ON_THE_DAY.test(text)) return { amount: 0, unit: 'day' };
  const [, digits, word = ''] = AWAY.exec(text) ?? [];
  if (digits === undefined) return null;
  const isWorking = word.toLowerCase().startsWith('wd') || word.toLowerCase().startsWith('working');
  const amount = Number(digits) * (!isWorking && word.toLowerCase().startsWith('w') ? 7 : 1);
  return amount > MOST_DAYS ? null : { amount, unit: isWorking && amount > 0 ? 'workingDay' : 'day' };
}

const appears: Cell = {
  write: (schedule, { today }) => sayOffset(inForce(schedule, today).timing.appears, 'before'),
  read(text, schedule, { today }) {
    const away = / (after|later)$/i.test(text) ? null : readOffset(text);
    if (away === null) return unread('Write it like “2 days before”, “1 working day before” or “on the day”.');
    const now = inForce(schedule, today);
    // Not minus nothing.
    const amount = away.amount === 0 ? 0 : -away.amount;
    return now.with({ timing: { ...now.timing, appears: { ...away, amount } } });
  },
};

const due: Cell = {
  write: (schedule, { today }) => sayOffset(inForce(schedule, today).timing.due, 'after'),
  read(text, schedule, { today }) {
    const away = / (before|earlier)$/i.test(text) ? null : readOffset(text);
    if (away === null) return unread('Write it like “2 days after”, “1 working day after” or “on the day”.');
    const now = inForce(schedule, today);
    return now.with({ timing: { ...now.timing, due: away } });
  },
};

/** A time of day as people type it: "08:00", "8", "830", "8 am", "8:30pm", "noon"; null where it is none. */
export function readTimeOfDay(text: string): string | null {
  const typed = text.trim().toLowerCase();
  if (/^(12 )?noon$/.test(typed)) return '12:00';
  if (/^(12 )?midnight$/.test(typed)) return '00:00';
  const [, hours, minutes = '00', half] = /^(\d{1,2})(?:[:.]?(\d{2}))?(?: ?([ap])\.?m\.?)?$/.exec(typed) ?? [];
  // Twelve hours of a half: 0 and 13 to 23 stand on no such clock.
  if (hours === undefined || (half !== undefined && (Number(hours) < 1 || Number(hours) > 12))) return null;
  const ofDay = half === undefined ? Number(hours) : (Number(hours) % 12) + (half === 'p' ? 12 : 0);
  const time = `${String(ofDay).padStart(2, '0')}:${minutes}`;
  return tryMinutesOfTime(time) === null ? null : time;
}

function timeCell(field: 'startTime' | 'dueTime', none: string): Cell {
  return {
    write: (schedule, { today }) => inForce(schedule, today).timing[field] ?? none,
    read(text, schedule, { today }) {
      const now = inForce(schedule, today);
      const isNone = text === '' || text === '-' || text.toLowerCase() === none;
      const time = isNone ? null : readTimeOfDay(text);
      if (time === null && !isNone) return unread(`Write it like 08:30, or “${none}”.`);
      const timing: Timing = { ...now.timing, [field]: time };
      const { starts, startTime, dueTime } = timing;
      if (
        starts.amount === 0 &&
        timing.due.amount === 0 &&
        startTime !== null &&
        dueTime !== null &&
        startTime > dueTime
      )
        return unread(`It would be due at ${dueTime}, before it starts at ${startTime}.`);
      return now.with({ timing });
    },
  };
}

const TIMES = /^(?:after )?(\d{1,4}) times?$|^(once|twice)$/i;

const ends: Cell = {
  write(schedule, { today }) {
    const { end } = inForce(schedule, today).recurrence;
    if (end.kind === 'never') return 'never';
    return end.kind === 'on' ? sayDate(dayOfIso(end.date)) : `after ${end.count} time${end.count === 1 ? '' : 's'}`;
  },
  read(text, schedule, { today }) {
    const now = inForce(schedule, today);
    const to = (end: Recurrence['end']) => now.with({ recurrence: { ...now.recurrence, end } });
    if (/^(never|no end|-|)$/i.test(text)) return to({ kind: 'never' });
    const [, digits, word] = TIMES.exec(text) ?? [];
    const count = word ? { once: 1, twice: 2 }[word.toLowerCase()] : digits === undefined ? undefined : Number(digits);
    if (count !== undefined) return count < 1 ? unread('At least once.') : to({ kind: 'after', count });
    const day = readDate(text.replace(/^on /i, ''), today);
    return day === null
      ? unread('Write “never”, a last day like “30 Sep 2027”, or “after 12 times”.')
      : to({ kind: 'on', date: isoOfDay(day) });
  },
};

const state: Cell = {
  write(schedule, { today }) {
    const pause = pauseOn(schedule, today);
    if (pause) return sayPause(pause);
    const { end } = inForce(schedule, today).recurrence;
    return end.kind === 'on' && end.date < isoOfDay(today) ? 'ended' : 'running';
  },
  read(text, schedule, context) {
    const { today } = context;
    const now = state.write(schedule, context);
    const resumed = pauseOn(schedule, today) ? { ...schedule, ...resumeFrom(schedule, today) } : schedule;
    if (/^(running|runs|on|resumed?)$/i.test(text)) {
      return now === 'ended' ? unread('It has ended: give it another end first.') : { kind: 'read', schedule: resumed };
    }
    const until = /^paused? (?:until|till|to) (.+)$/i.exec(text)?.[1];
    if (/^paused?$/i.test(text)) return { kind: 'read', schedule: { ...resumed, ...pauseFrom(resumed, today) } };
    if (until !== undefined) {
      const day = readDate(until, today);
      if (day === null || day <= today) return unread('Write it like “paused until 1 Mar 2027”, a day to come.');
      return { kind: 'read', schedule: { ...resumed, ...pauseFrom(resumed, today, day) } };
    }
    if (/^ended?s?$/i.test(text)) return { kind: 'read', schedule: { ...schedule, ...endBefore(schedule, today) } };
    return unread('Write “running”, “paused”, “paused until 1 Mar 2027” or “ended”.');
  },
};

function sayPause({ to }: Pause): string {
  return to === null ? 'paused' : `paused until ${sayDate(dayOfIso(to))}`;
}

/** What its client is on. A plan that is written there too is one that the client is put on; it is no change of the schedule. */
const plan: Cell = {
  write: ({ plans }) => sayPlans(plans),
  read(text, schedule, context) {
    const reading = readPlans(text, schedule.plans, context.plans);
    return reading.kind === 'unread'
      ? unread(reading.message, reading.suggestion)
      : { kind: 'read', schedule: { ...schedule, plans: reading.plans } };
  },
};

const cells: Readonly<Record<CellName, Cell>> = {
  who,
  when,
  appears,
  from: timeCell('startTime', 'any time'),
  due,
  by: timeCell('dueTime', 'end of day'),
  ends,
  state,
  plan,
};
