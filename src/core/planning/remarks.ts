import type { Assigner } from '../assignment/assigner.ts';
import type { Assignment } from '../assignment/assignment.ts';
import type { NoTicket } from '../assignment/availability.ts';
import type { PassedOver } from '../assignment/cover.ts';
import type { Place } from '../assignment/listed.ts';
import { type NameOf, sayWhy } from '../assignment/why-words.ts';
import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import { type CivilDay, mondayOf } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { sayDayHours } from '../people/week-hours.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import type { MonthsRule, Rule, WeeksRule, YearsRule } from '../recurrence/rule.ts';
import { joinAnd, ordinal, plural, sayDay } from '../wording/date-words.ts';
import type { Outlook } from './outlook.ts';
import { type DatedOccurrence, isDated, type OmittedOccurrence, planDays } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';
import { type Offset, offsetDay } from './timing.ts';

/** Something that a careful reader of a plan would remark. */
export interface Remark {
  readonly kind:
    | 'ended'
    | 'nothing'
    | 'no change'
    /** Its one date is the start with which it would come sooner. */
    | 'begins late'
    | 'appears late'
    | 'notice too short'
    | 'nobody assigned'
    | 'nobody there'
    | 'no ticket'
    | 'over capacity'
    | 'not listed'
    | 'twice a day'
    | 'missing day'
    | 'moved'
    | 'skipped'
    | 'closed'
    | 'same day'
    | 'on days off'
    | 'every four weeks';
  /** How many dates, times or months it is about. */
  readonly count: number;
  /** The dates themselves, where it is about dates. */
  readonly dates: readonly CivilDay[];
  /** In plain words, with its figures. */
  readonly text: string;
}

export interface RemarkContext {
  readonly calendar: WorkingCalendar;
  readonly today: CivilDay;
  /** Who does each date, and what people are called; left out where that is not to be remarked on. */
  readonly who?: {
    readonly whose: Assigner;
    readonly nameOf: NameOf;
    /** What else everybody has to do in the weeks that are made, and what a date of this asks of whoever has it. */
    readonly load?: WorkBeside;
  };
  /** Other schedules of the same work for the same person. */
  readonly others?: readonly PlannedSchedule[];
  /** How long before its day people must have been told of the work. */
  readonly notice?: Offset | null;
  /** The schedule as it is saved, when this is a change of it. */
  readonly before?: PlannedSchedule | null;
}

/** Other work by the week, as far as it is made. */
export interface WorkBeside {
  /** Minutes that somebody has in the week of a day without this schedule, and minutes that they can work in it. */
  readonly of: (personId: string, day: CivilDay) => { readonly minutes: number; readonly capacity: number };
  /** The last day whose work is made. */
  readonly madeTo: CivilDay;
  /** Of each date, for whoever has it. */
  readonly minutes: number;
}

/** What a careful reader would remark on the plan, with figures; the most telling first. */
export function remarks(schedule: PlannedSchedule, outlook: Outlook, context: RemarkContext): Remark[] {
  const { coming } = outlook;
  const dated = coming.filter(isDated);
  return [
    ...ended(schedule, outlook, context),
    ...noChange(schedule, context),
    ...beginsLate(schedule, context),
    ...appearsLate(dated, context),
    ...noticeTooShort(dated, context),
    ...nobody(dated, context),
    ...notListed(dated, context),
    ...noTicket(dated, context),
    ...overCapacity(dated, context),
    ...twiceADay(dated, context),
    ...missingDays(schedule),
    ...moved(dated, outlook, context),
    ...omitted(coming.filter((occurrence) => !isDated(occurrence)) as OmittedOccurrence[], context),
    ...onDaysOff(schedule, dated, context),
    ...everyFourWeeks(schedule),
  ];
}

/** How many dates a sentence names before it only counts the rest. */
const NAMED_DATES = 4;

function listDates(days: readonly CivilDay[], { calendar, today }: RemarkContext, { holidays = false } = {}): string {
  const named = days.slice(0, NAMED_DATES).map((day) => {
    const holiday = holidays ? calendar.holidayName(day) : undefined;
    return holiday ? `${sayDay(day, today)} (${holiday})` : sayDay(day, today);
  });
  const rest = days.length - named.length;
  return rest > 0 ? `${named.join(', ')} and ${rest} more` : joinAnd(named);
}

function remark(kind: Remark['kind'], text: string, dates: readonly CivilDay[] = [], count = dates.length): Remark {
  return { kind, count, dates, text };
}

function ended({ recurrence }: PlannedSchedule, { next }: Outlook, { today }: RemarkContext): Remark[] {
  if (next.some(isDated)) return [];
  const { end } = recurrence;
  if (end.kind === 'on' && dayOfIso(end.date) < today) {
    const last = dayOfIso(end.date);
    return [remark('ended', `It has ended: its last day was ${sayDay(last, today)}.`, [last])];
  }
  if (end.kind === 'after')
    return [remark('ended', `It has ended: all ${plural(end.count, 'time')} are in the past.`, [], end.count)];
  return [remark('nothing', 'Nothing will be made: every date is skipped, closed or paused.')];
}

const TWO_YEARS = 730;

/** A change that changes no date, time or person in the next two years is likely not what was meant. */
function noChange(schedule: PlannedSchedule, { before, calendar, today }: RemarkContext): Remark[] {
  if (!before) return [];
  const plan = (planned: PlannedSchedule) => JSON.stringify(planDays(planned, calendar, today, today + TWO_YEARS));
  if (JSON.stringify(schedule) === JSON.stringify(before) || plan(schedule) !== plan(before)) return [];
  return [remark('no change', 'No date changes by this in the next two years.')];
}

/**
 * What comes every so often is counted from its start, so that the first date may be passed over: "every 5 years on 1 June",
 * begun in November, first comes in four and a half years.
 */
function beginsLate({ recurrence, revisions = [] }: PlannedSchedule, { calendar, today }: RemarkContext): Remark[] {
  const start = dayOfIso(recurrence.start);
  const first = occurrenceSeries(recurrence, calendar).next(start - 1);
  if (first === null || first < today || revisions.length > 0) return [];
  const rules = recurrence.rules.map((rule) => (isCounted(rule) ? { ...rule, every: 1 } : rule));
  if (rules.every((rule, i) => rule === recurrence.rules[i])) return [];
  const sooner = occurrenceSeries({ ...recurrence, rules, end: { kind: 'never' } }, calendar).next(
    Math.max(start, today) - 1,
  );
  if (sooner === null || sooner >= first) return [];
  const text = `It first comes on ${sayDay(first, today)}: so often is counted from its start, ${sayDay(start, today)}. Begun on ${sayDay(sooner, today)}, it would come that day.`;
  return [remark('begins late', text, [sooner])];
}

/** Whether a rule leaves out weeks, months or years, counted from the start. */
function isCounted(rule: Rule): rule is WeeksRule | MonthsRule | YearsRule {
  return (rule.kind === 'weeks' || rule.kind === 'months' || rule.kind === 'years') && rule.every > 1;
}

function appearsLate(dated: readonly DatedOccurrence[], context: RemarkContext): Remark[] {
  const late = dated.filter(({ appears, starts }) => appears > starts).map(({ on }) => on);
  if (late.length === 0) return [];
  const when = late.length === dated.length ? '' : ` for ${plural(late.length, 'date')} (${listDates(late, context)})`;
  return [
    remark(
      'appears late',
      `It appears later than it starts${when}: people would see it when they should have begun.`,
      late,
    ),
  ];
}

function noticeTooShort(dated: readonly DatedOccurrence[], context: RemarkContext): Remark[] {
  const { notice, calendar } = context;
  if (!notice) return [];
  const before = { ...notice, amount: -Math.abs(notice.amount) };
  const short = dated.filter(({ appears, on }) => appears > offsetDay(on, before, calendar)).map(({ on }) => on);
  if (short.length === 0) return [];
  const days = plural(Math.abs(notice.amount), notice.unit === 'day' ? 'day' : 'working day');
  const text = `Notice has to be given ${days} before, and ${plural(short.length, 'date')} ${short.length === 1 ? 'appears' : 'appear'} too late for that: ${listDates(short, context)}.`;
  return [remark('notice too short', text, short)];
}

function nobody(dated: readonly DatedOccurrence[], context: RemarkContext): Remark[] {
  const { who, today } = context;
  if (who === undefined) return [];
  const given = dated.map((occurrence) => ({ on: occurrence.on, assignment: who.whose(occurrence) }));
  const free = given.filter(
    ({ assignment }) => assignment.kind === 'nobody' && !isAway(assignment) && unlistedIn(assignment) === null,
  );
  const away = given.filter(({ assignment }) => isAway(assignment));
  return [
    ...(free.length === 0
      ? []
      : [
          nobodyNamed(
            free.map(({ on }) => on),
            dated.length,
            context,
          ),
        ]),
    ...(away.length === 0 ? [] : [nobodyThere(away, who.nameOf, today, context)]),
  ];
}

/** Whether somebody is meant, and none of them can have it. */
function isAway(assignment: Assignment): boolean {
  return assignment.kind === 'anyOf'
    ? assignment.personIds.length === 0
    : assignment.kind === 'nobody' &&
        assignment.why !== null &&
        assignment.why.by !== 'hand' &&
        unlistedIn(assignment) === null;
}

/** Where a date that a list has nobody for stands beside it; null for all others. */
function unlistedIn(assignment: Assignment): Place['kind'] | null {
  if (assignment.kind !== 'nobody' || assignment.why?.by !== 'list') return null;
  return assignment.why.place === 'on it' ? null : assignment.why.place;
}

/** Dates that the list of who has which days says nothing of: beyond its end, and within it. */
function notListed(dated: readonly DatedOccurrence[], context: RemarkContext): Remark[] {
  const { who } = context;
  if (who === undefined) return [];
  const at = (kinds: readonly (Place['kind'] | null)[]) =>
    dated.filter((occurrence) => kinds.includes(unlistedIn(who.whose(occurrence)))).map(({ on }) => on);
  const [beyond, within] = [at(['after']), at(['before', 'between'])];
  const have = (days: readonly CivilDay[]) => `${plural(days.length, 'date')} ${days.length === 1 ? 'has' : 'have'}`;
  return [
    ...(beyond.length === 0
      ? []
      : [
          remark(
            'not listed',
            `The list of who has it ends: ${have(beyond)} nobody after that: ${listDates(beyond, context)}.`,
            beyond,
          ),
        ]),
    ...(within.length === 0
      ? []
      : [
          remark(
            'not listed',
            `Nobody is on the list for ${plural(within.length, 'date')}: ${listDates(within, context)}.`,
            within,
          ),
        ]),
  ];
}

function nobodyNamed(free: readonly CivilDay[], all: number, context: RemarkContext): Remark {
  const text =
    free.length === all
      ? `Nobody is to do it yet: ${plural(free.length, 'date')} in the coming year.`
      : `Nobody is to do it on ${listDates(free, context)}.`;
  return remark('nobody assigned', text, free);
}

function nobodyThere(
  away: readonly { readonly on: CivilDay; readonly assignment: Assignment }[],
  nameOf: NameOf,
  today: CivilDay,
  context: RemarkContext,
): Remark {
  const days = away.map(({ on }) => on);
  // A holiday is said by its name, and is everybody's.
  const first = away.find(({ on }) => context.calendar.holidayName(on) === undefined);
  const why = first ? ` On ${sayDay(first.on, today)}, ${sayWhy(first.assignment, nameOf, today)}.` : '';
  const text = `Nobody who may do it is there on ${plural(days.length, 'date')}: ${listDates(days, context, { holidays: true })}.${why}`;
  return remark('nobody there', text, days);
}

/** So many people without a ticket are told of by name. */
const NAMED_TICKETS = 4;

/**
 * Whoever would have dates but for a ticket that they lack, or that ends before. Of a role or a team those who have never held
 * it are no news: it is for the others of it.
 */
function noTicket(dated: readonly DatedOccurrence[], context: RemarkContext): Remark[] {
  const { who, today } = context;
  if (who === undefined) return [];
  const found = new Map<
    string,
    { readonly id: string; readonly lacked: NoTicket; readonly days: CivilDay[]; gone: number }
  >();
  for (const occurrence of dated) {
    const assignment = who.whose(occurrence);
    for (const { personId, why } of passedOverIn(assignment)) {
      if (why.because !== 'no ticket') continue;
      if (isOfGroup(assignment) && (why.endedOn === null || why.endedOn < today)) continue;
      const key = `${personId} ${why.ticket}`;
      const known = found.get(key) ?? { id: personId, lacked: why, days: [], gone: 0 };
      known.days.push(occurrence.on);
      if (assignment.kind === 'nobody') known.gone++;
      found.set(key, known);
    }
  }
  return [...found.values()].slice(0, NAMED_TICKETS).map(({ id, lacked, days, gone }) => {
    const { ticket, endedOn } = lacked;
    const held =
      endedOn === null
        ? `${who.nameOf(id)} does not hold the ticket “${ticket}”`
        : `${who.nameOf(id)} holds the ticket “${ticket}” ${endedOn < today ? 'no longer' : `until ${sayDay(endedOn, today)}`}`;
    const dates = `${plural(days.length, 'date')}${endedOn === null || endedOn < today ? '' : ' after that'}`;
    const goTo = gone === days.length ? 'nobody' : gone === 0 ? 'others' : `others, ${gone} of them to nobody`;
    return remark(
      'no ticket',
      `${held}: ${dates} ${days.length === 1 ? 'goes' : 'go'} to ${goTo}: ${listDates(days, context)}.`,
      days,
    );
  });
}

/** So many weeks over capacity are told of one by one. */
const NAMED_WEEKS = 3;

/** Weeks in which somebody has more to do with this than they can, as far as all work of the week is made. */
function overCapacity(dated: readonly DatedOccurrence[], { who, today }: RemarkContext): Remark[] {
  if (who?.load === undefined) return [];
  const { whose, nameOf, load } = who;
  const weeks = new Map<string, { readonly personId: string; readonly monday: CivilDay; readonly days: CivilDay[] }>();
  for (const occurrence of dated) {
    const monday = mondayOf(occurrence.due);
    const given = monday + 6 <= load.madeTo ? whose(occurrence) : null;
    const ids = given?.kind === 'one' ? [given.personId] : given?.kind === 'eachOf' ? given.personIds : [];
    for (const personId of ids) {
      const key = `${personId} ${monday}`;
      const known = weeks.get(key) ?? { personId, monday, days: [] };
      known.days.push(occurrence.on);
      weeks.set(key, known);
    }
  }
  return [...weeks.values()]
    .flatMap(({ personId, monday, days }) => {
      const { minutes, capacity } = load.of(personId, monday);
      const all = minutes + days.length * load.minutes;
      if (all <= capacity) return [];
      const text = `${nameOf(personId)} has ${sayHoursOf(all)} of work in the week of ${sayDay(monday, today)} with this, of ${sayHoursOf(capacity)} that there are.`;
      return [remark('over capacity', text, days)];
    })
    .slice(0, NAMED_WEEKS);
}

const sayHoursOf = (minutes: number) => `${sayDayHours(minutes) || '0'} h`;

function passedOverIn(assignment: Assignment): readonly PassedOver[] {
  if (assignment.kind === 'anyOf' || assignment.kind === 'eachOf') return assignment.passedOver;
  return assignment.why === null || assignment.why.by === 'hand' ? [] : assignment.why.passedOver;
}

/** Whether it is for a role or a team, of whom it takes one. */
const isOfGroup = (assignment: Assignment): boolean =>
  assignment.kind === 'anyOf' ||
  assignment.kind === 'eachOf' ||
  assignment.why?.by === 'least to do' ||
  assignment.why?.by === 'each';

function twiceADay(dated: readonly DatedOccurrence[], context: RemarkContext): Remark[] {
  const { others = [], calendar } = context;
  const [first, last] = [dated[0]?.on, dated.at(-1)?.on];
  if (others.length === 0 || first === undefined || last === undefined) return [];
  const taken = new Set(
    others.flatMap((other) => planDays(other, calendar, first, last).filter(isDated)).map(({ on }) => on),
  );
  const shared = dated.filter(({ on }) => taken.has(on)).map(({ on }) => on);
  if (shared.length === 0) return [];
  const text = `The same person has this work more than once on ${plural(shared.length, 'day')} of the coming year: ${listDates(shared, context)}.`;
  return [remark('twice a day', text, shared)];
}

function missingDays({ recurrence }: PlannedSchedule): Remark[] {
  return recurrence.rules.flatMap((rule) => (rule.kind === 'months' || rule.kind === 'years' ? missingOf(rule) : []));
}

const ALL_MONTHS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12];

function missingOf({ kind, on, months: chosen, missing }: MonthsRule | YearsRule): Remark[] {
  const months = chosen.length > 0 ? chosen : ALL_MONTHS;
  return on.flatMap((point) => {
    if (point.kind !== 'date' || point.day < 29) return [];
    const lacking = months.filter((month) => point.day > shortestLength(month)).length;
    if (lacking === 0) return [];
    if (kind === 'years' && point.day === 29) {
      const instead = { last: 'the 28th is taken', next: '1 March is taken', omit: 'there is none' }[missing];
      return [remark('missing day', `29 February comes every four years; in the others ${instead}.`, [], lacking)];
    }
    const instead = {
      last: 'the last day is taken instead',
      next: 'the 1st of the next month is taken instead',
      omit: lacking === 1 ? 'that is left out' : 'those are left out',
    }[missing];
    const text = `The ${ordinal(point.day)} is missing in ${lacking} of ${plural(months.length, 'month')}; ${instead}.`;
    return [remark('missing day', text, [], lacking)];
  });
}

function shortestLength(month: number): number {
  if (month === 2) return 28;
  return [4, 6, 9, 11].includes(month) ? 30 : 31;
}

function moved(dated: readonly DatedOccurrence[], { timesAYear }: Outlook, context: RemarkContext): Remark[] {
  const dates = dated.filter(({ moved: because }) => because === 'day off').map(({ nominal }) => nominal);
  if (dates.length === 0) return [];
  const of = timesAYear > 0 ? ` of the ${timesAYear}` : '';
  const text = `${dates.length}${of} ${dates.length === 1 ? 'is' : 'are'} moved off a day off: ${listDates(dates, context)}.`;
  return [remark('moved', text, dates)];
}

function omitted(coming: readonly OmittedOccurrence[], context: RemarkContext): Remark[] {
  const because = (why: OmittedOccurrence['because']) =>
    coming.filter((one) => one.because === why).map(({ on }) => on);
  const [skipped, closed, merged] = [because('day off'), because('closed'), because('same day as another')];
  const remarked: Remark[] = [];
  if (skipped.length > 0) {
    const one = skipped.length === 1;
    const text = `${plural(skipped.length, 'date')} on ${one ? 'a day' : 'days'} off ${one ? 'is' : 'are'} skipped: ${listDates(skipped, context, { holidays: true })}.`;
    remarked.push(remark('skipped', text, skipped));
  }
  if (closed.length > 0) {
    const text = `${plural(closed.length, 'date')} in the closed season ${closed.length === 1 ? 'is' : 'are'} left out: ${listDates(closed, context)}.`;
    remarked.push(remark('closed', text, closed));
  }
  if (merged.length > 0) {
    const text = `${plural(merged.length, 'date')} would land on the same day as another and ${merged.length === 1 ? 'makes' : 'make'} one task with it.`;
    remarked.push(remark('same day', text, merged));
  }
  return remarked;
}

function onDaysOff(
  { recurrence }: PlannedSchedule,
  dated: readonly DatedOccurrence[],
  context: RemarkContext,
): Remark[] {
  if (recurrence.dayOff !== 'none') return [];
  const dates = dated.filter(({ on }) => !context.calendar.isWorkingDay(on)).map(({ on }) => on);
  if (dates.length === 0) return [];
  const text = `${plural(dates.length, 'date')} in the coming year ${dates.length === 1 ? 'lands' : 'land'} on a day off: ${listDates(dates, context, { holidays: true })}.`;
  return [remark('on days off', text, dates)];
}

function everyFourWeeks({ recurrence }: PlannedSchedule): Remark[] {
  const [rule] = recurrence.rules;
  if (recurrence.rules.length !== 1 || rule?.kind !== 'weeks' || rule.every !== 4 || rule.on.length !== 1) return [];
  return [remark('every four weeks', 'Every four weeks is 13 times a year; once a month would be 12.', [], 13)];
}
