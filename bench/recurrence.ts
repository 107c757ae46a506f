import {
  dayOfIso,
  isoOfDay,
  makeCalendar,
  nextOccurrence,
  occurrenceSeries,
  occurrencesBetween,
  outlook,
  type PlannedSchedule,
  planBetween,
  readPhrase,
  recurrenceProblems,
  WEEKDAYS_ONLY,
} from '../src/core/index.ts';
import { hostileRules } from './hostile-rules.ts';
import { best, line } from './measure.ts';
import { type Reference, rrulePackage, rruleRust, rruleTemporal } from './references.ts';
import { workload } from './workload.ts';

/** 2,000 rules as an office has them: a year, ten years, and the next date, beside three other engines in the same run. */

const rules = workload(2000, '2024-01-01');
const old = workload(2000, '1990-01-01');
const FROM = dayOfIso('2026-11-24');

/** As people say them: read, asked back and refused. */
const PHRASES = [
  'every Monday at 9am',
  'weekly, on Mondays',
  'every 2 weeks on Tue and Thu',
  'mon wed fri',
  '1st and 15th, or the working day before',
  'last working day of every quarter',
  '3 working days before month end',
  'first working day on or after the 15th',
  'a month and 7 days after each quarter’s end',
  'Friday before the 25th, not in Aug',
  'yearly on 15 June',
  'quarterly',
  'every second Tuesday until 3/4/2027',
  'monthly on Fridays',
  'every 10 working days after completion',
  'every Friday until Easter',
  'every month except July and August on the 1st',
  '7th, if a bank holiday the working day after',
  'every weekday except bank holidays from 4 January until 18 December 2027',
  'every wendesday',
  'evry tuesday',
  'as needed',
  'every 4 hours',
  '25th, or the Friday before if it falls on a weekend',
] as const;

const sumDays = (days: readonly number[]) => days.reduce((sum, day) => sum + day, 0);
const prepared = rules.map(({ ours }) => occurrenceSeries(ours, WEEKDAYS_ONLY));

async function references(of: typeof rules): Promise<Reference[]> {
  return [rrulePackage(of), await rruleTemporal(of), rruleRust(of)];
}

const compared = await references(rules);
for (const [name, days, runs] of [
  ['a year', 364, 3],
  ['ten years', 3652, 1],
] as const) {
  const to = FROM + days;
  const [from, until] = [isoOfDay(FROM), isoOfDay(to)];
  const inner = best(days > 999 ? 20 : 80, () =>
    prepared.reduce((count, series) => count + series.between(FROM, to).length, 0),
  );
  const sum = prepared.reduce((all, series) => all + sumDays(series.between(FROM, to)), 0);
  const iso = best(days > 999 ? 20 : 80, () =>
    rules.reduce((count, { ours }) => count + occurrencesBetween(ours, from, until).length, 0),
  );
  console.log(`\n${name}: 2,000 rules, ${inner.result.toLocaleString('en-GB')} occurrences`);
  const each = (milliseconds: number) => `${((milliseconds * 1e6) / inner.result).toFixed(1)} ns each`;
  line('core, civil days', inner.milliseconds, each(inner.milliseconds));
  line('core, ISO strings at the front door', iso.milliseconds, each(iso.milliseconds));
  for (const reference of compared) {
    const theirs = best(runs, () => reference.between(FROM, to), { warmUps: runs > 1 ? 1 : 0 });
    if (theirs.result.count !== inner.result || theirs.result.sum !== sum)
      throw new Error(`${reference.name} does not agree: ${theirs.result.count} occurrences, ours ${inner.result}.`);
    line(reference.name, theirs.milliseconds, ratios(theirs.milliseconds, inner.milliseconds, iso.milliseconds, each));
  }
}

console.log('\nthe next date after 24 November 2026, of 2,000 rules that began in 1990 and 1991');
const oldSeries = old.map(({ ours }) => occurrenceSeries(ours, WEEKDAYS_ONLY));
const perRule = (milliseconds: number) => `${((milliseconds * 1e3) / old.length).toFixed(3)} µs a rule`;
const after = isoOfDay(FROM);
const innerNext = best(200, () => oldSeries.reduce((sum, series) => sum + (series.next(FROM) ?? 0), 0));
const isoNext = best(200, () =>
  old.reduce((found, { ours }) => found + (nextOccurrence(ours, after) === null ? 0 : 1), 0),
);
line('core, civil days', innerNext.milliseconds, perRule(innerNext.milliseconds));
line('core, ISO strings at the front door', isoNext.milliseconds, perRule(isoNext.milliseconds));
console.log(`  median of a nextOccurrence at the front door: ${medianNext().toFixed(3)} µs`);
for (const reference of await references(old)) {
  const theirs = best(1, () => reference.next(FROM), { warmUps: 0 });
  if (theirs.result !== innerNext.result) throw new Error(`${reference.name} does not agree on the next dates.`);
  line(
    reference.name,
    theirs.milliseconds,
    ratios(theirs.milliseconds, innerNext.milliseconds, isoNext.milliseconds, perRule),
  );
}

console.log('\nthe plan of a year of 5,000 schedules: working calendar, moves, offsets, reminders, exceptions');
const calendar = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: [
    '2026-12-25',
    '2026-12-28',
    '2027-01-01',
    '2027-03-26',
    '2027-03-29',
    '2027-05-03',
    '2027-05-31',
    '2027-08-30',
  ],
});
const schedules: PlannedSchedule[] = workload(5000, '2024-01-01').map(({ ours }, i) => ({
  recurrence: { ...ours, dayOff: i % 3 === 0 ? 'following' : 'preceding' },
  timing: {
    appears: { amount: -3, unit: 'workingDay' },
    starts: { amount: -1, unit: 'day' },
    due: { amount: 1, unit: 'workingDay' },
    startTime: '08:00',
    dueTime: null,
    reminders: i % 4 === 0 ? [{ offset: { amount: -1, unit: 'workingDay' }, time: '09:00' }] : [],
    zone: null,
  },
  exceptions:
    i % 5 === 0
      ? [
          { kind: 'add', date: '2027-02-10' },
          { kind: 'skip', date: '2027-01-04' },
          { kind: 'move', date: '2027-03-01', to: '2027-03-03' },
        ]
      : [],
}));
const to = isoOfDay(FROM + 364);
const plan = best(20, () => schedules.reduce((count, one) => count + planBetween(one, calendar, after, to).length, 0));
line(
  'planBetween, ISO strings',
  plan.milliseconds,
  `${plan.result.toLocaleString('en-GB')} occurrences, ${((plan.milliseconds * 1e6) / plan.result).toFixed(0)} ns each`,
);
const one = schedules[700] as PlannedSchedule;
line(
  'outlook of one schedule (a keystroke on the bench)',
  best(200, () => outlook(one, calendar, FROM, 30).timesAYear).milliseconds,
  '',
);

console.log('\nphrases, and rules that are looked for in vain');
const reading = PHRASES.map((phrase) => timeOf(() => readPhrase(phrase, { start: after, today: after }), 50));
console.log(
  `  ${PHRASES.length} phrases read: median ${median(reading).toFixed(2)} ms, worst ${Math.max(...reading).toFixed(2)} ms`,
);
const looking = hostileRules(10_000).map((rule) => timeOf(() => recurrenceProblems(rule, calendar), 1));
console.log(
  `  10,000 hostile rules looked through: median ${median(looking).toFixed(2)} ms, worst ${Math.max(...looking).toFixed(0)} ms, over 20 ms: ${looking.filter((time) => time > 20).length}`,
);

/** Milliseconds of one, the mean of several. */
function timeOf(work: () => unknown, times: number): number {
  const from = performance.now();
  for (let i = 0; i < times; i++) work();
  return (performance.now() - from) / times;
}

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[values.length >> 1] ?? Number.NaN;
}

/** Of each rule asked a hundred times over, so that the clock can tell. */
function medianNext(): number {
  const times = old.map(({ ours }) => {
    const from = performance.now();
    for (let i = 0; i < 100; i++) nextOccurrence(ours, after);
    return (performance.now() - from) * 10;
  });
  return times.sort((a, b) => a - b)[old.length / 2] ?? Number.NaN;
}

/** Their time each, and how many times ours it is: of the civil days, and of the ISO strings. */
function ratios(theirs: number, inner: number, iso: number, each: (milliseconds: number) => string): string {
  return `${each(theirs)}, ${(theirs / inner).toFixed(1)}x of civil days, ${(theirs / iso).toFixed(1)}x of ISO strings`;
}
