import { dayOfIso } from '../civil-date/iso-date.ts';
import { latestDays, sayNoticePeriod } from '../notice/visit-terms.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import type { MonthsRule, Rule, WeeksRule, YearsRule } from '../recurrence/rule.ts';
import { ordinal, plural, sayDay } from '../wording/date-words.ts';
import type { Outlook } from './outlook.ts';
import { type DatedOccurrence, isDated, type OmittedOccurrence, planDays } from './plan.ts';
import { listDates, type Remark, type RemarkContext, remark } from './remark.ts';
import { remarksOnWho } from './remarks-on-who.ts';
import type { PlannedSchedule } from './schedule-plan.ts';

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
    ...remarksOnWho(dated, context),
    ...twiceADay(dated, context),
    ...missingDays(schedule),
    ...moved(dated, outlook, context),
    ...omitted(coming.filter((occurrence) => !isDated(occurrence)) as OmittedOccurrence[], context),
    ...onDaysOff(schedule, dated, context),
    ...everyFourWeeks(schedule),
  ];
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
/** Within so many days most changes show: two years of dates, twice, take longer than a keystroke should. */
const SOON = 56;

/** A change that changes no date, time or person in the next two years is likely not what was meant. */
function noChange(schedule: PlannedSchedule, { before, calendar, today }: RemarkContext): Remark[] {
  if (!before) return [];
  if (JSON.stringify(schedule) === JSON.stringify(before)) return [];
  const plan = (one: PlannedSchedule, days: number) => JSON.stringify(planDays(one, calendar, today, today + days));
  const differs = (days: number) => plan(schedule, days) !== plan(before, days);
  if (differs(SOON) || differs(TWO_YEARS)) return [];
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
  const tooLate = ({ appears, on }: DatedOccurrence) => {
    const [latest] = latestDays(on, notice, calendar);
    return latest !== undefined && appears > latest.on;
  };
  const short = dated.filter(tooLate).map(({ on }) => on);
  if (short.length === 0) return [];
  const period = sayNoticePeriod(notice.terms.period);
  const text = `A visit of the type ${notice.terms.type} is announced ${period}: ${plural(short.length, 'date')} ${short.length === 1 ? 'appears' : 'appear'} too late for that, ${listDates(short, context)}.`;
  return [remark('notice too short', text, short)];
}

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
